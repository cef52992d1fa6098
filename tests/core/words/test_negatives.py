"""Which texts a negative stops, and where it acts."""

import pytest

from milkwort.core.errors import BadValueError
from milkwort.core.words.matching import index_of
from milkwort.core.words.negatives import Negative, stopped_by
from milkwort.core.words.texts import joints_of, normalise

TEXTS = ["free sash windows", "sash window", "re-glazing sash", "re glazing", "free"]


def stopped(*negatives, close_forms=False, texts=TEXTS):
    joints = joints_of(texts)
    spelt = joints | joints_of(n.text for n in negatives)
    index = index_of(tuple(map(normalise, texts)), spelt, close_forms)
    return stopped_by(negatives, index, joints, close_forms)


def pairs(found):
    return sorted(zip(found.negative.tolist(), found.text.tolist(), strict=True))


def test_a_phrase_stops_what_holds_it_and_an_exact_one_only_itself():
    assert pairs(stopped(Negative("free"), Negative("free", "exact"))) == [(0, 0), (0, 4), (1, 4)]


def test_only_what_acts_in_the_whole_plan_stops_everywhere():
    found = stopped(Negative("free", "exact"), Negative("sash", "phrase", "campaign", 0),
                    Negative("glazing", "phrase", "group", 3))  # fmt: skip
    assert found.everywhere.tolist() == [False, False, False, False, True]
    assert {0, 1, 2} == set(found.negative.tolist())
    nothing = stopped(Negative("sash", "phrase", "group", 0))
    assert not nothing.everywhere.any() and len(nothing.text) == 3


def test_a_word_with_a_hyphen_stops_both_its_spellings():
    for text in ("re-glazing", "reglazing"):
        assert {at for _, at in pairs(stopped(Negative(text)))} >= {2}
    assert [at for _, at in pairs(stopped(Negative("re-glazing")))] == [2, 3]


def test_a_joint_that_only_the_negative_tells_of_is_one():
    """No text has the hyphen: the negative says how the two words belong together."""
    texts = ["re glazing", "reglazing", "glazing"]
    found = stopped(Negative("re-glazing"), texts=texts)
    assert [at for _, at in pairs(found)] == [0, 1]


def test_a_plural_stops_its_singular_only_where_the_platform_says_so():
    assert [at for _, at in pairs(stopped(Negative("windows")))] == [0]
    both = stopped(Negative("windows"), close_forms=True)
    assert [at for _, at in pairs(both)] == [0, 1]


def test_no_negatives_stop_nothing():
    found = stopped()
    assert pairs(found) == [] and not found.everywhere.any()


@pytest.mark.parametrize(
    ("made", "says"),
    [
        (lambda: Negative(" -- "), "at least one word"),
        (lambda: Negative(""), "at least one word"),
        (lambda: Negative("free", "close"), "match"),
        (lambda: Negative("free", "exact", "account"), "level"),
    ],
)
def test_what_is_no_negative_is_refused(made, says):
    with pytest.raises(BadValueError, match=says):
        made()


def test_a_negative_acts_in_the_whole_plan_and_in_no_place_of_it_unless_said():
    one = Negative("free")
    assert (one.match, one.level, one.number) == ("phrase", "plan", -1)
