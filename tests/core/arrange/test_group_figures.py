"""Sums of ad groups against sums by hand."""

import numpy as np
import pytest

from milkwort.core.arrange.group_figures import group_figures
from milkwort.core.errors import BadValueError
from milkwort.core.plan.run import run_plan
from tests.samples import brief, calls, table


@pytest.fixture
def result():
    sheet = table(
        [400, 300, 200, 100, 900], [0.6, 0.5, 0.4, 0.4, 0.9], [1.8, 1.5, 1.2, 1.0, 2.0],
        call=calls("keep", "keep", "drop", "keep", "keep"), group=np.array([0, 0, 0, 1, -1]),
    )  # fmt: skip
    return run_plan(brief(monthly_spend=80.0), sheet)


def test_a_group_sums_what_is_kept_in_it(result):
    groups = group_figures(result, 3)
    assert groups.keywords.tolist() == [3, 1, 0] and groups.kept.tolist() == [2, 1, 0]
    e = result.expected
    columns = {"spend": e.spend, "customers": e.customers, "clicks": e.clicks,
               "searches": result.demand.own}  # fmt: skip
    for name, of_row in columns.items():
        by_hand = [of_row[0] + of_row[1], of_row[3], 0.0]
        assert getattr(groups, name) == pytest.approx(by_hand), name


def test_groups_and_what_is_in_none_make_up_the_whole_plan(result):
    groups = group_figures(result, 2)
    assert groups.spend.sum() + result.expected.spend[4] == pytest.approx(result.totals.spend)
    assert groups.running.sum() <= groups.kept.sum()


def test_fewer_groups_than_the_table_names_are_refused(result):
    with pytest.raises(BadValueError, match="more than 1"):
        group_figures(result, 1)


def test_an_empty_plan_has_empty_groups():
    result = run_plan(brief(), table([], [], []))
    assert group_figures(result, 2).spend.tolist() == [0.0, 0.0]
