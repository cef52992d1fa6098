"""Corrections, elapsed days and tests worth making, against values worked out by hand."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.errors import BadValueError
from milkwort.core.learn.by_now import elapsed_of, share_of_month
from milkwort.core.learn.corrections import Segment, corrections_of, price_slope, shift_by_reach
from milkwort.core.learn.learned import judged_of, learned_of, overall_factors
from milkwort.core.learn.narrowed import narrowed_offer, narrowing_of
from milkwort.core.learn.seen import ResultRows, seen_by
from milkwort.core.learn.three_levels import learnt_of_counts, learnt_of_shifts
from milkwort.core.learn.worth_testing import worth_of_knowing, worth_testing
from milkwort.core.words.lexicon import shipped_lexicon
from tests.core.learn.plans import FIRST, LAST, MU, SIGMA, a_plan, rows_like


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
