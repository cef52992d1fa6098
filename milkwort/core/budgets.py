"""Daily budgets of campaigns, and the clicks that small ones lose on busy days."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.special import pdtrc

from milkwort.core.keyword_table import Floats, Ints
from milkwort.core.plan import PlanResult

__all__ = ["Budgets", "clicks_lost", "daily_budgets"]

_CENT = 0.01
_EDGE = 1e-9


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
        Budget a day, in whole cents; never more than the purse in sum.
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
    """Divide a month's spend into daily budgets.

    Each campaign's spend over the days of a month, floored to the cent; the cents that
    flooring leaves go to the campaign where the next unit brings most.

    Parameters
    ----------
    result : PlanResult

    Returns
    -------
    Budgets
    """
    runs = np.isfinite(result.bid)
    campaign, place = np.unique(result.table.campaign[runs], return_inverse=True)
    n, days = len(campaign), result.brief.assumed["month_days"]
    spend = np.bincount(place, result.expected.spend[runs], minlength=n).astype(np.float64)
    clicks = np.bincount(place, result.expected.clicks[runs], minlength=n).astype(np.float64)
    cents = np.floor(spend / days / _CENT + _EDGE)
    total = np.floor(min(spend.sum(), result.brief.monthly_spend) / days / _CENT + _EDGE)
    if n:
        edge = np.zeros(n)
        np.maximum.at(edge, place, result.fit.row_return[runs])
        cents[int(edge.argmax())] += max(total - cents.sum(), 0.0)
    daily = np.round(cents * _CENT, 2)
    price = np.divide(spend, clicks, out=np.ones(n), where=clicks > 0)
    lost = clicks_lost(clicks / days, daily / price) * days
    return Budgets(
        campaign=campaign,
        spend=spend,
        daily=daily,
        clicks=clicks,
        lost=lost,
        lost_shared=_lost_together(clicks, spend, daily, days),
    )


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
