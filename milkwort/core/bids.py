"""Starting bids by a method, each step kept for the workings."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from milkwort.core.assumptions import Assumed
from milkwort.core.brief import Policy
from milkwort.core.errors import ProgramError
from milkwort.core.keyword_table import Floats, Ints
from milkwort.core.market import Prices

__all__ = ["BidSteps", "floor_to_step", "method_bids"]

_EDGE = 1e-9
"""Slack for floors, so that 0.29/0.01 counts 29 steps and not 28."""


@dataclass(frozen=True)
class BidSteps:
    """A method's bids and the way to them; arrays of shape (n_keywords,), money a click.

    Attributes
    ----------
    start : Floats
        What the method says.
    by_match, by_breadth : Floats
        After the factor of the match type, then of the number of words.
    under_ceiling : Floats
        Not above the ceiling.
    bid : Floats
        Floored to the bid step.
    runs : ndarray of bool
        Whether the bid reaches the platform's least bid.
    """

    start: Floats
    by_match: Floats
    by_breadth: Floats
    under_ceiling: Floats
    bid: Floats
    runs: NDArray[np.bool_]


def floor_to_step(price: Floats, assumed: Assumed) -> Floats:
    """Return prices floored to the platform's bid step."""
    step = assumed["bid_step"]
    return np.asarray(np.round(np.floor(price / step + _EDGE) * step, 10))


def method_bids(
    policy: Policy,
    prices: Prices,
    match: Ints,
    words: Ints,
    ceiling: Floats,
    assumed: Assumed,
) -> BidSteps:
    """Work out starting bids by the method `low`, `middle` or `flat`.

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

    Returns
    -------
    BidSteps

    Raises
    ------
    ProgramError
        For a policy that is not a method.
    """
    start = _start(policy, prices)
    by_match = start * np.array(assumed.triple("bid"))[match]
    breadth = np.array([assumed["bid_one_word"], assumed["bid_two_words"], 1.0])
    by_breadth = by_match * breadth[np.clip(words, 1, 3) - 1]
    capped = np.minimum(by_breadth, ceiling)
    bid = floor_to_step(capped, assumed)
    runs = np.nan_to_num(bid) >= assumed["min_bid"] - _EDGE
    return BidSteps(start, by_match, by_breadth, capped, bid, runs)


def _start(policy: Policy, prices: Prices) -> Floats:
    if policy.name == "flat" and policy.flat_bid is not None:
        return np.where(prices.known, policy.flat_bid, np.nan)
    if policy.name == "low":
        return prices.low
    if policy.name == "middle":
        return (prices.low + prices.high) / 2
    raise ProgramError(f"{policy.name} is not a bidding method")
