"""Corrections, the difference, terms and tests, against values worked out by hand."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.special import betainc, ndtri

from milkwort.core.brief.brief import Brief
from milkwort.core.brief.worth import CeilingRule, Conversion, Offer
from milkwort.core.errors import BadValueError
from milkwort.core.learn.by_now import elapsed_of, share_of_month
from milkwort.core.learn.corrections import Segment, corrections_of, price_slope, shift_by_reach
from milkwort.core.learn.difference import exchanged
from milkwort.core.learn.learned import judged_of, learned_of, overall_factors
from milkwort.core.learn.narrowed import narrowed_offer, narrowing_of
from milkwort.core.learn.seen import ResultRows, seen_by
from milkwort.core.learn.terms import TermRows, advise_terms
from milkwort.core.learn.three_levels import learnt_of_counts, learnt_of_shifts
from milkwort.core.learn.worth_testing import worth_of_knowing, worth_testing
from milkwort.core.market.keyword_table import blank_table
from milkwort.core.plan.run import PlanResult, run_plan
from milkwort.core.words.lexicon import shipped_lexicon
from milkwort.core.words.match_types import MATCHES

SIGMA = (np.log(2.4) - np.log(0.8)) / (2 * ndtri(0.75))
MU = np.log(0.8) + ndtri(0.75) * SIGMA
TEXTS = ("sash window repair", "sash cord replacement", "window painting")
FIRST, LAST = date(2027, 4, 1), date(2027, 4, 30)


def a_plan(match: str = "exact", season: tuple[float, ...] | None = None) -> PlanResult:
    n = len(TEXTS)
    table = blank_table(TEXTS)
    columns = dict(vars(table)) | {
        "volume_low": np.array([3000.0, 900.0, 500.0]),
        "volume_high": np.array([3000.0, 900.0, 500.0]),
        "cpc_low": np.full(n, 0.8), "cpc_high": np.full(n, 2.4),
        "intent": np.zeros(n, dtype=np.int64), "group": np.array([0, 0, 1]),
        "campaign": np.zeros(n, dtype=np.int64),
        "match": np.full(n, MATCHES.index(match), dtype=np.int64),
    }  # fmt: skip
    brief = Brief(
        name="Try", currency="GBP", monthly_spend=400.0, season=season,
        offer=Offer(340.0, 0.55, Conversion(0.02, 0.03, 0.045), 1.2),
        ceiling=CeilingRule("profit_share", 0.3),
    )  # fmt: skip
    return run_plan(brief, type(table)(**columns))


def rows_like(plan: PlanResult, *, scale: float = 1.0, price: float = 1.0) -> ResultRows:
    """A month in which just what was planned came, or so many times as much."""
    n, e = len(plan.table), plan.expected
    elapsed = elapsed_of(plan, FIRST, LAST).factor * scale
    wide = np.full(n, FIRST.toordinal()), np.full(n, LAST.toordinal())
    return ResultRows(
        np.arange(n), *wide, e.impressions * elapsed, e.clicks * elapsed,
        e.spend * elapsed * price, e.customers * elapsed, plan.demand.searches * elapsed,
        np.zeros(n), np.full(n, np.nan), np.full(n, np.nan),
    )  # fmt: skip


def test_click_rates_are_shrunk_by_plan_group_and_keyword():
    found = learnt_of_counts(np.array([20.0, 5, 1]), np.array([30.0, 4, 0]), np.array([0, 0, 1]),
                             0.15, 0.10, 0.20)  # fmt: skip
    assert found.factor == pytest.approx([1.28570, 1.03368, 0.998743], rel=1e-5)


@given(st.floats(0.01, 50), st.integers(1, 5000), st.floats(0.1, 1.5))
def test_no_factor_passes_what_was_seen_itself(expected, came, spread):
    """However little was expected: evidence is shrunk towards the plan, never past itself."""
    found = learnt_of_counts(np.array([expected]), np.array([float(came)]), np.array([-1]),
                             0.1, 0.1, spread)  # fmt: skip
    ratio = came / expected
    assert min(ratio, 1.0) * 0.8 <= found.factor[0] <= max(ratio, 1.0) * 1.2


def test_where_next_to_nothing_was_expected_what_came_is_believed_and_no_more():
    found = learnt_of_counts(np.array([0.1]), np.array([20.0]), np.array([-1]), 0.1, 0.15, 0.9)
    assert 100 < found.factor[0] < 200


def test_customers_weigh_as_much_as_the_forecast_where_they_are_as_many():
    plan = a_plan()
    seen = seen_by(rows_like(plan), 3, LAST.toordinal() + 60, plan.brief.assumed)
    judged = judged_of(plan, seen)
    sold = float(judged.results.counted_customers.sum())
    left = narrowing_of(judged)
    assert left == pytest.approx((judged.weight / (judged.weight + sold)) ** 0.5)
    offer = narrowed_offer(plan.brief.offer, left)
    rate = plan.brief.offer.conversion
    assert np.log(offer.conversion.high / rate.likely) == pytest.approx(
        left * np.log(rate.high / rate.likely)
    )
    assert narrowed_offer(plan.brief.offer, 1.0) == plan.brief.offer


def test_what_cannot_be_seen_takes_its_plans_and_groups_shift():
    found = learnt_of_counts(np.array([20.0, 0.0, 0.0]), np.array([30.0, 0, 0]),
                             np.array([0, 0, -1]), 0.15, 0.10, 0.20)  # fmt: skip
    assert found.shift[1] == pytest.approx(found.plan + found.group[0])
    assert found.shift[2] == pytest.approx(found.plan)
    nothing = learnt_of_counts(np.zeros(2), np.zeros(2), np.array([-1, -1]), 0.1, 0.1, 0.1)
    assert nothing.factor.tolist() == [1.0, 1.0]
    none = learnt_of_shifts(np.zeros(2), np.full(2, np.inf), np.array([0, -1]), 0.1, 0.1, 0.1)
    assert none.factor.tolist() == [1.0, 1.0]


@pytest.mark.parametrize("spreads", [(0.0, 0.1), (0.1, 0.0)])
def test_a_spread_of_nothing_is_refused(spreads):
    with pytest.raises(BadValueError, match="spread"):
        learnt_of_counts(np.ones(1), np.ones(1), np.array([-1]), *spreads, 0.2)


@given(st.floats(0.01, 1e4), st.floats(0, 3))
def test_a_factor_lies_between_what_was_planned_and_what_came(due: float, times: float):
    came = due * times
    found = learnt_of_counts(np.array([due]), np.array([came]), np.array([-1]), 0.1, 0.1, 0.2)
    low, high = sorted((1.0, came / due))
    assert low - 1e-9 <= found.factor[0] <= max(high, 1.0) * (1 + 1e-3)


def test_how_much_of_a_market_s_shift_shows_in_the_price():
    k = price_slope(np.array([0.8, 1.5, 2.4]), MU, SIGMA)
    assert k == pytest.approx([0.191887, 0.304336, 0.428618], rel=1e-5)
    assert price_slope(np.array([1e-6]), MU, SIGMA) == pytest.approx(0.1)


def test_reach_says_how_far_the_market_has_moved():
    shift, variance = shift_by_reach(
        np.array([90.0]), np.array([200.0]), np.array([1.5]), MU, SIGMA
    )
    assert shift == pytest.approx([0.181641], rel=1e-5)
    assert variance == pytest.approx([0.00522715], rel=1e-5)
    ends = np.array([0.0, 5.0])
    shift, variance = shift_by_reach(ends, ends, np.array([1.5, 1.5]), MU, SIGMA)
    assert np.isinf(variance[0])
    assert np.isfinite(shift).all()


def test_parts_of_a_difference_are_means_over_all_orders():
    planned = [np.array([v]) for v in (300.0, 0.5, 1.0, 0.04, 0.03)]
    actual = [np.array([v]) for v in (360.0, 0.4, 0.9, 0.05, 0.02)]
    parts = [float(part[0]) for part in exchanged(planned, actual)]
    assert parts == pytest.approx([0.028838, -0.034912, -0.016537, 0.035333, -0.063122], abs=1e-6)
    assert sum(parts) == pytest.approx(0.1296 - 0.18)
    with pytest.raises(BadValueError):
        exchanged(planned, actual[:2])


@pytest.mark.parametrize("scale", [1.0, 0.4, 2.0])
def test_customers_and_money_add_up_to_the_cent(scale: float):
    plan = a_plan("phrase")
    rows = rows_like(plan, scale=scale, price=1.2)
    rows = ResultRows(**vars(rows) | {"keyword": np.array([0, 1, -1])})
    found = learned_of(plan, shipped_lexicon(), rows, LAST)
    for difference, last, came in (
        (found.customers, "reported", rows.customers.sum()), (found.spend, "actual",
                                                              rows.cost.sum()),
    ):  # fmt: skip
        sums = difference.sums(last)
        total = sums.pop(last)
        assert total == pytest.approx(came)
        assert sum(sums.values()) == pytest.approx(total)
        assert sums["unplanned"] == pytest.approx(rows.customers[2] if last == "reported"
                                                  else rows.cost[2])  # fmt: skip


def test_a_difference_adds_up_row_by_row_whatever_ran_beside_the_plan():
    plan = a_plan()
    rng = np.random.default_rng(8)
    rows = rows_like(plan, scale=0.7, price=1.3)
    stray = type(rows)(*(np.append(column, column[0]) for column in vars(rows).values()))
    odd = replace(
        stray,
        keyword=np.array([0, 1, 2, -1]),
        customers=stray.customers * rng.uniform(0, 3, 4) + np.array([0, 2.0, 0, 0]),
    )
    found = learned_of(plan, shipped_lexicon(), odd, LAST)
    for what, came in ((found.customers, odd.customers), (found.spend, odd.cost)):
        parts = sum(column for column in what.parts.values())
        late = np.zeros(3) if what is found.spend else what.late
        whole = what.planned + parts + what.unplanned[:3] + late
        assert whole == pytest.approx(what.reported[:3])
        assert what.reported[:3] == pytest.approx(came[:3])
        # a row of no keyword stands beside, once
        assert what.unplanned[3:] == pytest.approx(came[3:])
        assert what.reported[3:] == pytest.approx(came[3:])


def test_clicks_of_what_ran_beside_the_plan_may_still_sell():
    plan = a_plan()
    bid = plan.bid.copy()
    bid[2] = np.nan
    rows = rows_like(plan)
    idle = replace(plan, bid=bid)
    found = learned_of(idle, shipped_lexicon(), rows, LAST).customers
    waiting = rows.clicks[2] - seen_by(rows, 3, LAST.toordinal(), plan.brief.assumed).exposure[2]
    assert waiting > 0
    assert found.late[2] == pytest.approx(-waiting * plan.demand.rate[2])
    assert found.unplanned[2] == pytest.approx(rows.customers[2] - found.late[2])
    assert found.reported[2] == pytest.approx(rows.customers[2])


def test_where_the_platform_doesn_t_say_the_first_three_factors_are_one():
    plan = a_plan()
    rows = rows_like(plan)
    blind = ResultRows(**vars(rows) | {"could_show": np.full(3, np.nan)})
    found = learned_of(plan, shipped_lexicon(), blind, LAST)
    assert list(found.customers.parts) == ["showings", "click_rate", "conversion"]
    assert list(found.spend.parts) == ["showings", "click_rate", "price"]


def test_a_perfect_month_gives_no_correction():
    plan = a_plan("phrase")
    found = learned_of(plan, shipped_lexicon(), rows_like(plan), LAST)
    for learnt in (found.corrections.price, found.corrections.click_rate,
                   found.corrections.searches):  # fmt: skip
        assert learnt.factor == pytest.approx(np.ones(3), abs=1e-6)
    for part in found.spend.parts.values():
        assert part == pytest.approx(np.zeros(3), abs=1e-6)


def test_one_miss_is_not_blamed_twice():
    plan = a_plan()
    twice = learned_of(plan, shipped_lexicon(), rows_like(plan, scale=2.0), LAST).corrections
    assert twice.searches.factor[0] > 1.3
    assert twice.click_rate.factor == pytest.approx(np.ones(3), abs=1e-6)
    assert twice.price.factor == pytest.approx(np.ones(3), abs=1e-6)
    dear = learned_of(plan, shipped_lexicon(), rows_like(plan, price=1.1), LAST).corrections
    assert dear.searches.factor == pytest.approx(np.ones(3), abs=0.02)
    assert dear.price.factor[0] > 1.01


def test_searches_are_not_corrected_where_the_money_ran_out_unseen():
    plan = a_plan()
    rows = rows_like(plan, scale=0.5)
    blind = ResultRows(**vars(rows) | {"could_show": np.full(3, np.nan),
                                       "lost_to_money": np.full(3, 5.0)})  # fmt: skip
    seen = seen_by(blind, 3, LAST.toordinal(), plan.brief.assumed)
    factor = elapsed_of(plan, FIRST, LAST).factor
    found = corrections_of(plan, [Segment(plan.bid, factor, seen)])
    assert not found.searches_known
    assert found.searches.factor.tolist() == [1.0, 1.0, 1.0]


def test_the_same_days_in_two_parts_teach_what_they_teach_as_one():
    plan = a_plan()
    rows = rows_like(plan, scale=1.4, price=1.1)
    whole = seen_by(rows, 3, LAST.toordinal(), plan.brief.assumed)
    factor = elapsed_of(plan, FIRST, LAST).factor
    halves = ResultRows(**vars(rows) | {n: getattr(rows, n) / 2 for n in
                        ("impressions", "clicks", "cost", "customers", "could_show")})  # fmt: skip
    half = seen_by(halves, 3, LAST.toordinal(), plan.brief.assumed)
    one = corrections_of(plan, [Segment(plan.bid, factor, whole)])
    two = corrections_of(plan, [Segment(plan.bid, factor / 2, half)] * 2)
    for name in ("searches", "click_rate", "price"):
        assert getattr(two, name).factor == pytest.approx(getattr(one, name).factor, rel=1e-9)


def test_elapsed_days_hold_their_share_of_the_month_by_season_and_weekday():
    season = tuple(float(i) for i in range(1, 13))
    plan = a_plan(season=season)
    whole = elapsed_of(plan, FIRST, LAST).factor[0]
    assert whole == pytest.approx(4 / 6.5 * 30 / (365 / 12))
    two = elapsed_of(plan, date(2027, 3, 31), date(2027, 4, 1)).factor[0]
    parts = [elapsed_of(plan, day, day).factor[0] for day in (date(2027, 3, 31), FIRST)]
    assert two == pytest.approx(sum(parts))
    saturday, monday = date(2027, 4, 3), date(2027, 4, 5)
    assert share_of_month(plan, saturday, saturday) < share_of_month(plan, monday, monday)
    assert sum(
        share_of_month(plan, date(2027, 4, day), date(2027, 4, day)) for day in range(1, 31)
    ) == pytest.approx(1)
    with pytest.raises(BadValueError):
        elapsed_of(plan, LAST, FIRST)


def test_what_it_is_worth_to_know_a_rate():
    one = (np.array([v]) for v in (1.8, 58.2, 157.08, 5.0, 12.0))
    assert worth_of_knowing(*one) == pytest.approx([14.4728], rel=1e-5)
    other = (np.array([v]) for v in (2.8, 97.2, 157.08, 4.0, 12.0))
    assert worth_of_knowing(*other) == pytest.approx([9.43580], rel=1e-5)
    found = worth_testing(np.array([1.8, 1.8]), np.array([58.2, 58.2]), np.full(2, 157.08),
                          np.full(2, 5.0), np.full(2, 12.0), np.array([50.0, np.inf]))  # fmt: skip
    assert found.pays.tolist() == [True, False]


def terms(*rows: tuple[str, int, float, float, float]) -> TermRows:
    texts, keyword, clicks, cost, customers = zip(*rows, strict=True)
    some = [np.array(column, dtype=np.float64) for column in (clicks, cost, customers)]
    return TermRows(texts, np.array(keyword), some[0] * 20, some[0], some[0], some[1], some[2])


def advised(plan: PlanResult, *rows: tuple[str, int, float, float, float]):
    n = len(plan.table)
    nothing = ResultRows(np.zeros(0, dtype=np.int64), np.zeros(0, dtype=np.int64),
                         np.zeros(0, dtype=np.int64), *(np.zeros(0) for _ in range(8)))  # fmt: skip
    evidence = judged_of(plan, seen_by(nothing, n, 1, plan.brief.assumed)).evidence
    lexicon = shipped_lexicon().extended(places=["Eastmere"], other_places=["Thornholt"],
                                         rivals=["Harrow Finch"])  # fmt: skip
    return advise_terms(plan, lexicon, terms(*rows), evidence)


def test_terms_are_blocked_for_what_they_say_in_the_narrowest_safe_form():
    found = advised(a_plan("phrase"), ("sash window repair jobs", 0, 1, 1.0, 0),
                    ("sash window repair thornholt", 0, 1, 1.0, 0),
                    ("harrow finch sash window repair", 0, 1, 1.0, 0))  # fmt: skip
    assert [one.suggestion for one in found] == ["block_family"] * 3
    assert [one.form for one in found] == [
        ("jobs", "phrase"), ("thornholt", "phrase"), ("harrow", "phrase"),
    ]  # fmt: skip
    assert found[0].ground.startswith("warning word") or found[0].ground.startswith("seeks work")


def test_evidence_blocks_a_text_a_family_together_and_nothing_that_sold_or_is_kept():
    plan = a_plan("phrase")
    found = advised(
        plan, ("sash window repair fast", 0, 200, 400.0, 0), ("window painting", 2, 200, 400.0, 0),
        ("blue sash window repair", 0, 70, 130.0, 0), ("blue window painting", 2, 70, 130.0, 0),
        ("sash window repair gold", 0, 10, 10.0, 2), ("gold window painting", 2, 5, 9.0, 0),
    )  # fmt: skip
    by = dict(zip(["fast", "kept", "blue", "blue2", "sold", "gold"], found, strict=True))
    assert by["fast"].suggestion == "block_text"
    assert by["fast"].form == ("sash window repair fast", "exact")
    assert by["kept"].suggestion == "wait"
    assert {by["blue"].form, by["blue2"].form} == {("blue", "phrase")}
    assert by["sold"].suggestion == "own_keyword"
    assert by["gold"].suggestion == "wait"  # what sold has the word


def test_a_family_is_blocked_from_the_click_on_that_says_so_of_all_its_terms_as_one():
    plan = a_plan("phrase")
    worth, assumed = plan.brief.worth.allowed, plan.brief.assumed
    weight, rate = assumed["term_weight"], 0.03

    def missing(clicks: int) -> float:
        return float(betainc(weight * rate, weight * (1 - rate) + clicks, 2.0 / worth))

    least = next(n for n in range(10, 2000) if missing(n) >= assumed["stop_chance"])
    for clicks, suggestion in ((least, "block_family"), (least - 1, "wait")):
        few = clicks // 3
        many = clicks - few
        found = advised(plan, ("blue sash window repair", 0, few, 2.0 * few, 0),
                        ("sash window repair blue", 0, many, 2.0 * many, 0))  # fmt: skip
        assert [one.suggestion for one in found] == [suggestion] * 2


def test_what_sold_becomes_a_keyword_at_its_price_and_a_tenth_under_its_own_ceiling():
    plan = a_plan("phrase")
    (one,) = advised(plan, ("sash window repair gold", 0, 10, 10.0, 2))
    rate = (20 * 0.03 + 2) / 30
    assert one.rate == pytest.approx(rate)
    assert one.bid == pytest.approx(1.10)
    assert one.group == 0
    (dear,) = advised(plan, ("sash window repair gold", 0, 10, 120.0, 2))
    assert dear.bid is None or dear.bid <= plan.brief.worth.allowed * dear.rate
    (exact,) = advised(a_plan("exact"), ("sash window repair", 0, 10, 10.0, 2))
    assert exact.suggestion == "wait"


def test_a_term_waits_with_the_clicks_it_still_needs():
    (one,) = advised(a_plan("phrase"), ("sash window repair slow", 0, 3, 6.0, 0))
    assert one.suggestion == "wait"
    assert 17 <= one.clicks_needed < 400
    assert advise_terms(a_plan(), shipped_lexicon(), terms(("x", -1, 0, 0, 0)), judged_of(
        a_plan(), seen_by(rows_like(a_plan()), 3, 1, a_plan().brief.assumed)).evidence)[0
    ].missing is None  # fmt: skip


def test_what_only_some_rows_say_is_the_sum_of_those_and_of_none_unknown():
    rows = rows_like(a_plan())
    twice = replace(rows, keyword=np.array([0, 0, 1]), could_show=np.array([50.0, np.nan, np.nan]),
                    lost_to_money=np.array([3.0, 4.0, np.nan]))  # fmt: skip
    found = seen_by(twice, 3, LAST.toordinal(), a_plan().brief.assumed)
    assert found.could_show.tolist() == pytest.approx([50.0, np.nan, np.nan], nan_ok=True)
    assert found.lost_to_money.tolist() == pytest.approx([7.0, np.nan, np.nan], nan_ok=True)


def test_what_is_said_of_the_whole_plan_is_1_as_planned_and_shrunk_where_more_came():
    plan, lexicon, later = a_plan(), shipped_lexicon(), date(2028, 4, 30)
    rows = rows_like(plan)
    as_planned = overall_factors(learned_of(plan, lexicon, rows, later))
    assert as_planned == pytest.approx(dict.fromkeys(as_planned, 1.0), abs=1e-6)
    assert len(as_planned) == 4
    learned = learned_of(plan, lexicon, replace(rows, customers=rows.customers * 2), later)
    weight, due = learned.judged.weight, float(rows.customers.sum())
    assert weight > 0
    assert overall_factors(learned) == pytest.approx(
        as_planned | {"conversion": (weight + 2 * due) / (weight + due)}
    )
