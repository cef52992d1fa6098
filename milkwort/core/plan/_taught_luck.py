"""The luck of what is drawn only once results were taken over: groups, and prices of their own."""

from __future__ import annotations

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.market.keyword_table import KeywordTable
from milkwort.core.plan._luck import Luck
from milkwort.core.words.match_types import MATCHES

__all__ = ["TaughtLuck", "names_of"]


class TaughtLuck:
    """Standard normal numbers of shape (n_draws, n_rows).

    The luck of a group is that of the first of its texts, so that a version whose groups are
    numbered anew meets the same.

    Parameters
    ----------
    table : KeywordTable
    rows : Ints
        The keywords that run.
    seed : int
    """

    def __init__(self, table: KeywordTable, rows: Ints, seed: int) -> None:
        held, self._place = np.unique(table.group[rows], return_inverse=True)
        first: dict[int, str] = {}
        for number, text in zip(table.group.tolist(), table.texts, strict=True):
            first[number] = min(first.get(number, text), text)
        named = [first[number] for number in held.tolist()]
        self._group = Luck(seed, [f"group {name}" for name in named])
        self._group_price = Luck(seed, [f"prices of group {name}" for name in named])
        self._own_price = Luck(seed, [f"price of {name}" for name in names_of(table, rows)])

    def group(self, use: str, draws: range) -> Floats:
        """Return what a group's keywords share of searches or of the click rate."""
        return self._group.normal(use, draws)[:, self._place]

    def group_price(self, draws: range) -> Floats:
        """Return what a group's keywords share of prices."""
        return self._group_price.normal("searches", draws)[:, self._place]

    def own_price(self, draws: range) -> Floats:
        """Return what is each keyword's own of prices."""
        return self._own_price.normal("searches", draws)


def names_of(table: KeywordTable, rows: Ints) -> list[str]:
    """Return by what the luck of some keywords goes: match and text."""
    matches = table.match[rows].tolist()
    return [f"{MATCHES[match]} {table.texts[row]}" for row, match in
            zip(rows.tolist(), matches, strict=True)]  # fmt: skip
