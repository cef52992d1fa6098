"""Volumes that count showings at a bid are searches over the reach of that bid."""

from dataclasses import replace

import numpy as np
import pytest

from milkwort.core.assumptions import Assumed
from milkwort.core.errors import BadValueError
from milkwort.core.market.readings import Figures, disagreement, mean_of
from milkwort.core.plan.notes import notes_of
from milkwort.core.plan.run import run_plan
from milkwort.core.workings.keyword import keyword_workings
from tests.samples import brief, table

NAN = float("nan")


def shown(volumes, low, high, bids):
    return replace(table(volumes, low, high), shown_at_bid=np.array(bids))


def test_searches_are_showings_over_the_reach_of_the_bid_they_were_counted_at():
    result = run_plan(brief(), shown([100.0, 100.0], [0.8, 0.8], [2.4, 2.4], [1.5, NAN]))
    assert result.demand.likely == pytest.approx([100 / 0.538786, 100.0], rel=1e-5)
    (line,) = [
        line
        for section in keyword_workings(result, 0)
        for line in section.lines
        if line.label == "÷ reach at a bid of 1.50"
    ]
    assert line.value == pytest.approx(0.538786, abs=1e-6)


def test_a_range_of_showings_is_brought_to_searches_end_by_end():
    ranged = replace(shown([100.0], [0.8], [2.4], [1.5]), volume_high=np.array([400.0]))
    assert run_plan(brief(), ranged).demand.likely == pytest.approx([200 / 0.538786], rel=1e-5)


@pytest.mark.parametrize(("bid", "low"), [(0.05, 0.8), (1.5, NAN)])
def test_showings_at_a_bid_far_under_the_market_or_without_a_price_say_nothing(bid, low):
    high = low * 3
    result = run_plan(brief(), shown([100.0], [low], [high], [bid]))
    assert np.isnan(result.demand.likely[0])
    assert "showings_say_nothing" in notes_of(result)[0]
    assert "no_volume" not in notes_of(result)[0]
    texts = [line.text for section in keyword_workings(result, 0) for line in section.lines]
    assert "says nothing of the searches" in texts


def test_a_price_that_is_missing_is_the_groups_for_showings_too():
    rows = shown([100.0, 50.0], [0.8, NAN], [2.4, NAN], [NAN, 1.5])
    assert run_plan(brief(), rows).demand.likely[1] == pytest.approx(50 / 0.538786, rel=1e-5)


@pytest.mark.parametrize("bid", [0.0, -1.0, np.inf])
def test_a_bid_that_is_no_bid_is_refused(bid):
    with pytest.raises(BadValueError, match="shown_at_bid"):
        run_plan(brief(), shown([100.0], [0.8], [2.4], [bid]))


def test_sources_that_count_showings_and_searches_are_brought_together():
    showings = Figures(100, 100, shown_at_bid=1.5)
    searches = Figures(180, 180, 0.8, 2.4)
    mean = mean_of([showings, searches], 2, Assumed({}))
    assert mean.volume_high == pytest.approx((180 * 100 / 0.538786) ** 0.5, rel=1e-5)
    assert mean.shown_at_bid is None
    apart = disagreement([showings, searches], 2, Assumed({}))
    assert apart.volume == pytest.approx(100 / 0.538786 / 180, rel=1e-5)
    alone = disagreement([showings, Figures(180, 180)], 2, Assumed({}))
    assert alone.volume is None
