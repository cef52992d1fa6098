"""Keywords near one: in meaning, by the rare words they share, and in price."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass

import numpy as np

from milkwort.core.market.keyword_table import KeywordTable
from milkwort.core.market.prices import Prices
from milkwort.core.words.matching import index_of

__all__ = ["Neighbours", "neighbours_of"]


@dataclass(frozen=True)
class Neighbours:
    """Rows near one, the nearest first.

    Attributes
    ----------
    meaning, price : tuple of int
    """

    meaning: tuple[int, ...]
    price: tuple[int, ...]


def neighbours_of(table: KeywordTable, prices: Prices, row: int, most: int) -> Neighbours:
    """Return the rows nearest to one.

    Parameters
    ----------
    table : KeywordTable
    prices : Prices
        Those without a price lie near nothing in price.
    row : int
    most : int
        How many of each.
    """
    words = index_of(table.texts, table.joints, close_forms=True).words
    often = Counter(word for some in words for word in set(some))
    own = frozenset(words[row])
    # the rarer a shared word, the more it says: Σ 1/number of keywords that hold it; among
    # equals the one of like length
    alike = np.array([
        sum(1 / often[word] for word in own.intersection(some)) - 1e-6 * abs(len(some) - len(own))
        if not own.isdisjoint(some) else 0.0
        for some in words
    ])  # fmt: skip
    apart = np.abs(prices.mu - prices.mu[row])
    return Neighbours(
        _nearest(alike, alike > 0, row, most),
        _nearest(-np.nan_to_num(apart, nan=np.inf), np.isfinite(apart), row, most),
    )


def _nearest(
    near: np.ndarray[tuple[int], np.dtype[np.float64]],
    can: np.ndarray[tuple[int], np.dtype[np.bool_]],
    row: int,
    most: int,
) -> tuple[int, ...]:
    order = np.argsort(-near, kind="stable")
    found = order[can[order] & (order != row)]
    return tuple(found[:most].tolist())
