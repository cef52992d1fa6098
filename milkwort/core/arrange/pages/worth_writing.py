"""Words that keywords ask for and no page says: pages worth writing."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from milkwort.core.arrange.pages.page_words import PageText
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.lexicon import Lexicon
from milkwort.core.words.stop_words import STOP_SINGULARS

__all__ = ["WorthWriting", "pages_worth_writing"]

_LEAST_KEYWORDS = 2
_MOST = 200


@dataclass(frozen=True)
class WorthWriting:
    """One word that no page says.

    Attributes
    ----------
    word : str
        In the singular.
    keywords : tuple of int
        Rows of the kept keywords that hold it, those with most customers first.
    customers, clicks, searches : float
        Of these keywords, a month.
    """

    word: str
    keywords: tuple[int, ...]
    customers: float
    clicks: float
    searches: float


def pages_worth_writing(
    result: PlanResult, pages: Sequence[PageText], lexicon: Lexicon
) -> list[WorthWriting]:
    """Return the words that several kept keywords ask for and no page says.

    Parameters
    ----------
    result : PlanResult
    pages : sequence of PageText
        All that are known.
    lexicon : Lexicon
        Tells helper words and the plan's own places.

    Returns
    -------
    list of WorthWriting
        By the customers behind them, then by searches; at most 200.
    """
    said = frozenset().union(*(page.words() for page in pages)) if pages else frozenset()
    table, expected = result.table, result.expected
    customers = np.nan_to_num(expected.customers)
    clicks = np.nan_to_num(expected.clicks)
    searches = np.nan_to_num(result.demand.own)
    rows_of: dict[str, list[int]] = {}
    for row in np.flatnonzero(table.kept).tolist():
        for word in lexicon.telling(table.texts[row]) - STOP_SINGULARS - said:
            rows_of.setdefault(word, []).append(row)
    found = [
        WorthWriting(
            word,
            tuple(sorted(rows, key=lambda row: (-customers[row], -searches[row], row))),
            float(customers[rows].sum()), float(clicks[rows].sum()), float(searches[rows].sum()),
        )
        for word, rows in rows_of.items()
        if len(rows) >= _LEAST_KEYWORDS
    ]  # fmt: skip
    return sorted(found, key=lambda one: (-one.customers, -one.searches, one.word))[:_MOST]
