"""How alike the keywords of a group are, and which would fit another one better."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.words.texts import singular

if TYPE_CHECKING:
    from scipy.sparse import csr_array

__all__ = ["Likeness", "likeness_of", "likest_groups"]

BETTER = 0.1
"""A keyword would fit another group better where that centre is nearer by so much."""


@dataclass(frozen=True)
class Likeness:
    """How keywords fit their groups.

    Attributes
    ----------
    own : Floats, shape (n_rows,)
        Cosine of each keyword's words, weighted by how rare they are, with its group's
        centre; NaN where it has no group.
    of_group : Floats, shape (n_groups,)
        The mean over its keywords; NaN for an empty one.
    better : Ints, shape (n_rows,)
        The group that it would fit better; −1 where there is none.
    gain : Floats, shape (n_rows,)
        How much nearer that one's centre lies; 0 where there is none.
    """

    own: Floats
    of_group: Floats
    better: Ints
    gain: Floats


def likeness_of(texts: Sequence[str], group: Ints, groups: int) -> Likeness:
    """Compare keywords with the centres of the groups.

    Parameters
    ----------
    texts : sequence of str
        Normalised; n_rows.
    group : Ints, shape (n_rows,)
        −1 for none.
    groups : int
        How many groups there are.

    Returns
    -------
    Likeness
    """
    n = len(texts)
    own, of_group = np.full(n, np.nan), np.full(groups, np.nan)
    better, gain = np.full(n, -1, dtype=np.int64), np.zeros(n)
    mine = np.flatnonzero(group >= 0)
    if not len(mine):
        return Likeness(own, of_group, better, gain)
    words = _weighted([texts[row] for row in mine.tolist()])
    near = _cosines(words, group[mine], groups)
    at = near[np.arange(len(mine)), group[mine]]
    own[mine] = at
    size = np.bincount(group[mine], minlength=groups)
    sums = np.bincount(group[mine], at, minlength=groups)
    of_group = np.divide(sums, size, out=of_group, where=size > 0)
    other = near.copy()
    other[np.arange(len(mine)), group[mine]] = -np.inf
    best = other.argmax(axis=1)
    ahead = other[np.arange(len(mine)), best] - at
    moves = ahead >= BETTER * (1 - 1e-9)
    better[mine[moves]], gain[mine[moves]] = best[moves], ahead[moves]
    return Likeness(own, of_group, better, gain)


def _weighted(texts: list[str]) -> csr_array:
    """Return words weighted by how rare they are, each keyword's of length 1."""
    # idf = ln((1 + N)/(1 + held by)) + 1
    counts = [Counter(map(singular, text.split())) for text in texts]
    held = Counter(word for some in counts for word in some)
    number = {word: at for at, word in enumerate(held)}
    idf = np.log((1 + len(texts)) / (1 + np.array(list(held.values())))) + 1
    row = np.repeat(np.arange(len(texts)), [len(some) for some in counts])
    column = np.array([number[word] for some in counts for word in some], dtype=np.int64)
    times = np.array([n for some in counts for n in some.values()], dtype=np.float64)
    weight = times * idf[column]
    length = np.sqrt(np.bincount(row, weight * weight, minlength=len(texts)))
    from scipy.sparse import csr_array

    return csr_array((weight / length[row], (row, column)), shape=(len(texts), len(number)))


def _members(group: Ints, groups: int) -> csr_array:
    """Return 1 where a text is of a group, of shape (n_groups, n_texts)."""
    from scipy.sparse import csr_array

    n = len(group)
    return csr_array((np.ones(n), (group, np.arange(n))), shape=(groups, n))


def _cosines(words: csr_array, group: Ints, groups: int) -> NDArray[np.float64]:
    """Return the cosine of each keyword with each group's centre."""
    centre = _members(group, groups) @ words
    length = np.sqrt(np.asarray(centre.multiply(centre).sum(axis=1)).ravel())
    near = np.asarray((words @ centre.T).todense(), dtype=np.float64)
    whole = np.where(length > 0, length, 1.0)
    return np.asarray(near / whole, dtype=np.float64)


def likest_groups(texts: Sequence[str], group: Ints, groups: int, asked: Sequence[str]) -> Ints:
    """Return the group that each of some further texts is most like.

    Parameters
    ----------
    texts : sequence of str
        Normalised; keywords that stand in groups.
    group : Ints, shape (n_texts,)
        Of each, 0 or more.
    groups : int
        How many groups there are.
    asked : sequence of str
        Normalised.

    Returns
    -------
    Ints, shape (n_asked,)
        −1 where no group has a word of it.
    """
    if not len(texts) or not len(asked):
        return np.full(len(asked), -1, dtype=np.int64)
    words = _weighted([*texts, *asked])
    centre = _members(group, groups) @ words[: len(texts)]
    length = np.sqrt(np.asarray(centre.multiply(centre).sum(axis=1)).ravel())
    near = np.asarray((words[len(texts) :] @ centre.T).todense()) / np.where(length > 0, length, 1)
    best = near.argmax(axis=1)
    return np.where(near[np.arange(len(asked)), best] > 0, best, -1).astype(np.int64)
