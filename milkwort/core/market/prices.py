"""Reach, price and clicks of a keyword at a bid.

The price it takes to win a click is log-normal; a source's low and high price are two of
its percentiles.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import log_ndtr, ndtr, ndtri

from milkwort.core.arrays import Floats, Ints
from milkwort.core.assumptions import Assumed

__all__ = ["AtBid", "Prices", "at_bid", "price_at_reach", "prices_of", "reach_at"]


_FAR_BELOW = -6.0
"""Spreads below the market from which Φ is no longer exact to its last digits."""


@dataclass(frozen=True)
class Prices:
    """The log-normal price of a click, by keyword; arrays of shape (n_keywords,).

    Attributes
    ----------
    mu, sigma : Floats
        Mean and spread of the logarithm of the price; NaN where nothing is known.
    assumed : ndarray of bool
        Taken from the keyword's group or the plan, having no price of its own.
    single : ndarray of bool
        Made from one price only.
    low, high : Floats
        The two percentiles, money a click: as read, or as the market implies them.
    """

    mu: Floats
    sigma: Floats
    low: Floats
    high: Floats
    assumed: NDArray[np.bool_]
    single: NDArray[np.bool_]

    def at(self, rows: Ints) -> Prices:
        """Return the prices of some keywords."""
        return Prices(**{name: column[rows] for name, column in vars(self).items()})

    @property
    def known(self) -> NDArray[np.bool_]:
        """Which keywords can be forecast."""
        return np.isfinite(self.mu)


@dataclass(frozen=True)
class AtBid:
    """What a month brings at given bids; arrays of the bids' shape.

    Attributes
    ----------
    reach : Floats
        F, share of searches won.
    impressions, clicks : Floats
        A month.
    click_rate : Floats
        Clicks per impression of the keyword's own text.
    cpc : Floats
        Average money a click.
    spend : Floats
        Money a month.
    """

    reach: Floats
    impressions: Floats
    clicks: Floats
    click_rate: Floats
    cpc: Floats
    spend: Floats


def prices_of(low: Floats, high: Floats, group: Ints, assumed: Assumed) -> Prices:
    """Fit the price of a click from low and high prices.

    Parameters
    ----------
    low, high : Floats
        Money a click; NaN or 0 where absent.
    group : Ints
        Ad group of each keyword, −1 for none; a keyword with no price takes the median of
        its group's, else of the plan's.
    assumed : Assumed

    Returns
    -------
    Prices
        NaN throughout where no keyword has a price.
    """
    z_low, z_high = ndtri(assumed["low_percentile"]), ndtri(assumed["high_percentile"])
    lo = np.where(low > 0, low, np.nan)
    hi = np.where(high > 0, high, np.nan)
    single = np.isnan(lo) ^ np.isnan(hi)
    ln_lo, ln_hi = np.log(lo), np.log(hi)
    # σ = max(0.05, (ln H − ln L)/(z_H − z_L)),  μ = ln L − z_L·σ;  one price P: μ = ln P
    width = np.where(single, np.log(assumed["single_price_ratio"]), ln_hi - ln_lo)
    sigma = np.maximum(assumed["least_sigma"], width / (z_high - z_low))
    mu = np.where(single, np.where(np.isnan(lo), ln_hi, ln_lo), ln_lo - z_low * sigma)
    missing = np.isnan(mu)
    mu, sigma = _filled(mu, sigma, missing, group)
    return Prices(
        mu=mu,
        sigma=sigma,
        low=np.where(single | missing, np.exp(mu + z_low * sigma), lo),
        high=np.where(single | missing, np.exp(mu + z_high * sigma), hi),
        assumed=missing & np.isfinite(mu),
        single=single,
    )


def reach_at(bid: Floats, prices: Prices) -> Floats:
    """Return the share of searches won at a bid; 0 at a bid of 0, NaN without a price.

    Parameters
    ----------
    bid : ndarray of shape (n_keywords,)
        Money a click.
    prices : Prices

    Returns
    -------
    ndarray of shape (n_keywords,)
        Share from 0 to 1.
    """
    return np.asarray(ndtr(_z(bid, prices.mu, prices.sigma)))


def price_at_reach(reach: float, prices: Prices) -> Floats:
    """Return the bid that wins a share of the searches, money a click.

    Parameters
    ----------
    reach : float
        Share of the searches, between 0 and 1.
    prices : Prices

    Returns
    -------
    ndarray of shape (n_keywords,)
    """
    return np.asarray(np.exp(prices.mu + prices.sigma * ndtri(reach)))


def at_bid(
    bid: Floats,
    mu: Floats,
    sigma: Floats,
    searches: Floats,
    click_weight: Floats,
    pricing: str,
    assumed: Assumed,
) -> AtBid:
    """Work out what a month brings at given bids.

    Parameters
    ----------
    bid : Floats
        Money a click, above 0.
    mu, sigma : Floats
        The market, as in `Prices`.
    searches, click_weight : Floats
        S and Q, a month.
    pricing : {"pay_enough", "pay_bid"}
    assumed : Assumed

    Returns
    -------
    AtBid
        All arrays broadcast to one shape.
    """
    z = _z(bid, mu, sigma)
    reach = np.asarray(ndtr(z))
    cpc = bid + 0.0 * z if pricing == "pay_bid" else _price_just_won(bid, z, reach, mu, sigma)
    # click rate = T·(d + (1−d)·F)
    top, bottom = assumed["click_rate_top"], assumed["click_rate_bottom"]
    click_rate = top * (bottom + (1 - bottom) * reach)
    clicks = click_weight * reach * click_rate
    return AtBid(
        reach=reach,
        impressions=searches * reach,
        clicks=clicks,
        click_rate=click_rate,
        cpc=cpc,
        spend=clicks * cpc,
    )


def _z(bid: Floats, mu: Floats, sigma: Floats) -> Floats:
    with np.errstate(divide="ignore"):  # a bid of 0 lies infinitely far below the market
        return np.asarray((np.log(bid) - mu) / sigma)


def _price_just_won(bid: Floats, z: Floats, reach: Floats, mu: Floats, sigma: Floats) -> Floats:
    # C = min(b, e^(μ+σ²/2)·Φ(z−σ)/Φ(z)); far below the market in logarithms, so that the
    # tails don't vanish, and plainly elsewhere, which is several times as fast
    below = z - sigma
    if below.size and not np.nanmin(below, initial=0.0) < _FAR_BELOW:
        return np.asarray(np.minimum(bid, np.exp(mu + sigma * sigma / 2) * ndtr(below) / reach))
    log_mean = mu + sigma * sigma / 2 + log_ndtr(below) - log_ndtr(z)
    return np.asarray(np.minimum(bid, np.exp(log_mean)))


def _filled(
    mu: Floats, sigma: Floats, missing: NDArray[np.bool_], group: Ints
) -> tuple[Floats, Floats]:
    if not missing.any() or missing.all():
        return mu, sigma
    known = ~missing
    mu, sigma = mu.copy(), sigma.copy()
    plan_mu, plan_sigma = float(np.median(mu[known])), float(np.median(sigma[known]))
    for number in np.unique(group[missing]):
        rows = missing & (group == number)
        peers = known & (group == number)
        from_group = number >= 0 and peers.any()
        mu[rows] = np.median(mu[peers]) if from_group else plan_mu
        sigma[rows] = np.median(sigma[peers]) if from_group else plan_sigma
    return mu, sigma
