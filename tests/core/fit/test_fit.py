"""The fit, held against an exact solver that is given the problem in its own words."""

import math
from dataclasses import replace
from statistics import NormalDist

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st
from scipy.optimize import Bounds, LinearConstraint, milp

from milkwort.core.brief.worth import CeilingRule
from milkwort.core.plan.run import frontier_of, run_plan
from tests.depth import cases
from tests.samples import brief, calls, offer, random_table, table

NORMAL = NormalDist()


def lattice(top):
    bids = {round(0.05 * 1.06**n, 2) for n in range(400) if 0.05 * 1.06**n < top + 1}
    return {b for b in bids if b < top} | {top}


def choices(low, high, volume, rate, cap, pricing):
    """List (spend, customers) of every bid one keyword may take, by the plain formulas."""
    sigma = max(0.05, math.log(high / low) / (2 * NORMAL.inv_cdf(0.75)))
    mu = math.log(low) + NORMAL.inv_cdf(0.75) * sigma
    limit = min(cap, math.exp(mu + sigma * NORMAL.inv_cdf(0.95)))
    top = math.floor(limit * 100 + 1e-9) / 100
    found = []
    for bid in sorted(lattice(top)) if top >= 0.05 else []:
        z = (math.log(bid) - mu) / sigma
        reach = NORMAL.cdf(z)
        if reach < 0.05 - 1e-9:
            continue
        clicks = volume * reach * 0.06 * (0.35 + 0.65 * reach)
        mean = math.exp(mu + sigma**2 / 2) * NORMAL.cdf(z - sigma) / reach
        cpc = bid if pricing == "pay_bid" else min(bid, mean)
        found.append((clicks * cpc, clicks * rate))
    return found


def exact_best(groups, purse):
    spend = np.array([s for g in groups for s, _ in g])
    goal = np.array([v for g in groups for _, v in g])
    owner = np.repeat(np.arange(len(groups)), [len(g) for g in groups])
    one_each = (owner[None, :] == np.arange(len(groups))[:, None]).astype(float)
    solved = milp(
        -goal,
        integrality=np.ones(len(goal)),
        bounds=Bounds(0, 1),
        constraints=LinearConstraint(
            np.vstack([spend, one_each]), -np.inf, np.r_[purse, np.ones(len(groups))]
        ),
        options={"mip_rel_gap": 1e-7},
    )
    return -solved.fun


@settings(max_examples=cases(25, 150), deadline=None)
@given(
    seed=st.integers(0, 10_000),
    n=st.integers(1, 12),
    share=st.floats(0.02, 0.9),
    pricing=st.sampled_from(["pay_enough", "pay_bid"]),
)
def test_the_fit_brings_what_the_exact_solver_brings(seed, n, share, pricing):
    fitted = held_against_the_solver(seed, n, share, pricing)
    assert fitted.exact


@settings(max_examples=cases(4, 60), deadline=None)
@given(seed=st.integers(0, 10_000), giants=st.integers(1, 3), share=st.floats(0.0005, 0.4))
@example(seed=1, giants=1, share=0.001)
def test_keywords_whose_every_bid_is_a_large_part_of_the_purse_are_settled_as_well(
    seed, giants, share
):
    held_against_the_solver(seed, 60, share, "pay_enough", giants)


def held_against_the_solver(seed, n, share, pricing, giants=0):
    """Return a fit that keeps what it says of itself against the best there is."""
    rng = np.random.default_rng(seed)
    low = np.exp(rng.normal(0, 0.6, n))
    high = low * rng.uniform(1.2, 4, n)
    volume = np.exp(rng.normal(4, 1, n))
    volume[:giants] *= 10 ** rng.uniform(2, 5, giants)
    rate = rng.uniform(0.005, 0.08, n)
    cap = float(rng.uniform(1.0, 6.0))
    # a sale so dear that only the planner's own highest price limits the bids
    rich = brief(
        offer=offer(sale_value=1e6), ceiling=CeilingRule("break_even", max_cpc=cap), pricing=pricing
    )
    groups = [choices(*row, cap, pricing) for row in zip(low, high, volume, rate, strict=True)]
    groups = [g for g in groups if g]
    saturation = sum(max(s for s, _ in g) for g in groups)
    plan = replace(rich, monthly_spend=max(share * saturation, 0.01))
    result = run_plan(plan, table(volume, low, high, rate=rate))
    best = exact_best(groups, plan.monthly_spend) if groups else 0.0
    assert result.totals.spend <= plan.monthly_spend * (1 + 1e-9)
    assert result.value >= best * (1 - 0.002) - 1e-12
    assert result.fit.bound >= best * (1 - 1e-6)
    if result.fit.exact:
        assert result.value >= best * (1 - 1e-6) - 1e-12
    return result.fit


@pytest.mark.parametrize("giants", [0, 3])
def test_of_ten_thousand_keywords_the_gap_is_small_as_well(giants):
    rows = random_table(5, 10_000)
    volume = np.r_[[2e6, 5e6, 1e7][:giants], rows.volume_low[giants:]]
    rows = replace(rows, volume_low=volume, volume_high=volume)
    saturation = run_plan(brief(monthly_spend=1e9), rows).totals.spend
    fitted = run_plan(brief(monthly_spend=0.5 * saturation), rows).fit
    assert fitted.gap <= 0.002


@settings(max_examples=cases(15, 100), deadline=None)
@given(seed=st.integers(0, 10_000), n=st.integers(1, 300), purse=st.floats(0.5, 400))
@example(seed=2002, n=138, purse=0.5)  # thousands of choices, of which two dozen fit
def test_the_gap_is_small_or_the_answer_is_exact(seed, n, purse):
    fitted = run_plan(brief(monthly_spend=purse), random_table(seed, n)).fit
    assert fitted.exact or fitted.gap <= 0.002
    assert fitted.value <= fitted.bound * (1 + 1e-12)


@settings(max_examples=cases(15, 100), deadline=None)
@given(seed=st.integers(0, 10_000), n=st.integers(1, 60), purse=st.floats(0, 300))
def test_more_money_never_brings_less(seed, n, purse):
    rows = random_table(seed, n)
    some, more = (run_plan(brief(monthly_spend=p), rows) for p in (purse, purse * 1.3 + 1))
    assert more.value >= some.value * (1 - 1e-9)
    assert some.totals.spend <= purse + 1e-9


@pytest.mark.parametrize("goal", ["customers", "profit", "clicks", "revenue"])
def test_no_step_costs_more_than_what_it_brings_is_worth(goal):
    plan = brief(goal=goal, monthly_spend=1e6)
    result = run_plan(plan, random_table(3, 40))
    ladder = result.fit.ladder
    clicks = run_plan(replace(plan, goal="clicks"), random_table(3, 40)).fit.ladder
    per_customer = plan.worth.contribution if goal == "profit" else plan.worth.allowed
    if goal == "profit":
        assert (ladder.value >= -1e-9).all()
    elif goal == "customers":
        assert (ladder.spend <= per_customer * ladder.value * (1 + 1e-9)).all()
    assert clicks.spend_so_far[-1] == pytest.approx(
        run_plan(replace(plan, goal="customers"), random_table(3, 40)).fit.ladder.spend_so_far[-1]
    )


def test_money_that_no_step_is_worth_stays_unspent():
    result = run_plan(brief(monthly_spend=1e6), random_table(5, 20))
    assert result.fit.next_return == 0 and result.fit.next_unit == 0
    assert result.fit.unspent == pytest.approx(1e6 - result.totals.spend)
    assert result.fit.exact


def test_the_ladder_falls_and_adds_up():
    ladder = run_plan(brief(), random_table(7, 50)).fit.ladder
    returns = ladder.value / ladder.spend
    assert (np.diff(returns) <= 1e-9).all()
    assert ladder.spend_so_far[-1] == pytest.approx(ladder.spend.sum())
    for owner in np.unique(ladder.owner):
        mine = ladder.owner == owner
        assert ladder.from_steps[mine][1:].tolist() == ladder.to_steps[mine][:-1].tolist()


def test_the_next_unit_is_what_the_bound_gains():
    rows = random_table(11, 80)
    now, richer = (run_plan(brief(monthly_spend=m), rows).fit for m in (60.0, 61.0))
    assert now.next_unit == pytest.approx(richer.bound - now.bound, abs=1e-9)
    assert now.next_return >= now.next_unit > 0


@pytest.mark.parametrize("n", [1, 2, 5, 60, 400])
def test_the_frontier_rises_from_nothing_in_forty_points_or_more(n):
    result = run_plan(brief(monthly_spend=40.0), random_table(13, n))
    curve = frontier_of(result)
    assert len(curve.purse) >= 40 and curve.purse[0] == 0 == curve.value[0]
    assert (np.diff(curve.purse) >= 0).all() and (np.diff(curve.value) >= -1e-12).all()
    assert (curve.spend <= curve.purse + 1e-9).all() and (curve.gap >= 0).all()
    assert np.interp(40.0, curve.purse, curve.value) == pytest.approx(result.value, rel=0.05)


def test_would_bring_is_what_the_goal_gains_from_a_little_keyword():
    base = random_table(17, 200)
    rows = replace(base, call=calls(*(["keep"] * 199), "none"))
    small = replace(rows, volume_low=base.volume_low.copy(), volume_high=base.volume_high.copy())
    small.volume_low[-1] = small.volume_high[-1] = 3.0
    plan = brief(monthly_spend=150.0)
    before = run_plan(plan, small)
    after = run_plan(plan, small.with_calls(np.array([199]), "keep"))
    lam, would = before.fit.next_return, before.not_kept
    surplus = would.customers[-1] - lam * would.spend[-1]
    assert after.fit.bound - before.fit.bound == pytest.approx(surplus, rel=0.02)


def test_locked_bids_run_first_and_the_rest_is_fitted():
    rows = replace(random_table(19, 30), locked_bid=np.r_[2.345, np.full(29, np.nan)])
    result = run_plan(brief(monthly_spend=50.0), rows)
    assert result.bid[0] == 2.34
    assert result.totals.spend <= 50.0 + 1e-9
    assert np.isfinite(result.bid[1:]).any()


def test_locked_bids_above_the_purse_are_paced_and_leave_nothing():
    rows = replace(random_table(19, 3), locked_bid=np.array([4.0, 4.0, np.nan]))
    result = run_plan(brief(monthly_spend=5.0), rows)
    assert result.totals.spend == pytest.approx(5.0)
    assert result.expected.pace < 1 and np.isnan(result.bid[2])


def test_a_locked_bid_of_nothing_does_not_run():
    rows = replace(random_table(19, 3), locked_bid=np.array([0.0, np.nan, np.nan]))
    assert np.isnan(run_plan(brief(), rows).bid[0])


@pytest.mark.parametrize("purse", [0.0, 1.0])
def test_almost_no_money_is_no_trouble(purse):
    result = run_plan(brief(monthly_spend=purse), random_table(23, 50))
    assert result.totals.spend <= purse + 1e-9
