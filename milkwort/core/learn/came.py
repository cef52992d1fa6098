"""What came of some days, summed over all rows: what a range that was given is held against."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.learn.seen import ResultRows
from milkwort.core.learn.windows import share_within

__all__ = ["Came", "came_between"]


@dataclass(frozen=True)
class Came:
    """Sums of some days.

    Attributes
    ----------
    clicks, customers : float
    spend : float
        Money, less what was credited.
    value : float
        Money that the customers leave before that of the clicks is taken off.
    """

    clicks: float
    spend: float
    customers: float
    value: float

    @property
    def cost_per_customer(self) -> float | None:
        """None where nobody bought."""
        return self.spend / self.customers if self.customers > 0 else None

    @property
    def profit(self) -> float:
        """Money that is left."""
        return self.value - self.spend


def came_between(
    rows: ResultRows, contribution: Floats, otherwise: float, first: date, last: date
) -> Came:
    """Sum what came of the days from first to last; a window is spread evenly over its days.

    Parameters
    ----------
    rows : ResultRows
    contribution : Floats, shape (n_keywords,)
        Money that one customer of each keyword leaves.
    otherwise : float
        The same for rows that are no keyword.
    first, last : date
        Ends included.
    """
    share = share_within(rows.first, rows.last, first, last)
    place = np.maximum(rows.keyword, 0)
    worth = contribution[place] if len(contribution) else np.zeros(len(rows))
    each = np.where(rows.keyword >= 0, worth, otherwise)
    customers = rows.customers * share
    return Came(
        clicks=float((rows.clicks * share).sum()), spend=float((rows.cost * share).sum()),
        customers=float(customers.sum()), value=float((customers * each).sum()),
    )  # fmt: skip
