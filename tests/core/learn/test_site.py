"""The whole site beside the ads: the same days, each once."""

from datetime import date

import numpy as np
import pytest

from milkwort.core.learn.seen import ResultRows
from milkwort.core.learn.site import site_seen

NOTHING = np.full(3, np.nan)


def rows():
    """Three keywords' rows: day 10, day 11, and a window of days 20 to 29."""
    return ResultRows(
        keyword=np.array([0, 1, 0]), first=np.array([10, 11, 20]), last=np.array([10, 11, 29]),
        impressions=np.full(3, 100.0), clicks=np.full(3, 10.0), cost=np.array([5.0, 7.0, 100.0]),
        customers=np.array([1.0, 0.0, 10.0]), could_show=NOTHING, lost_to_money=NOTHING,
        enquiries=NOTHING, invalid_clicks=NOTHING,
    )  # fmt: skip


def seen(windows, days=(1, 60)):
    first, last, visits, unpaid = (np.array(c, dtype=float) for c in zip(*windows, strict=True))
    some = tuple(date.fromordinal(day) for day in days)
    return site_seen(first.astype(int), last.astype(int), visits, unpaid, rows(), some)


def test_nothing_said_is_nothing_seen():
    assert seen([(10, 11, np.nan, np.nan)]) is None


def test_money_and_customers_are_those_of_the_same_days():
    found = seen([(10, 11, 48.0, 3.0)])
    assert (found.visits, found.unpaid) == (48.0, 3.0)
    assert found.cost_per_visit == pytest.approx(12.0 / 48.0)
    assert found.without_ad == pytest.approx(3.0 / 4.0)


def test_a_window_in_part_counts_in_part_and_a_day_in_two_counts_once():
    found = seen([(20, 24, 100.0, 5.0), (22, 24, 50.0, np.nan)])
    assert found.cost_per_visit == pytest.approx(50.0 / 150.0)
    assert found.without_ad == pytest.approx(0.5)
    over = seen([(20, 24, 100.0, np.nan), (22, 27, 60.0, np.nan)])  # eight days, 10 of money each
    assert over.cost_per_visit == pytest.approx(80.0 / 160.0)


def test_what_nobody_said_has_no_figure():
    found = seen([(10, 10, 20.0, np.nan)])
    assert found.unpaid is None and found.without_ad is None
    nobody = seen([(12, 15, 0.0, 0.0)])
    assert nobody.cost_per_visit is None and nobody.without_ad is None


def test_only_the_days_that_are_asked_for_count_and_a_window_over_their_end_in_part():
    """Ten visits a day of days 20 to 29; money is 10 a day there."""
    found = seen([(10, 11, 48.0, 3.0), (20, 29, 100.0, np.nan)], days=(25, 40))
    assert found.visits == pytest.approx(50.0)
    assert found.cost_per_visit == pytest.approx(1.0)
    assert found.unpaid is None
    assert seen([(10, 11, 48.0, 3.0)], days=(12, 40)) is None
