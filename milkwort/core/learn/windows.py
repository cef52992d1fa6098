"""Windows of days: how much of each lies within some others."""

from __future__ import annotations

from datetime import date

import numpy as np

from milkwort.core.arrays import Floats, Ints

__all__ = ["share_within"]


def share_within(first: Ints, last: Ints, since: date, until: date) -> Floats:
    """Return which share of each window's days lies from since to until.

    Parameters
    ----------
    first, last : Ints, shape (n_windows,)
        Ordinals of days, ends included.
    since, until : date
        Ends included.

    Returns
    -------
    Floats, shape (n_windows,)
        0 to 1.
    """
    inside = np.minimum(last, until.toordinal()) - np.maximum(first, since.toordinal()) + 1
    share: Floats = np.maximum(inside, 0) / (last - first + 1)
    return share
