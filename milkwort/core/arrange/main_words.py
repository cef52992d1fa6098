"""The main words of ad groups: what their ads and pages must say."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.lexicon import Lexicon
from milkwort.core.words.stop_words import STOP_SINGULARS
from milkwort.core.words.texts import normalise, singular

__all__ = ["MainWord", "main_words", "said_of", "says"]

_SHARE = 0.25
"""A word with so much of a group's clicks is one of its main words."""
_MOST = 5


@dataclass(frozen=True)
class MainWord:
    """One word of a group.

    Attributes
    ----------
    word : str
        In the singular.
    share : float
        Of the group's expected clicks, those of keywords that hold it; of its searches where
        no click is expected.
    """

    word: str
    share: float


def main_words(result: PlanResult, groups: int, lexicon: Lexicon) -> list[list[MainWord]]:
    """Return the main words of each group, the most clicked first, then by alphabet.

    Parameters
    ----------
    result : PlanResult
    groups : int
        How many groups there are; keywords of none are left out.
    lexicon : Lexicon
        Tells helper words and the plan's own places.

    Returns
    -------
    list of list of MainWord
        At most five a group, by its number.
    """
    table = result.table
    rows: list[list[int]] = [[] for _ in range(groups)]
    for row in np.flatnonzero(table.kept & (table.group >= 0)).tolist():
        rows[int(table.group[row])].append(row)
    telling = {row: _telling(table.texts[row], lexicon) for mine in rows for row in mine}
    return [_of_group(mine, telling, result) for mine in rows]


def _of_group(
    rows: list[int], telling: Mapping[int, frozenset[str]], result: PlanResult
) -> list[MainWord]:
    clicks = np.nan_to_num(result.expected.clicks[rows])
    weight: Floats = clicks if clicks.sum() > 0 else np.nan_to_num(result.demand.own[rows])
    total = float(weight.sum())
    if total <= 0:
        weight, total = np.ones(len(rows)), float(len(rows) or 1)
    sums: dict[str, float] = {}
    for row, value in zip(rows, weight.tolist(), strict=True):
        for word in telling[row]:
            sums[word] = sums.get(word, 0.0) + value
    shares = [MainWord(word, value / total) for word, value in sums.items()]
    main = [one for one in shares if one.share >= _SHARE * (1 - 1e-12)]
    return sorted(main, key=lambda one: (-one.share, one.word))[:_MOST]


def _telling(text: str, lexicon: Lexicon) -> frozenset[str]:
    """Return the words of a text that are no helper, no own place and no stop word."""
    return frozenset(lexicon.telling(text) - STOP_SINGULARS)


def says(text: str) -> frozenset[str]:
    """Return the words that a text says, in the singular.

    Parameters
    ----------
    text : str
        Of an ad or a page, as written.
    """
    return frozenset(map(singular, normalise(text).split()))


def said_of(words: Iterable[MainWord], text: str) -> list[bool]:
    """Say of each main word whether it stands in a text in any close form.

    Parameters
    ----------
    words : iterable of MainWord
    text : str
        Of an ad or a page, as written.
    """
    there = says(text)
    return [one.word in there for one in words]
