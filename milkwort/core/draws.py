"""A month drawn many times over: how wide a forecast is, and what makes it so.

Every log-normal has median 1 and every draw keeps within the purse.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from scipy.special import ndtri

from milkwort.core.keyword_table import INTENTS, Floats, Ints
from milkwort.core.market import at_bid
from milkwort.core.plan import PlanResult

__all__ = ["FIGURES", "Draws", "Range", "draw_month"]

FIGURES: tuple[str, ...] = (
    "clicks",
    "spend",
    "customers",
    "cost_per_customer",
    "revenue",
    "profit",
)
SHARED: tuple[str, ...] = ("searches", "variants", "prices", "click rate", "conversion")
"""What is drawn once for all keywords of a month."""

_CELLS = 400_000
"""Keywords times draws worked on at once; bounds the memory."""
_LEAST_LOW = 1e-3
"""A low rate of 0 is read as this share of the likely one: a log-normal has no 0."""
_P90 = float(ndtri(0.9))


@dataclass(frozen=True)
class Range:
    """The 10th, 50th and 90th percentile of one figure; infinite where nobody buys."""

    low: float
    middle: float
    high: float


@dataclass(frozen=True)
class Draws:
    """What many draws of one month say.

    Attributes
    ----------
    count : int
        Number of draws.
    ranges : dict of str to Range
        By `FIGURES`; money in the plan's currency, everything a month.
    profit_chance, no_customer_chance, early_chance : float
        Chance of a profit above 0, of no customer at all, of the money out before the month.
    early_day : float or None
        Day of the month, from 1, on which the money is out, in the middle of those draws.
    moves : dict of str to (float, float)
        Rank correlation of each shared input with customers and with profit, −1 to 1.
    customers, spend : Floats, shape (n_draws,)
        The draws themselves.
    """

    count: int
    ranges: dict[str, Range]
    profit_chance: float
    no_customer_chance: float
    early_chance: float
    early_day: float | None
    moves: dict[str, tuple[float, float]]
    customers: Floats
    spend: Floats


@dataclass
class _Month:
    """Sums of each draw; arrays of shape (n_draws,)."""

    clicks: Floats
    spend: Floats
    customers: Floats
    wanted: Floats


def draw_month(
    result: PlanResult,
    count: int = 2000,
    seed: int = 1,
    still_wanted: Callable[[], bool] = lambda: True,
) -> Draws | None:
    """Draw the month of a plan.

    Parameters
    ----------
    result : PlanResult
    count : int
        Number of draws.
    seed : int
        The same seed gives the same draws.
    still_wanted : callable
        Asked now and then; once it says no, the work is given up.

    Returns
    -------
    Draws or None
        None where it was given up.
    """
    rng = np.random.default_rng(seed)
    rows = np.flatnonzero(np.isfinite(result.bid) & result.prices.known)
    shared = rng.standard_normal((len(SHARED), count))
    by_intent = rng.standard_normal((count, len(INTENTS)))
    month = _Month(*(np.zeros(count) for _ in range(4)))
    size = max(1, _CELLS // max(len(rows), 1))
    for start in range(0, count, size):
        if not still_wanted():
            return None
        part = slice(start, min(start + size, count))
        _draw_part(result, rows, rng, shared[:, part], by_intent[part], month, part)
    return _summary(result, month, shared)


def _draw_part(
    result: PlanResult,
    rows: Ints,
    rng: np.random.Generator,
    shared: Floats,
    by_intent: Floats,
    month: _Month,
    part: slice,
) -> None:
    brief, assumed = result.brief, result.brief.assumed
    shape = (shared.shape[1], len(rows))
    searches, variants, price, click_rate, conversion = (z[:, None] for z in shared)
    # searches D·e^(0.10z + sᵢzᵢ); variants also × e^(0.30z)
    spread = _volume_spread(result)[rows]
    moved = np.exp(assumed["draw_searches"] * searches + spread * rng.standard_normal(shape))
    own = result.demand.own[rows] * moved
    more = result.demand.variants[rows] * moved * np.exp(assumed["draw_variants"] * variants)
    clicked = np.array(assumed.triple("variant_clicks"))[result.table.match[rows]]
    sold = np.array(assumed.triple("variant_sales"))[result.table.match[rows]]
    weight = own + clicked * more
    at = at_bid(
        result.bid[rows],
        result.prices.mu[rows] + assumed["draw_price"] * price,
        result.prices.sigma[rows],
        own + more,
        weight,
        brief.pricing,
        assumed,
    )
    # click rate × e^(0.15z + 0.20zᵢ)
    ads = np.exp(
        assumed["draw_click_rate"] * click_rate
        + assumed["draw_click_rate_own"] * rng.standard_normal(shape)
    )
    expected = at.clicks * ads
    wanted = (expected * at.cpc).sum(axis=1)
    purse = brief.monthly_spend
    # expected spend above the purse: all click rates of the month × purse / spend
    pace = np.minimum(1.0, np.divide(purse, wanted, out=np.ones_like(wanted), where=wanted > 0))
    clicks = rng.poisson(expected * pace[:, None])
    spend = (clicks * at.cpc).sum(axis=1)
    over = spend > purse
    if over.any():  # what still passes the purse is thinned, and the purse is spent
        clicks[over] = rng.binomial(clicks[over], (purse / spend[over])[:, None])
        spend = np.minimum(spend, purse)
    mixed = (own + clicked * sold * more) / np.where(weight > 0, weight, 1.0)
    factor = _conversion_factor(result, conversion) * np.exp(
        assumed["draw_intent"] * by_intent[:, result.table.intent[rows]]
    )
    rate = np.clip(result.demand.base_rate[rows] * mixed * factor, 0.0, 1.0)
    customers = rng.binomial(clicks, _beta(rng, rate, assumed["prior_weight"]))
    month.clicks[part] = clicks.sum(axis=1)
    month.spend[part] = spend
    month.customers[part] = customers.sum(axis=1)
    month.wanted[part] = wanted


def _volume_spread(result: PlanResult) -> Floats:
    # sᵢ = ln(b/a) / 2.5631 for a range (an 80 % interval), 0.25 for a figure
    low, high = result.table.volume_low, result.table.volume_high
    ranged = np.isfinite(low) & (low < high)
    width = np.log(np.where(ranged, high, 1.0) / np.where(ranged, np.maximum(low, 1.0), 1.0))
    figure = result.brief.assumed["draw_volume"]
    return np.where(ranged, np.maximum(width, 0.0) / (2 * _P90), figure)


def _conversion_factor(result: PlanResult, z: Floats) -> Floats:
    """Two-sided log-normal: low, likely and high as 10th, 50th and 90th percentile over likely."""
    low, likely, high = result.brief.worth.rate.as_tuple()
    if likely <= 0:
        return np.ones_like(z)
    up = math.log(high / likely) / _P90
    down = math.log(likely / max(low, likely * _LEAST_LOW)) / _P90
    return np.exp(np.where(z > 0, up, down) * z)


def _beta(rng: np.random.Generator, mean: Floats, weight: float) -> Floats:
    """Draw a rate about its mean; a mean of 0 or 1 leaves no room."""
    inside = (mean > 0) & (mean < 1)
    safe = np.where(inside, mean, 0.5)
    return np.where(inside, rng.beta(weight * safe, weight * (1 - safe)), mean)


def _summary(result: PlanResult, month: _Month, shared: Floats) -> Draws:
    brief, worth = result.brief, result.brief.worth
    profit = month.customers * worth.contribution - month.spend
    per_customer = np.full(len(month.spend), np.inf)
    bought = month.customers > 0
    per_customer[bought] = month.spend[bought] / month.customers[bought]
    figures = (
        month.clicks,
        month.spend,
        month.customers,
        per_customer,
        month.customers * worth.revenue,
        profit,
    )
    early = month.wanted > brief.monthly_spend
    days = brief.assumed["month_days"]
    day = np.floor(days * brief.monthly_spend / month.wanted[early]) + 1 if early.any() else None
    return Draws(
        count=len(month.spend),
        ranges={n: _range(f) for n, f in zip(FIGURES, figures, strict=True)},
        profit_chance=float((profit > 0).mean()),
        no_customer_chance=float((~bought).mean()),
        early_chance=float(early.mean()),
        early_day=None if day is None else float(np.median(day)),
        moves={
            name: (_rank_correlation(z, month.customers), _rank_correlation(z, profit))
            for name, z in zip(SHARED, shared, strict=True)
        },
        customers=month.customers,
        spend=month.spend,
    )


def _range(values: Floats) -> Range:
    # "lower" keeps to drawn values, so that an infinity is never mixed with a figure
    low, middle, high = np.quantile(values, [0.1, 0.5, 0.9], method="lower")
    return Range(float(low), float(middle), float(high))


def _rank_correlation(one: Floats, other: Floats) -> float:
    a, b = _ranks(one), _ranks(other)
    scale = math.sqrt(float((a * a).sum() * (b * b).sum()))
    return float((a * b).sum()) / scale if scale > 0 else 0.0


def _ranks(values: Floats) -> Floats:
    """Return ranks about their mean, ties at the mean of theirs."""
    _, place, count = np.unique(values, return_inverse=True, return_counts=True)
    middle = np.cumsum(count) - (count - 1) / 2
    return np.asarray(middle[place] - (len(values) + 1) / 2)
