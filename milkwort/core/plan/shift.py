"""Money moved between the months of a year."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats
from milkwort.core.brief.fields import MOST_MONEY
from milkwort.core.errors import BadValueError
from milkwort.core.plan.cents import in_cents

__all__ = ["with_month"]


def with_month(
    months: Floats, at: int, money: float, *, keep_sum: bool, lived: NDArray[np.bool_] | None = None
) -> Floats:
    """Return the months' money with another sum in one of them.

    Parameters
    ----------
    months : Floats, shape (12,)
        Money.
    at : int
        0 for the first month.
    money : float
        What that month gets; no more than the year has where the sum is kept.
    keep_sum : bool
        Whether the others give or take what it takes or gives, each by its share.
    lived : ndarray of bool, optional
        Whether a month has any day: one that has none takes no money.

    Returns
    -------
    Floats, shape (12,)
        In whole cents.

    Raises
    ------
    BadValueError
        For a month that is none, or a sum out of range.
    """
    if not 0 <= at < len(months):
        raise BadValueError("month", f"a month from 0 to {len(months) - 1}", at)
    if not 0 <= money <= MOST_MONEY:
        raise BadValueError("money", f"a sum from 0 to {MOST_MONEY:g}", money)
    if not keep_sum:
        moved = months.copy()
        moved[at] = round(money, 2)
        return moved
    total = round(float(months.sum()), 2)
    own = min(round(money, 2), total)
    others = np.ones(len(months)) if lived is None else lived.astype(np.float64)
    others[at] = 0.0
    weight = months * others
    if weight.sum() <= 0:  # nothing to go by: each as much
        weight = others
    if weight.sum() <= 0:
        own = total
    moved = in_cents(weight, total - own)
    moved[at] = own
    return moved
