"""What came of some days: a window over their edge counts in part."""

from datetime import date

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.learn.came import Came, came_between
from milkwort.core.learn.seen import ResultRows
from milkwort.core.learn.windows import share_within

NOTHING = np.full(3, np.nan)


def rows():
    """Two keywords and one that is none: day 10, days 11 to 20, days 16 to 25."""
    return ResultRows(
        keyword=np.array([0, 1, -1]), first=np.array([10, 11, 16]), last=np.array([10, 20, 25]),
        impressions=np.full(3, 100.0), clicks=np.array([4.0, 20.0, 30.0]),
        cost=np.array([2.0, 10.0, 50.0]), customers=np.array([1.0, 2.0, 5.0]),
        could_show=NOTHING, lost_to_money=NOTHING, enquiries=NOTHING, invalid_clicks=NOTHING,
    )  # fmt: skip


def came(first, last):
    return came_between(rows(), np.array([100.0, 40.0]), 7.0, date.fromordinal(first),
                        date.fromordinal(last))  # fmt: skip


def test_all_of_it_is_the_sum_with_what_each_customer_leaves():
    found = came(1, 40)
    assert (found.clicks, found.spend, found.customers) == (54.0, 62.0, 8.0)
    assert found.value == 100.0 + 2 * 40.0 + 5 * 7.0
    assert found.profit == found.value - 62.0
    assert found.cost_per_customer == 62.0 / 8.0


def test_a_window_over_the_edge_counts_in_part_on_either_side():
    early, late = came(1, 15), came(16, 40)
    assert early.spend == pytest.approx(2.0 + 5.0)
    assert early.clicks == pytest.approx(4.0 + 10.0)
    assert early.customers == pytest.approx(1.0 + 1.0)
    assert early.value == pytest.approx(100.0 + 40.0)
    assert late.spend == pytest.approx(5.0 + 50.0)
    assert late.value == pytest.approx(40.0 + 35.0)


def test_days_of_which_nothing_is_told_bring_nothing():
    found = came(30, 40)
    assert found == Came(0.0, 0.0, 0.0, 0.0)
    assert found.cost_per_customer is None


def test_a_window_within_counts_whole_and_one_beside_not_at_all():
    share = share_within(np.array([5, 1, 8, 3]), np.array([6, 4, 9, 8]), date.fromordinal(5),
                         date.fromordinal(7))  # fmt: skip
    assert share.tolist() == [1.0, 0.0, 0.0, 0.5]


@given(st.integers(1, 60), st.integers(0, 30), st.integers(1, 60), st.integers(0, 30))
def test_shares_of_days_side_by_side_add_up(first, more, cut, beyond):
    window = np.array([first]), np.array([first + more])
    end = max(first + more, cut) + beyond + 1
    parts = [
        share_within(*window, date.fromordinal(a), date.fromordinal(b))[0]
        for a, b in ((1, cut), (cut + 1, end))
    ]
    assert sum(parts) == pytest.approx(1.0)
