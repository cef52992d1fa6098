"""What the call *block* means: the negatives that come and go with it."""

from __future__ import annotations

from collections.abc import Iterable

import numpy as np

from milkwort.core.plan.run import PlanResult
from milkwort.core.words.lexicon import Lexicon
from milkwort.core.words.texts import normalise

__all__ = ["freed_by", "stands_in_kept", "warning_words_of"]


def warning_words_of(texts: Iterable[str], lexicon: Lexicon) -> set[str]:
    """Return the warning words of texts, each of which *block* makes a phrase negative.

    Parameters
    ----------
    texts : iterable of str
        Normalised. One without a warning word is stopped by its own text instead.
    lexicon : Lexicon
    """
    return {word for text in texts for word in lexicon.warning_words(text)}


def freed_by(texts: Iterable[str], still_blocked: Iterable[str], lexicon: Lexicon) -> set[str]:
    """Return the warning words that nothing blocked needs any more.

    Parameters
    ----------
    texts : iterable of str
        Normalised texts that were blocked and are called otherwise now.
    still_blocked : iterable of str
        Those of all others that are blocked.
    lexicon : Lexicon
    """
    words = warning_words_of(texts, lexicon)
    return words - warning_words_of(still_blocked, lexicon) if words else words


def stands_in_kept(result: PlanResult, text: str) -> bool:
    """Say whether a negative's words also stand in a keyword that is kept.

    Parameters
    ----------
    result : PlanResult
    text : str
        Of the negative.
    """
    run = f" {normalise(text)} "
    kept = np.flatnonzero(result.table.kept).tolist()
    return any(run in f" {result.table.texts[row]} " for row in kept)
