"""A month drawn many times over: how wide a forecast is, and what makes it so.

What keywords have in common has median 1; what is a keyword's own has mean 1, so that many
small doubts do not add up to a bias. The month falls on its days, each with its money: no
draw passes the purse.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from scipy.special import ndtri

from milkwort.core.arrays import Floats, Ints
from milkwort.core.market.prices import at_bid
from milkwort.core.plan._drawn import conversion_factor, own_factor, spots_drawn
from milkwort.core.plan._month_of_days import Market, lived
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.spots import spot_choices
from milkwort.core.words.intents import INTENTS

__all__ = [
    "FIGURES", "SHARED", "Draws", "Range", "Swing", "draw_month", "own_factor", "swings_of",
    "volume_spread",
]  # fmt: skip

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

_CELLS = 100_000
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
class Swing:
    """A month with one shared input at its 10th and at its 90th percentile, the rest likely.

    Attributes
    ----------
    customers, profit : (float, float)
        A month, at the input's low and at its high.
    """

    customers: tuple[float, float]
    profit: tuple[float, float]


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
        Day of the month, from 1, on which the money would be out were it not shared out by
        the day, in the middle of those draws.
    moves : dict of str to Swing
        Each shared input moved by itself, those that move customers most first.
    customers, spend : Floats, shape (n_draws,)
        The draws themselves.
    """

    count: int
    ranges: dict[str, Range]
    profit_chance: float
    no_customer_chance: float
    early_chance: float
    early_day: float | None
    moves: dict[str, Swing]
    customers: Floats
    spend: Floats


@dataclass
class _Month:
    """Sums of each draw; arrays of shape (n_draws,)."""

    clicks: Floats
    spend: Floats
    customers: Floats
    revenue: Floats
    contribution: Floats
    wanted: Floats


def draw_month(
    result: PlanResult,
    count: int = 2000,
    seed: int = 1,
    still_wanted: Callable[[], bool] = lambda: True,
    *,
    by_chance: bool = True,
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
    by_chance : bool
        Whether clicks, prices, sales and each keyword's own rate fall by chance; without,
        only the inputs are uncertain, and with no spread left a draw is the expected month.

    Returns
    -------
    Draws or None
        None where it was given up.
    """
    rng = np.random.default_rng(seed)
    rows = np.flatnonzero(np.isfinite(result.bid) & result.prices.known)
    shared = rng.standard_normal((len(SHARED), count))
    by_intent = rng.standard_normal((count, len(INTENTS)))
    month = _Month(*(np.zeros(count) for _ in range(6)))
    size = max(1, _CELLS // max(len(rows), 1))
    for start in range(0, count, size):
        if not still_wanted():
            return None
        part = slice(start, min(start + size, count))
        shape = (part.stop - part.start, len(rows) + len(result.brief.spots))
        drawn = _Inputs(
            [z[part, None] for z in shared],
            own_searches=rng.standard_normal(shape),
            own_click_rate=rng.standard_normal(shape),
            intent=by_intent[part][:, result.table.intent[rows]],
        )
        _add(result, rows, month, part, _happened(result, rows, drawn, rng if by_chance else None))
    return _summary(result, month)


def swings_of(result: PlanResult) -> dict[str, Swing]:
    """Move one shared input at a time and say how far the expected month moves.

    Parameters
    ----------
    result : PlanResult

    Returns
    -------
    dict of str to Swing
        By `SHARED`.
    """
    rows = np.flatnonzero(np.isfinite(result.bid) & result.prices.known)
    ends = np.array([-_P90, _P90])
    swings = {}
    for name in range(len(SHARED)):
        z = np.zeros((len(SHARED), 2))
        z[name] = ends
        inputs = _Inputs([one[:, None] for one in z], None, None, 0.0)
        month = _Month(*(np.zeros(2) for _ in range(6)))
        _add(result, rows, month, slice(0, 2), _happened(result, rows, inputs, None))
        profit = month.contribution - month.spend
        swings[SHARED[name]] = Swing(
            (float(month.customers[0]), float(month.customers[1])),
            (float(profit[0]), float(profit[1])),
        )
    return swings


@dataclass(frozen=True)
class _Inputs:
    """Standard normal draws.

    `shared` holds one array of shape (n_draws, 1) for each of `SHARED`; `intent` has shape
    (n_draws, n_rows), what is a keyword's own has (n_draws, n_rows + n_spots), spots last.
    None for what is its own: it stands at its mean.
    """

    shared: list[Floats]
    own_searches: Floats | None
    own_click_rate: Floats | None
    intent: Floats | float

    def own(self, count: int, *, of_spots: bool) -> tuple[Floats | None, Floats | None]:
        """Return what is drawn for each of so many keywords by itself, or for each spot."""
        part = slice(count, None) if of_spots else slice(0, count)
        searches, rate = self.own_searches, self.own_click_rate
        return (None if searches is None else searches[:, part],
                None if rate is None else rate[:, part])  # fmt: skip


def _happened(
    result: PlanResult, rows: Ints, z: _Inputs, rng: np.random.Generator | None
) -> tuple[Floats, Floats, Floats, Floats]:
    """Return clicks and customers by keyword, then by spot, spend and wanted spend by draw."""
    brief, assumed = result.brief, result.brief.assumed
    searches, variants, prices, click_rate, conversion = z.shared
    moved, weight, mixed = _searches(result, rows, searches, variants)
    own_searches, own_click_rate = z.own(len(rows), of_spots=False)
    # searches × e^(sᵢzᵢ − sᵢ²/2) scale clicks as they stand; click rate × e^(0.15z + 0.20zᵢ − 0.02)
    scale = (
        own_factor(volume_spread(result)[rows], own_searches)
        * own_factor(assumed["draw_click_rate_own"], own_click_rate)
        * np.exp(assumed["draw_click_rate"] * click_rate)
    )
    at = at_bid(
        result.bid[rows],
        result.prices.mu[rows] + assumed["draw_price"] * prices,
        result.prices.sigma[rows],
        moved,
        weight,
        brief.pricing,
        assumed,
    )
    factor = conversion_factor(brief.offers, conversion, result.table.offer[rows]) * np.exp(
        assumed["draw_intent"] * z.intent
    )
    rate = np.clip(result.demand.base_rate[rows] * mixed * factor, 0.0, 1.0)
    spots = spots_drawn(result, z.shared, z.own(len(rows), of_spots=True))
    rate = np.hstack((rate, spots.rate))
    clicks = np.hstack((at.clicks * scale, spots.clicks))
    asked = Market(
        clicks=clicks,
        cpc=np.hstack((np.broadcast_to(at.cpc, (len(clicks), len(rows))), spots.cpc)),
        campaign=np.concatenate((result.table.campaign[rows], spots.campaign)),
        planned=np.concatenate((result.expected.spend[rows], result.spots.spend)),
        purse=brief.monthly_spend,
        spread=0.0 if brief.pricing == "pay_bid" else assumed["draw_click_price"],
        days=round(assumed["draw_days"]),
        over=assumed["day_over"],
    )
    served = lived(asked, rng)
    if rng is None:
        return served.clicks, served.clicks * rate, served.spend, served.wanted
    customers = rng.binomial(
        served.clicks.astype(np.int64), _beta(rng, rate, assumed["prior_weight"])
    )
    return served.clicks, customers.astype(np.float64), served.spend, served.wanted


def _searches(
    result: PlanResult, rows: Ints, searches: Floats, variants: Floats
) -> tuple[Floats, Floats, Floats]:
    """Return S, Q and the effective rate over r, each keyword's own spread left aside."""
    demand, assumed = result.demand, result.brief.assumed
    # own e^(0.10z); variants also × e^(0.30z)
    moved = np.exp(assumed["draw_searches"] * searches)
    own = demand.own[rows] * moved
    if not demand.variants[rows].any():
        return own, own, np.ones(len(rows))
    vary = moved * np.exp(assumed["draw_variants"] * variants)
    wanted = (demand.uncalled + demand.unknown)[rows] * vary
    more = wanted + demand.spill[rows] * vary
    clicked = np.array(assumed.triple("variant_clicks"))[result.table.match[rows]]
    sold = np.array(assumed.triple("variant_sales"))[result.table.match[rows]]
    weight = own + clicked * more
    mixed = (own + clicked * sold * wanted) / np.where(weight > 0, weight, 1.0)
    return own + more, weight, mixed


def volume_spread(result: PlanResult) -> Floats:
    """Return the spread of each keyword's own searches, in log units.

    Parameters
    ----------
    result : PlanResult

    Returns
    -------
    Floats, shape (n_keywords,)
        A range is read as an interval of 80 %; a figure has the spread that is assumed.
    """
    # sᵢ = ln(b/a) / 2.5631 for a range (an 80 % interval), 0.25 for a figure
    low, high = result.table.volume_low, result.table.volume_high
    ranged = np.isfinite(low) & (low < high)
    width = np.log(np.where(ranged, high, 1.0) / np.where(ranged, np.maximum(low, 1.0), 1.0))
    figure = result.brief.assumed["draw_volume"]
    return np.where(ranged, np.maximum(width, 0.0) / (2 * _P90), figure)


def _add(
    result: PlanResult,
    rows: Ints,
    month: _Month,
    part: slice,
    happened: tuple[Floats, Floats, Floats, Floats],
) -> None:
    clicks, customers, spend, wanted = happened
    month.clicks[part] = clicks.sum(axis=1)
    month.spend[part] = spend
    month.customers[part] = customers.sum(axis=1)
    spots = spot_choices(result.brief)
    revenue = np.concatenate((result.worth.revenue[rows], spots.revenue))
    contribution = np.concatenate((result.worth.contribution[rows], spots.contribution))
    month.revenue[part] = customers @ revenue
    month.contribution[part] = customers @ contribution
    month.wanted[part] = wanted


def _beta(rng: np.random.Generator, mean: Floats, weight: float) -> Floats:
    """Draw a rate about its mean; a mean of 0 or 1 leaves no room."""
    inside = (mean > 0) & (mean < 1)
    safe = np.where(inside, mean, 0.5)
    return np.where(inside, rng.beta(weight * safe, weight * (1 - safe)), mean)


def _summary(result: PlanResult, month: _Month) -> Draws:
    brief = result.brief
    profit = month.contribution - month.spend
    per_customer = np.full(len(month.spend), np.inf)
    bought = month.customers > 0
    per_customer[bought] = month.spend[bought] / month.customers[bought]
    figures = (
        month.clicks,
        month.spend,
        month.customers,
        per_customer,
        month.revenue,
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
        moves=_by_size(swings_of(result)),
        customers=month.customers,
        spend=month.spend,
    )


def _range(values: Floats) -> Range:
    # "lower" keeps to drawn values, so that an infinity is never mixed with a figure
    low, middle, high = np.quantile(values, [0.1, 0.5, 0.9], method="lower")
    return Range(float(low), float(middle), float(high))


def _by_size(swings: dict[str, Swing]) -> dict[str, Swing]:
    def size(swing: Swing) -> float:
        return abs(swing.customers[1] - swing.customers[0])

    return dict(sorted(swings.items(), key=lambda pair: -size(pair[1])))
