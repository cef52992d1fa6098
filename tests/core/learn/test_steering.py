"""Enough customers to steer by: those of a month, known to within a third."""

import pytest
from scipy.stats import gamma

from milkwort.core.errors import BadValueError
from milkwort.core.learn.steering import steering_of


def test_fifteen_customers_a_month_are_enough_and_ten_are_not():
    assert steering_of(16, 30).enough
    assert not steering_of(10, 30).enough
    low, high = gamma.ppf([0.1, 0.9], 16.5)
    assert steering_of(16, 30).within == pytest.approx((high - low) / 2 / 16)


def test_a_part_of_a_month_stands_for_the_month():
    assert steering_of(8, 15) == steering_of(16, 30)


def test_more_customers_are_never_known_less_well():
    within = [steering_of(x, 30).within for x in range(1, 200)]
    assert within == sorted(within, reverse=True)


def test_none_are_never_enough_and_nonsense_is_refused():
    assert not steering_of(0, 30).enough
    for customers, days in ((-1, 30), (float("nan"), 30), (3, 0)):
        with pytest.raises(BadValueError):
            steering_of(customers, days)
