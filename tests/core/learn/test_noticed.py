"""Strange results are noticed: days without rows, and sums of two levels that don't match."""

import numpy as np
import pytest

from milkwort.core.errors import BadValueError
from milkwort.core.learn.noticed import days_without, sums_differ


def days(*numbers):
    return np.array(numbers, dtype=np.int64)


def test_days_that_no_row_is_about_are_told_and_windows_count_as_their_days():
    assert days_without(days(1, 2, 6, 6), days(1, 3, 6, 6)) == [(4, 5)]
    assert days_without(days(1, 2, 9), days(8, 2, 9)) == []
    assert days_without(days(1, 5), days(1, 5)) == [(2, 4)]
    assert days_without(days(), days()) == []
    with pytest.raises(BadValueError):
        days_without(days(3), days(2))


def test_money_of_two_levels_is_held_against_each_other_over_the_days_both_hold():
    by_day = days(1, 2, 3, 4)
    one = np.array([10.0, 10.0, 10.0, 10.0])
    whole = sums_differ(by_day, by_day, one, days(1), days(4), np.array([40.0]))
    assert whole is None
    found = sums_differ(by_day, by_day, one, days(3), days(6), np.array([80.0]))
    assert (found.first, found.last) == (3, 4)
    assert (found.one, found.other) == (20.0, 40.0)
    assert sums_differ(by_day, by_day, one, days(9), days(9), np.array([5.0])) is None
    nearly = sums_differ(by_day, by_day, one, by_day, by_day, one * 1.004)
    assert nearly is None
