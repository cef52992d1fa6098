"""The month that runs: its pace, what moved, its campaigns' money, and what is hardly shown."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest

from milkwort.core.errors import BadValueError
from milkwort.core.learn.by_now import share_of_month
from milkwort.core.learn.came import came_between
from milkwort.core.learn.campaign_days import campaign_days
from milkwort.core.learn.moved import moved_since
from milkwort.core.learn.pace import pace_of
from milkwort.core.learn.seen import ResultRows
from milkwort.core.learn.urgency import Urgency, Waits, urgency_of
from milkwort.core.plan.budgets import daily_budgets
from tests.core.learn.plans import FIRST, LAST, a_plan, rows_like

NAN = np.nan


def by_day(costs: dict[date, float], *, clicks: float = 1.0) -> ResultRows:
    """One row a day of the first keyword."""
    n = len(costs)
    days = np.array([day.toordinal() for day in costs])
    flat = np.ones(n)
    return ResultRows(np.zeros(n, dtype=np.int64), days, days, flat * 10, flat * clicks,
                      np.array(list(costs.values())), flat * 0, flat * NAN, flat * NAN,
                      flat * NAN, flat * NAN)  # fmt: skip


def test_money_spent_at_the_plans_own_pace_lasts_the_month_exactly():
    plan, seen = a_plan(), date(2027, 4, 12)
    spent = 400 * share_of_month(plan, FIRST, seen)
    pace = pace_of(plan, spent, 400.0, FIRST, seen, LAST)
    assert pace.at_end == pytest.approx(400) and pace.by_now == pytest.approx(spent)
    assert pace.left == pytest.approx(0, abs=1e-9)
    assert pace_of(plan, spent * 0.75, 400.0, FIRST, seen, LAST).left == pytest.approx(100)


def test_money_that_goes_twice_as_fast_is_out_on_the_day_that_holds_half_the_month():
    plan, seen = a_plan(), date(2027, 4, 10)
    spent = 2 * 400 * share_of_month(plan, FIRST, seen)
    out = pace_of(plan, spent, 400.0, FIRST, seen, LAST).out
    assert out is not None
    assert share_of_month(plan, FIRST, out) >= 0.5
    assert share_of_month(plan, FIRST, out.replace(day=out.day - 1)) < 0.5


def test_a_plan_that_begins_within_a_month_paces_over_its_own_days():
    plan, first, seen = a_plan(), date(2027, 4, 11), date(2027, 4, 15)
    mine = share_of_month(plan, first, LAST)
    spent = 2 * 200 * share_of_month(plan, first, seen) / mine
    pace = pace_of(plan, spent, 200.0, first, seen, LAST)
    assert pace.at_end == pytest.approx(400) and pace.out is not None
    assert share_of_month(plan, first, pace.out) / mine >= 0.5
    assert share_of_month(plan, first, pace.out.replace(day=pace.out.day - 1)) / mine < 0.5


def test_a_pace_needs_three_days_of_one_month_in_order():
    for days in ((LAST, FIRST, LAST), (FIRST, LAST, date(2027, 5, 2))):
        with pytest.raises(BadValueError, match="three of one month"):
            pace_of(a_plan(), 1.0, 400.0, *days)


def test_whole_weeks_are_compared_with_as_many_before():
    costs = {date(2027, 4, day): (2.0 if day <= 15 else 3.0) for day in range(1, 31)}
    moved = moved_since(by_day(costs))
    assert moved is not None
    assert (moved.days, moved.until) == (14, LAST)
    assert moved.now["cost"] == pytest.approx(14 * 3.0)
    assert moved.before["cost"] == pytest.approx(13 * 2.0 + 3.0)
    assert moved.now["cpc"] == pytest.approx(3.0)


def test_under_two_weeks_nothing_is_compared():
    assert moved_since(by_day({date(2027, 4, day): 1.0 for day in range(1, 14)})) is None


def test_a_window_is_spread_evenly_over_its_days():
    rows = rows_like(a_plan())
    worth = np.full(3, 20.0)
    whole = came_between(rows, worth, 1.0, FIRST, LAST)
    third = came_between(rows, worth, 1.0, FIRST, date(2027, 4, 10))
    assert third.clicks == pytest.approx(whole.clicks / 3)
    assert whole.value == pytest.approx(whole.customers * 20)
    assert whole.profit == pytest.approx(whole.value - whole.spend)
    stray = replace(rows, keyword=np.full(3, -1))
    assert came_between(stray, worth, 1.0, FIRST, LAST).value == pytest.approx(whole.customers)


def test_days_on_which_a_campaigns_money_was_gone_are_counted():
    plan = a_plan()
    daily = float(daily_budgets(plan).daily[0])
    costs = {date(2027, 4, day): daily * (1.0 if day <= 4 else 0.5) for day in range(1, 11)}
    found = campaign_days(plan, by_day(costs))
    assert (found.days[0], found.cut[0]) == (10, 4)
    assert found.spend[0] == pytest.approx(7 * daily)
    assert np.isnan(found.lost[0])  # nobody says what could have been shown


def test_the_most_urgent_thing_comes_first():
    everything = Waits(money_out=True, refused=1, stops=2, reviews=1, terms=9)
    order = [everything]
    for name, none in (("money_out", False), ("refused", 0), ("stops", 0), ("reviews", 0),
                       ("terms", 0)):  # fmt: skip
        order.append(replace(order[-1], **{name: none}))
    assert [urgency_of(one) for one in order] == list(Urgency)
    with pytest.raises(BadValueError):
        urgency_of(Waits(stops=-1))
