"""Pairs of whole numbers, each once."""

from __future__ import annotations

import numpy as np

from milkwort.core.arrays import Ints

__all__ = ["pairs_once"]


def pairs_once(one: Ints, other: Ints) -> tuple[Ints, Ints]:
    """Return the distinct pairs, and which of them each row has.

    Parameters
    ----------
    one, other : Ints, shape (n_rows,)
        Their ranges' product must be below 2^63: days, or rows of a table.

    Returns
    -------
    pairs : Ints, shape (n_pairs, 2)
        In order, by the first and then the second.
    place : Ints, shape (n_rows,)
        Row of `pairs`.

    Notes
    -----
    One number for each pair sorts ten times as fast as pairs do.
    """
    if not len(one):
        return np.zeros((0, 2), dtype=np.int64), np.zeros(0, dtype=np.int64)
    least, lesser = one.min(), other.min()
    wide = int(other.max() - lesser) + 1
    codes, place = np.unique((one - least) * wide + (other - lesser), return_inverse=True)
    pairs = np.column_stack((codes // wide + least, codes % wide + lesser))
    return pairs, place.astype(np.int64, copy=False)
