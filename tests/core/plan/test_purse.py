"""The purse by day and group, and what more money would bring."""

from dataclasses import replace

import numpy as np
import pytest

from milkwort.core.plan.more_money import more_money
from milkwort.core.plan.purse import saturated, spend_a_day, spend_by_group
from milkwort.core.plan.run import run_plan
from tests.samples import brief, table

ROWS = table([900.0, 700.0, 300.0], [1.0, 1.1, 1.2], [2.0, 2.2, 2.4])


def test_money_by_group_adds_up_to_what_is_spent_and_a_day_is_its_share_of_the_month():
    result = run_plan(brief(monthly_spend=60.0), replace(ROWS, group=np.array([1, -1, 1])))
    by_group = spend_by_group(result, 3)
    assert by_group.shape == (4,) and by_group[[1, 3]].tolist() == [0.0, 0.0]
    assert by_group.sum() == pytest.approx(result.totals.spend)
    assert by_group[0] == pytest.approx(result.expected.spend[1])
    assert spend_a_day(result) == pytest.approx(result.totals.spend / (365 / 12))


def test_a_sixth_more_money_in_a_round_sum_brings_what_the_fit_of_it_brings():
    result = run_plan(brief(monthly_spend=60.0), ROWS)
    more = more_money(result, 2)
    assert more.money == 10.0 and 1 <= len(more.rows) <= 2
    after = run_plan(brief(monthly_spend=70.0), ROWS)
    assert more.value == pytest.approx(after.value - result.value, rel=0.02)


def test_where_the_market_is_bought_out_more_money_brings_nothing():
    result = run_plan(brief(monthly_spend=1e6), ROWS)
    assert saturated(result) and more_money(result, 3) is None
    assert not saturated(run_plan(brief(monthly_spend=60.0), ROWS))
