"""The fit under limits, held against an exact solver that is given the same options."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st
from scipy.optimize import Bounds, LinearConstraint, linprog, milp

from milkwort.core.brief.limits import Limits, SpendLimit
from milkwort.core.brief.worth import CeilingRule
from milkwort.core.errors import BadValueError
from milkwort.core.fit.options import options_of
from milkwort.core.plan.notes import notices_of
from milkwort.core.plan.run import attention_of, frontier_of, run_plan
from tests.depth import cases
from tests.samples import brief, offer, random_table

CAPPED = CeilingRule("break_even", max_cpc=3.0)


def exact_best(result, limits, purse):
    """Return the best goal there is, None where the limits cannot be met."""
    p, n = result.problem, len(result.table)
    found = options_of(np.arange(n), p.mu, p.sigma, p.click_weight, p.ceiling, p.pricing, p.assumed)
    enough = found.clicks >= limits.min_clicks
    owner, spend = found.owner[enough], found.spend[enough]
    goal = p.value(owner, found.clicks[enough], spend)
    if not len(goal):
        return None if any(m.least > 0 for m in limits.campaigns.values()) else 0.0
    campaign = p.campaign[owner]
    rows = [(spend, -np.inf, purse)]
    if limits.max_keywords is not None:
        rows.append((np.ones(len(goal)), -np.inf, limits.max_keywords))
    rows += [(spend * (campaign == c), m.least, m.most) for c, m in limits.campaigns.items()]
    if limits.scouting is not None:
        scouts, share = campaign == limits.scouting, limits.scouting_share
        rows += [(spend * scouts, -np.inf, share * purse)]
        rows += [(spend * ~scouts, -np.inf, (1 - share) * purse)]
    each = [((owner == i) * 1.0, -np.inf, 1.0) for i in range(n)]
    matrix, low, high = (np.array(part) for part in zip(*rows, *each, strict=True))
    solved = milp(
        -goal,
        integrality=np.ones(len(goal)),
        bounds=Bounds(0, 1),
        constraints=LinearConstraint(matrix, low, high),
        options={"mip_rel_gap": 1e-6},
    )
    return None if solved.x is None else -solved.fun


def limited_plan(seed, n, share, limits, campaigns=3):
    """Return a plan whose money binds; only the planner's own price limits the bids."""
    rows = random_table(seed, n)
    rows = replace(rows, campaign=np.random.default_rng(seed).integers(0, campaigns, n))
    rich = brief(offer=offer(sale_value=1e6), ceiling=CAPPED, monthly_spend=1e9)
    purse = max(share * run_plan(rich, rows).totals.spend, 0.5)
    return replace(rich, monthly_spend=purse, limits=limits(purse)), rows


LIMITS = {
    "keywords": lambda purse: Limits(max_keywords=4),
    "clicks": lambda purse: Limits(min_clicks=1.0),
    "campaigns": lambda purse: Limits(
        campaigns={0: SpendLimit(0.1 * purse, 0.4 * purse), 1: SpendLimit(0.0, 0.2 * purse)}
    ),
    "scouting": lambda purse: Limits(scouting=2, scouting_share=0.15),
    "all": lambda purse: Limits(
        max_keywords=6, min_clicks=0.5, campaigns={0: SpendLimit(0.0, 0.5 * purse)},
        scouting=2, scouting_share=0.2,
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", LIMITS)
@settings(max_examples=cases(4, 72), deadline=None)
@given(seed=st.integers(0, 10_000), n=st.integers(1, 22), share=st.floats(0.1, 0.8))
def test_each_limit_costs_no_more_than_the_exact_solver_says(kind, seed, n, share):
    plan, rows = limited_plan(seed, n, share, LIMITS[kind])
    result = run_plan(plan, rows)
    best = exact_best(result, plan.limits, plan.monthly_spend)
    if best is None:
        assert result.fit.unmet
        return
    assert result.value >= best * (1 - 0.002) - 1e-12
    assert result.fit.bound >= best * (1 - 1e-6)
    if result.fit.exact:
        assert result.value >= best * (1 - 1e-5) - 1e-12


@pytest.mark.parametrize("kind", LIMITS)
@pytest.mark.parametrize("n", [40, 300])
def test_every_limit_holds_and_the_gap_is_stated(kind, n):
    plan, rows = limited_plan(3, n, 0.4, LIMITS[kind])
    result, limits, purse = run_plan(plan, rows), plan.limits, plan.monthly_spend
    runs = np.isfinite(result.bid)
    spend = result.expected.spend
    assert result.totals.spend <= purse * (1 + 1e-9)
    assert runs.sum() <= (limits.max_keywords or n)
    assert (result.expected.clicks[runs] >= limits.min_clicks * (1 - 1e-9)).all()
    for campaign, limit in limits.campaigns.items():
        in_it = spend[rows.campaign == campaign].sum()
        assert limit.least * (1 - 1e-9) <= in_it <= limit.most * (1 + 1e-9)
    if limits.scouting is not None:
        scouts = spend[rows.campaign == limits.scouting].sum()
        assert scouts <= limits.scouting_share * purse * (1 + 1e-9)
        assert spend.sum() - scouts <= (1 - limits.scouting_share) * purse * (1 + 1e-9)
    assert result.fit.exact or result.fit.gap <= 0.002


def test_hand_set_bids_count_among_the_keywords_that_are_looked_after():
    rows = replace(random_table(19, 30), locked_bid=np.r_[0.5, 0.5, np.full(28, np.nan)])
    result = run_plan(brief(monthly_spend=60.0, limits=Limits(max_keywords=3)), rows)
    assert np.isfinite(result.bid[:2]).all() and np.isfinite(result.bid).sum() == 3


def test_a_hand_set_bid_of_a_single_step_counts_as_well():
    rows = replace(random_table(19, 30), locked_bid=np.r_[0.5, 0.5, np.full(28, np.nan)])
    plan = brief({"bid_step": 0.5}, monthly_spend=60.0, limits=Limits(max_keywords=2))
    result = run_plan(plan, rows)
    assert (result.problem.locked_steps[:2] == 1).all()
    assert np.flatnonzero(np.isfinite(result.bid)).tolist() == [0, 1]


@pytest.mark.parametrize("kind", ["keywords", "campaigns", "all"])
def test_keywords_that_are_looked_at_one_by_one_are_fitted_as_well(kind, monkeypatch):
    plan, rows = limited_plan(3, 18, 0.4, LIMITS[kind])
    together = run_plan(plan, rows)
    monkeypatch.setattr("milkwort.core.fit._reduced._MOST_ALIKE", 0)
    apart = run_plan(plan, rows)
    assert apart.value == pytest.approx(together.value, rel=0.002)
    assert apart.fit.bound >= exact_best(apart, plan.limits, plan.monthly_spend) * (1 - 1e-6)


def test_a_least_spend_that_no_step_is_worth_is_said():
    rows = replace(random_table(5, 10), campaign=np.r_[0, np.full(9, 1)])
    limits = Limits(campaigns={0: SpendLimit(90.0, 100.0)})
    result = run_plan(brief(monthly_spend=100.0, limits=limits), rows)
    (unmet,) = result.fit.unmet
    assert (unmet.limit, unmet.campaign, unmet.wanted) == ("least_spend", 0, 90.0)
    assert unmet.got == pytest.approx(result.expected.spend[0])
    assert "cannot spend as much" in " ".join(notices_of(result))


def test_more_keywords_never_bring_less_and_end_at_the_plan_itself():
    result = run_plan(brief(monthly_spend=80.0), random_table(29, 120))
    curve = attention_of(result)
    counts, values = zip(*((p.keywords, p.value) for p in curve), strict=True)
    assert list(counts) == sorted(set(counts)) and counts[0] == 1
    assert (np.diff(values) >= -1e-9).all()
    assert counts[-1] == result.totals.keywords
    assert values[-1] == pytest.approx(result.value)
    best_single = max(
        run_plan(brief(monthly_spend=80.0), random_table(29, 120).at(np.array([i]))).value
        for i in range(120)
    )
    assert values[0] == pytest.approx(best_single)


def test_the_frontier_keeps_to_the_same_limits():
    plan, rows = limited_plan(7, 40, 0.4, LIMITS["all"])
    result = run_plan(plan, rows)
    curve = frontier_of(result)
    assert len(curve.purse) >= 40 and curve.purse[0] == curve.value[0] == 0
    assert (np.diff(curve.value) >= -1e-12).all()
    assert (curve.spend <= curve.purse * (1 + 1e-9)).all()
    at = int(np.searchsorted(curve.purse, plan.monthly_spend))
    assert curve.value[at] >= result.value * (1 - 1e-9)


@pytest.mark.parametrize("kind", ["keywords", "campaigns", "all"])
def test_the_curves_state_how_far_they_may_lie_under_the_best(kind):
    plan, rows = limited_plan(11, 14, 0.5, LIMITS[kind])
    result = run_plan(plan, rows)
    curve = frontier_of(result)
    for at in range(0, len(curve.purse), 5):
        purse = float(curve.purse[at])
        best = exact_best(result, plan.limits, purse)
        if best is not None:
            bound = curve.value[at] / (1 - curve.gap[at]) if curve.gap[at] < 1 else np.inf
            assert curve.value[at] <= best * (1 + 1e-6) + 1e-9
            assert bound >= best * (1 - 1e-6)
    for point in attention_of(result):
        limits = replace(plan.limits, max_keywords=point.keywords)
        best = exact_best(result, limits, plan.monthly_spend)
        assert best is not None  # where a least spend can't be kept with so few, there is no point
        assert best * (1 - 1e-6) <= point.value / (1 - point.gap)
        assert point.value <= best * (1 + 1e-6)


@settings(max_examples=cases(4, 200), deadline=None)
@given(seed=st.integers(0, 10_000), n=st.integers(2, 12), least=st.floats(0.02, 0.3))
def test_every_point_keeps_a_least_spend_that_can_be_kept(seed, n, least):
    """However near an answer is wanted: one that lets go of a limit is none."""
    plan, rows = limited_plan(
        seed, n, 0.5, lambda purse: Limits(campaigns={0: SpendLimit(least * purse, 0.5 * purse)})
    )
    result = run_plan(plan, rows)
    for point in attention_of(result) if not result.fit.unmet else []:
        limits = replace(plan.limits, max_keywords=point.keywords)
        best = exact_best(result, limits, plan.monthly_spend)
        assert best is not None and point.value <= best * (1 + 1e-6)
    curve = frontier_of(result)
    for purse, value in zip(curve.purse[::6], curve.value[::6], strict=True):
        best = exact_best(result, plan.limits, float(purse))
        assert best is None or value <= best * (1 + 1e-6) + 1e-9


HALF_A_PER_CENT = 0.005
"""So near is near enough for one of many points; said here by itself, not by the program."""


@pytest.mark.parametrize("kind", ["keywords", "campaigns"])
def test_of_many_keywords_the_curves_lie_near_their_bounds(kind):
    result = run_plan(*limited_plan(3, 200, 0.5, LIMITS[kind]))
    assert np.median(frontier_of(result).gap) <= HALF_A_PER_CENT
    assert max(point.gap for point in attention_of(result)) <= HALF_A_PER_CENT


def relaxed_best(result, limits, purse):
    """Return the best goal were every choice divisible, by a solver of its own."""
    p, n = result.problem, len(result.table)
    found = options_of(np.arange(n), p.mu, p.sigma, p.click_weight, p.ceiling, p.pricing, p.assumed)
    enough = found.clicks >= limits.min_clicks
    owner, spend = found.owner[enough], found.spend[enough]
    goal = p.value(owner, found.clicks[enough], spend)
    campaign = p.campaign[owner]
    rows = [(spend, purse)]
    if limits.max_keywords is not None:
        rows.append((np.ones(len(goal)), limits.max_keywords))
    rows += [(spend * (campaign == c), m.most) for c, m in limits.campaigns.items()]
    rows += [(-spend * (campaign == c), -m.least) for c, m in limits.campaigns.items()]
    if limits.scouting is not None:
        scouts, share = campaign == limits.scouting, limits.scouting_share
        rows += [(spend * scouts, share * purse), (spend * ~scouts, (1 - share) * purse)]
    rows += [((owner == i) * 1.0, 1.0) for i in range(n)]
    matrix, high = (np.array(part) for part in zip(*rows, strict=True))
    solved = linprog(-goal, A_ub=matrix, b_ub=high, bounds=(0, None))
    return -solved.fun if solved.success else None


NEXT = {
    "keywords": LIMITS["keywords"],
    "clicks": LIMITS["clicks"],
    "scouting": LIMITS["scouting"],
    "most of a campaign": lambda purse: Limits(campaigns={0: SpendLimit(0.0, 0.3 * purse)}),
    "keywords and scouting": lambda purse: Limits(
        max_keywords=5, scouting=2, scouting_share=0.25, campaigns={1: SpendLimit(0.0, 0.4 * purse)}
    ),
}


@pytest.mark.parametrize("kind", NEXT)
@settings(max_examples=cases(4, 96), deadline=None)
@given(seed=st.integers(0, 10_000), n=st.integers(4, 30), share=st.floats(0.1, 1.3))
@example(seed=3, n=4, share=0.125)  # all that the money can pay for is taken
def test_the_next_unit_is_the_relaxation_with_one_more_less_the_relaxation(kind, seed, n, share):
    plan, rows = limited_plan(seed, n, share, NEXT[kind])
    result, purse = run_plan(plan, rows), plan.monthly_spend
    wanted = relaxed_best(result, plan.limits, purse + 1) - relaxed_best(result, plan.limits, purse)
    assert result.fit.next_unit == pytest.approx(wanted, rel=1e-5, abs=1e-7 * result.value)
    if wanted > 1e-6 * result.value:
        assert result.fit.next_return > 0


@settings(max_examples=cases(25, 720), deadline=None)
@given(
    seed=st.integers(0, 10_000), n=st.integers(1, 25), share=st.floats(0.001, 1.2),
    most=st.integers(1, 12), locked=st.integers(0, 4), with_campaigns=st.booleans(),
    scouting=st.sampled_from([None, 0.05, 0.3]), clicks=st.sampled_from([0.0, 2.0]),
)  # fmt: skip
def test_no_limit_is_ever_broken_unless_bids_set_by_hand_alone_break_it(
    seed, n, share, most, locked, with_campaigns, scouting, clicks
):
    def limits(purse):
        return Limits(
            max_keywords=most, min_clicks=clicks,
            campaigns={0: SpendLimit(0.2 * purse, 0.5 * purse), 1: SpendLimit(0.0, 0.1 * purse)}
            if with_campaigns else {},
            scouting=None if scouting is None else 2, scouting_share=scouting or 0.0,
        )  # fmt: skip

    plan, rows = limited_plan(seed, n, share, limits)
    bids = np.full(n, np.nan)
    bids[: min(locked, n)] = 0.6
    rows = replace(rows, locked_bid=bids)
    result, purse = run_plan(plan, rows), plan.monthly_spend
    fit, own = result.fit, plan.limits
    by_hand = result.problem.locked_steps > 0
    spend = np.where(by_hand, result.problem.locked_spend, 0.0)
    running = fit.steps > 0
    asked = result.problem
    at = np.flatnonzero(running & ~by_hand)
    from milkwort.core.market.prices import at_bid

    figures = at_bid(
        fit.steps[at] * plan.assumed["bid_step"], asked.mu[at], asked.sigma[at],
        result.demand.searches[at], asked.click_weight[at], plan.pricing, plan.assumed,
    )  # fmt: skip
    spend[at] = figures.spend
    assert (figures.clicks >= clicks * (1 - 1e-9)).all()
    said = {(u.limit, u.campaign): u for u in fit.unmet}
    assert running[by_hand].all()
    assert running.sum() <= max(most, by_hand.sum())
    assert (("max_keywords", -1) in said) == (by_hand.sum() > most)
    assert spend.sum() <= max(purse, spend[by_hand].sum()) * (1 + 1e-9)
    for number, limit in own.campaigns.items():
        inside = rows.campaign == number
        alone = spend[inside & by_hand].sum()
        assert spend[inside].sum() <= max(limit.most, alone) * (1 + 1e-9)
        assert (("most_spend", number) in said) == (alone > limit.most * (1 + 1e-9))
        assert (("least_spend", number) in said) == (spend[inside].sum() < limit.least * (1 - 1e-9))
    if scouting is not None:
        scouts = rows.campaign == 2
        alone = spend[scouts & by_hand].sum()
        assert spend[scouts].sum() <= max(scouting * purse, alone) * (1 + 1e-9)
        assert (("scouting_share", 2) in said) == (alone > scouting * purse * (1 + 1e-9) + 1e-9)
    for unmet in fit.unmet:
        assert unmet.wanted != unmet.got


def test_twelve_keywords_at_most_four_never_run_seven():
    for seed in range(cases(6, 40)):
        plan, rows = limited_plan(seed, 12, 0.02, LIMITS["keywords"])
        assert np.isfinite(run_plan(plan, rows).bid).sum() <= 4


@pytest.mark.parametrize(
    ("make", "where"),
    [
        (lambda: Limits(max_keywords=0), "max_keywords"),
        (lambda: Limits(min_clicks=float("nan")), "min_clicks"),
        (lambda: Limits(scouting_share=1.5), "scouting_share"),
        (lambda: SpendLimit(5.0, 4.0), "most spend"),
        (lambda: SpendLimit(-1.0), "least spend"),
    ],
)
def test_an_impossible_limit_is_refused_by_its_name(make, where):
    with pytest.raises(BadValueError, match=where):
        make()


@pytest.mark.parametrize("alike", [False, True])
@settings(max_examples=cases(8, 100), deadline=None)
@given(seed=st.integers(0, 1000), row=st.integers(0, 79), call=st.sampled_from(["drop", "hold"]))
def test_a_plan_worked_out_from_its_last_state_is_the_plan_worked_out_anew(seed, row, call, alike):
    plan, rows = brief(monthly_spend=40.0), random_table(seed, 80)
    if alike:  # every step of a keyword's returns what those of its twins do
        twin = np.arange(80) % 7
        figures = ("volume_low", "volume_high", "cpc_low", "cpc_high")
        rows = replace(rows, **{name: getattr(rows, name)[twin] for name in figures})
    before = run_plan(plan, rows)
    changed = rows.with_calls(np.array([row]), call)
    quick, anew = run_plan(plan, changed, before), run_plan(plan, changed)
    assert quick.fit.steps.tolist() == anew.fit.steps.tolist()
    assert quick.fit.ladder.owner.tolist() == anew.fit.ladder.owner.tolist()
    assert quick.fit.bound == anew.fit.bound
    back = run_plan(plan, rows, quick)
    assert back.fit.steps.tolist() == before.fit.steps.tolist()
    assert back.fit.ladder.owner.tolist() == before.fit.ladder.owner.tolist()


@pytest.mark.parametrize("changes", [{"click_rate_top": 0.05}, {"intent_compare": 0.5}])
def test_an_assumption_changed_gives_the_plan_worked_out_anew(changes):
    rows = random_table(3, 80)
    before = run_plan(brief(monthly_spend=40.0), rows)
    plan = brief(changes, monthly_spend=40.0)
    quick, anew = run_plan(plan, rows, before), run_plan(plan, rows)
    assert quick.fit.steps.tolist() == anew.fit.steps.tolist()
    assert quick.fit.ladder.owner.tolist() == anew.fit.ladder.owner.tolist()
