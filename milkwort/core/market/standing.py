"""Headroom, standing, and what it takes to know a keyword."""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import IntEnum

import numpy as np
from numpy.typing import NDArray
from scipy.special import betainc, ndtri

from milkwort.core.arrays import Floats, Ints
from milkwort.core.assumptions import Assumed
from milkwort.core.brief.brief import Brief
from milkwort.core.market.demand import Demand
from milkwort.core.market.prices import Prices, at_bid, price_at_reach

__all__ = [
    "STANDINGS",
    "ComeIn",
    "ComeInColumns",
    "Stand",
    "Standing",
    "ceiling_of",
    "clicks_to_first_sale",
    "clicks_to_stop",
    "come_in",
    "come_in_columns",
    "missing_chance",
    "standing_of",
]


class Stand(IntEnum):
    """Where a keyword stands by its reach at the ceiling, as a column holds it."""

    IN_REACH = 0
    STRETCH = 1
    BEYOND = 2
    UNKNOWN = 3


STANDINGS: tuple[str, ...] = tuple(stand.name.lower() for stand in Stand)
"""The same by name, in the order of `Stand`."""

_STOP_SEARCH_END = 10_000_000


@dataclass(frozen=True)
class Standing:
    """Where each keyword stands; arrays of shape (n_keywords,).

    Attributes
    ----------
    ceiling : Floats
        Highest price of a click that the brief allows, money.
    headroom : Floats
        z at the ceiling; −inf where the ceiling is 0, NaN without a price.
    reach : Floats
        F at the ceiling.
    standing : Ints
        Of `Stand`; `unknown` where no price is known at all.
    thin : ndarray of bool
        Under a click a month at the ceiling.
    clicks_at_ceiling : Floats
        Clicks a month.
    """

    ceiling: Floats
    headroom: Floats
    reach: Floats
    standing: Ints
    thin: NDArray[np.bool_]
    clicks_at_ceiling: Floats


def ceiling_of(brief: Brief, rate: Floats, allowed: Floats) -> Floats:
    """Return the highest bid allowed at some rates, money a click.

    Parameters
    ----------
    brief : Brief
    rate : Floats
        Effective customers per click.
    allowed : Floats
        A, allowed cost per customer of each keyword's offer.
    """
    # A · rate, and never above the planner's own highest price; less what the platform adds
    cap = math.inf if brief.ceiling.max_cpc is None else brief.ceiling.max_cpc
    return np.minimum(allowed * rate, cap) / (1 + brief.assumed["platform_raise"])


def standing_of(brief: Brief, demand: Demand, prices: Prices, allowed: Floats) -> Standing:
    """Work out ceilings, headroom and standing.

    Parameters
    ----------
    brief : Brief
    demand : Demand
    prices : Prices
    allowed : Floats
        As for `ceiling_of`.

    Returns
    -------
    Standing
    """
    assumed = brief.assumed
    ceiling = ceiling_of(brief, demand.rate, allowed)
    with np.errstate(divide="ignore"):
        headroom = (np.log(ceiling) - prices.mu) / prices.sigma
    with np.errstate(invalid="ignore"):  # a ceiling of 0 wins nothing; its price is 0/0
        at = at_bid(
            ceiling,
            prices.mu,
            prices.sigma,
            demand.searches,
            demand.click_weight,
            brief.pricing,
            assumed,
        )
    standing = np.select(
        [~prices.known, at.reach >= assumed["in_reach"], at.reach >= assumed["stretch"]],
        [Stand.UNKNOWN, Stand.IN_REACH, Stand.STRETCH],
        default=Stand.BEYOND,
    ).astype(np.int64)
    return Standing(
        ceiling=ceiling,
        headroom=headroom,
        reach=at.reach,
        standing=standing,
        thin=np.nan_to_num(at.clicks) < assumed["thin_clicks"],
        clicks_at_ceiling=at.clicks,
    )


@dataclass(frozen=True)
class ComeIn:
    """What would bring one keyword to the line; None where no such figure would.

    Attributes
    ----------
    price : float
        The click price at the line, money: what the ceiling would have to reach.
    rate : float or None
        Customers per click needed.
    sale_value : float or None
        Sale value needed, money.
    price_factor : float or None
        What its market's prices would have to be multiplied by.
    why_none : str
        Why no rate or sale value would; empty where one would.
    """

    price: float
    rate: float | None
    sale_value: float | None
    price_factor: float | None
    why_none: str


def come_in(brief: Brief, rate: float, mu: float, sigma: float, offer: int = 0) -> ComeIn:
    """Say which rate, sale value or price would bring a keyword to the line.

    Parameters
    ----------
    brief : Brief
    rate : float
        The keyword's effective customers per click.
    mu, sigma : float
        Its market.
    offer : int
        Place of its offer in the brief.
    """
    allowed = brief.worths[offer].allowed
    extra = 1 + brief.assumed["platform_raise"]
    price = math.exp(mu + sigma * float(ndtri(brief.assumed["stretch"])))
    cap = brief.ceiling.max_cpc
    if cap is not None and price * extra > cap:
        ceiling = min(allowed * rate, cap) / extra
        factor = ceiling / price if ceiling > 0 else None
        return ComeIn(price, None, None, factor, "your own highest price lies below the line")
    if rate <= 0:
        return ComeIn(price, None, None, None, "at a rate of 0 no price is low enough")
    needed = price * extra / allowed
    ceiling = allowed * rate / extra
    scales = brief.ceiling.rule != "cost_per_customer"
    return ComeIn(
        price=price,
        rate=needed if needed <= 1 else None,
        sale_value=brief.offers[offer].sale_value * price / ceiling if scales else None,
        price_factor=ceiling / price,
        why_none="" if needed <= 1 or scales else "more than every click would have to buy",
    )


@dataclass(frozen=True)
class ComeInColumns:
    """What would bring each keyword to the line; arrays of shape (n_keywords,).

    Attributes
    ----------
    rate : Floats
        Customers per click; NaN where no rate would, or no price is known.
    sale_value : Floats
        Money; NaN where none would.
    price_factor : Floats
        What its market's prices would have to be multiplied by; NaN at a rate of 0.
    """

    rate: Floats
    sale_value: Floats
    price_factor: Floats


def come_in_columns(brief: Brief, demand: Demand, prices: Prices, offer: Ints) -> ComeInColumns:
    """Say what would bring each keyword to the line, as `come_in` does for one.

    Parameters
    ----------
    brief : Brief
    demand : Demand
    prices : Prices
    offer : Ints, shape (n_keywords,)
        Place of each keyword's offer in the brief.
    """
    allowed = np.array([worth.allowed for worth in brief.worths])[offer]
    sale_value = np.array([one.sale_value for one in brief.offers])[offer]
    extra = 1 + brief.assumed["platform_raise"]
    price = price_at_reach(brief.assumed["stretch"], prices)
    cap = math.inf if brief.ceiling.max_cpc is None else brief.ceiling.max_cpc
    with np.errstate(divide="ignore", invalid="ignore"):
        needed = price * extra / allowed
        ceiling = allowed * demand.rate / extra
        over = (price * extra > cap) | (demand.rate <= 0)
        scales = brief.ceiling.rule != "cost_per_customer"
        return ComeInColumns(
            rate=np.where(over | (needed > 1), np.nan, needed),
            sale_value=np.where(over | (not scales), np.nan, sale_value * price / ceiling),
            price_factor=np.where(
                demand.rate > 0, np.minimum(ceiling, cap / extra) / price, np.nan
            ),
        )


def clicks_to_first_sale(rate: Floats, assumed: Assumed) -> Floats:
    """Return the clicks to a likely first sale.

    Parameters
    ----------
    rate : Floats
        Customers per click, 0 to 1.

    Returns
    -------
    Floats
        Whole clicks, at least 1; inf at a rate of 0.
    """
    # ⌈ln(1−0.8) / ln(1−rate)⌉
    with np.errstate(divide="ignore"):
        clicks = math.log1p(-assumed["first_sale_chance"]) / np.log1p(-rate)
    return np.maximum(np.ceil(clicks), 1.0)


def missing_chance(
    clicks: Floats, customers: Floats, rate: Floats, needed_rate: Floats, assumed: Assumed
) -> Floats:
    """Return the chance that the true rate lies under the rate needed.

    Parameters
    ----------
    clicks, customers : Floats
        Exposed clicks, and what they brought.
    rate : Floats
        Prior mean, customers per click, above 0 and under 1.
    needed_rate : Floats
        Customers per click that would just meet the rule.

    Returns
    -------
    Floats
        Posterior probability, Beta prior with the plan's weight.
    """
    weight = assumed["prior_weight"]
    alpha = weight * rate + customers
    beta = weight * (1 - rate) + clicks - customers
    return np.asarray(betainc(alpha, beta, np.clip(needed_rate, 0.0, 1.0)))


def clicks_to_stop(rate: float, price: float, allowed: float, assumed: Assumed) -> float:
    """Return the fewest clicks without a sale at which the verdict is to stop.

    Parameters
    ----------
    rate : float
        Customers per click assumed.
    price : float
        Average money a click.
    allowed : float
        Allowed cost per customer, money.

    Returns
    -------
    float
        Whole clicks; inf where no number of them would say so, or the rate is 0 or 1.
    """
    if not 0 < rate < 1 or price <= 0:
        return math.inf
    needed = price / allowed

    def stops(clicks: int) -> bool:
        n, none, prior, line = (np.array(float(x)) for x in (clicks, 0, rate, needed))
        chance = missing_chance(n, none, prior, line, assumed)
        return float(chance) >= assumed["stop_chance"]

    low, high = 0, math.ceil(assumed["least_evidence"])
    while not stops(high):
        low, high = high, high * 2
        if high > _STOP_SEARCH_END:
            return math.inf
    if low == 0:
        return float(high)
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (low, middle) if stops(middle) else (middle, high)
    return float(high)
