"""The arithmetic of a month adds up to the month."""

from datetime import date

import pytest

from milkwort.core.plan.calendar import months_from
from milkwort.core.plan.run import run_plan
from milkwort.core.plan.year import YearAhead
from milkwort.core.workings.month import month_workings
from tests.samples import brief, random_table

SEASON = tuple(float(m) for m in (2, 1, 1, 1, 1, 1, 1, 1, 3, 4, 4, 4))


def test_a_months_lines_are_the_months_figures():
    result = run_plan(brief(monthly_spend=60.0, season=SEASON), random_table(31, 60))
    ahead = YearAhead(result, months_from(date(2027, 9, 16)))
    searched, money, brings = month_workings(ahead, 0, "flat")
    said = {line.label: line.value for line in (*searched.lines, *money.lines, *brings.lines)}
    assert said["the monthly sum"] == pytest.approx(60 * 15 / 30)
    assert said["days of it"] == 15
    month = ahead.month(0)
    assert said["spend"] == month.totals.spend
    assert said["clicks"] * said["× average price"] == pytest.approx(said["spend"])
    assert said["clicks"] * said["clicks × customers per click"] == pytest.approx(said["customers"])
    wanted = said["clicks of a mean month"] * said["× the season"] * said["× days"]
    assert month.totals.clicks <= wanted * 1.001
