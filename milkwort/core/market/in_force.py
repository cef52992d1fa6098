"""The negatives in force: those given, and those that a call makes."""

from __future__ import annotations

import numpy as np

from milkwort.core.market.keyword_table import CALLS, KeywordTable
from milkwort.core.words.negatives import Negative

__all__ = ["negatives_in_force"]


def negatives_in_force(given: tuple[Negative, ...], table: KeywordTable) -> tuple[Negative, ...]:
    """Return the negatives given and those that the call *block* makes, in that order.

    A row called block adds an exact negative of its text at plan level.

    Parameters
    ----------
    given : tuple of Negative
        Of the brief.
    table : KeywordTable
        Its calls are read.
    """
    blocked = np.flatnonzero(table.call == CALLS.index("block")).tolist()
    have = {(n.text, n.match) for n in given if n.level == "plan"}
    texts = dict.fromkeys(table.texts[row] for row in blocked)
    return (*given, *(Negative(t, "exact") for t in texts if (t, "exact") not in have))
