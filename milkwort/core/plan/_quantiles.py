"""What falls to a draw whose luck is a number between 0 and 1: quantiles of what is counted.

Taking quantiles instead of drawing anew keeps two versions to the same luck: a keyword with a
little more to win has at least as many clicks in the same draw.
"""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from scipy.special import betaincinv, ndtr, ndtri

from milkwort.core.arrays import Floats

__all__ = ["beta_at", "binomial_at", "poisson_at"]

_MANY = 25.0
"""From so many on a count's quantile is read off its normal expansion, to under a tenth."""
_WIDEST = 6.0
"""No luck is worse or better than so many spreads of a normal."""
_LEAST_RATE = 1e-9
_RATES, _LUCKS = 129, 241
_SURE = 8
"""Steps between a rate known as well as its prior and one that is known."""


def poisson_at(u: Floats, mean: Floats) -> Floats:
    """Return the quantile of a Poisson count.

    Parameters
    ----------
    u : Floats
        Between 0 and 1.
    mean : Floats
        Of the same shape, 0 or more.
    """
    few = mean < _MANY
    counts = np.empty(np.shape(u))
    counts[few] = _climbed(u[few], np.exp(-mean[few]), mean[few], None)
    z, m = ndtri(u[~few]), mean[~few]
    # Cornish–Fisher: m + z√m + (z² − 1)/6 + (z − z³)/(72√m)
    wide = np.sqrt(m)
    counts[~few] = m + z * wide + (z * z - 1) / 6 + (z - z**3) / (72 * wide)
    counts[~few] = np.maximum(np.round(counts[~few]), 0.0)
    return counts


def binomial_at(u: Floats, many: Floats, share: Floats) -> Floats:
    """Return the quantile of how many of so many it is.

    Parameters
    ----------
    u : Floats
        Between 0 and 1.
    many : Floats
        Whole numbers of 0 or more.
    share : Floats
        Chance of each, 0 to 1.
    """
    often = share > 0.5
    p, luck = np.where(often, 1 - share, share), np.where(often, 1 - u, u)
    few = many * p < _MANY
    found = np.empty(np.shape(u))
    n, q = many[few], p[few]
    found[few] = _climbed(luck[few], np.exp(n * np.log1p(-q)), q / (1 - q), n)
    n, q, z = many[~few], p[~few], ndtri(luck[~few])
    # Cornish–Fisher, one term: np + z√(npq) + (z² − 1)(q − p)/6
    rough = n * q + z * np.sqrt(n * q * (1 - q)) + (z * z - 1) * (1 - 2 * q) / 6
    found[~few] = np.clip(np.round(rough), 0.0, n)
    return np.where(often, many - found, found)


def _climbed(u: Floats, first: Floats, ratio: Floats, most: Floats | None) -> Floats:
    """Add chances up from 0 until they pass u: P(k+1)/P(k) = ratio·(most − k or 1)/(k + 1)."""
    counts = np.zeros(len(u))
    at = np.flatnonzero(u > first)
    chance, below = first[at], first[at].copy()
    luck, step = u[at], ratio[at]
    left = None if most is None else most[at]
    k = 0
    while len(at):
        chance = chance * step / (k + 1) * (1.0 if left is None else left - k)
        below += chance
        k += 1
        counts[at] = k
        on = (luck > below) & (chance > 0)
        at, chance, below, luck, step = at[on], chance[on], below[on], luck[on], step[on]
        left = None if left is None else left[on]
    return counts


def beta_at(u: Floats, mean: Floats, weight: float, more: Floats | None = None) -> Floats:
    """Return the quantile of a rate known as well as so many clicks would tell.

    Parameters
    ----------
    u : Floats, shape (n_draws, n_rows)
        Between 0 and 1.
    mean : Floats
        Of the same shape, 0 to 1; a mean of 0 or 1 leaves no room.
    weight : float
        Of how many clicks.
    more : Floats, shape (n_rows,), optional
        Clicks that each row's rate rests on beside; none where left out.
    """
    from scipy.ndimage import map_coordinates

    inside = (mean > 0) & (mean < 1)
    m = np.clip(mean[inside], _LEAST_RATE, 1 - _LEAST_RATE)
    place = np.log(m / (1 - m))
    last = _logit_of(_LEAST_RATE)
    row = (place + last) / (2 * last) * (_RATES - 1)
    luck = np.clip(ndtri(u[inside]), -_WIDEST, _WIDEST)
    column = (luck + _WIDEST) / (2 * _WIDEST) * (_LUCKS - 1)
    if more is None or not more.any():
        over = map_coordinates(_beta_over_mean(weight), (row, column), order=1)
    else:
        # a quantile nears the mean with 1/√weight: read evenly by that
        sure = np.broadcast_to(np.sqrt(weight / (weight + more)), mean.shape)[inside]
        over = map_coordinates(_beta_by_sureness(weight), (sure * _SURE, row, column), order=1)
    found = np.array(mean, dtype=np.float64)
    found[inside] = np.minimum(m * over, 1.0)
    return found


@lru_cache(maxsize=4)
def _beta_by_sureness(weight: float) -> Floats:
    """Quantiles over the mean for weights of weight/t², t from 0 to 1 in even steps."""
    known = np.ones((1, _RATES, _LUCKS))
    steps = np.arange(1, _SURE + 1) / _SURE
    return np.concatenate((known, [_beta_over_mean(float(weight / t**2)) for t in steps]))


@lru_cache(maxsize=32)
def _beta_over_mean(weight: float) -> Floats:
    """Quantiles of Beta(w·m, w·(1 − m)) over m, by logit of m and by normal luck.

    Each row is set to the mean that Beta has, so that reading between its points adds no bias.
    """
    last = _logit_of(_LEAST_RATE)
    logits = np.linspace(-last, last, _RATES)
    mean = (1 / (1 + np.exp(-logits)))[:, None]
    luck = np.linspace(-_WIDEST, _WIDEST, _LUCKS)
    over = betaincinv(weight * mean, weight * (1 - mean), ndtr(luck)[None, :]) / mean
    share = np.diff(ndtr(luck), prepend=0.0)
    middle = (over + np.roll(over, 1, axis=1)) / 2
    middle[:, 0] = over[:, 0]
    return np.asarray(over / (middle @ share)[:, None])


def _logit_of(least: float) -> float:
    return float(np.log((1 - least) / least))
