"""Starting bids by a method, each step kept for the workings."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.assumptions import Assumed
from milkwort.core.brief.brief import Policy
from milkwort.core.errors import ProgramError
from milkwort.core.fit.tolerances import ROUNDING
from milkwort.core.market.prices import Prices, price_at_reach

__all__ = ["METHODS", "BidSteps", "floor_to_step", "method_bids"]

METHODS: dict[str, str] = {
    "low": "the low price",
    "middle": "the middle of low and high price",
    "high": "the high price",
    "percentile": "a percentile of the price",
    "high_plus": "the high price and a share more",
    "flat": "one bid for all",
    "flat_or_middle": "one bid for all, or the middle where that is lower",
    "last_seen": "the price last paid and a share more",
}
"""Every method by name, in words."""

_ROUND = 5
"""A bid of a whole number of so many steps looks like everybody's."""


@dataclass(frozen=True)
class BidSteps:
    """A method's bids and the way to them; arrays of shape (n_keywords,), money a click.

    Attributes
    ----------
    start : Floats
        What the method says; NaN where it has nothing to go by.
    by_match, by_breadth : Floats
        After the factor of the match type, then of the number of words.
    under_ceiling : Floats
        Not above the ceiling.
    under_cap : Floats
        Nor above a day's money over so many clicks, where that is asked for.
    off_round : Floats
        One step up from a round 5 or 10, where asked for and no cap is broken.
    bid : Floats
        Floored to the bid step.
    runs : ndarray of bool
        Whether the bid reaches the platform's least bid.
    """

    start: Floats
    by_match: Floats
    by_breadth: Floats
    under_ceiling: Floats
    under_cap: Floats
    off_round: Floats
    bid: Floats
    runs: NDArray[np.bool_]


def floor_to_step(price: Floats, assumed: Assumed) -> Floats:
    """Return prices floored to the platform's bid step.

    Parameters
    ----------
    price : ndarray of shape (n_keywords,)
        Money a click.
    assumed : Assumed

    Returns
    -------
    ndarray of shape (n_keywords,)
        Money a click; 0 where not even one step is left.
    """
    step = assumed["bid_step"]
    return np.asarray(np.round(np.floor(price / step + ROUNDING) * step, 10))


def method_bids(
    policy: Policy,
    prices: Prices,
    match: Ints,
    words: Ints,
    ceiling: Floats,
    assumed: Assumed,
    *,
    last_cpc: Floats | None = None,
    day_money: float = math.inf,
) -> BidSteps:
    """Work out starting bids by a method.

    Parameters
    ----------
    policy : Policy
        Its name says the method.
    prices : Prices
    match, words : Ints
        Position in `MATCHES`; number of words.
    ceiling : Floats
        Money a click.
    assumed : Assumed
    last_cpc : Floats, optional
        Average price last paid, for the method `last_seen`.
    day_money : float
        The purse of one day, for the optional cap.

    Returns
    -------
    BidSteps

    Raises
    ------
    ProgramError
        For a policy that is not a method.
    """
    start = _start(policy, prices, last_cpc)
    by_match = start * np.array(assumed.triple("bid"))[match]
    breadth = np.array([assumed["bid_one_word"], assumed["bid_two_words"], 1.0])
    by_breadth = by_match * breadth[np.clip(words, 1, 3) - 1]
    under_ceiling = np.minimum(by_breadth, ceiling)
    cap = day_money / policy.cap_clicks if policy.cap_clicks else math.inf
    under_cap = np.minimum(under_ceiling, cap)
    off_round = under_cap
    if policy.odd_step:
        off_round = _off_round(under_cap, np.minimum(ceiling, cap), assumed)
    bid = floor_to_step(off_round, assumed)
    runs = np.nan_to_num(bid) >= assumed["min_bid"] - ROUNDING
    return BidSteps(
        start, by_match, by_breadth, under_ceiling, under_cap, off_round, bid, runs
    )  # fmt: skip


def _start(policy: Policy, prices: Prices, last_cpc: Floats | None) -> Floats:
    more, flat = 1.0 + (policy.share or 0.0), policy.flat_bid or math.nan
    middle = (prices.low + prices.high) / 2
    one_for_all = np.where(prices.known, flat, np.nan)
    by_name: dict[str, Callable[[], Floats]] = {
        "low": lambda: prices.low,
        "middle": lambda: middle,
        "high": lambda: prices.high,
        "percentile": lambda: price_at_reach(policy.share or math.nan, prices),
        "high_plus": lambda: prices.high * more,
        "flat": lambda: one_for_all,
        "flat_or_middle": lambda: np.minimum(one_for_all, middle),
        "last_seen": lambda: np.full_like(middle, np.nan) if last_cpc is None else last_cpc * more,
    }
    if policy.name not in by_name:
        raise ProgramError(f"{policy.name} is not a bidding method")
    return np.asarray(by_name[policy.name]())


def _off_round(price: Floats, cap: Floats, assumed: Assumed) -> Floats:
    # a bid on a round 5 or 10 goes one step up if no cap is broken
    step = assumed["bid_step"]
    whole = np.floor(np.nan_to_num(price) / step + ROUNDING)
    is_round = np.isfinite(price) & (whole % _ROUND == 0) & (whole > 0)
    up = (whole + 1) * step
    return np.where(is_round & (up <= cap * (1 + ROUNDING)), up, price)
