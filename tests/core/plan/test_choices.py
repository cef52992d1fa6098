"""Limits, methods, caps and inverse questions, each held against another way to the answer."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st
from scipy.optimize import Bounds, LinearConstraint, milp

from milkwort.core.assumptions import Assumed
from milkwort.core.brief.brief import Policy
from milkwort.core.brief.limits import Limits, SpendLimit
from milkwort.core.brief.worth import CeilingRule
from milkwort.core.errors import BadValueError
from milkwort.core.fit.options import options_of
from milkwort.core.market.keyword_table import blank_table
from milkwort.core.market.prices import price_at_reach
from milkwort.core.plan.beside import missed, next_bids
from milkwort.core.plan.bid_changes import BidMove, moved_bids
from milkwort.core.plan.curve import curve_of, gaps_said
from milkwort.core.plan.inverse import least_money, money_for_clicks
from milkwort.core.plan.limits_cost import limit_costs
from milkwort.core.plan.methods import at_bids, other_ways
from milkwort.core.plan.one_cap import one_cap
from milkwort.core.plan.run import run_plan
from tests.depth import cases
from tests.samples import brief, random_table

NAN = float("nan")
HANDFUL = st.integers(1, 9)
SEED = st.integers(0, 5000)


def options(result):
    p, n = result.problem, len(result.table)
    return options_of(np.arange(n), p.mu, p.sigma, p.click_weight, p.ceiling, p.pricing, p.assumed)


def cheapest(result, wanted):
    """Return the least spend that brings so many customers, by an exact solver."""
    found = options(result)
    goal = result.problem.value(found.owner, found.clicks, found.spend)
    if not len(goal):
        return None
    each = [((found.owner == i) * 1.0, -np.inf, 1.0) for i in range(len(result.table))]
    # of the goal as a share: the solver's tolerance is a millionth of whatever it is given
    enough = (goal / wanted, 1.0, np.inf) if wanted > 0 else (goal, 0.0, np.inf)
    matrix, low, high = zip(enough, *each, strict=True)
    solved = milp(
        found.spend,
        integrality=np.ones(len(goal)),
        bounds=Bounds(0, 1),
        constraints=LinearConstraint(np.array(matrix), low, high),
        options={"mip_rel_gap": 1e-9},
    )
    return None if solved.x is None else float(found.spend @ np.round(solved.x))


@settings(max_examples=cases(25, 300), deadline=None)
@given(seed=SEED, n=HANDFUL, share=st.floats(0.05, 0.95))
@example(seed=110, n=3, share=0.05348457424044924)
@example(seed=801, n=9, share=0.75)  # half a thousand answers within a thousandth of the best
def test_the_least_money_for_a_goal_is_the_exact_solvers_to_the_cent(seed, n, share):
    result = run_plan(brief(monthly_spend=20.0), random_table(seed, n))
    everything = run_plan(brief(monthly_spend=1e6), random_table(seed, n)).value
    found = least_money(result, share * everything)
    exact = cheapest(result, share * everything)
    assert found.most == pytest.approx(everything)
    if everything == 0:
        assert found.purse == 0
        return
    assert found.purse == pytest.approx(exact, abs=0.011)
    again = run_plan(brief(monthly_spend=found.purse), random_table(seed, n))
    assert again.value >= share * everything * (1 - 1e-8)


def test_a_goal_above_saturation_has_no_purse_and_says_what_there_is():
    result = run_plan(brief(monthly_spend=50.0), random_table(1, 20))
    found = least_money(result, 1e6)
    assert found.purse is None
    assert run_plan(brief(monthly_spend=found.saturation), random_table(1, 20)).value == (
        pytest.approx(found.most)
    )


def test_a_goal_that_is_not_the_plans_may_be_asked_for():
    rows = random_table(2, 30)
    result = run_plan(brief(goal="profit", monthly_spend=80.0), rows)
    asked = least_money(result, 1.0, "customers")
    assert run_plan(brief(monthly_spend=asked.purse), rows).totals.customers >= 1 - 1e-8
    assert run_plan(brief(monthly_spend=asked.purse - 0.01), rows).value < 1


def test_under_limits_the_least_money_keeps_them():
    rows = random_table(3, 25)
    limited = brief(monthly_spend=80.0, limits=Limits(max_keywords=4))
    wanted = 0.8 * run_plan(replace(limited, monthly_spend=1e5), rows).value
    found = least_money(run_plan(limited, rows), wanted)
    again = run_plan(replace(limited, monthly_spend=found.purse), rows)
    assert again.value >= wanted * (1 - 1e-6)
    assert again.totals.keywords <= 4
    assert found.purse >= least_money(run_plan(brief(), rows), wanted).purse - 0.011


@settings(max_examples=cases(25, 300), deadline=None)
@given(seed=SEED, n=HANDFUL, clicks=st.floats(0.1, 8))
def test_money_for_clicks_takes_each_keywords_cheapest_bid(seed, n, clicks):
    result = run_plan(brief(monthly_spend=30.0, limits=Limits(min_clicks=3)), random_table(seed, n))
    found, every = money_for_clicks(result, clicks), options(result)
    sums, few = 0.0, []
    for row in range(n):
        mine = (every.owner == row) & (every.clicks >= clicks)
        if mine.any():
            sums += every.spend[mine].min()
        elif result.may_run[row]:
            few.append(row)
    assert found.spend == pytest.approx(sums)
    assert found.too_few.tolist() == few


@pytest.mark.parametrize(
    ("limits", "name"),
    [
        (Limits(max_keywords=3), "max_keywords"),
        (Limits(min_clicks=4.0), "min_clicks"),
        (Limits(campaigns={0: SpendLimit(0, 10.0)}), "most"),
        (Limits(campaigns={1: SpendLimit(50.0)}), "least"),
        (Limits(scouting=1, scouting_share=0.5), "scouting"),
    ],
)
def test_a_limit_costs_what_the_plan_would_bring_without_it(limits, name):
    rows = random_table(6, 40)
    rows = replace(rows, campaign=np.arange(40) % 2)
    result = run_plan(brief(monthly_spend=60.0, limits=limits), rows)
    (one,) = limit_costs(result)
    free = run_plan(brief(monthly_spend=60.0), rows)
    assert one.limit == name
    assert one.costs == pytest.approx(free.fit.value - result.fit.value, abs=1e-6)
    assert one.costs > 0


def test_the_highest_price_is_a_limit_too_and_a_loose_one_costs_nothing():
    rows = random_table(6, 40)

    def costs(price):
        rule = CeilingRule("break_even", max_cpc=price)
        return [c.costs for c in limit_costs(run_plan(brief(ceiling=rule), rows))]

    assert costs(0.3)[0] > 0
    assert costs(1e6) == [0.0]


def test_no_uniform_bid_brings_more_than_the_one_cap():
    result = run_plan(brief(monthly_spend=25.0), random_table(5, 60))
    found = one_cap(result)
    assert found.brings.totals.spend <= 25.0 + 1e-9
    kept = result.table.kept
    for cap in np.arange(0.05, 6.0, 0.01):
        bids = np.where(kept, cap, NAN)
        assert at_bids(result, Policy("flat", cap), bids).totals.customers <= (
            found.brings.totals.customers + 1e-9
        )


def test_a_cap_fitted_here_goes_over_no_keywords_own_top():
    result = run_plan(brief(monthly_spend=1e5), random_table(5, 60))
    bare, own = one_cap(result), one_cap(result, bare=False)
    top = np.minimum(result.standing.ceiling, price_at_reach(0.95, result.prices))
    assert own.cap <= top.max() + 0.01
    assert own.brings.totals.cost_per_customer < bare.brings.totals.cost_per_customer
    assert one_cap(run_plan(brief(), blank_table([]))) is None
    odd = round(one_cap(result, odd_step=True).cap * 100)
    assert odd % 5


def test_every_way_to_bid_is_shown_at_the_same_purse():
    result = run_plan(brief(monthly_spend=30.0), random_table(8, 50))
    ways = other_ways(result, {"percentile": 0.9}, 1.5)
    named = {way.policy.name: way for way in ways}
    assert named["percentile"].policy.share == 0.9
    assert named["flat"].policy.flat_bid == 1.5
    assert named["fitted"].totals.customers == pytest.approx(result.totals.customers)
    for way in ways:
        assert way.totals.spend <= 30.0 + 1e-9
        assert 0 <= way.reach <= 1
        assert way.totals.keywords + way.not_run == int(result.table.kept.sum())


def test_groups_bid_their_own_way_and_the_rest_is_fitted_around_them():
    rows = replace(random_table(9, 40), group=np.arange(40) % 2)
    plan = brief(monthly_spend=60.0, own_policies={1: Policy("low")})
    mixed, low = run_plan(plan, rows), run_plan(brief(policy=Policy("low")), rows)
    own = rows.group == 1
    assert np.array_equal(mixed.bid[own], low.bid[own], equal_nan=True)
    assert mixed.totals.spend <= 60.0 + 1e-9
    assert mixed.value <= run_plan(brief(monthly_spend=60.0), rows).value + 1e-9
    by_hand = replace(rows, locked_bid=np.where(np.arange(40) == 1, 0.77, NAN))
    assert run_plan(plan, by_hand).bid[1] == pytest.approx(0.77)


def test_a_method_for_all_but_one_fitted_group():
    rows = replace(random_table(9, 40), group=np.arange(40) % 2)
    plan = brief(monthly_spend=200.0, policy=Policy("low"), own_policies={1: Policy()})
    mixed, low = run_plan(plan, rows), run_plan(brief(policy=Policy("low")), rows)
    assert np.array_equal(mixed.bid[::2], low.bid[::2], equal_nan=True)
    assert not np.array_equal(mixed.bid[1::2], low.bid[1::2], equal_nan=True)


MOVES = [
    (BidMove("low"), lambda r: r.prices.low),
    (BidMove("middle"), lambda r: (r.prices.low + r.prices.high) / 2),
    (BidMove("high"), lambda r: r.prices.high),
    (BidMove("percentile", 0.6), lambda r: price_at_reach(0.6, r.prices)),
    (BidMove("times", 1.1), lambda r: r.bid * 1.1),
    (BidMove("lock"), lambda r: r.bid),
    (BidMove("fitted"), lambda r: r.bid),
]


@pytest.mark.parametrize(("move", "to"), MOVES, ids=lambda one: getattr(one, "way", ""))
def test_bids_go_where_they_are_sent_in_whole_steps(move, to):
    result = run_plan(brief(monthly_spend=60.0), random_table(10, 30))
    found = moved_bids(result, np.arange(30), move)
    wanted = np.maximum(np.floor(to(result) / 0.01 + 1e-6) * 0.01, 0.05)
    assert set(np.flatnonzero(np.isfinite(result.bid))) <= set(found.rows)
    assert found.bid == pytest.approx(wanted[found.rows])


def test_a_bid_moves_only_where_it_is_told_to():
    rows, all_of_them = random_table(11, 30), np.arange(30)
    held = replace(rows, locked_bid=np.where(all_of_them < 20, 1.0, NAN))
    result = run_plan(brief(monthly_spend=60.0), held)
    free = run_plan(brief(monthly_spend=60.0), rows)
    capped = moved_bids(result, all_of_them, BidMove("at_most", 0.8))
    assert capped.bid == pytest.approx(0.8)
    assert set(capped.rows) == set(np.flatnonzero(np.nan_to_num(result.bid) > 0.8))
    lower = moved_bids(result, all_of_them, BidMove("suggestion"))
    assert set(lower.rows) >= {row for row in range(20) if free.bid[row] < 1.0}
    assert lower.bid == pytest.approx(free.bid[lower.rows])
    assert np.isnan(moved_bids(result, all_of_them, BidMove("unlock")).bid).all()
    odd = moved_bids(result, np.arange(20), BidMove("odd"))
    assert odd.bid == pytest.approx(1.01)


@pytest.mark.parametrize("bad", [("percentile", 1.0), ("times", 0.0), ("at_most", None), ("up", 1)])
def test_a_move_without_its_figure_is_refused(bad):
    with pytest.raises(BadValueError):
        BidMove(*bad)


def test_the_next_bids_are_those_of_the_lattice_up_to_the_ceiling():
    result = run_plan(brief(monthly_spend=60.0), random_table(12, 30))
    for row in np.flatnonzero(np.isfinite(result.bid)):
        lower, now, higher = next_bids(result, int(row))
        assert now.bid == pytest.approx(result.bid[row])
        assert now.clicks == pytest.approx(result.expected.clicks[row])
        if lower:
            assert lower.bid < now.bid and lower.customers < now.customers
        if higher:
            assert now.bid < higher.bid <= result.standing.ceiling[row] + 1e-9


def test_what_is_missed_and_what_is_shown_are_all_searches():
    paced = run_plan(brief(monthly_spend=10.0, policy=Policy("high")), random_table(13, 30))
    lost = missed(paced)
    runs = np.isfinite(paced.bid)
    shown = np.where(runs, paced.expected.impressions, 0.0)
    searches = np.where(paced.table.kept, paced.demand.searches, 0.0)
    assert lost.for_bid + lost.for_money + shown == pytest.approx(searches)
    assert lost.for_money.sum() > 0


def test_a_gap_that_none_would_see_is_not_said():
    assert gaps_said(np.array([0.0, 0.004, 0.03])).tolist() == [0.0, 0.0, 0.03]


def test_the_curve_bends_between_nothing_and_saturation():
    result = run_plan(brief(monthly_spend=60.0), random_table(14, 80))
    curve = curve_of(result)
    assert 0 < curve.knee < curve.saturation
    most = run_plan(brief(monthly_spend=curve.saturation), random_table(14, 80))
    assert most.value == pytest.approx(curve.frontier.value[-1])
    assert curve_of(result, "clicks").frontier.value[-1] > curve.frontier.value[-1]
    empty = curve_of(run_plan(brief(), blank_table([])))
    assert empty.knee is None and empty.saturation == 0


def test_ceilings_follow_a_platform_that_raises_bids():
    rows = random_table(15, 20)
    plain, raised = (
        run_plan(replace(brief(), assumed=Assumed({"platform_raise": y})), rows) for y in (0.0, 0.5)
    )
    assert raised.standing.ceiling * 1.5 == pytest.approx(plain.standing.ceiling)
