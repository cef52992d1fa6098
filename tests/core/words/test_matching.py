import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from milkwort.core.errors import BadValueError
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.matching import index_of, matching_pairs, text_matches
from milkwort.core.words.texts import MAX_TEXT, joints_of, normalise, singular

LETTERS = st.lists(st.sampled_from("abcde"), min_size=1, max_size=5).map(" ".join)


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


@settings(max_examples=120, deadline=None)
@given(
    st.lists(LETTERS, min_size=1, max_size=12, unique=True),
    st.lists(st.tuples(LETTERS, st.integers(0, 2)), min_size=1, max_size=8),
)
def test_the_index_finds_what_comparing_every_pair_finds(texts, patterns):
    index = index_of(tuple(texts), frozenset(), False)
    match = np.array([m for _, m in patterns])
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


def test_words_past_the_most_frequent_are_found_too():
    texts = tuple(f"w{i} w{i + 1} w{i + 2}" for i in range(200))
    index = index_of(texts, frozenset(), False)
    found = matching_pairs(index, [("w150", "w151"), ("w152", "w150")], np.array([1, 2]))
    assert sorted(zip(found.pattern.tolist(), found.text.tolist(), strict=True)) == [
        (0, 149), (0, 150), (1, 150),
    ]  # fmt: skip


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


@given(st.text(max_size=60))
def test_normalising_twice_changes_nothing(text):
    assert normalise(normalise(text)) == normalise(text)


def test_odd_scripts_and_endless_texts_are_only_texts():
    assert text_matches("broad", "نافذة", "إصلاح نافذة 😀")
    assert text_matches("phrase", "a " * 5000, "a " * 5001)
    assert len(normalise("x" * MAX_TEXT)) == MAX_TEXT
