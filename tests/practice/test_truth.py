"""Truth is measured: nothing here is asserted on luck, only on what can't be luck."""

from dataclasses import replace

import pytest

from milkwort.core.plan.run import run_plan
from milkwort.practice.informed import informed_of
from milkwort.practice.truth import POLICIES_TRIED, SIZES, Trial, advice_in, ranges_in
from tools.truth import advice_table, plans, ranges_table


@pytest.fixture(scope="module")
def trial():
    name, practice = plans()[0]
    small = run_plan(replace(practice.plan.brief, monthly_spend=80.0), practice.plan.table)
    return Trial(name, replace(practice, plan=small, level="rough"))


def test_places_lie_among_the_draws_and_differ_by_truth(trial):
    places = [ranges_in(trial, seed) for seed in range(1, 5)]
    assert all(0 <= place <= 1 for one in places for place in one.values())
    assert {name for one in places for name in one} >= {"clicks", "profit", SIZES[-1]}
    assert len({one["clicks"] for one in places}) == 4
    assert ranges_in(trial, 1) == places[0]


def test_every_policy_meets_the_same_truth_and_none_passes_hindsight_by_much(trial):
    found = advice_in(trial, 7)
    assert set(found) == set(POLICIES_TRIED)
    for one in found.values():
        assert 0 <= one["spill"] <= 1
        # new keywords may bring what hindsight over the old ones can't
        assert one["profit"] < 3
        assert one["wrong_stops"] <= one["stops"] and one["wrong_raises"] <= one["raises"]
    assert found["unchanged"]["stops"] == found["rule"]["stops"] == 0
    again = advice_in(trial, 7)
    assert again == found


def test_the_tables_say_how_many_truths_stand_behind_them(trial):
    ranges = "\n".join(ranges_table([trial], {0: [ranges_in(trial, 1), ranges_in(trial, 2)]}))
    assert "| rough | Eastmere | 2 |" in ranges
    advice = "\n".join(advice_table([trial], {0: [advice_in(trial, 7)]}))
    assert "| rough | Eastmere | 1 |" in advice and "none given" in advice


def test_who_is_informed_is_told_spreads_and_no_truth():
    told = informed_of("rough")
    assert told["draw_searches"] == 0.30 and told["prior_weight"] == 25.0
    assert set(told) == set(informed_of("usual"))
