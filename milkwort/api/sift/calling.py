"""Calls with what follows from them: the negatives that *block* makes."""

from __future__ import annotations

from collections.abc import Sequence

from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.sift.blocking import freed_by, warning_words_of
from milkwort.core.words.negatives import Negative
from milkwort.store.journal import Change
from milkwort.store.keywords import set_calls
from milkwort.store.negatives import add_negatives, list_negatives, remove_negatives

__all__ = ["call_rows"]

_BY = "block"
"""Who made a negative that comes and goes with the call of its keywords."""


def call_rows(
    change: Change, loaded: OpenPlan, rows: Sequence[int], call: str, reason: str, by: str
) -> None:
    """Call some keywords of the sheet.

    *Block* also makes a phrase negative of each warning word; a keyword that has none is
    stopped by its own text. Another call takes back the negatives that nothing blocked
    needs any more.
    """
    sheet, lexicon = loaded.sheet, lexicon_of(loaded.record.brief)
    texts = sheet.table.texts
    set_calls(change, [sheet.ids[r] for r in rows], call, reason, by)
    if call == "block":
        words = warning_words_of([texts[r] for r in rows], lexicon)
        add_negatives(change, [Negative(word, "phrase") for word in sorted(words)], _BY)
        return
    blocked = [r for r in rows if sheet.entries[r].call == "block"]
    if not blocked:
        return
    touched = set(rows)
    stored = [n for n in list_negatives(change.session, change.plan_id) if n.by == _BY]
    if not stored:
        return
    still = [r for r, e in enumerate(sheet.entries) if e.call == "block" and r not in touched]
    freed = freed_by([texts[r] for r in blocked], [texts[r] for r in still], lexicon)
    remove_negatives(change, [n.id for n in stored if n.text in freed])
