"""Every bid a keyword may take, and the concave hull of what those bids bring.

Options of all keywords lie in flat arrays, keyword by keyword, bids rising.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.special import ndtr, ndtri

from milkwort.core.arrays import Floats, Ints
from milkwort.core.assumptions import Assumed
from milkwort.core.fit.tolerances import ROUNDING

__all__ = [
    "SPOT_STEPS",
    "Hull",
    "Options",
    "bid_lattice",
    "hull_of",
    "options_of",
    "spot_hull",
    "spot_options",
]

SPOT_STEPS = 24
"""A spot's money is given in so many equal steps."""


@dataclass(frozen=True)
class Options:
    """Bids to choose from; arrays of shape (n_options,).

    Attributes
    ----------
    owner : Ints
        The keyword.
    steps : Ints
        The bid in whole bid steps.
    clicks, spend : Floats
        A month.
    """

    owner: Ints
    steps: Ints
    clicks: Floats
    spend: Floats


@dataclass(frozen=True)
class Hull:
    """Steps along the upper concave hulls; arrays of shape (n_steps,), bids rising.

    Attributes
    ----------
    owner : Ints
        The keyword.
    option : Ints
        The option a step leads to.
    before : Ints
        The option it leaves, −1 for not running.
    clicks, spend : Floats
        What the step adds, a month.
    """

    owner: Ints
    option: Ints
    before: Ints
    clicks: Floats
    spend: Floats


_NO_SEARCHES = 1e-12
"""What so few a month bring is nothing, and is not divided by."""
_NO_MONEY = 1e-9
"""A spot that could take no more than this a month has nothing to choose."""


def bid_lattice(highest: float, assumed: Assumed) -> Ints:
    """Return the bids the fit chooses from, in whole bid steps, rising and distinct.

    Parameters
    ----------
    highest : float
        No bid above this is wanted, money a click.
    assumed : Assumed
    """
    step, least = assumed["bid_step"], assumed["min_bid"]
    first = np.ceil(least / step - ROUNDING)
    if not highest >= first * step:
        return np.array([first], dtype=np.int64)
    ratio = assumed["lattice_ratio"]
    count = int(np.ceil(np.log(highest / least) / np.log(ratio))) + 1
    bids = np.round(least * ratio ** np.arange(count) / step)
    return np.unique(np.maximum(bids, first)).astype(np.int64)


def options_of(
    rows: Ints,
    mu: Floats,
    sigma: Floats,
    click_weight: Floats,
    ceiling: Floats,
    pricing: str,
    assumed: Assumed,
) -> Options:
    """List every bid that each of some keywords may take.

    From the least reach up to the lower of the ceiling and the price at the most reach,
    that top itself included; none for a keyword whose top does not reach that far.

    Parameters
    ----------
    rows : Ints, shape (n_rows,)
        Keywords to list; their order is kept.
    mu, sigma, click_weight, ceiling : Floats, shape (n_keywords,)
    pricing : {"pay_enough", "pay_bid"}
    assumed : Assumed
    """
    step = assumed["bid_step"]
    m, s = mu[rows], sigma[rows]
    floor_price = np.exp(m + s * ndtri(assumed["least_reach"]))
    top_price = np.minimum(ceiling[rows], np.exp(m + s * ndtri(assumed["most_reach"])))
    top = np.floor(np.nan_to_num(top_price) / step + ROUNDING).astype(np.int64)
    first = int(np.ceil(assumed["min_bid"] / step - ROUNDING))
    runs = (top >= first) & (top * step >= floor_price * (1 - ROUNDING))
    runs &= click_weight[rows] > _NO_SEARCHES
    top, floor_price = top[runs], floor_price[runs]
    lattice = bid_lattice(float(top.max(initial=0)) * step, assumed)
    start = np.searchsorted(lattice * step, floor_price * (1 - ROUNDING))
    end = np.searchsorted(lattice, top)
    count = np.maximum(end - start, 0) + 1
    last = np.cumsum(count) - 1
    each = np.repeat(np.arange(len(count)), count)
    steps = lattice.take(np.arange(len(each)) + (start - (last - count + 1))[each], mode="clip")
    steps[last] = top
    clicks, spend = _clicks_and_spend(
        steps * step, each, m[runs], s[runs], click_weight[rows[runs]], pricing, assumed
    )
    return Options(owner=rows[runs][each], steps=steps, clicks=clicks, spend=spend)


def spot_options(rows: Ints, clicks: Floats, price: Floats) -> Options:
    """List what may be taken of some spots: equal steps of all they have.

    Parameters
    ----------
    rows : Ints, shape (n_spots,)
        Their numbers among the rows of the problem, rising.
    clicks : Floats, shape (n_spots,)
        A month at most; a spot without any has no options.
    price : Floats, shape (n_spots,)
        Money a click.

    Returns
    -------
    Options
        Steps are counted from 1 to `SPOT_STEPS` in place of bids.
    """
    there = np.flatnonzero(clicks * price > _NO_MONEY)
    steps = np.tile(np.arange(1, SPOT_STEPS + 1), len(there))
    at = np.repeat(there, SPOT_STEPS)
    taken = clicks[at] * steps / SPOT_STEPS
    return Options(owner=rows[at], steps=steps, clicks=taken, spend=taken * price[at])


def spot_hull(options: Options, before: int) -> Hull:
    """Return the steps of spots: those of one spot are exactly alike, and stay in order.

    Parameters
    ----------
    options : Options
        From `spot_options`.
    before : int
        How many options stand before these.
    """
    place = np.arange(before, before + len(options.owner))
    first = options.steps == 1
    whole = np.arange(len(options.owner)) // SPOT_STEPS * SPOT_STEPS
    return Hull(
        owner=options.owner,
        option=place,
        before=np.where(first, -1, place - 1),
        clicks=options.clicks[whole],
        spend=options.spend[whole],
    )


def hull_of(options: Options) -> Hull:
    """Return the upper concave hull of clicks against spend, keyword by keyword.

    The same points are on the hull for customers, clicks, revenue and profit alike, since
    each is clicks times a constant, less at most the spend itself.

    Parameters
    ----------
    options : Options
        Bids of all keywords, each keyword's in rising order.

    Returns
    -------
    Hull
        The steps of each keyword by falling return; clicks and money a month.
    """
    alive = np.arange(len(options.owner))
    owner, clicks, spend = options.owner, options.clicks, options.spend
    while len(alive):
        first = np.flatnonzero(owner[1:] != owner[:-1]) + 1
        more, cost = _differences(clicks, first), _differences(spend, first)
        # a point on or under the chord of its neighbours is on no hull
        below = np.zeros(len(alive), dtype=bool)
        np.less_equal(more[:-1] * cost[1:], more[1:] * cost[:-1], out=below[:-1])
        below[first - 1] = False
        if not below.any():
            before = np.concatenate(([-1], alive[:-1]))
            before[first] = -1
            return Hull(owner, alive, before, more, cost)
        alive = alive[~below]
        owner = options.owner[alive]
        clicks, spend = options.clicks[alive], options.spend[alive]
    nothing = np.zeros(0)
    return Hull(alive, alive, alive, nothing, nothing)


def _differences(column: Floats, first: Ints) -> Floats:
    """Return how far each row lies above the one before; the first of a keyword, above 0."""
    found = column.copy()
    found[1:] -= column[:-1]
    found[first] = column[first]
    return found


def _clicks_and_spend(
    bid: Floats,
    each: Ints,
    mu: Floats,
    sigma: Floats,
    click_weight: Floats,
    pricing: str,
    assumed: Assumed,
) -> tuple[Floats, Floats]:
    """Return what bids bring and cost; `each` is the place of its keyword in the columns."""
    # The same figures as market.at_bid. Here z is never far below the market, so plain
    # Φ is exact enough and several times as fast as its logarithm. Arrays are used again:
    # to ask for a new one takes longer than to fill it.
    spread = sigma[each]
    z = np.log(bid)
    z -= mu[each]
    z /= spread
    reach = ndtr(z)
    top, bottom = assumed["click_rate_top"], assumed["click_rate_bottom"]
    clicks = (1 - bottom) * reach
    clicks += bottom
    clicks *= reach
    clicks *= (top * click_weight)[each]
    if pricing == "pay_bid":
        return clicks, clicks * bid
    z -= spread
    price = ndtr(z, out=z)
    price /= reach
    price *= np.exp(mu + sigma * sigma / 2)[each]
    np.minimum(bid, price, out=price)
    price *= clicks
    return clicks, price
