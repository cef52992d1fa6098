import numpy as np
import pytest

from milkwort.core.errors import BadValueError, PlannerError
from milkwort.core.words.lexicon import shipped_lexicon
from milkwort.standins.almanac import Almanac


def everything(almanac, *roots):
    ideas, page, more = [], 0, True
    while more:
        answer = almanac.ideas(roots, page)
        ideas += answer.ideas
        more, page = answer.more, page + 1
    return ideas


def test_the_same_words_and_seed_say_the_same_and_another_seed_says_other():
    one, two = Almanac(), Almanac()
    assert everything(one, "dog grooming") == everything(two, "dog grooming")
    assert everything(one, "dog grooming") != everything(Almanac(seed=8), "dog grooming")


@pytest.mark.parametrize("root", ["dog grooming", "bike repair shop", "tax return", "kimchi jar"])
def test_figures_look_like_a_sources_in_any_trade(root):
    ideas = everything(Almanac(), root)
    assert len({i.text for i in ideas}) == len(ideas) > 40
    assert any(i.volume[0] < i.volume[1] for i in ideas)
    for idea in ideas:
        assert 0 < idea.cpc_low <= idea.cpc_high and 0 <= idea.competition <= 1
        assert idea.volume[0] <= idea.volume[1] and len(idea.months) == 12
    text = " | ".join(i.text for i in ideas)
    assert "jobs" in text and "free" in text and "hollowbrook" in text
    assert not all(i.near for i in ideas) or " " not in root


def test_long_keywords_are_rarer_and_buying_words_dearer():
    ideas = [
        i for r in ("dog grooming", "bike repair", "tax advice") for i in everything(Almanac(), r)
    ]
    length = np.array([i.text.count(" ") for i in ideas])
    volume = np.log([max(i.volume[1], 1) for i in ideas])
    assert np.corrcoef(length, volume)[0, 1] < -0.3
    intents = [shipped_lexicon().intent(i.text).intent for i in ideas]
    price = {k: np.median([i.cpc_high for i, n in zip(ideas, intents, strict=True) if n == k])
             for k in ("buy", "learn")}  # fmt: skip
    assert price["buy"] > 1.5 * price["learn"]


def test_completions_begin_with_what_was_typed():
    found = Almanac().completions("Dog Grooming")
    assert len(found) == 10 and all(t.startswith("dog grooming ") for t in found)
    assert Almanac().completions("!") == ()


def test_given_texts_get_their_own_figures():
    answer = Almanac().figures(["Sash Repair", "sash repair", ""])
    assert [i.text for i in answer.ideas] == ["sash repair"]


def test_the_quota_is_visible_and_ends():
    almanac = Almanac(quota=2)
    assert almanac.ideas(["a b"]).quota_left == 1
    almanac.ideas(["a b"])
    with pytest.raises(PlannerError, match="quota"):
        almanac.ideas(["a b"])


@pytest.mark.parametrize("roots", [[], ["!"], [f"w{i}" for i in range(21)]])
def test_no_root_word_or_too_many_are_refused(roots):
    with pytest.raises(BadValueError, match="root words"):
        Almanac().ideas(roots)
