"""The sums of a month in each of many draws."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.plan._happened import Happened
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.spots import spot_choices

__all__ = ["MonthSums", "holders_of"]


def holders_of(result: PlanResult, rows: Ints) -> tuple[Ints, Ints]:
    """Return whose sums are kept apart, and the place of each row among them.

    Parameters
    ----------
    result : PlanResult
    rows : Ints
        The keywords that run.

    Returns
    -------
    holders : Ints, shape (n_holders,)
        Number of a group, −1 for none; −2 and below for the spots, in their order.
    place : Ints, shape (n_rows + n_spots,)
    """
    spots = -2 - np.arange(len(result.brief.spots))
    return np.unique(np.concatenate((result.table.group[rows], spots)), return_inverse=True)


@dataclass
class MonthSums:
    """Sums of each draw; arrays of shape (n_draws,), `by_holder` (n_draws, n_holders).

    Parameters
    ----------
    count : int
        Number of draws.
    holders : int
        How many groups and spots are kept apart.
    """

    count: int
    holders: int = 0
    clicks: Floats = field(init=False)
    spend: Floats = field(init=False)
    customers: Floats = field(init=False)
    revenue: Floats = field(init=False)
    contribution: Floats = field(init=False)
    wanted: Floats = field(init=False)
    by_holder: Floats = field(init=False)

    def __post_init__(self) -> None:
        for name in ("clicks", "spend", "customers", "revenue", "contribution", "wanted"):
            setattr(self, name, np.zeros(self.count))
        self.by_holder = np.zeros((self.count, self.holders))

    @property
    def profit(self) -> Floats:
        """Money: what customers leave, less what clicks cost."""
        return self.contribution - self.spend

    def add(self, result: PlanResult, rows: Ints, at: slice, done: Happened) -> None:
        """Take down what became of some draws."""
        spots = spot_choices(result.brief)
        revenue = np.concatenate((result.worth.revenue[rows], spots.revenue))
        contribution = np.concatenate((result.worth.contribution[rows], spots.contribution))
        self.clicks[at] = done.clicks.sum(axis=1)
        self.customers[at] = done.customers.sum(axis=1)
        self.revenue[at] = done.customers @ revenue
        self.contribution[at] = done.customers @ contribution
        self.spend[at], self.wanted[at] = done.spend, done.wanted

    def add_held(self, at: slice, place: Ints, done: Happened) -> None:
        """Take down the customers of each group and spot in some draws."""
        if self.holders:
            order = np.argsort(place, kind="stable")
            first = np.flatnonzero(np.r_[True, np.diff(place[order]) > 0])
            self.by_holder[at] = np.add.reduceat(done.customers[:, order], first, axis=1)
