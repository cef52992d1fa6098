import numpy as np
import pytest

from milkwort.core.assumptions import Assumed
from milkwort.core.market.demand import (
    coverage,
    demand_if_kept,
    demand_of,
    likely_volume,
    month_index,
    per_month,
)
from milkwort.core.words.intents import INTENTS
from milkwort.core.words.match_types import MATCHES
from tests.samples import brief, calls, table

PHRASE, BROAD = MATCHES.index("phrase"), MATCHES.index("broad")


@pytest.mark.parametrize(
    ("low", "high", "likely"),
    [(500, 5000, 1581.1388), (1, 9, 3.0), (0, 100, 10.0), (0, 0, 0.0), (170, 170, 170.0)],
)
def test_the_likely_volume_of_a_range_is_its_geometric_middle(low, high, likely):
    assert likely_volume(np.array([float(low)]), np.array([float(high)]))[0] == pytest.approx(
        likely
    )


def test_an_absent_volume_stays_absent():
    assert np.isnan(likely_volume(np.array([np.nan]), np.array([np.nan]))[0])


@pytest.mark.parametrize(
    ("match", "words", "factor"),
    [(0, 1, 1.0), (1, 1, 2.2), (1, 2, 1.84), (1, 3, 1.6), (2, 3, 2.5), (2, 4, 1.9), (2, 9, 1.45)],
)
def test_coverage_grows_with_the_match_type_and_falls_with_the_words(match, words, factor):
    found = coverage(np.array([match]), np.array([words]), Assumed())
    assert found[0] == pytest.approx(factor)


def test_a_volume_counted_as_phrase_holds_fewer_searches_for_the_very_text():
    demand = demand_of(brief(), table([160], [1], [2], basis=np.array([PHRASE])))
    assert demand.own[0] == pytest.approx(100.0)


def test_only_searchers_of_the_area_count_unless_the_text_names_an_own_place():
    from dataclasses import replace

    rows = replace(table([100, 100], [1, 1], [2, 2]), texts=("sash repair", "sash repair eastmere"))
    demand = demand_of(brief({"area_share": 0.04}, places=("Eastmere",)), rows)
    assert demand.own.tolist() == pytest.approx([4.0, 100.0])


def test_variants_dilute_the_rate_and_the_clicks():
    demand = demand_of(brief(), table([100], [1], [2], match=np.array([BROAD])))
    assert demand.searches[0] == pytest.approx(250.0)
    assert demand.click_weight[0] == pytest.approx(100 + 0.7 * 150)
    assert demand.rate[0] == pytest.approx(0.03 * (100 + 0.7 * 0.6 * 150) / 205)


def test_a_keyword_that_is_not_kept_serves_no_variants_until_asked_as_if_it_were():
    rows = table([100], [1], [2], match=np.array([PHRASE]), call=calls("hold"))
    assert demand_of(brief(), rows).searches[0] == 100.0
    asked = demand_if_kept(brief(), rows, demand_of(brief(), rows), np.array([0]))
    assert asked.searches[0] == pytest.approx(160.0)


@pytest.mark.parametrize(("intent", "factor"), [("compare", 0.7), ("learn", 0.25), ("job", 0.0)])
def test_intent_scales_the_rate(intent, factor):
    demand = demand_of(brief(), table([1], [1], [2], intent=np.array([INTENTS.index(intent)])))
    assert demand.rate[0] == pytest.approx(0.03 * factor)


def test_a_rate_of_its_own_stands_above_the_brief():
    demand = demand_of(brief(), table([1], [1], [2], rate=np.array([0.08])))
    assert demand.rate[0] == 0.08


def test_daily_volumes_become_monthly_ones():
    assert per_month(12.0, "day", Assumed()) == pytest.approx(365.0)
    assert per_month(12.0, "month", Assumed()) == 12.0


def test_a_month_index_has_a_mean_of_one():
    index = month_index(np.arange(12.0))
    assert index.mean() == pytest.approx(1.0)
    assert month_index(np.zeros(12)).tolist() == [1.0] * 12
