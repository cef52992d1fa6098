"""What the keywords and spots of a plan do in each of some draws."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.market.prices import at_bid
from milkwort.core.plan._drawn import conversion_factor, own_factor, spots_drawn
from milkwort.core.plan._luck import Luck
from milkwort.core.plan._month_of_days import Market, lived
from milkwort.core.plan._quantiles import beta_at, binomial_at
from milkwort.core.plan._taught_luck import TaughtLuck, names_of
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.spreads import Spreads

__all__ = [
    "CHUNK", "SHARED", "Happened", "Inputs", "happened", "luck_of", "running",
]  # fmt: skip

SHARED: tuple[str, ...] = ("searches", "variants", "prices", "click rate", "conversion")
"""What is drawn once for all keywords of a month."""
CHUNK = 40
"""Draws worked on at once: always as many, so that the luck of a day is the same in any plan."""


@dataclass(frozen=True)
class Inputs:
    """Standard normal draws.

    `shared` holds one array of shape (n_draws, 1) for each of `SHARED`; `intent` has shape
    (n_draws, n_rows). `luck` is what is a keyword's or a spot's own, spots last; None: it
    stands at its mean. `spreads` says how far each moves what it is of, `taught` is drawn where
    results were taken over.
    """

    shared: list[Floats]
    intent: Floats | float
    draws: range
    luck: Luck | None
    spreads: Spreads
    taught: TaughtLuck | None = None

    def own(self, use: str, count: int, *, of_spots: bool) -> Floats | None:
        """Return what is drawn for each of so many keywords by itself, or for each spot."""
        if self.luck is None:
            return None
        return self.luck.normal(use, self.draws)[
            :, slice(count, None) if of_spots else slice(0, count)
        ]


@dataclass(frozen=True)
class Happened:
    """What became of a month; rows are keywords that run, then spots.

    Attributes
    ----------
    clicks, customers : Floats, shape (n_draws, n_rows)
    spend, wanted : Floats, shape (n_draws,)
        Money that was spent, and that all clicks would have cost.
    """

    clicks: Floats
    customers: Floats
    spend: Floats
    wanted: Floats


def running(result: PlanResult) -> Ints:
    """Return the rows that are drawn: keywords with a bid and a market."""
    return np.flatnonzero(np.isfinite(result.bid) & result.prices.known)


def luck_of(result: PlanResult, rows: Ints, seed: int) -> Luck:
    """Return the luck of some keywords and of all spots, by text and match, and by name."""
    names = names_of(result.table, rows)
    seen: dict[str, int] = {}
    for spot in result.brief.spots:
        seen[spot.name] = seen.get(spot.name, 0) + 1
        names.append(f"spot {seen[spot.name]} {spot.name}")
    return Luck(seed, names)


def happened(result: PlanResult, rows: Ints, z: Inputs, seed: int | None) -> Happened:
    """Let the month pass in each of some draws.

    Parameters
    ----------
    result : PlanResult
    rows : Ints
        The keywords that run.
    z : Inputs
    seed : int or None
        Of what falls by chance; None: everything comes evenly and at its mean.
    """
    brief, assumed = result.brief, result.brief.assumed
    searches, variants, prices, click_rate, conversion = z.shared
    moved, weight, mixed = _searches(result, rows, searches, variants, z.spreads.plan.searches)
    scale = _clicked(rows, z, click_rate)
    at = at_bid(
        result.bid[rows],
        result.prices.mu[rows] + _price_shift(rows, z, prices),
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
    spots = spots_drawn(
        result,
        z.shared,
        z.spreads.plan,
        (
            z.own("searches", len(rows), of_spots=True),
            z.own("click rate", len(rows), of_spots=True),
        ),
    )
    rate = np.hstack((rate, spots.rate))
    clicks = np.hstack((at.clicks * scale, spots.clicks))
    asked = Market(
        clicks=clicks,
        cpc=np.hstack((np.broadcast_to(at.cpc, (len(clicks), len(rows))), spots.cpc)),
        campaign=np.concatenate((result.table.campaign[rows], spots.campaign)),
        planned=np.concatenate((result.expected.spend[rows], result.spots.spend)),
        purse=brief.monthly_spend,
        limits=brief.limits,
        spread=0.0 if brief.pricing == "pay_bid" else assumed["draw_click_price"],
        days=round(assumed["draw_days"]),
        over=assumed["day_over"],
    )
    lucky = (z.luck, seed) if z.luck is not None and seed is not None else None
    served = lived(asked, z.draws, lucky)
    if lucky is None:
        return Happened(served.clicks, served.clicks * rate, served.spend, served.wanted)
    more = np.concatenate((z.spreads.clicks[rows], np.zeros(len(brief.spots))))
    known = beta_at(lucky[0].uniform("rate", z.draws), rate, assumed["prior_weight"], more)
    customers = binomial_at(lucky[0].uniform("customers", z.draws), served.clicks, known)
    return Happened(served.clicks, customers, served.spend, served.wanted)


def _clicked(rows: Ints, z: Inputs, click_rate: Floats) -> Floats:
    """Return what scales clicks as they stand: own and group's searches, and click rates."""
    spreads, count = z.spreads, len(rows)
    # searches × e^(sᵢzᵢ − sᵢ²/2) · click rate × e^(0.15z + 0.20zᵢ − 0.02)
    scale = (
        own_factor(spreads.own.searches[rows], z.own("searches", count, of_spots=False))
        * own_factor(spreads.own.click_rate[rows], z.own("click rate", count, of_spots=False))
        * np.exp(spreads.plan.click_rate * click_rate)
    )
    if spreads.group is not None and z.taught is not None:
        # what is common to many has median 1
        scale = scale * np.exp(
            spreads.group.searches[rows] * z.taught.group("searches", z.draws)
            + spreads.group.click_rate[rows] * z.taught.group("click rate", z.draws)
        )
    return np.asarray(scale)


def _price_shift(rows: Ints, z: Inputs, prices: Floats) -> Floats:
    """Return how far each market moves, log units: with the plan's, its group's, by itself."""
    shift = z.spreads.plan.price * prices
    if z.spreads.group is None or z.taught is None:
        return np.asarray(shift)
    of_group = z.spreads.group.price[rows] * z.taught.group_price(z.draws)
    s = z.spreads.own.price[rows]
    return np.asarray(shift + of_group + s * z.taught.own_price(z.draws) - s * s / 2)


def _searches(
    result: PlanResult, rows: Ints, searches: Floats, variants: Floats, spread: Floats
) -> tuple[Floats, Floats, Floats]:
    """Return S, Q and the effective rate over r, each keyword's own spread left aside."""
    demand, assumed = result.demand, result.brief.assumed
    # own e^(0.10z); variants also × e^(0.30z)
    moved = np.exp(spread * searches)
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
