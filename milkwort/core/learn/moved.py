"""What moved since the days before: showings, price and clicks of two windows alike in length."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.learn.seen import ResultRows

__all__ = ["Moved", "moved_since"]

_MOST_DAYS = 28


@dataclass(frozen=True)
class Moved:
    """Two windows of as many days, the later one ending with the last day seen.

    Attributes
    ----------
    days : int
        Of each; a whole number of weeks, so that weekdays weigh alike.
    until : date
        The last day of the later one.
    before, now : dict of str to float
        ``impressions``, ``clicks``, ``cost``, ``customers`` and ``cpc`` (money a click, 0
        without one); no impressions where some of their rows don't say them.
    """

    days: int
    until: date
    before: dict[str, float]
    now: dict[str, float]


def moved_since(rows: ResultRows) -> Moved | None:
    """Compare the last weeks with as many before; None where two weeks aren't seen.

    Parameters
    ----------
    rows : ResultRows
    """
    if not len(rows):
        return None
    last, seen = int(rows.last.max()), int(rows.last.max() - rows.first.min()) + 1
    days = min(seen // 14 * 7, _MOST_DAYS)
    if days < 7:
        return None
    now, before = (_sums(rows, end - days + 1, end) for end in (last, last - days))
    return Moved(days, date.fromordinal(last), before, now)


def _sums(rows: ResultRows, first: int, last: int) -> dict[str, float]:
    inside = np.minimum(rows.last, last) - np.maximum(rows.first, first) + 1
    share: Floats = np.maximum(inside, 0) / (rows.last - rows.first + 1)
    names = ("impressions", "clicks", "cost", "customers")
    inside = share > 0
    sums = {name: float((getattr(rows, name) * share)[inside].sum()) for name in names}
    found = {name: value for name, value in sums.items() if not np.isnan(value)}
    return found | {"cpc": found["cost"] / found["clicks"] if found["clicks"] > 0 else 0.0}
