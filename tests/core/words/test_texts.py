import pytest
from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.words.texts import name_places, normalise, word_counts


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("  Sash   WINDOW ", "sash window"),
        ("draught-proofing", "draught proofing"),
        ("men’s boots", "mens boots"),
        ("café crème", "café crème"),
        ("ＦＵＬＬ width", "full width"),
        ("price, now!", "price now"),
        ("Straße", "strasse"),
        ("a\u200bb\tc", "ab c"),
        ("!?", ""),
        ("نافذة خشبية", "نافذة خشبية"),
    ],
)
def test_texts_are_compared_as_plain_words(text, words):
    assert normalise(text) == words


@given(st.text(max_size=200))
def test_normalising_twice_changes_nothing(text):
    once = normalise(text)
    assert normalise(once) == once


def test_words_are_counted():
    assert word_counts(("one", "one two three", "")).tolist() == [1, 3, 0]


def test_a_place_is_named_by_a_run_of_whole_words():
    texts = ("repair upper tansley now", "upper repair tansley", "uppertansley")
    assert name_places(texts, ("upper tansley",)).tolist() == [True, False, False]
    assert name_places(texts, ("upper tansley", "wrenfold")).tolist() == [True, False, False]
