"""Pages of the site: which words they say and where, which fits, what is worth writing."""

import numpy as np
import pytest

from milkwort.core.arrange.main_words import MainWord
from milkwort.core.arrange.pages.page_words import (
    PageText,
    address_key,
    best_page,
    page_words_of,
    same_address,
    sentence_about,
)
from milkwort.core.arrange.pages.worth_writing import pages_worth_writing
from milkwort.core.plan.run import run_plan
from milkwort.core.words.lexicon import shipped_lexicon
from tests.samples import brief, calls, table

WORDS = [MainWord("sash", 1.0), MainWord("repair", 0.6), MainWord("cord", 0.3)]
HOME = PageText("/", "Windows", ("Sashes", "Doors"), "We make sash windows.")
REPAIR = PageText("/repair", "Sash repairs", (), "Cords too.")


def test_a_page_says_a_word_in_any_close_form_and_it_is_said_where():
    found = page_words_of(WORDS, HOME)
    assert found.where == (("heading", "text"), (), ())
    assert found.count == 1 and found.missing == ("repair", "cord")
    assert found.said == pytest.approx(1.0 / 1.9)


def test_the_page_that_says_most_of_the_clicks_fits_best_and_ones_own_stays_among_equals():
    assert best_page(WORDS, [HOME, REPAIR], own=0) == 1
    twin = PageText("/repair-2", "Sash repairs", (), "Cords too.")
    assert best_page(WORDS, [twin, REPAIR], own=1) == 1
    assert best_page(WORDS, [PageText("/x", text="sash repair cord"), REPAIR], own=-1) == 1
    assert best_page(WORDS, [PageText("/x", text="roofs")], own=0) == -1
    assert best_page([], [HOME], own=-1) == best_page(WORDS, [], own=-1) == -1


@pytest.mark.parametrize(
    ("one", "other", "same"),
    [
        ("https://eastmere.example/repair/", "/repair", True), ("/Repair?x=1#top", "/repair", True),
        ("eastmere.example", "/", True), ("eastmere.example/a", "a", True),
        ("repair.html", "/repair.html", True), ("/repair", "/repairs", False), ("", "/", True),
    ],
)  # fmt: skip
def test_addresses_lead_to_one_page_whatever_stands_around_the_path(one, other, same):
    assert same_address(one, other) is same
    assert (address_key(one) == address_key(other)) is same


def test_the_sentence_names_what_is_missing_and_is_empty_where_nothing_is():
    asked = sentence_about(WORDS, HOME)
    assert "“repair” (60\u00a0% of the clicks) and “cord” (30\u00a0% of the clicks)" in asked
    assert sentence_about(WORDS, REPAIR) == ""


def test_words_no_page_says_are_listed_by_the_customers_behind_them():
    texts = ("sash cord", "sash cords eastmere", "sash paint", "paint colour", "sash glass")
    sheet = table([400, 300, 90, 80, 900], [0.8] * 5, [1.2] * 5, texts=texts,
                  group=np.zeros(5, dtype=np.int64),
                  call=calls("keep", "keep", "keep", "keep", "drop"))  # fmt: skip
    result = run_plan(brief(monthly_spend=1e5), sheet)
    lexicon = shipped_lexicon().extended(places=["Eastmere"])
    found = pages_worth_writing(result, [HOME], lexicon)
    assert [(w.word, len(w.keywords)) for w in found] == [("cord", 2), ("paint", 2)]
    assert found[0].customers == pytest.approx(float(result.expected.customers[:2].sum()))
    assert pages_worth_writing(result, [REPAIR, HOME], lexicon)[0].word == "paint"
    assert pages_worth_writing(result, [], lexicon)[0].word == "sash"
