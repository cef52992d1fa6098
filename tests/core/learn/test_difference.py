"""Why a month differs: parts that add up to what came."""

from dataclasses import replace

import numpy as np
import pytest

from milkwort.core.errors import BadValueError
from milkwort.core.learn.difference import exchanged
from milkwort.core.learn.learned import learned_of
from milkwort.core.learn.seen import ResultRows, seen_by
from milkwort.core.words.lexicon import shipped_lexicon
from tests.core.learn.plans import LAST, a_plan, rows_like


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
