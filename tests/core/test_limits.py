"""The fit under limits, held against an exact solver that is given the same options."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import Bounds, LinearConstraint, milp

from milkwort.core._options import options_of
from milkwort.core.errors import BadValueError
from milkwort.core.limits import Limits, SpendLimit
from milkwort.core.notes import notices_of
from milkwort.core.plan import attention_of, frontier_of, run_plan
from milkwort.core.worth import CeilingRule
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
@settings(max_examples=6, deadline=None)
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


def test_a_least_spend_that_no_step_is_worth_is_said():
    rows = replace(random_table(5, 10), campaign=np.r_[0, np.full(9, 1)])
    limits = Limits(campaigns={0: SpendLimit(90.0, 100.0)})
    result = run_plan(brief(monthly_spend=100.0, limits=limits), rows)
    assert result.fit.unmet == (0,)
    assert "cannot spend as much" in " ".join(notices_of(result))


def test_more_keywords_never_bring_less_and_end_at_the_plan_itself():
    result = run_plan(brief(monthly_spend=80.0), random_table(29, 120))
    curve = attention_of(result)
    counts, values = zip(*curve, strict=True)
    assert list(counts) == sorted(set(counts)) and counts[0] == 1
    assert (np.diff(values) >= -1e-9).all()
    assert curve[-1] == (result.totals.keywords, pytest.approx(result.value))
    best_single = max(
        run_plan(brief(monthly_spend=80.0), random_table(29, 120).at(np.array([i]))).value
        for i in range(120)
    )
    assert values[0] == pytest.approx(best_single)


def test_the_frontier_keeps_to_the_same_limits():
    plan, rows = limited_plan(7, 40, 0.4, LIMITS["all"])
    result = run_plan(plan, rows)
    spend, value = frontier_of(result)
    assert len(spend) >= 40 and spend[0] == value[0] == 0
    assert (np.diff(value) >= -1e-12).all()
    at = int(np.searchsorted(spend, result.fit.spend))
    assert value[at] >= result.value * 0.99


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


@settings(max_examples=15, deadline=None)
@given(seed=st.integers(0, 1000), row=st.integers(0, 79), call=st.sampled_from(["drop", "hold"]))
def test_a_plan_worked_out_from_its_last_state_is_the_plan_worked_out_anew(seed, row, call):
    plan, rows = brief(monthly_spend=40.0), random_table(seed, 80)
    before = run_plan(plan, rows)
    changed = rows.with_calls(np.array([row]), call)
    quick, anew = run_plan(plan, changed, before), run_plan(plan, changed)
    assert quick.fit.steps.tolist() == anew.fit.steps.tolist()
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
