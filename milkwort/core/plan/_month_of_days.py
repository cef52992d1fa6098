"""A month as campaigns live it: day by day, each with its money."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.brief.limits import Limits
from milkwort.core.plan._luck import Luck
from milkwort.core.plan._quantiles import binomial_at, poisson_at

__all__ = ["Day", "Lived", "Market", "lived"]


@dataclass(frozen=True)
class Market:
    """What a month would bring if money were no object; rows are keywords that run.

    Attributes
    ----------
    clicks, cpc : Floats, shape (n_draws, n_rows)
        Mean clicks a month, and the mean money of one.
    campaign : Ints, shape (n_rows,)
    planned : Floats, shape (n_rows,)
        Expected spend, by which campaigns share out the purse.
    purse : float
        Money a month.
    limits : Limits
        No campaign has more of it than its own most.
    spread : float
        Variance of the price of one click of a keyword over its mean squared.
    days : int
        Equal days of the month.
    over : float
        How far a day may run over its money, as a share; the month never does.
    """

    clicks: Floats
    cpc: Floats
    campaign: Ints
    planned: Floats
    purse: float
    limits: Limits
    spread: float
    days: int
    over: float = 0.0


@dataclass(frozen=True)
class Lived:
    """What became of it.

    Attributes
    ----------
    clicks : Floats, shape (n_draws, n_rows)
        That were served.
    spend, wanted : Floats, shape (n_draws,)
        Money that was spent, and that all clicks would have cost.
    """

    clicks: Floats
    spend: Floats
    wanted: Floats


def lived(market: Market, draws: range, lucky: tuple[Luck, int] | None) -> Lived:
    """Let a month pass under daily budgets.

    Parameters
    ----------
    market : Market
    draws : range
        Numbers of the draws.
    lucky : (Luck, int) or None
        Luck of each row and the seed of the days; without, every click comes evenly and at
        its mean price.
    """
    held, place = np.unique(market.campaign, return_inverse=True)
    planned = np.bincount(place, market.planned, minlength=len(held))
    share = planned / planned.sum() if planned.sum() > 0 else planned
    budget = np.minimum(market.purse * share, market.limits.most_of(held))
    clicks = market.clicks
    if lucky is not None:
        clicks = poisson_at(lucky[0].uniform("clicks", draws), market.clicks)
        serving = lucky[0].uniform("served", draws)
    spend, wanted = np.zeros(len(clicks)), np.zeros(len(clicks))
    served = clicks.copy()
    for number in range(len(held)):
        mine = np.flatnonzero(place == number)
        money = float(budget[number])
        day = Day(market.clicks[:, mine], market.cpc[:, mine], market.spread, money / market.days)
        total = clicks[:, mine].sum(axis=1)
        if lucky is None:
            would = (clicks[:, mine] * market.cpc[:, mine]).sum(axis=1)
            paid = np.minimum(would, money)
            part = np.divide(paid, would, out=np.ones_like(would), where=would > 0)
            served[:, mine] = clicks[:, mine] * part[:, None]
        else:
            # a campaign's days have a luck of their own, the same in every version
            rng = np.random.default_rng([lucky[1], int(held[number]) + 1, draws.start])
            would, paid, part = day.passed(total, market.days, market.over, rng)
            cut = np.flatnonzero(part < 1)
            some = np.ix_(cut, mine)
            shares = np.broadcast_to(part[cut, None], (len(cut), len(mine)))
            served[some] = binomial_at(serving[some], clicks[some], shares)
        spend += paid
        wanted += would
    return Lived(served, np.minimum(spend, market.purse), wanted)


class Day:
    """One campaign's day: the mean and the spread of a click's price, and the day's money.

    C̄ is the mean price of one click of the campaign, cv² = (spread·E[C²] + Var C)/C̄² that of
    one click's price.
    """

    def __init__(self, clicks: Floats, cpc: Floats, spread: float, money: float) -> None:
        self.clicks = total = clicks.sum(axis=1)
        weight = np.divide(clicks, total[:, None], out=np.zeros_like(clicks),
                           where=total[:, None] > 0)  # fmt: skip
        self.price = (weight * cpc).sum(axis=1)
        squares = (weight * cpc * cpc).sum(axis=1)
        variance = spread * squares + np.maximum(squares - self.price**2, 0.0)
        self.cv2 = np.divide(variance, self.price**2, out=np.zeros_like(variance),
                             where=self.price > 0)  # fmt: skip
        self.money = money

    def passed(
        self, clicks: Floats, days: int, over: float, rng: np.random.Generator
    ) -> tuple[Floats, Floats, Floats]:
        """Let the days pass; return wanted and spent money, and the share that was served.

        Parameters
        ----------
        clicks : Floats, shape (n_draws,)
            Of the month; they fall evenly on its days.
        days : int
        over : float
            How far a day may run over its money.
        rng : Generator
        """
        by_day = rng.multinomial(clicks.astype(np.int64), np.full(days, 1 / days)).astype(float)
        price, cv2 = self.price[:, None], self.cv2[:, None]
        would = self._money(by_day, price, cv2, rng)
        allowed = self._allowed(would, days, over)
        cut = would > allowed
        most = np.divide(allowed, price, out=np.zeros_like(would), where=price > 0)
        served = np.where(cut, np.minimum(by_day, most + (1 + cv2) / 2), by_day)
        served = np.where(self.money > 0, served, 0.0)
        part = np.divide(served.sum(axis=1), clicks, out=np.ones_like(clicks), where=clicks > 0)
        paid = np.minimum(would, allowed).sum(axis=1)
        return would.sum(axis=1), paid, np.minimum(part, 1.0)

    def money_of(self, clicks: Floats, rng: np.random.Generator) -> Floats:
        """Return what so many clicks of a day want, of a campaign that is drawn once."""
        return self._money(clicks, self.price[0], self.cv2[0], rng)

    def _money(
        self, clicks: Floats, price: Floats, cv2: Floats, rng: np.random.Generator
    ) -> Floats:
        # a sum of N prices has mean N·C̄ and variance N·cv²·C̄²
        certain = (cv2 <= 0) | (clicks <= 0)
        shape = np.where(certain, 1.0, clicks / np.where(cv2 > 0, cv2, 1.0))
        drawn = rng.gamma(shape) * cv2 * price
        return np.asarray(np.where(certain, clicks * price, drawn))

    def _allowed(self, would: Floats, days: int, over: float) -> Floats:
        """Return the money of each day: B·(1+o), and no more than the month has left of days·B."""
        most = self.money * (1 + over)
        if over <= 0:
            return np.full_like(would, most)
        spent = np.cumsum(np.minimum(would, most), axis=1)
        before = spent - np.minimum(would, most)
        return np.clip(self.money * days - before, 0.0, most)
