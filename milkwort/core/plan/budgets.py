"""Daily budgets of campaigns, and the clicks that small ones lose on busy days."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import pdtrc

from milkwort.core.arrays import Floats, Ints
from milkwort.core.plan.run import PlanResult

__all__ = ["Budgets", "a_month", "best_partners", "clicks_lost", "daily_budgets"]

_CENT = 0.01
_EDGE = 1e-9


def a_month(money: float, per: str, days: float) -> float:
    """Return money said a ``day``, ``week`` or ``month`` as money a month of so many days.

    A day's money comes to what that many days cost, to the cent; a month's stays as it was.

    Parameters
    ----------
    money : float
    per : str
        ``day``, ``week`` or ``month``.
    days : float
        Days of the month.
    """
    times = {"day": days, "week": days / 7, "month": 1.0}[per]
    return money if per == "month" else round(money * times, 2)


@dataclass(frozen=True)
class Budgets:
    """Money a day by campaign; arrays of shape (n_campaigns,).

    Attributes
    ----------
    campaign : Ints
        Its number; −1 for keywords in none.
    spend : Floats
        Expected, a month.
    daily : Floats
        Budget a day, in whole cents; with the month's days never more than the purse in sum.
    clicks : Floats
        Expected, a month.
    lost : Floats
        Clicks a month that a day's budget cuts off on busy days.
    lost_shared : float
        The same, were all campaigns to share one budget.
    """

    campaign: Ints
    spend: Floats
    daily: Floats
    clicks: Floats
    lost: Floats
    lost_shared: float

    @property
    def gain_of_sharing(self) -> float:
        """Clicks a month that one shared budget would save."""
        return float(self.lost.sum()) - self.lost_shared


def daily_budgets(result: PlanResult) -> Budgets:
    """Share out a month's purse among the campaigns, by the day.

    The purse is shared, not the expected spend: cut at that, good days could not make up
    for bad ones. Each campaign gets its part of it by its expected spend, never above its
    own most, floored to the cent; the cents that flooring leaves go where the next unit
    brings most.

    Parameters
    ----------
    result : PlanResult

    Returns
    -------
    Budgets
    """
    # keywords that run and spots that are shown, each in its campaign
    runs = np.concatenate((np.isfinite(result.bid), result.spots.steps > 0))
    campaign, place = np.unique(result.problem.campaign[runs], return_inverse=True)
    n, days = len(campaign), result.brief.assumed["month_days"]
    spend = _by_campaign(place, n, result.expected.spend, result.spots.spend, runs)
    clicks = _by_campaign(place, n, result.expected.clicks, result.spots.clicks, runs)
    edge = np.full(n, -np.inf)
    np.maximum.at(edge, place, result.fit.row_return[runs])
    daily = _shared_out(result, campaign, spend, edge, days)
    price = np.divide(spend, clicks, out=np.ones(n), where=clicks > 0)
    # a day may run over its budget where the platform lets it
    over = 1 + result.brief.assumed["day_over"]
    lost = clicks_lost(clicks / days, daily * over / price) * days
    return Budgets(
        campaign=campaign,
        spend=spend,
        daily=daily,
        clicks=clicks,
        lost=lost,
        lost_shared=_lost_together(clicks, spend, daily * over, days),
    )


def _by_campaign(
    place: Ints, n: int, of_keywords: Floats, of_spots: Floats, runs: NDArray[np.bool_]
) -> Floats:
    values = np.concatenate((of_keywords, of_spots))[runs]
    return np.bincount(place, values, minlength=n).astype(np.float64)


def _shared_out(
    result: PlanResult, campaign: Ints, spend: Floats, edge: Floats, days: float
) -> Floats:
    """Return money a day by campaign, in whole cents."""
    # purse/days · spend/Σ spend, at most the campaign's own most
    if spend.sum() <= 0:
        return np.zeros(len(campaign))
    most = result.brief.limits.most_of(campaign)
    most_cents = np.floor(np.minimum(most, 1e15) / days / _CENT + _EDGE)
    total = np.floor(result.brief.monthly_spend / days / _CENT + _EDGE)
    share = result.brief.monthly_spend / days * spend / spend.sum()
    cents = np.minimum(np.floor(share / _CENT + _EDGE), most_cents)
    left = max(total - cents.sum(), 0.0)
    if np.isfinite(most).any():
        # what a campaign may not take is no remainder of rounding: it stays unspent
        left = min(left, float(len(campaign)))
    for number in np.argsort(-edge, kind="stable").tolist():
        more = min(left, float(most_cents[number] - cents[number]))
        cents[number] += more
        left -= more
    return np.asarray(np.round(cents * _CENT, 2))


def best_partners(budgets: Budgets, days: float, over: float = 0.0) -> tuple[Ints, Floats]:
    """Return with which other campaign each would best share its money, and the clicks gained.

    Two campaigns that share one budget lose fewer clicks on busy days: one's busy day is seldom
    the other's.

    Parameters
    ----------
    budgets : Budgets
    days : float
        Of the month.
    over : float
        Share by which a day may run over its budget.

    Returns
    -------
    partner : Ints, shape (n_campaigns,)
        Place among the campaigns; −1 where sharing with none gains anything.
    gain : Floats, shape (n_campaigns,)
        Clicks a month of both together.
    """
    n = len(budgets.campaign)
    partner, gain = np.full(n, -1, dtype=np.int64), np.zeros(n)
    if n < 2:
        return partner, gain
    # every pair at once: N₁+N₂ clicks a day against both days' money at their mean price
    clicks = budgets.clicks[:, None] + budgets.clicks
    spend = budgets.spend[:, None] + budgets.spend
    money = (budgets.daily[:, None] + budgets.daily) * (1 + over)
    price = np.divide(spend, clicks, out=np.ones((n, n)), where=clicks > 0)
    together = clicks_lost(clicks / days, money / price) * days
    saved = budgets.lost[:, None] + budgets.lost - together
    np.fill_diagonal(saved, 0.0)
    best = saved.argmax(axis=1)
    gain = np.maximum(saved[np.arange(n), best], 0.0)
    return np.where(gain > 0, best, partner), gain


def clicks_lost(wanted: Floats, affordable: Floats) -> Floats:
    """Return the clicks a day that come when the day's money is out.

    Parameters
    ----------
    wanted : Floats
        Mean clicks a day, Poisson.
    affordable : Floats
        Clicks a day that the budget pays for.
    """
    # E[(N − m)⁺] = λ·P(N ≥ K − 1) − m·P(N ≥ K),  K = ⌊m⌋ + 1
    whole = np.floor(affordable)
    at_least = np.where(whole > 0, pdtrc(np.maximum(whole - 1, 0), wanted), 1.0)
    above = pdtrc(whole, wanted)
    return np.asarray(np.maximum(wanted * at_least - affordable * above, 0.0))


def _lost_together(clicks: Floats, spend: Floats, daily: Floats, days: float) -> float:
    if clicks.sum() <= 0:
        return 0.0
    price = spend.sum() / clicks.sum()
    wanted, affordable = np.array([clicks.sum() / days]), np.array([daily.sum() / price])
    return float(clicks_lost(wanted, affordable)[0] * days)
