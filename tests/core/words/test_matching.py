from unittest.mock import patch

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from milkwort.core.errors import BadValueError
from milkwort.core.words import matching
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.matching import TextIndex, index_of, matching_pairs, text_matches
from milkwort.core.words.texts import MAX_TEXT, joints_of, normalise, singular
from tests.depth import cases

LETTERS = st.lists(st.sampled_from("abcde"), min_size=1, max_size=5).map(" ".join)
MORE_LETTERS = st.lists(st.sampled_from("abcdef"), min_size=1, max_size=5).map(" ".join)
"""Some of them stand in no text."""


@pytest.mark.parametrize(
    ("match", "pattern", "text", "matched"),
    [
        ("exact", "sash window", "Sash  Window!", True),
        ("exact", "sash window", "window sash", False),
        ("exact", "sash window", "sash windows", True),
        ("phrase", "sash window", "old sash windows cost", True),
        ("phrase", "sash window", "sash box window", False),
        ("broad", "sash window", "window of a sash", True),
        ("broad", "sash window", "window", False),
        ("phrase", "café", "cafe near me", False),
        ("phrase", "draught-proofing", "draughtproofing windows", True),
        ("phrase", "draughtproofing", "draught-proofing windows", True),
        ("exact", "men's shed", "mens shed", True),
        ("exact", "men's shed", "men s shed", True),
        ("phrase", "new", "renew window", False),
        ("broad", "", "anything", False),
    ],
)
def test_each_match_type_matches_what_its_name_says(match, pattern, text, matched):
    assert text_matches(match, pattern, text) is matched


def test_without_close_forms_a_plural_is_another_word():
    assert not text_matches("exact", "sash window", "sash windows", close_forms=False)


def test_an_unknown_match_type_is_refused():
    with pytest.raises(BadValueError, match="match"):
        text_matches("loose", "a", "a")


@pytest.mark.parametrize(("common", "at_once"), [(63, 2_000_000), (2, 3)])
@settings(max_examples=cases(100, 1200), deadline=None)
@given(
    texts=st.lists(LETTERS, min_size=1, max_size=12, unique=True),
    patterns=st.lists(st.tuples(MORE_LETTERS, st.integers(0, 2)), min_size=1, max_size=8),
)
# the first word of all is no common one, and stands beside a rarer one
@example(texts=["a x", "a n", "n b", "p q", "q p", "p q p"], patterns=[("n a", 2)])
def test_the_index_finds_what_comparing_every_pair_finds(common, at_once, texts, patterns):
    """With a bit for every word and all at once, and with few bits and a few at once."""
    match = np.array([m for _, m in patterns])
    with patch.multiple(matching, _COMMON_WORDS=common, _CANDIDATES_AT_ONCE=at_once):
        index = TextIndex(tuple(tuple(text.split()) for text in texts))
        found = matching_pairs(index, [tuple(p.split()) for p, _ in patterns], match)
    pairs = set(zip(found.pattern.tolist(), found.text.tolist(), strict=True))
    plain = {
        (i, j)
        for i, (pattern, m) in enumerate(patterns)
        for j, text in enumerate(texts)
        if text_matches(MATCHES[m], pattern, text, close_forms=False)
    }
    assert pairs == plain
    assert len(pairs) == len(found.pattern)


def test_every_run_is_found_of_words_with_a_bit_of_their_own_and_of_others():
    texts = tuple(f"w{i} w{i + 1} w{i + 2}" for i in range(200))
    index = index_of(texts, frozenset(), False)
    runs = [(f"w{i}", f"w{i + 1}") for i in range(201)]
    backwards = [(two, one) for one, two in runs]
    for patterns, match in ((runs, 1), (backwards, 2)):
        found = matching_pairs(index, patterns, np.full(len(runs), match))
        pairs = sorted(zip(found.pattern.tolist(), found.text.tolist(), strict=True))
        assert pairs == [(i, j) for i in range(201) for j in (i - 1, i) if 0 <= j < 200]


def test_the_index_takes_plurals_as_they_are_asked_to_be_taken():
    texts = ("sash windows", "draught proofing glass")
    assert index_of(texts, frozenset(), False).words[0] == ("sash", "windows")
    assert index_of(texts, frozenset(), True).words[0] == ("sash", "window")
    joined = index_of(texts, frozenset({("draughtproofing", "draught proofing")}), True)
    assert joined.words == (("sash", "window"), ("draught", "proofing", "glass"))


@pytest.mark.parametrize(
    ("word", "one"),
    [
        ("glasses", "glass"), ("glass", "glass"), ("bus", "bus"), ("buses", "bus"),
        ("business", "business"), ("businesses", "business"), ("windows", "window"),
        ("window", "window"), ("knives", "knife"), ("sashes", "sash"), ("lenses", "lens"),
        ("lens", "lens"), ("gas", "gas"), ("news", "news"), ("series", "series"),
        ("cookies", "cookie"), ("potatoes", "potato"), ("is", "is"), ("us", "us"),
        ("24", "24"), ("😀", "😀"), ("الأبواب", "الأبواب"), ("s" * 500, "s" * 500),
    ],
)  # fmt: skip
def test_plurals_come_down_to_their_singular(word, one):
    assert singular(word) == one


def test_joints_are_read_from_how_texts_were_written():
    found = joints_of(["draught-proofing", "men's shed", "plain words", "ｆｕｌｌ－width"])
    assert ("draughtproofing", "draught proofing") in found
    assert ("men s", "mens") in found
    assert joints_of(["plain words"]) == frozenset()
    assert joints_of(["men's shed"]) == {("men s", "mens")}
    assert joints_of(["-sash", "sash -"]) == frozenset()


@given(st.text(max_size=60))
def test_normalising_twice_changes_nothing(text):
    assert normalise(normalise(text)) == normalise(text)


def test_odd_scripts_and_endless_texts_are_only_texts():
    assert text_matches("broad", "نافذة", "إصلاح نافذة 😀")
    assert text_matches("phrase", "a " * 5000, "a " * 5001)
    assert len(normalise("x" * MAX_TEXT)) == MAX_TEXT
