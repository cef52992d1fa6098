"""What block makes, and what another call sets free."""

from milkwort.core.plan.run import run_plan
from milkwort.core.sift.blocking import freed_by, stands_in_kept, warning_words_of
from milkwort.core.words.lexicon import shipped_lexicon
from tests.samples import brief, calls, table

WORDS = shipped_lexicon()


def test_a_warning_word_is_freed_once_nothing_blocked_holds_it():
    free = "free sash guide"
    held = warning_words_of([free], WORDS)
    assert "free" in held
    assert freed_by([free], [], WORDS) == held
    assert freed_by([free], ["free window putty"], WORDS) == held - {"free"}
    assert freed_by(["sash window repair"], [free], WORDS) == set()


def test_a_negatives_words_stand_in_a_kept_keyword_only_as_whole_words_in_a_row():
    rows = table([10.0, 10.0], [1.0, 1.0], [2.0, 2.0], call=calls("keep", "drop"))
    result = run_plan(brief(), rows)
    kept, dropped = result.table.texts
    assert stands_in_kept(result, " ".join(kept.split()[:2]))
    assert not stands_in_kept(result, kept[:-1] + "x")
    assert kept != dropped and not stands_in_kept(result, dropped)
