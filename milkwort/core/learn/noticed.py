"""What is strange about results as they came: days without rows, sums that don't match."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.errors import BadValueError
from milkwort.core.pairs import pairs_once

__all__ = ["Differs", "days_without", "sums_differ"]

_CLOSE = 0.005
"""Share by which sums of two levels may differ: reports are rounded, each by itself."""


@dataclass(frozen=True)
class Differs:
    """Money of the same days by two levels.

    Attributes
    ----------
    first, last : int
        Ordinals of the days that both levels hold.
    one, other : float
    """

    first: int
    last: int
    one: float
    other: float


def days_without(first: Ints, last: Ints) -> list[tuple[int, int]]:
    """Return the days between the first and the last that no row is about.

    Parameters
    ----------
    first, last : Ints, shape (n_rows,)
        Ordinals of the days of each row, ends included.

    Returns
    -------
    list of (int, int)
        First and last day of each gap.

    Raises
    ------
    BadValueError
        Where a row ends before it begins.
    """
    if not len(first):
        return []
    if (last < first).any():
        raise BadValueError("last", "a day from the first on", int(last[last < first][0]))
    spans, _ = pairs_once(first, last)
    # the latest end so far: a row may begin before an earlier one has ended
    reached = np.maximum.accumulate(spans[:, 1])
    at = np.flatnonzero(spans[1:, 0] > reached[:-1] + 1)
    return [(int(reached[i]) + 1, int(spans[i + 1, 0]) - 1) for i in at.tolist()]


def sums_differ(
    first: Ints, last: Ints, cost: Floats, other_first: Ints, other_last: Ints, other_cost: Floats
) -> Differs | None:
    """Hold the money of one level against that of another, over the days both hold.

    Parameters
    ----------
    first, last, cost
        Rows of one level: days and money.
    other_first, other_last, other_cost
        Of the other.

    Returns
    -------
    Differs or None
        None where they agree, or hold no day in common.
    """
    if not len(first) or not len(other_first):
        return None
    start = max(int(first.min()), int(other_first.min()))
    end = min(int(last.max()), int(other_last.max()))
    if end < start:
        return None
    one = _between(first, last, cost, start, end)
    other = _between(other_first, other_last, other_cost, start, end)
    if abs(one - other) <= _CLOSE * max(one, other, 1.0):
        return None
    return Differs(start, end, one, other)


def _between(first: Ints, last: Ints, values: Floats, start: int, end: int) -> float:
    """Return the sum over some days; a window is spread evenly over its own."""
    inside = np.maximum(np.minimum(last, end) - np.maximum(first, start) + 1, 0)
    return float((values * inside / (last - first + 1)).sum())
