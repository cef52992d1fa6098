"""What a group's ads must say, and how alike its keywords are."""

import numpy as np
import pytest

from milkwort.core.arrange.group_likeness import likeness_of
from milkwort.core.arrange.main_words import main_words, said_of
from milkwort.core.plan.run import run_plan
from milkwort.core.words.lexicon import shipped_lexicon
from tests.samples import brief, calls, table

LEXICON = shipped_lexicon().extended(places=["Eastmere"])


def words_of(texts, volumes, **columns):
    n = len(texts)
    sheet = table(volumes, [0.8] * n, [2.4] * n, texts=tuple(texts),
                  group=np.zeros(n, dtype=np.int64), **columns)  # fmt: skip
    result = run_plan(brief(monthly_spend=columns.pop("purse", 1e5)), sheet)
    return main_words(result, 1, LEXICON)[0]


def test_close_forms_are_one_word_and_helpers_places_and_stop_words_none():
    found = words_of(["sash windows in eastmere", "sash window near me"], [100, 100])
    assert [(w.word, w.share) for w in found] == [("sash", 1.0), ("window", 1.0)]


def test_a_word_needs_a_quarter_of_the_clicks_and_they_are_five_at_most():
    found = words_of(["sash repair", "sash painting", "sash glazing"], [300, 100, 99])
    shares = {w.word: w.share for w in found}
    assert list(shares)[:2] == ["sash", "repair"]
    assert shares["repair"] == pytest.approx(300 / 499)
    assert "painting" not in shares and "glazing" not in shares
    many = words_of(["sash window repair frame cord pulley glass"], [50])
    assert len(many) == 5 and [w.word for w in many] == sorted(w.word for w in many)


def test_only_kept_keywords_count_and_searches_where_no_click_is_expected():
    found = words_of(["sash repair", "oak door"], [10, 900], call=calls("keep", "drop"))
    assert [w.word for w in found] == ["repair", "sash"]
    nothing = np.full(2, np.nan)
    unpriced = words_of(["sash repair", "sash cord"], [30, 90], cpc_low=nothing, cpc_high=nothing)
    assert [(w.word, w.share) for w in unpriced] == [
        ("sash", 1.0),
        ("cord", 0.75),
        ("repair", 0.25),
    ]


def test_a_text_says_a_word_in_any_close_form():
    words = words_of(["sash window repair"], [10])
    said = dict(
        zip([w.word for w in words], said_of(words, "Window-Repairs, done well."), strict=True)
    )
    assert said == {"repair": True, "sash": False, "window": True}


def test_likeness_is_one_for_one_text_and_falls_as_words_differ():
    group = np.array([0, 0, 1, 1, -1])
    found = likeness_of(
        ["sash repair", "sash repair", "oak door", "tin roof", "sash repair"], group, 3
    )
    assert found.of_group[0] == pytest.approx(1.0)
    assert found.of_group[1] == pytest.approx(np.sqrt(0.5))
    assert np.isnan(found.of_group[2]) and np.isnan(found.own[4])


def test_a_keyword_in_the_wrong_group_would_fit_the_other_better():
    texts = ["sash repair", "sash repair cost", "oak door", "oak door price", "sash repair quote"]
    found = likeness_of(texts, np.array([0, 0, 1, 1, 1]), 2)
    assert found.better.tolist() == [-1, -1, -1, -1, 0]
    assert found.gain[4] >= 0.1


def test_no_keyword_has_no_likeness():
    empty = likeness_of([], np.zeros(0, dtype=np.int64), 2)
    assert np.isnan(empty.of_group).all()
