"""What it takes to win a click: the shape of prices, and what is paid below a bid."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy.special import beta, betainc, expit, logit, ndtr, ndtri

from milkwort.standins.market.levels import Level
from milkwort.standins.market.luck import mixed, uniform
from milkwort.standins.market.world import World

__all__ = ["mean_price_below", "price_of", "reach_of", "shifts"]

Floats = NDArray[np.float64]

_QUARTILE = float(ndtri(0.75))
_LOGISTIC_QUARTILE = float(np.log(3))
_SLOT_LEAST = 30


def price_of(chance: Floats, mu: Floats, sigma: Floats, *, logistic: bool) -> Floats:
    """Return the price at a chance, money a click."""
    at = logit(chance) * (_QUARTILE / _LOGISTIC_QUARTILE) if logistic else ndtri(chance)
    return np.asarray(np.exp(mu + sigma * at))


def reach_of(bid: Floats, mu: Floats, sigma: Floats, *, logistic: bool) -> Floats:
    """Return the share of searches whose price lies at or under a bid."""
    with np.errstate(divide="ignore"):
        z = (np.log(bid) - mu) / sigma
    return np.asarray(expit(z * _LOGISTIC_QUARTILE / _QUARTILE) if logistic else ndtr(z))


def mean_price_below(bid: Floats, mu: Floats, sigma: Floats, *, logistic: bool) -> Floats:
    """Return the mean price of the searches won at a bid; the bid where none is."""
    reach = reach_of(bid, mu, sigma, logistic=logistic)
    if logistic:
        # ∫₀^F e^μ (u/(1−u))^s du = e^μ · B(F; 1+s, 1−s)
        s = np.minimum(sigma * _QUARTILE / _LOGISTIC_QUARTILE, 0.97)
        paid = np.exp(mu) * betainc(1 + s, 1 - s, reach) * beta(1 + s, 1 - s)
    else:
        with np.errstate(divide="ignore"):
            z = (np.log(bid) - mu) / sigma
        paid = np.exp(mu + sigma**2 / 2) * ndtr(z - sigma)
    mean = np.divide(paid, reach, out=np.array(bid, dtype=np.float64, copy=True),
                     where=reach > 1e-12)  # fmt: skip
    return np.asarray(np.minimum(mean, bid))


def shifts(world: World, level: Level, day: int) -> Floats:
    """Return how far rivals have shifted the prices of each theme on a day, log units.

    A year falls into as many slots as there are changes in it; in each, some weeks of rivals
    coming or going.
    """
    n = len(world.theme_keys)
    if level.rivals is None:
        return np.zeros(n)
    low, high = level.rivals
    slot = max(int(365 / level.rivals_a_year), _SLOT_LEAST)
    found = np.zeros(n)
    for number in (day // slot, day // slot - 1):
        keys = mixed(world.seed, "rivals", world.theme_keys, number)
        start = number * slot + np.floor(uniform(mixed(keys, 1)) * slot)
        length = np.floor(14 + uniform(mixed(keys, 2)) * 42)
        size = low + (high - low) * uniform(mixed(keys, 3))
        sign = np.where(uniform(mixed(keys, 4)) < 0.5, -1.0, 1.0)
        found += np.where((day >= start) & (day < start + length), sign * size, 0.0)
    return found
