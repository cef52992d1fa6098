"""What the keywords yet to come can still mend of a partial answer, at least at which price."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit.tolerances import EXACT_ROUNDING

__all__ = ["Group", "Outlook", "Outlooks"]

_FIRST = 200
"""Pieces that are looked at first: they nearly always cost more than there is room for."""


@dataclass(frozen=True)
class Group:
    """The departures of one keyword from the relaxation's choice; arrays of shape (n_picks,).

    Attributes
    ----------
    owner : int
        The keyword's place.
    picks : Ints
        Options, −1 for not running.
    spend, price : Floats
        Money more or less, and what is lost of the bound.
    """

    owner: int
    picks: Ints
    spend: Floats
    price: Floats


@dataclass(frozen=True)
class Outlook:
    """The least price of spending more or less by the departures yet to come.

    Attributes
    ----------
    more, less : (Floats, Floats)
        Money, rising from 0, and its least price: between the points in proportion.
    next_return : float
        Price of each unit of money that is left over.
    """

    more: tuple[Floats, Floats]
    less: tuple[Floats, Floats]
    next_return: float

    def least(self, left: Floats) -> Floats:
        """Return what it takes at least to end with no money overspent.

        Parameters
        ----------
        left : Floats
            Money not yet spent; negative where too much is.

        Returns
        -------
        Floats
            Of the same shape; infinite where no departures bring the spend down far enough.
        """
        spends, prices = self.more
        filled = np.interp(left, spends, prices)
        filled += self.next_return * np.maximum(left - spends[-1], 0.0)
        saves, costs = self.less
        saved = np.interp(-left, saves, costs, right=np.inf)
        # a sum that is right but for rounding is no overspend
        saved[np.abs(left + saves[-1]) <= EXACT_ROUNDING * max(saves[-1], 1.0)] = costs[-1]
        return np.asarray(np.where(left >= -EXACT_ROUNDING, filled, saved))


class Outlooks:
    """The outlooks on the departures of groups that come later.

    Parameters
    ----------
    groups : sequence of Group
        In the order in which they come.
    next_return : float
        Goal per unit of money at the relaxation's edge: what costs more is rather left unspent.
    """

    def __init__(self, groups: Sequence[Group], next_return: float) -> None:
        self._more = _Pieces(groups, +1, next_return)
        self._less = _Pieces(groups, -1, np.inf)
        self._next_return = next_return

    def after(self, number: int, room: float) -> Outlook:
        """Return the outlook on all groups behind one.

        Parameters
        ----------
        number : int
        room : float
            What costs more is of no interest, and may be said to cost any more.
        """
        more, less = self._more.after(number, room), self._less.after(number, room)
        return Outlook(more, less, self._next_return)


class _Pieces:
    """What groups can add to the spend, or take from it, in pieces by price a unit of money.

    Each group's part of it is convex, from nothing upwards, so the cheapest pieces of all
    groups are a bound of what any departures of theirs cost. Pieces that cost `most` a unit or
    more are left out.
    """

    def __init__(self, groups: Sequence[Group], sign: int, most: float) -> None:
        pieces = [_hull(group.spend * sign, group.price) for group in groups]
        many = [len(money) for money, _ in pieces]
        money = np.concatenate([m for m, _ in pieces]) if pieces else np.zeros(0)
        rate = np.concatenate([r for _, r in pieces]) if pieces else np.zeros(0)
        order = np.argsort(rate, kind="stable")
        order = order[rate[order] < most]
        self.money, self.price = money[order], (money * rate)[order]
        self.of_group = np.repeat(np.arange(len(many)), many)[order]

    def after(self, number: int, room: float) -> tuple[Floats, Floats]:
        """Return money and its least price of all groups behind one, as far as it matters."""
        later = np.flatnonzero(self.of_group > number)
        money, price = self._summed(later[:_FIRST])
        if len(later) > _FIRST and price[-1] <= room:
            money, price = self._summed(later)
        return money, price

    def _summed(self, which: Ints) -> tuple[Floats, Floats]:
        sums = np.zeros((2, len(which) + 1))
        np.cumsum(self.money[which], out=sums[0, 1:])
        np.cumsum(self.price[which], out=sums[1, 1:])
        return sums[0], sums[1]


def _hull(money: Floats, price: Floats) -> tuple[Floats, Floats]:
    """Return the pieces of the lower hull from nothing on: their money, and price a unit."""
    order = np.lexsort((price, money))
    points = [(0.0, 0.0)]
    for at in order[money[order] > 0].tolist():
        point = (float(money[at]), float(price[at]))
        while len(points) > 1 and _bends_down(points[-2], points[-1], point):
            points.pop()
        if point[0] > points[-1][0]:
            points.append(point)
    corners = np.array(points)
    wide = np.diff(corners[:, 0])
    return wide, np.diff(corners[:, 1]) / wide


def _bends_down(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> bool:
    return (b[1] - a[1]) * (c[0] - b[0]) >= (c[1] - b[1]) * (b[0] - a[0])
