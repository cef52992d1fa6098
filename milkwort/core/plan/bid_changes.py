"""Bids of several keywords moved at once, each way by its name."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal, get_args

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.errors import BadValueError
from milkwort.core.fit.bids import floor_to_step
from milkwort.core.market.prices import price_at_reach
from milkwort.core.plan.run import PlanResult, run_plan

__all__ = ["WAYS", "BidMove", "MovedBids", "Way", "moved_bids"]

Way = Literal[
    "low", "middle", "high", "percentile", "times", "suggestion", "at_most", "odd", "lock",
    "unlock", "fitted",
]  # fmt: skip
WAYS: tuple[str, ...] = get_args(Way)

_NEEDS = {"percentile": "a percentile between 0 and 1",
          "times": "a factor above 0, at most 100", "at_most": "a price above 0"}  # fmt: skip
_ROUND = 5


@dataclass(frozen=True)
class BidMove:
    """One way to move bids.

    Attributes
    ----------
    way : Way
        To the low, middle or high price; to a percentile of the price; times a factor; to the
        suggestion (the fitted bid) where that is lower; not above a price; a step up from a
        round price; locked as it is; given back; to the fitted bid, and locked there.
    value : float or None
        The percentile as a share, the factor, or the price, money a click.
    """

    way: Way
    value: float | None = None

    def __post_init__(self) -> None:
        if self.way not in WAYS:
            raise BadValueError("way", "one of " + ", ".join(WAYS), self.way)
        if self.way in _NEEDS:
            value = self.value if self.value is not None else np.nan
            most = {"percentile": 1.0, "times": 100.0, "at_most": np.inf}[self.way]
            if not 0 < value < np.nextafter(most, np.inf) or (
                self.way == "percentile" and value >= 1
            ):
                raise BadValueError(self.way, _NEEDS[self.way], self.value)


@dataclass(frozen=True)
class MovedBids:
    """Where bids go.

    Attributes
    ----------
    rows : Ints, shape (n_moved,)
        Those that move.
    bid : Floats, shape (n_moved,)
        Money a click in whole steps; NaN where a keyword is given back to the policy.
    """

    rows: Ints
    bid: Floats


def moved_bids(result: PlanResult, rows: Ints, move: BidMove) -> MovedBids:
    """Return the bid that each of some keywords is to be locked at.

    Parameters
    ----------
    result : PlanResult
    rows : Ints, shape (n_rows,)
        Kept or not: a bid by hand waits until the keyword is kept.
    move : BidMove

    Returns
    -------
    MovedBids
        Keywords of which the way says nothing (no price, no bid to move, no lower
        suggestion) are left out: theirs stays as it is.
    """
    if move.way == "unlock":
        return MovedBids(rows, np.full(len(rows), np.nan))
    to = _wanted(result, rows, move, result.bid[rows])
    moves = np.isfinite(to)
    floored = np.maximum(floor_to_step(to, result.brief.assumed), result.brief.assumed["min_bid"])
    return MovedBids(rows[moves], floored[moves])


def _wanted(result: PlanResult, rows: Ints, move: BidMove, bid: Floats) -> Floats:
    prices, value = result.prices, move.value if move.value is not None else np.nan
    if move.way in ("low", "high"):
        return np.asarray(getattr(prices, move.way)[rows])
    if move.way == "middle":
        return np.asarray((prices.low + prices.high)[rows] / 2)
    if move.way == "percentile":
        return np.asarray(price_at_reach(value, prices)[rows])
    if move.way == "times":
        return bid * value
    if move.way == "at_most":
        return np.where(bid > value, value, np.nan)
    if move.way == "lock":
        return bid
    if move.way == "odd":
        step = result.brief.assumed["bid_step"]
        whole = np.round(np.nan_to_num(bid) / step)
        return np.where((whole > 0) & (whole % _ROUND == 0), (whole + 1) * step, np.nan)
    fitted = _fitted(result, rows)
    if move.way == "suggestion":
        return np.where(fitted < bid, fitted, np.nan)
    return fitted


def _fitted(result: PlanResult, rows: Ints) -> Floats:
    """Return what the fit would bid for some keywords were theirs not set by hand."""
    locked = result.table.locked_bid.copy()
    locked[rows] = np.nan
    table = replace(result.table, locked_bid=locked)
    steps = run_plan(result.brief, table, result).fit.steps[: len(table)][rows]
    return np.where(steps > 0, np.round(steps * result.brief.assumed["bid_step"], 10), np.nan)
