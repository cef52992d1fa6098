"""Draws as dots: each stands for as many months, from the least to the most."""

from __future__ import annotations

import numpy as np

from milkwort.core.arrays import Floats

__all__ = ["MONTHS_A_DOT", "dots_of"]

MONTHS_A_DOT = 20


def dots_of(values: Floats) -> Floats:
    """Return the middle of each so many months, in rising order.

    Parameters
    ----------
    values : Floats, shape (n_draws,)
        May hold infinities, which come last.

    Returns
    -------
    Floats, shape (n_draws // MONTHS_A_DOT,)
    """
    whole = len(values) // MONTHS_A_DOT * MONTHS_A_DOT
    ordered = np.sort(values)[:whole].reshape(-1, MONTHS_A_DOT)
    return np.asarray(ordered[:, MONTHS_A_DOT // 2])
