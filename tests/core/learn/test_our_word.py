"""A range that was given is held against what came, late customers left out."""

from datetime import date, timedelta

import numpy as np
import pytest

from milkwort.core.errors import BadValueError
from milkwort.core.learn.came import Came
from milkwort.core.learn.our_word import PROMISED, month_so_far, score_of, word_of
from milkwort.core.plan.calendar import months_from
from milkwort.core.plan.draws import draw_month
from milkwort.core.plan.year import YearAhead
from tests.core.learn.plans import FIRST, LAST, a_plan

SETTLED = LAST + timedelta(400)


def drawn(count: int):
    plan = a_plan()
    month = YearAhead(plan, months_from(FIRST, LAST)).month(0)
    return plan, draw_month(month, count, seed=9)


def came(draws, at: int) -> Came:
    f = {
        name: float(draws.figures[name][at]) for name in ("clicks", "spend", "customers", "profit")
    }
    return Came(f["clicks"], f["spend"], f["customers"], f["profit"] + f["spend"])


def test_shares_below_and_at_add_up_whatever_is_at_an_edge():
    values = np.array([1.0, 2.0, 2.0, 2.0, 5.0, np.inf])
    score = score_of(values, 2.0)
    assert (score.below, score.at) == (1 / 6, 3 / 6)
    assert score.placed(0.5) == pytest.approx(1 / 6 + 3 / 12)
    nobody = score_of(values, None)
    assert (nobody.below, nobody.at) == (5 / 6, 1 / 6)
    with pytest.raises(BadValueError):
        score_of(np.zeros(0), 1.0)


def test_months_drawn_by_the_plan_itself_are_held_8_times_of_10():
    plan, truths = drawn(120)
    held = dict.fromkeys(PROMISED, 0)
    for at in range(120):
        for word in word_of(plan, FIRST, LAST, SETTLED, came(truths, at), count=300):
            held[word.figure] += word.held
    # 120 trials at 0.8: a deviation of 0.037; four of them
    assert all(0.65 < n / 120 < 0.95 for n in held.values()), held


def test_a_customer_that_is_late_is_not_held_against_the_range():
    plan, truths = drawn(1)
    one = came(truths, 0)
    early = {w.figure: w for w in word_of(plan, FIRST, LAST, LAST, one, count=400)}
    late = {w.figure: w for w in word_of(plan, FIRST, LAST, SETTLED, one, count=400)}
    assert early["spend"].given == late["spend"].given
    assert early["customers"].place > late["customers"].place


def test_nothing_like_the_range_does_not_hold():
    plan, _ = drawn(1)
    words = word_of(plan, FIRST, LAST, SETTLED, Came(9e5, 9e5, 0.0, 0.0), count=200)
    by = {word.figure: word for word in words}
    assert not by["clicks"].held and not by["spend"].held and not by["profit"].held
    assert by["cost_per_customer"].actual is None
    assert by["clicks"].fewer == 1 and by["clicks"].more == 0


def test_days_of_two_months_are_no_month():
    plan, _ = drawn(1)
    with pytest.raises(BadValueError, match="a day of April 2027"):
        word_of(plan, FIRST, date(2027, 5, 1), SETTLED, Came(0, 0, 0, 0))


def test_a_range_so_far_grows_with_the_days_and_ends_with_the_months():
    plan, _ = drawn(1)
    so_far = month_so_far(plan, FIRST, LAST, [7, 15, 30, 99], count=200)
    assert [day.day for day in so_far.days] == [7, 15, 30, 30]
    middles = [one.middle for one in so_far.ranges["spend"]]
    assert middles == sorted(middles) and middles[2] == middles[3]
    month = YearAhead(plan, months_from(FIRST, LAST)).month(0)
    whole = draw_month(month, 200, seed=1)
    assert so_far.ranges["spend"][-1] == whole.ranges["spend"]


def test_what_nobody_waits_for_any_more_is_given_up():
    plan, _ = drawn(1)
    assert word_of(plan, FIRST, LAST, SETTLED, Came(0, 0, 0, 0), still_wanted=lambda: False) is None
    assert month_so_far(plan, FIRST, LAST, [9], still_wanted=lambda: False) is None
