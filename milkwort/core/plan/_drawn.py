"""Factors of a draw, and what spots bring in it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.special import ndtri

from milkwort.core.arrays import Floats, Ints
from milkwort.core.brief.worth import Conversion, Offer
from milkwort.core.fit.options import SPOT_STEPS
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.spots import spot_choices
from milkwort.core.plan.spreads import Level

__all__ = ["SpotsDrawn", "conversion_factor", "own_factor", "spots_drawn"]

_LEAST_LOW = 1e-3
"""A low rate of 0 is read as this share of the likely one: a log-normal has no 0."""
_P90 = float(ndtri(0.9))


@dataclass(frozen=True)
class SpotsDrawn:
    """What spots would bring; arrays of shape (n_draws, n_spots), `campaign` (n_spots,).

    Attributes
    ----------
    clicks, cpc : Floats
        A month, were money no object, and money a click.
    rate : Floats
        Customers a click.
    campaign : Ints
    """

    clicks: Floats
    cpc: Floats
    rate: Floats
    campaign: Ints


def spots_drawn(
    result: PlanResult, shared: Sequence[Floats], plan: Level,
    own: tuple[Floats | None, Floats | None],
) -> SpotsDrawn:  # fmt: skip
    """Return what the spots that run bring: drawn like keywords, but for their price.

    Parameters
    ----------
    result : PlanResult
    shared : sequence of Floats, each of shape (n_draws, 1)
        Standard normal, as the draws name them: searches, variants, prices, click rate,
        conversion.
    plan : Level
        Spreads of what all share.
    own : (Floats or None, Floats or None), of shape (n_draws, n_spots)
        Of each spot: its showings, its click rate.
    """
    brief, assumed = result.brief, result.brief.assumed
    choices = spot_choices(brief)
    searches, _, _, click_rate, conversion = shared
    # showings × e^(0.10z + sz − s²/2), s that of a figure; price a click c / (1000·t)
    shown = np.exp(plan.searches * searches) * own_factor(assumed["draw_volume"], own[0])
    clicked = np.exp(plan.click_rate * click_rate) * own_factor(
        assumed["draw_click_rate_own"], own[1]
    )
    by_showing = np.array([spot.pays == "showings" for spot in brief.spots], dtype=bool)
    taken = choices.clicks * result.spots.steps / SPOT_STEPS
    offer = np.array([spot.offer for spot in brief.spots], dtype=np.int64)
    rate = np.clip(choices.rate * conversion_factor(brief.offers, conversion, offer), 0.0, 1.0)
    shape = (len(searches), len(brief.spots))
    clicks = np.broadcast_to(taken * shown * clicked, shape)
    # where showings are paid, more clicks cost nothing more
    cpc = np.broadcast_to(np.where(by_showing, choices.price / clicked, choices.price), shape)
    return SpotsDrawn(clicks, cpc, np.broadcast_to(rate, shape), choices.campaign)


def own_factor(spread: Floats | float, z: Floats | None) -> Floats:
    """Return a keyword's own factor, log-normal with mean 1; 1 where nothing is drawn.

    Parameters
    ----------
    spread : Floats
        s, in log units.
    z : Floats or None
        Standard normal.
    """
    # e^(s·z − s²/2)
    s = np.asarray(spread, dtype=np.float64)
    return np.ones_like(s) if z is None else np.exp(s * z - s * s / 2)


def conversion_factor(offers: Sequence[Offer], z: Floats, offer: Ints) -> Floats:
    """Two-sided log-normal: low, likely and high as 10th, 50th and 90th percentile over likely.

    Parameters
    ----------
    offers : sequence of Offer
    z : Floats
        Standard normal.
    offer : Ints
        Place of each keyword's offer.
    """
    up, down = np.array([_spread_of(one.rate) for one in offers]).T
    return np.asarray(np.exp(np.where(z > 0, up[offer], down[offer]) * z))


def _spread_of(rate: Conversion) -> tuple[float, float]:
    if rate.likely <= 0:
        return (0.0, 0.0)
    low = max(rate.low, rate.likely * _LEAST_LOW)
    return (math.log(rate.high / rate.likely) / _P90, math.log(rate.likely / low) / _P90)
