"""Crossing, other places, a set to start with, platform profiles."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from milkwort.core.brief.platform import PROFILES, Profile, profile_of
from milkwort.core.errors import BadValueError
from milkwort.core.gather.crossing import Part, cross
from milkwort.core.gather.places import other_places, swapped
from milkwort.core.gather.starter import starter_set
from milkwort.core.plan.run import run_plan
from milkwort.core.words.lexicon import shipped_lexicon
from tests.depth import cases
from tests.samples import brief, calls, random_table

LEXICON = shipped_lexicon().extended(places=["Eastmere", "Wrenfold"])


def test_a_crossing_makes_each_keyword_once_in_the_order_of_its_lists():
    parts = [Part(("Repair", "restore", "repair ")), Part(("sash window",)),
             Part(("Eastmere",), optional=True)]  # fmt: skip
    assert cross(parts).texts == (
        "repair sash window eastmere", "repair sash window", "restore sash window eastmere",
        "restore sash window",
    )  # fmt: skip


def test_silly_doubles_and_what_the_sheet_has_are_left_out_and_counted():
    parts = [Part(("sash repair", "windows")), Part(("near me", "in eastmere", "window"))]
    made = cross([*parts, Part(("eastmere",))], lexicon=LEXICON,
                 known=frozenset({"windows near me eastmere"}))  # fmt: skip
    assert made.texts == ("sash repair window eastmere",)
    assert made.doubles == 5 and made.known == 0


def test_parts_are_switched_off_and_put_in_any_order():
    parts = [Part(("a1",)), Part(("b1",)), Part(("c1",), on=False)]
    assert cross(parts, any_order=True).texts == ("a1 b1", "b1 a1")


@settings(max_examples=cases(60, 720), deadline=None)
@given(
    st.lists(st.lists(st.sampled_from("abcdefg"), min_size=1, max_size=4), min_size=1, max_size=4)
)
def test_nothing_crossed_is_lost_uncounted(lists):
    parts = [Part(tuple(words)) for words in lists]
    made = cross(parts)
    product = int(np.prod([len(dict.fromkeys(words)) for words in lists]))
    assert len(made.texts) + made.doubles + made.known == product
    assert len(set(made.texts)) == len(made.texts)


@pytest.mark.parametrize("parts", [[], [Part(("",))], [Part(("a",), on=False)]])
def test_nothing_to_cross_is_said(parts):
    with pytest.raises(BadValueError, match="crossing"):
        cross(parts)


def test_a_crossing_without_bound_is_refused_before_it_is_made():
    many = Part(tuple(f"w{i}" for i in range(400)))
    with pytest.raises(BadValueError, match="100,000"):
        cross([many, many])


def test_places_are_told_by_standing_where_own_places_stand():
    texts = [
        "sash repair eastmere", "sash repair hollowbrook", "box sash eastmere",
        "box sash hollowbrook", "sash repair cost", "box sash north arding",
        "sash repair north arding", "penscombe sash",
    ]  # fmt: skip
    found = {p.name: p.rows for p in other_places(texts, ["Eastmere"], ["Penscombe"], LEXICON)}
    assert found == {"hollowbrook": (1, 3), "north arding": (5, 6), "penscombe": (7,)}
    assert swapped("sash repair north arding", "North Arding", "Eastmere") == "sash repair eastmere"


def test_without_an_own_place_only_named_ones_are_found():
    assert other_places(["sash hollowbrook"], [], [], LEXICON) == []


def test_the_starter_set_is_the_few_that_together_bring_most():
    rows = replace(random_table(5, 60), call=calls(*["none"] * 58, "drop", "block"))
    found = starter_set(brief(monthly_spend=40.0), rows, 8)
    assert len(found.rows) <= 8 and not {58, 59} & set(found.rows.tolist())
    assert (np.diff(found.customers) <= 1e-12).all()
    assert found.total_customers == pytest.approx(found.customers.sum())
    assert found.total_customers >= found.bound * 0.998
    single = [
        run_plan(brief(monthly_spend=40.0), random_table(5, 60).at(np.array([r]))).value
        for r in range(58)
    ]
    assert found.total_customers >= max(single)
    with pytest.raises(BadValueError, match="starter"):
        starter_set(brief(), rows, 0)


def test_profiles_survive_their_file_and_decide_assumptions():
    for profile in PROFILES:
        assert profile_of(profile.as_dict()) == profile
    raising = replace(PROFILES[0], raises=0.2, min_bid=0.1)
    assert raising.assumptions() == {"min_bid": 0.1, "platform_raise": 0.2, "day_over": 0.4}
    assert profile_of(None) == Profile()


@pytest.mark.parametrize(
    "values",
    [{"name": ""}, {"matches": []}, {"min_bid": 0}, {"raises": 2}, {"pricing": "gift"},
     {"keywords_per_group": "many"}, {"colour": "red"}, {"matches": 3}],
)  # fmt: skip
def test_a_profile_that_cannot_be_is_refused_by_its_field(values):
    with pytest.raises(BadValueError, match="profile"):
        profile_of({"name": "Own"} | values)
