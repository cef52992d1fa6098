"""Results of several imports as one: of every row and day the newest counts."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from milkwort.core.arrays import Ints

__all__ = ["coded", "newest_rows"]


def coded(texts: Sequence[str]) -> tuple[list[str], Ints]:
    """Return texts as whole numbers that stand in the texts' own order.

    Parameters
    ----------
    texts : sequence of str

    Returns
    -------
    names : list of str
        Each once, in order.
    codes : Ints, shape (n_texts,)
        Place of each text among them.
    """
    names = sorted(set(texts))
    place = {name: at for at, name in enumerate(names)}
    return names, np.fromiter(map(place.__getitem__, texts), dtype=np.int64, count=len(texts))


def newest_rows(about: Sequence[Ints], number: Ints) -> Ints:
    """Return which rows count, in an order of their own: the same whichever import came first.

    Parameters
    ----------
    about : sequence of Ints, each of shape (n_rows,)
        What each row is about, by whole numbers: its days and its names. The first is the first
        to be ordered by.
    number : Ints, shape (n_rows,)
        Of the import that each row stands in; a higher number is newer, and none falls. A row
        that stands twice in one import counts twice: it is part of a sum.

    Returns
    -------
    Ints
        Rows, by what they are about; those about the same in the order of their import.
    """
    n = len(number)
    if not n:
        return np.zeros(0, dtype=np.int64)
    order = np.lexsort(tuple(about[::-1])).astype(np.int64, copy=False)
    other = np.zeros(n, dtype=np.bool_)
    other[0] = True
    for column in about:
        sorted_by = column[order]
        other[1:] |= sorted_by[1:] != sorted_by[:-1]
    begins = np.flatnonzero(other)
    newest = np.maximum.reduceat(number[order], begins)
    counts = number[order] == np.repeat(newest, np.diff(begins, append=n))
    return np.asarray(order[counts])
