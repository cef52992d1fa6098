"""Sums of money in whole cents whose parts add up."""

from __future__ import annotations

import numpy as np

from milkwort.core.arrays import Floats

__all__ = ["in_cents"]

_CENT = 0.01
_EDGE = 1e-9


def in_cents(parts: Floats, total: float | None = None) -> Floats:
    """Return parts in whole cents that add up to a total, to the cent.

    Each is floored; the cents that are left go to those that lost most by it.

    Parameters
    ----------
    parts : Floats, shape (n_parts,)
        Money, 0 or more.
    total : float, optional
        What they add up to, rounded to the cent; their own sum where left out.
    """
    whole = round((float(parts.sum()) if total is None else total) / _CENT)
    if float(parts.sum()) <= 0 or len(parts) == 0:
        return np.zeros(len(parts))
    exact = parts / float(parts.max())
    exact = exact * (whole / float(exact.sum()))
    cents = np.floor(exact + _EDGE)
    left = int(whole - cents.sum())
    order = np.argsort(cents - exact, kind="stable")
    cents[order[: max(left, 0)]] += 1
    return np.asarray(np.round(cents * _CENT, 2))
