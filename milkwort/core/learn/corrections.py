"""Corrections: what the assumptions should have been, shrunk by how much is known.

Price first: it moves the market itself, and with it the reach. Then click rate, of the
showings there really were, and searches, of the reach there really was; so one miss is not
blamed twice. All are offered, nothing is applied.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np
from scipy.special import log_ndtr, ndtr, ndtri

from milkwort.core.arrays import Floats
from milkwort.core.assumptions import Assumed
from milkwort.core.learn.seen import Seen
from milkwort.core.learn.three_levels import Learnt, learnt_of_counts, learnt_of_shifts
from milkwort.core.market.prices import at_bid
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.spreads import volume_spread

__all__ = [
    "FACTORS", "Corrections", "Factor", "LearningSpreads", "Segment", "clicks_due",
    "corrections_of", "learning_spreads", "price_slope", "shift_by_reach",
]  # fmt: skip

Factor = Literal["searches", "click_rate", "price"]
FACTORS: tuple[Factor, ...] = get_args(Factor)
_LEAST_SLOPE = 0.1
_NO_SPREAD = 1e-6


@dataclass(frozen=True)
class Segment:
    """Days on which the same bids ran.

    Attributes
    ----------
    bid : Floats, shape (n_keywords,)
        Money a click; NaN where a keyword did not run.
    factor : Floats, shape (n_keywords,)
        Searches of these days over those of the plan's mean month.
    seen : Seen
    """

    bid: Floats
    factor: Floats
    seen: Seen


@dataclass(frozen=True)
class Corrections:
    """What is offered; each by keyword of the plan's table.

    Attributes
    ----------
    price, click_rate, searches : Learnt
        Factors on prices (μ moves by the shift), on click rates, on searches.
    searches_known : bool
        False where a budget ran out and the platform doesn't say what could have been shown:
        then searches are not corrected.
    """

    price: Learnt
    click_rate: Learnt
    searches: Learnt
    searches_known: bool


def corrections_of(result: PlanResult, segments: Sequence[Segment]) -> Corrections:
    """Compare what came with what was to be expected, over all results so far.

    Parameters
    ----------
    result : PlanResult
        With the plan's uncorrected inputs.
    segments : sequence of Segment
        One or more.

    Returns
    -------
    Corrections
    """
    group, spread = result.table.group, learning_spreads(result)
    y, v = _price_sight(result, segments)
    price = learnt_of_shifts(y, v, group, *spread.of("price"))
    mu = result.prices.mu + price.shift
    wanted, clicks = clicks_due(result, segments, mu)
    click_rate = learnt_of_counts(wanted, clicks, group, *spread.of("click_rate"))
    due, came, known = _searches(result, segments, mu)
    searches = learnt_of_counts(due, came, group, *spread.of("searches"))
    return Corrections(price, click_rate, searches, known)


def clicks_due(
    result: PlanResult, segments: Sequence[Segment], mu: Floats
) -> tuple[Floats, Floats]:
    """Return the clicks to be expected of the showings there were, and those that came.

    Parameters
    ----------
    result : PlanResult
    segments : sequence of Segment
        A click rate is expected at the bids that ran; a keyword's other days are left out.
    mu : Floats, shape (n_keywords,)
        The market that the bids are held against.
    """
    n, demand = len(result.table), result.demand
    due, came = np.zeros(n), np.zeros(n)
    per_search = np.divide(demand.click_weight, demand.searches, out=np.ones(n),
                           where=demand.searches > 0)  # fmt: skip
    for segment in segments:
        runs = np.isfinite(segment.bid) & result.prices.known
        bid = np.where(runs, segment.bid, 1.0)
        at = at_bid(bid, np.where(runs, mu, 0.0), result.prices.sigma, np.ones(n), np.ones(n),
                    result.brief.pricing, result.brief.assumed)  # fmt: skip
        due += np.where(runs, segment.seen.impressions * per_search * at.click_rate, 0.0)
        came += np.where(runs, segment.seen.clicks, 0.0)
    return np.nan_to_num(due), came


@dataclass(frozen=True)
class LearningSpreads:
    """How far plan, groups and keywords were thought to be off, by factor; log units."""

    plan: dict[Factor, float]
    group: dict[Factor, float]
    own: dict[Factor, Floats | float]

    def of(self, factor: Factor) -> tuple[float, float, Floats | float]:
        """Return the spreads of plan, group and own of one factor."""
        return self.plan[factor], self.group[factor], self.own[factor]


def learning_spreads(result: PlanResult) -> LearningSpreads:
    """Return the spreads that corrections start from.

    Parameters
    ----------
    result : PlanResult
        With the plan's uncorrected inputs.
    """
    assumed = result.brief.assumed
    return LearningSpreads(
        plan={name: _least(assumed, f"draw_{name}") for name in FACTORS},
        group={name: assumed[f"learn_{name}_group"] for name in FACTORS},
        own={"searches": volume_spread(result), "click_rate": assumed["draw_click_rate_own"],
             "price": assumed["learn_price_own"]},
    )  # fmt: skip


def price_slope(bid: Floats, mu: Floats, sigma: Floats) -> Floats:
    """Return how much of a shift of the market shows in the price that is paid, k.

    Parameters
    ----------
    bid, mu, sigma : Floats
        Money a click; the market.

    Returns
    -------
    Floats
        d ln C/dμ, at least 0.1.
    """
    # k = 1 − (φ(z−σ)/Φ(z−σ) − φ(z)/Φ(z))/σ
    z = (np.log(bid) - mu) / sigma
    return np.asarray(np.maximum(1 - (_hazard(z - sigma) - _hazard(z)) / sigma, _LEAST_SLOPE))


def shift_by_reach(
    shown: Floats, searches: Floats, bid: Floats, mu: Floats, sigma: Floats
) -> tuple[Floats, Floats]:
    """Return the shift of the market that the reach there was says, and its variance.

    Parameters
    ----------
    shown, searches : Floats
        Showings, and searches for which the money lasted.
    bid, mu, sigma : Floats
        Money a click; the market as planned.
    """
    # Δμ = −σ·(Φ⁻¹(reach seen) − z),  v = σ²·F(1−F)/(n·φ(z)²)
    z = (np.log(bid) - mu) / sigma
    some = np.maximum(searches, 1.0)
    reach = np.clip(shown / some, 0.5 / some, 1 - 0.5 / some)
    far = ndtr(z)
    density = np.exp(-z * z / 2) / np.sqrt(2 * np.pi)
    with np.errstate(divide="ignore", invalid="ignore"):
        variance = sigma**2 * far * (1 - far) / (searches * density**2)
    return -sigma * (ndtri(reach) - z), np.where(searches > 0, variance, np.inf)


def _least(assumed: Assumed, name: str) -> float:
    """Return a spread; one of 0 leaves next to nothing to be learnt."""
    return max(assumed[name], _NO_SPREAD)


def _hazard(z: Floats) -> Floats:
    """φ(z)/Φ(z), also far below the market."""
    return np.asarray(np.exp(-z * z / 2 - np.log(2 * np.pi) / 2 - log_ndtr(z)))


def _price_sight(result: PlanResult, segments: Sequence[Segment]) -> tuple[Floats, Floats]:
    """Return what all days say of the shift of each keyword's market, and its variance."""
    n = len(result.table)
    weight, sums = np.zeros(n), np.zeros(n)
    for segment in segments:
        for y, v in _sights(result, segment):
            known = np.isfinite(v) & (v > 0) & np.isfinite(y)
            weight[known] += 1 / v[known]
            sums[known] += y[known] / v[known]
    with np.errstate(divide="ignore", invalid="ignore"):
        return np.where(weight > 0, sums / weight, 0.0), np.where(weight > 0, 1 / weight, np.inf)


def _sights(result: PlanResult, segment: Segment) -> list[tuple[Floats, Floats]]:
    brief, prices, seen = result.brief, result.prices, segment.seen
    runs = np.isfinite(segment.bid) & prices.known
    bid = np.where(runs, segment.bid, 1.0)
    mu, sigma = np.where(runs, prices.mu, 0.0), np.where(runs, prices.sigma, 1.0)
    found = []
    if brief.pricing != "pay_bid":
        at = at_bid(bid, mu, sigma, np.ones(len(bid)), np.ones(len(bid)), brief.pricing,
                    brief.assumed)  # fmt: skip
        k = price_slope(bid, mu, sigma)
        clicked = runs & (seen.clicks > 0) & (seen.cost > 0)
        paid = np.divide(seen.cost, seen.clicks, out=np.ones(len(bid)), where=clicked)
        # y = (P/C − 1)/k,  v = 0.25/(clicks·k²)
        y = (paid / at.cpc - 1) / k
        v = np.where(
            clicked,
            brief.assumed["draw_click_price"] / (np.maximum(seen.clicks, 1e-12) * k**2),
            np.inf,
        )
        found.append((y, v))
    told = np.isfinite(seen.could_show) & runs
    if told.any():
        lasted = np.where(told, seen.could_show - np.nan_to_num(seen.lost_to_money), 0.0)
        y, v = shift_by_reach(seen.impressions, np.maximum(lasted, 0.0), bid, mu, sigma)
        found.append((y, np.where(told, v, np.inf)))
    return found


def _searches(
    result: PlanResult, segments: Sequence[Segment], mu: Floats
) -> tuple[Floats, Floats, bool]:
    """Return the searches to be expected and those that came, or showings in their place."""
    n = len(result.table)
    due, came, known = np.zeros(n), np.zeros(n), False
    for segment in segments:
        seen = segment.seen
        runs = np.isfinite(segment.bid) & result.prices.known
        told = runs & np.isfinite(seen.could_show)
        wanted = result.demand.searches * np.nan_to_num(segment.factor)
        if np.isfinite(seen.could_show).any():
            due += np.where(told, wanted, 0.0)
            came += np.where(told, np.nan_to_num(seen.could_show), 0.0)
            known = True
        elif not np.nan_to_num(seen.lost_to_money).any():
            reach = ndtr((np.log(np.where(runs, segment.bid, 1.0)) - mu) / result.prices.sigma)
            shown = runs & np.isfinite(seen.impressions)
            due += np.where(shown, wanted * np.nan_to_num(reach), 0.0)
            came += np.where(shown, np.nan_to_num(seen.impressions), 0.0)
            known = True
    return due, came, known
