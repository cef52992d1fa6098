import math

import pytest

from milkwort.core.assumptions import Assumed
from milkwort.core.market.readings import Figures, disagreement, mean_of


def test_the_mean_is_geometric_and_on_one_basis():
    exact = Figures(100, 100, 1.0, 4.0)
    phrase = Figures(460, 460, 4.0, None, basis="phrase")  # three words: 1 + 0.6 · 1.0
    mean = mean_of([exact, phrase], 3, Assumed())
    assert mean.volume_low == pytest.approx(math.sqrt(100 * 460 / 1.6))
    assert (mean.cpc_low, mean.cpc_high) == pytest.approx((2.0, 4.0))


def test_days_count_as_months_before_they_are_averaged():
    mean = mean_of([Figures(10, 10, period="day"), Figures(10, 10)], 2, Assumed())
    assert mean.volume_low == pytest.approx(10 * math.sqrt(365 / 12))


def test_a_source_that_says_nothing_of_a_figure_does_not_count_for_it():
    months = tuple(float(m) for m in range(1, 13))
    mean = mean_of([Figures(cpc_low=2.0), Figures(90, 90, months=months)], 2, Assumed())
    assert (mean.volume_low, mean.cpc_low, mean.cpc_high) == (pytest.approx(90), 2.0, None)
    assert mean.months == months


def test_nought_beside_a_figure_counts_as_half_a_search():
    assert mean_of([Figures(0, 0), Figures(50, 50)], 2, Assumed()).volume_low == pytest.approx(5)
    assert mean_of([Figures(0, 0), Figures(0, 0)], 2, Assumed()).volume_low == 0


def test_how_far_sources_are_apart_is_a_factor():
    found = disagreement([Figures(100, 400, 1, 4), Figures(50, 50, 1, 1)], 2, Assumed())
    assert (found.volume, found.price) == pytest.approx((4.0, 2.0))
    alone = disagreement([Figures(100, 100)], 2, Assumed())
    assert (alone.volume, alone.price) == (None, None)
