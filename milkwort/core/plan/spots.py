"""Spots in a plan: what the fit may choose of them, and what they bring."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.brief.brief import Brief
from milkwort.core.fit.options import SPOT_STEPS
from milkwort.core.market.forecast import Totals

__all__ = ["SpotChoices", "SpotForecast", "spot_choices", "spot_forecast", "with_spots"]


@dataclass(frozen=True)
class SpotChoices:
    """What spots offer; arrays of shape (n_spots,).

    Attributes
    ----------
    clicks : Floats
        A month at most; 0 for one whose click costs more than it is worth.
    price : Floats
        Money a click.
    rate : Floats
        Customers a click, r·q.
    contribution, revenue, allowed : Floats
        Of a customer of its offer: V·m·k, V·k and A, money.
    campaign : Ints
    """

    clicks: Floats
    price: Floats
    rate: Floats
    contribution: Floats
    revenue: Floats
    allowed: Floats
    campaign: Ints

    def __len__(self) -> int:
        return len(self.clicks)


@dataclass(frozen=True)
class SpotForecast:
    """What the plan takes of its spots; arrays of shape (n_spots,), a month.

    Attributes
    ----------
    steps : Ints
        Of `SPOT_STEPS`; 0 for not shown there.
    showings, clicks, customers : Floats
        Showings are 0 where clicks are paid.
    spend, revenue, profit : Floats
        Money.
    """

    steps: Ints
    showings: Floats
    clicks: Floats
    customers: Floats
    spend: Floats
    revenue: Floats
    profit: Floats


def spot_choices(brief: Brief) -> SpotChoices:
    """Return what the brief's spots offer.

    Parameters
    ----------
    brief : Brief
    """
    offer = np.array([s.offer for s in brief.spots], dtype=np.int64)
    columns = np.array(
        [(w.contribution, w.revenue, w.allowed, w.rate.likely) for w in brief.worths]
    )
    contribution, revenue, allowed, likely = columns[offer].T
    times = np.array([s.times for s in brief.spots], dtype=np.float64)
    price = np.array([s.click_price for s in brief.spots], dtype=np.float64)
    clicks = np.array([s.most_clicks for s in brief.spots], dtype=np.float64)
    rate = np.minimum(likely * times, 1.0)
    # its ceiling is A·r·q, and the planner's own highest price of a click where one is set
    ceiling = allowed * rate
    if brief.ceiling.max_cpc is not None:
        ceiling = np.minimum(ceiling, brief.ceiling.max_cpc)
    worth_it = price <= ceiling * (1 + 1e-12)
    return SpotChoices(
        clicks=np.where(worth_it, clicks, 0.0),
        price=price,
        rate=rate,
        contribution=contribution,
        revenue=revenue,
        allowed=allowed,
        campaign=np.array([s.campaign for s in brief.spots], dtype=np.int64),
    )


def with_spots(totals: Totals, spots: SpotForecast) -> Totals:
    """Return the sums of a plan's keywords with those of its spots.

    Parameters
    ----------
    totals : Totals
        Of the keywords.
    spots : SpotForecast
    """
    if not spots.steps.any():
        return totals
    customers = totals.customers + float(spots.customers.sum())
    spend = totals.spend + float(spots.spend.sum())
    return replace(
        totals,
        impressions=totals.impressions + float(spots.showings.sum()),
        clicks=totals.clicks + float(spots.clicks.sum()),
        spend=spend,
        customers=customers,
        revenue=totals.revenue + float(spots.revenue.sum()),
        profit=totals.profit + float(spots.profit.sum()),
        cost_per_customer=spend / customers if customers > 0 else None,
    )


def spot_forecast(brief: Brief, choices: SpotChoices, steps: Ints, pace: float) -> SpotForecast:
    """Work out what so many steps of each spot bring.

    Parameters
    ----------
    brief : Brief
    choices : SpotChoices
    steps : Ints, shape (n_spots,)
        Of `SPOT_STEPS`.
    pace : float
        Share of everything that the purse can pay for.
    """
    # s ≤ cN/1000 brings 1000·s/c·t clicks and ·r·q customers
    clicks = choices.clicks * steps / SPOT_STEPS * pace
    spend = clicks * choices.price
    customers = clicks * choices.rate
    click_rate = np.array([s.click_rate or np.inf for s in brief.spots], dtype=np.float64)
    by_showing = np.array([s.pays == "showings" for s in brief.spots], dtype=bool)
    return SpotForecast(
        steps=steps,
        showings=np.where(by_showing, clicks / click_rate, 0.0),
        clicks=clicks,
        customers=customers,
        spend=spend,
        revenue=customers * choices.revenue,
        profit=customers * choices.contribution - spend,
    )
