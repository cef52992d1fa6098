import pytest

from milkwort.core.words.lexicon import Lexicon, read_list, shipped_lexicon
from milkwort.core.words.texts import normalise
from tests.core.words.intent_sample import labelled

LEXICON = shipped_lexicon()


def test_the_words_say_the_intent_of_at_least_85_of_100_hand_labelled_keywords():
    rows = labelled()
    assert len(rows) >= 150
    wrong = [(k, i, LEXICON.intent(normalise(k)).intent) for k, i in rows
             if LEXICON.intent(normalise(k)).intent != i]  # fmt: skip
    assert len(wrong) <= 0.15 * len(rows), wrong


def test_no_intent_is_read_well_at_the_cost_of_another():
    by_intent = {}
    for keyword, intent in labelled():
        hit = LEXICON.intent(normalise(keyword)).intent == intent
        by_intent.setdefault(intent, []).append(hit)
    assert all(sum(hits) / len(hits) >= 0.75 for hits in by_intent.values()), by_intent


@pytest.mark.parametrize(
    ("text", "intent", "words"),
    [
        ("sash window repair", "buy", ("repair",)),
        ("how much does a plumber cost", "compare", ("how much does", "cost")),
        ("free quote for a boiler", "buy", ("free quote",)),
        ("dog grooming jobs near me", "job", ("jobs",)),
        ("heritage glazing", "unknown", ()),
        ("", "unknown", ()),
    ],
)
def test_each_reading_says_which_words_decided_it(text, intent, words):
    reading = LEXICON.intent(text)
    assert (reading.intent, reading.words) == (intent, words)


def test_a_plans_own_words_extend_the_lexicon():
    own = LEXICON.extended(
        places=["Calder Stoke"], services=["sash windows"], rivals=["Pane & Plane"]
    )
    assert own.intent("sash window calder stoke").intent == "buy"
    assert own.intent("pane plane windows").intent == "firm"
    kinds = {k.word: (k.kind, k.own_place) for k in own.kinds("window repair in calder stoke")}
    assert kinds["stoke"] == ("where", True) and kinds["in"][0] == "helper"
    assert kinds["window"] == ("what", False)


def test_a_plans_own_warnings_and_helpers_stand_beside_those_that_are_known():
    own = LEXICON.extended(warnings=["second hand"], helpers=["round here"], everyday=["course"])
    assert own.warning_words("free second hand sash window course") == ("free", "second hand")
    kinds = {k.word: k.kind for k in own.kinds("best sash window round here")}
    assert kinds["best"] == kinds["round"] == kinds["here"] == "helper"


def test_remarks_and_blank_lines_of_a_list_are_no_words():
    runs = read_list("doing")
    assert ("ask", "for") in runs and () not in runs
    assert all(len(run) <= 3 for run in runs)


def test_a_word_of_buying_inside_a_longer_run_warns_of_nothing():
    assert LEXICON.warning_words("free sash window course") == ("free", "course")
    assert LEXICON.warning_words("free quote sash window") == ()


def test_only_a_run_of_several_words_that_speaks_of_buying_covers_its_warning_words():
    runs = {("book", "a", "course"): "buy", ("hire",): "buy", ("course", "dates"): "learn"}
    own = Lexicon(runs, frozenset({("course",), ("hire",), ("job",)}), frozenset(), frozenset(),
                  _longest=3)  # fmt: skip
    assert own.warning_words("book a course") == ()
    assert own.warning_words("a course to book") == ("course",)
    assert own.warning_words("book a course course") == ("course",)
    assert own.warning_words("hire") == ("hire",)  # one word is what it warns of
    assert own.warning_words("course dates") == ("course",)
    assert own.warning_words("sash jobs") == ("job",)  # a plural is told by its singular


def test_what_tells_a_text_apart_is_neither_helper_nor_own_place():
    own = LEXICON.extended(places=["Eastmere"])
    assert own.telling("repair for sash windows in eastmere") == {"repair", "sash", "window"}


def test_near_me_is_a_helper_and_no_place():
    lexicon = shipped_lexicon().extended(places=["Eastmere"])
    kinds = {k.word: k.kind for k in lexicon.kinds("sash repair near me")}
    assert (kinds["near"], kinds["me"]) == ("helper", "helper")
    assert lexicon.place_runs("sash repair near me") == 1  # and yet it asks for somewhere
