"""Kept keywords that are hardly shown: why, as far as it was seen, and the bid that would be."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.learn.ran import Due
from milkwort.core.learn.seen import Seen
from milkwort.core.plan.run import PlanResult

__all__ = ["WHYS", "HardlyShown", "Why", "hardly_shown"]

Why = Literal["negative", "money", "few_searches", "bid", "unseen"]
WHYS: tuple[str, ...] = get_args(Why)

_QUARTER = 0.25
"""Of the showings to be expected, under which a keyword is hardly shown."""
_LEAST_DAYS = 7
_LEAST_EXPECTED = 4.0
"""Showings to be expected, under which seeing none says nothing."""
_HALF = 0.5


@dataclass(frozen=True)
class HardlyShown:
    """Keywords under a quarter of their expected showings; arrays of shape (n_found,).

    Attributes
    ----------
    row : Ints
        Of the plan's table.
    expected, seen : Floats
        Showings.
    why : Ints
        Place in `WHYS`; the last where nothing that was seen says why.
    next_bid : Floats
        Money a click; the least that would be shown for half its searches. NaN where it bids
        that already.
    """

    row: Ints
    expected: Floats
    seen: Floats
    why: Ints
    next_bid: Floats

    def __len__(self) -> int:
        return len(self.row)


def hardly_shown(
    result: PlanResult, due: Due, seen: Seen, shift: Floats | None = None
) -> HardlyShown:
    """Find the kept keywords that were hardly shown on the days on which they ran.

    Parameters
    ----------
    result : PlanResult
        As it stands: a keyword whose bid was raised meanwhile to where it would be shown is
        left out, for what was seen says nothing of that bid.
    due : Due
        What was to be expected at the bids that ran; of one that ran for under a week nothing
        is said.
    seen : Seen
        Of the same days.
    shift : Floats, shape (n_keywords,), optional
        By which results say that the market's log price lies higher than planned.
    """
    expected = due.showings
    next_bid = _next_bid(result, np.zeros(len(expected)) if shift is None else shift)
    why = _why(result, due, seen, next_bid)
    reached = result.bid >= next_bid
    raised = (why == WHYS.index("bid")) & (due.bid < next_bid) & reached
    runs = result.table.kept & np.isfinite(result.bid) & (due.days >= _LEAST_DAYS)
    found = runs & (expected >= _LEAST_EXPECTED) & (seen.impressions < _QUARTER * expected)
    rows = np.flatnonzero(found & ~raised)
    return HardlyShown(rows, expected[rows], seen.impressions[rows], why[rows],
                       np.where(reached, np.nan, next_bid)[rows])  # fmt: skip


def _why(result: PlanResult, due: Due, seen: Seen, next_bid: Floats) -> Ints:
    could, lost = seen.could_show, seen.lost_to_money
    told = np.isfinite(could)
    conditions: list[NDArray[np.bool_]] = [
        result.demand.stopped,
        told & np.isfinite(lost) & (lost > _HALF * could) & (could > 0),
        told & (could < _QUARTER * due.searches),
        # searches were there and the money too: others bid more, whatever prices were planned with
        told & np.isfinite(lost) | (due.bid < next_bid),
    ]
    return np.select(conditions, range(len(conditions)), default=len(WHYS) - 1).astype(np.int64)


def _next_bid(result: PlanResult, shift: Floats) -> Floats:
    # Φ((ln b − μ)/σ) = ½ at b = e^μ; up to the next whole step
    step = result.brief.assumed["bid_step"]
    middle = np.exp(result.prices.mu + shift)
    return np.asarray(np.round(np.ceil(middle / step - 1e-9) * step, 10))
