"""The year by its months and the months by their days: sums add up, the best spread is best."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from milkwort.core.assumptions import Assumed
from milkwort.core.brief.brief import Policy
from milkwort.core.brief.campaigns import OwnTerms
from milkwort.core.brief.showing import Showing, shown_share, week_of
from milkwort.core.errors import BadValueError
from milkwort.core.plan.budgets import daily_budgets
from milkwort.core.plan.calendar import months_from
from milkwort.core.plan.cents import in_cents
from milkwort.core.plan.days import month_days
from milkwort.core.plan.draws import draw_month
from milkwort.core.plan.run import run_plan
from milkwort.core.plan.spread import best_spread
from milkwort.core.plan.year import YearAhead
from tests.depth import cases
from tests.samples import brief, random_table

SEASON = tuple(float(m) for m in (2, 1, 1, 1, 1, 1, 1, 1, 3, 4, 4, 4))
ROWS = random_table(31, 60)


def plan(**changes):
    return run_plan(brief(**({"monthly_spend": 60.0, "season": SEASON} | changes)), ROWS)


def year(result=None, first=date(2027, 1, 1), last=None, **how):
    return YearAhead(result or plan(), months_from(first, last), **how)


def test_a_first_month_in_part_and_a_last_day_shorten_the_year():
    months = months_from(date(2027, 9, 18), date(2028, 2, 10))
    assert months.number.tolist() == [9, 10, 11, 12, 1, 2, 3, 4, 5, 6, 7, 8]
    assert months.days.tolist() == [13, 31, 30, 31, 31, 10, 0, 0, 0, 0, 0, 0]
    assert months.dates(0)[0] == date(2027, 9, 18)
    assert months.dates(5)[-1] == date(2028, 2, 10)
    sums = year(first=date(2027, 9, 18), last=date(2028, 2, 10)).sums()
    assert sums.purse[:2] == pytest.approx([60 * 13 / 30, 60])
    assert sums.spend[6:].sum() == sums.customers[6:].sum() == 0
    with pytest.raises(BadValueError, match="last day"):
        months_from(date(2027, 9, 18), date(2027, 9, 17))


@settings(max_examples=cases(60, 720), deadline=None)
@given(parts=st.lists(st.floats(0, 1e6), min_size=1, max_size=40))
def test_cents_add_up_whatever_the_parts(parts):
    found = in_cents(np.array(parts))
    assert round(found.sum(), 2) == round(sum(parts), 2) or sum(parts) < 0.005
    assert (np.abs(found - parts) <= 0.011).all()
    total = in_cents(np.array(parts), 720.01)
    assert round(total.sum(), 2) == (720.01 if sum(parts) > 0 else 0)


def test_the_best_spread_beats_every_other_for_the_same_money():
    result = plan()
    flat, season = year(result, refit=True), year(result, refit=True, purse="season")
    money = best_spread(flat, 720.0)
    assert round(money.sum(), 2) == 720.0
    best = year(result, refit=True, purse="own", own=money.tolist()).sums()
    for other in (flat.sums(), season.sums()):
        assert best.customers.sum() >= other.customers.sum() * (1 - 1e-3)
    assert best.customers.sum() > flat.sums().customers.sum()
    # equal return at the margin: moving money between two months gains nothing
    for give, take in ((0, 9), (9, 0), (3, 11)):
        moved = money.copy()
        moved[give], moved[take] = max(moved[give] - 8, 0), moved[take] + min(moved[give], 8)
        other = year(result, refit=True, purse="own", own=moved.tolist()).sums()
        assert other.customers.sum() <= best.customers.sum() * (1 + 1e-4)


def test_money_that_no_month_can_use_is_spread_all_the_same():
    money = best_spread(year(plan(), refit=True), 1e6)
    assert round(money.sum(), 2) == 1e6
    assert (money > 0).all()


def test_a_month_says_what_its_market_could_take():
    sums = year(plan(monthly_spend=1e5), refit=True).sums()
    assert sums.spend == pytest.approx(sums.market, rel=1e-6)
    by_method = year(plan(monthly_spend=1e5, policy=Policy("low"))).sums()
    assert by_method.spend == pytest.approx(by_method.market)


def test_a_month_is_a_plan_whose_days_share_out_its_purse():
    rows = replace(ROWS, campaign=np.arange(60) % 3)
    ahead = year(run_plan(brief(monthly_spend=60.0, season=SEASON), rows), date(2028, 2, 1))
    month = ahead.month(0)
    dates = ahead.months.dates(0)
    found = month_days(month, dates)
    assert len(found.dates) == 29
    assert round(found.spend.sum(), 2) == round(month.totals.spend, 2)
    assert found.week.sum() == pytest.approx(month.totals.spend)
    assert sum(c.daily for c in found.campaigns) * 29 <= 60.0 + 1e-9
    assert sum(c.daily for c in found.campaigns) == daily_budgets(month).daily.sum()
    for one in found.campaigns:
        assert 0 <= one.gone_early <= one.gone <= 1
        assert (one.hour is None) == (one.gone == 0)
    drawn = draw_month(month, 200)
    assert drawn.spend.max() <= 60.0 + 1e-9


def test_a_richer_day_is_gone_less_often():
    rows = replace(ROWS, campaign=np.zeros(60, dtype=int))
    poor = run_plan(brief(monthly_spend=30.0, policy=Policy("high")), rows)
    rich = run_plan(brief(monthly_spend=90.0, policy=Policy("high")), rows)
    dates = months_from(date(2027, 3, 1)).dates(0)
    few, many = (month_days(p, dates).campaigns[0] for p in (poor, rich))
    assert few.gone > many.gone
    assert few.hour <= many.hour


def test_a_day_that_may_run_over_its_budget_lasts_longer():
    rows = replace(ROWS, campaign=np.zeros(60, dtype=int))
    dates = months_from(date(2027, 3, 1)).dates(0)
    strict, lenient = (
        month_days(run_plan(brief({"day_over": over}, monthly_spend=30.0, policy=Policy("high")),
                            rows), dates).campaigns[0]
        for over in (0.0, 1.0)
    )  # fmt: skip
    assert strict.gone >= lenient.gone > 0.5
    assert strict.hour < lenient.hour


def test_no_money_goes_on_days_and_hours_that_are_not_shown():
    office = Showing(days=(True,) * 5 + (False,) * 2, from_hour=9, to_hour=17)
    late = OwnTerms(showing=Showing(from_hour=20, to_hour=24))
    rows = replace(ROWS, campaign=np.arange(60) % 2)
    result = run_plan(brief(monthly_spend=60.0, showing=office, own_terms={1: late}), rows)
    dates = months_from(date(2027, 3, 1)).dates(0)
    found = month_days(result, dates)
    assert found.week[:5, 9:17].min() > 0
    assert found.week[:, :9].sum() == found.week[:, 17:20].sum() == 0
    assert found.week[5:, 9:17].sum() == 0 < found.week[5:, 20:].sum()
    weekend = np.array([day.weekday() >= 5 for day in dates])
    assert found.spend[weekend].max() < found.spend[~weekend].min()


@pytest.mark.parametrize("hours", [(0, 24), (9, 17), (22, 6)])
def test_a_weeks_hours_add_up_to_its_share(hours):
    showing = Showing(from_hour=hours[0], to_hour=hours[1])
    week = week_of(showing, Assumed())
    assert week.shape == (7, 24)
    assert week.sum() == pytest.approx(shown_share(showing, Assumed()))


def test_a_month_kept_as_it_is_scales_with_its_days():
    result = plan(monthly_spend=1e5, season=None)
    ahead = year(result, first=date(2027, 4, 16))
    part = ahead.month(0)
    share = 15 / (365 / 12)
    assert part.totals.clicks == pytest.approx(result.totals.clicks * share)
    assert np.array_equal(part.bid, result.bid, equal_nan=True)
