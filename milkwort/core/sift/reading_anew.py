"""Intents that were read from words, read again when the words say something else."""

from __future__ import annotations

from collections.abc import Sequence

from milkwort.core.words.lexicon import Lexicon

__all__ = ["intents_read_anew"]


def intents_read_anew(
    texts: Sequence[str], intents: Sequence[str], old: Lexicon, new: Lexicon
) -> dict[str, list[int]]:
    """Return the keywords whose intent was read from their words and now reads otherwise.

    Parameters
    ----------
    texts : sequence of str
        Normalised; n_keywords.
    intents : sequence of str
        What each has now; one that the old lexicon does not read was said by the planner,
        and stays.
    old, new : Lexicon

    Returns
    -------
    dict of str to list of int
        Rows by their new intent.
    """
    found: dict[str, list[int]] = {}
    for row, (text, intent) in enumerate(zip(texts, intents, strict=True)):
        now = new.intent(text).intent
        if now != intent and old.intent(text).intent == intent:
            found.setdefault(now, []).append(row)
    return found
