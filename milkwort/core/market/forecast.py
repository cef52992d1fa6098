"""Expected figures: what a month brings with every input at its likely value."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.brief.brief import Brief
from milkwort.core.brief.worth import WorthColumns
from milkwort.core.market.demand import Demand
from milkwort.core.market.prices import Prices, at_bid

__all__ = ["Expected", "Totals", "expect", "totals_of"]


@dataclass(frozen=True)
class Expected:
    """A month at given bids; arrays of shape (n_keywords,), 0 where a keyword doesn't run.

    Attributes
    ----------
    reach : Floats
        F, the share of searches the bid wins.
    impressions, clicks, customers : Floats
        A month, after pacing.
    click_rate : Floats
        Clicks per impression of its own text.
    cpc : Floats
        Average money a click.
    spend, revenue, profit : Floats
        Money a month, after pacing.
    pace : float
        φ, the share of everything that the purse can pay for, 0 to 1.
    """

    reach: Floats
    impressions: Floats
    clicks: Floats
    customers: Floats
    click_rate: Floats
    cpc: Floats
    spend: Floats
    revenue: Floats
    profit: Floats
    pace: float


@dataclass(frozen=True)
class Totals:
    """Sums over what runs, a month.

    Attributes
    ----------
    keywords : int
        How many run.
    searches, impressions, clicks, customers : float
    spend, revenue, profit : float
        Money.
    cost_per_customer : float or None
        Money; None where nobody is expected to buy.
    """

    keywords: int
    searches: float
    impressions: float
    clicks: float
    spend: float
    customers: float
    revenue: float
    profit: float
    cost_per_customer: float | None

    def goal(self, name: str) -> float:
        """Return the sum that a goal makes most of."""
        return float(getattr(self, name))


def expect(
    brief: Brief,
    demand: Demand,
    prices: Prices,
    bid: Floats,
    worth: WorthColumns,
    *,
    beside: float = 0.0,
) -> Expected:
    """Work out a month at given bids, paced to the purse.

    Parameters
    ----------
    brief : Brief
    demand : Demand
    prices : Prices
    bid : Floats, shape (n_keywords,)
        Money a click; NaN where a keyword doesn't run.
    worth : WorthColumns
    beside : float
        Money a month that something else than keywords would spend of the same purse.

    Returns
    -------
    Expected
    """
    n = len(bid)
    runs = np.flatnonzero(np.isfinite(bid) & prices.known)
    at = at_bid(
        bid[runs],
        prices.mu[runs],
        prices.sigma[runs],
        demand.searches[runs],
        demand.click_weight[runs],
        brief.pricing,
        brief.assumed,
    )
    wanted = float(at.spend.sum()) + beside
    # φ = purse / Σ spend, where the bids would spend more than there is
    pace = min(1.0, brief.monthly_spend / wanted) if wanted > 0 else 1.0
    clicks, spend = at.clicks * pace, at.spend * pace
    customers = clicks * demand.rate[runs]

    def full(values: Floats) -> Floats:
        column = np.zeros(n)
        column[runs] = values
        return column

    return Expected(
        reach=full(at.reach),
        impressions=full(at.impressions * pace),
        clicks=full(clicks),
        customers=full(customers),
        click_rate=full(at.click_rate),
        cpc=full(at.cpc),
        spend=full(spend),
        revenue=full(customers * worth.revenue[runs]),
        profit=full(customers * worth.contribution[runs] - spend),
        pace=pace,
    )


def totals_of(demand: Demand, expected: Expected, bid: Floats) -> Totals:
    """Sum a month over the keywords that run.

    Parameters
    ----------
    demand : Demand
    expected : Expected
        Figures a month at the bids.
    bid : ndarray of shape (n_keywords,)
        Money a click; 0 does not run.
    """
    runs = np.isfinite(bid)
    customers, spend = float(expected.customers.sum()), float(expected.spend.sum())
    return Totals(
        keywords=int(runs.sum()),
        searches=float(demand.searches[runs].sum()),
        impressions=float(expected.impressions.sum()),
        clicks=float(expected.clicks.sum()),
        spend=spend,
        customers=customers,
        revenue=float(expected.revenue.sum()),
        profit=float(expected.profit.sum()),
        cost_per_customer=spend / customers if customers > 0 else None,
    )
