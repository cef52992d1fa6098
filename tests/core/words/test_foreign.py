"""Other scripts and languages are told by what a plan's own keywords are written in."""

import pytest

from milkwort.core.words.foreign import foreign, is_item_code, tongue_of
from milkwort.core.words.lexicon import shipped_lexicon
from milkwort.core.words.texts import normalise

ENGLISH = tongue_of(["sash window repair", "cost of double glazing", "café doors"])
GERMAN = tongue_of(["fenster für das bad", "fenster kaufen"])
GREEK = tongue_of(["παράθυρα τιμές"])
LEXICON = shipped_lexicon().extended(other_places=["Los Arroyos"])


@pytest.mark.parametrize(
    ("text", "tongue", "why"),
    [
        ("sash window", ENGLISH, ""),
        ("окна цена", ENGLISH, "another script"),
        ("окна sash", ENGLISH, ""),
        ("fenster für bad", ENGLISH, "another language: für"),
        ("fenster für küche", GERMAN, ""),
        ("holzfenster mit griff", GERMAN, ""),
        ("window und door", ENGLISH, ""),
        ("fenêtre pas cher", ENGLISH, "another language: pas cher"),
        ("builder los arroyos", ENGLISH, ""),
        ("kaufen", ENGLISH, ""),
        ("παράθυρα", GREEK, ""),
        ("windows", GREEK, "another script"),
        ("1930", ENGLISH, ""),
        ("окна", tongue_of([]), "another script"),
        ("windows", tongue_of([]), ""),
    ],
)
def test_a_text_is_foreign_by_its_script_or_its_small_words(text, tongue, why):
    assert foreign(normalise(text), tongue, LEXICON) == why


@pytest.mark.parametrize("code", ["b07xyz1234", "B07XYZ1234", "5012345678900", "4006381333931"])
def test_codes_are_no_words(code):
    assert is_item_code(code)


@pytest.mark.parametrize(
    "text", ["sash window", "24hour", "1930s", "10000", "windows11", "painting", "b07 xyz1234", ""]
)
def test_words_and_short_figures_are_no_codes(text):
    assert not is_item_code(text)
