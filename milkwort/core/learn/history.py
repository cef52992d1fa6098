"""What was changed from one month to the next, and what came of it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats
from milkwort.core.errors import BadValueError

__all__ = ["CHANGES", "Change", "Changed", "RanMonth", "Sums", "what_changed"]

Change = Literal["raised", "lowered", "stopped", "added", "same"]
CHANGES: tuple[Change, ...] = get_args(Change)
_A_MONTH = 30.0
_SAME = 1e-9


@dataclass(frozen=True)
class RanMonth:
    """Bids and results of some days; arrays of shape (n_keywords,).

    Attributes
    ----------
    days : int
        How many; 1 or more.
    bid : Floats
        Money a click; NaN where a keyword did not run.
    clicks, spend, customers : Floats
        Sums of those days.
    """

    days: int
    bid: Floats
    clicks: Floats
    spend: Floats
    customers: Floats


@dataclass(frozen=True)
class Sums:
    """Of some keywords, in 30 days: months of unlike length, or begun, compare."""

    clicks: float
    spend: float
    customers: float


@dataclass(frozen=True)
class Changed:
    """Keywords that were changed alike.

    Attributes
    ----------
    change : Change
        Bids raised or lowered, keywords stopped or added; those that ran on at the same bid
        stand beside, since what they did is what the month itself did.
    keywords : int
    before, after : Sums
    """

    change: Change
    keywords: int
    before: Sums
    after: Sums


def what_changed(before: RanMonth, after: RanMonth) -> tuple[Changed, ...]:
    """Say what became of the keywords whose bids were changed, by how they were.

    Parameters
    ----------
    before, after : RanMonth
        The same keywords, row by row.

    Returns
    -------
    tuple of Changed
        In the order of `CHANGES`; what did not happen is left out.

    Raises
    ------
    BadValueError
        Where the keywords are not the same, or there is no day.
    """
    if len(before.bid) != len(after.bid):
        raise BadValueError("months", "the same keywords", f"{len(before.bid)}, {len(after.bid)}")
    if min(before.days, after.days) < 1:
        raise BadValueError("days", "1 or more", min(before.days, after.days))
    ran, runs = np.isfinite(before.bid), np.isfinite(after.bid)
    both = ran & runs
    moved = np.where(both, after.bid - before.bid, 0.0)
    chosen: dict[Change, NDArray[np.bool_]] = {
        "raised": both & (moved > _SAME), "lowered": both & (moved < -_SAME),
        "stopped": ran & ~runs, "added": ~ran & runs, "same": both & (np.abs(moved) <= _SAME),
    }  # fmt: skip
    return tuple(
        Changed(change, int(rows.sum()), _sums(before, rows), _sums(after, rows))
        for change, rows in chosen.items()
        if rows.any()
    )


def _sums(month: RanMonth, rows: NDArray[np.bool_]) -> Sums:
    times = _A_MONTH / month.days
    return Sums(*(float(column[rows].sum()) * times
                  for column in (month.clicks, month.spend, month.customers)))  # fmt: skip
