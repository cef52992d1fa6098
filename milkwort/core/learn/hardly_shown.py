"""Kept keywords that are hardly shown: why, as far as it was seen, and the bid that would be."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.errors import BadValueError
from milkwort.core.learn.seen import Seen
from milkwort.core.plan.run import PlanResult

__all__ = ["WHYS", "HardlyShown", "Why", "hardly_shown"]

Why = Literal["negative", "money", "few_searches", "bid"]
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
        Place in `WHYS`.
    next_bid : Floats
        Money a click; the least that would be shown for half its searches.
    """

    row: Ints
    expected: Floats
    seen: Floats
    why: Ints
    next_bid: Floats

    def __len__(self) -> int:
        return len(self.row)


def hardly_shown(
    result: PlanResult, factor: Floats, seen: Seen, days: int, shift: Floats | None = None
) -> HardlyShown:
    """Find the kept keywords that were hardly shown.

    Parameters
    ----------
    result : PlanResult
    factor : Floats, shape (n_keywords,)
        Searches of the days that were seen over those of the plan's month.
    seen : Seen
        Of the same days.
    days : int
        How many they are; under a week nothing is said.
    shift : Floats, shape (n_keywords,), optional
        By which results say that the market's log price lies higher than planned.

    Raises
    ------
    BadValueError
        For a negative number of days.
    """
    if days < 0:
        raise BadValueError("days", "0 or more", days)
    n = len(result.table)
    due = np.nan_to_num(result.demand.searches * factor)
    expected = np.nan_to_num(result.expected.impressions * factor)
    runs = result.table.kept & np.isfinite(result.bid)
    found = runs & (expected >= _LEAST_EXPECTED) & (seen.impressions < _QUARTER * expected)
    rows = np.flatnonzero(found if days >= _LEAST_DAYS else np.zeros(n, dtype=bool))
    return HardlyShown(
        row=rows, expected=expected[rows], seen=seen.impressions[rows],
        why=_why(result, due, seen)[rows],
        next_bid=_next_bid(result, np.zeros(n) if shift is None else shift)[rows],
    )  # fmt: skip


def _why(result: PlanResult, due: Floats, seen: Seen) -> Ints:
    could, lost = seen.could_show, seen.lost_to_money
    told = np.isfinite(could)
    conditions: list[NDArray[np.bool_]] = [
        result.demand.stopped,
        told & np.isfinite(lost) & (lost > _HALF * could) & (could > 0),
        told & (could < _QUARTER * due),
    ]
    return np.select(conditions, range(len(conditions)), default=len(WHYS) - 1).astype(np.int64)


def _next_bid(result: PlanResult, shift: Floats) -> Floats:
    # Φ((ln b − μ)/σ) = ½ at b = e^μ; up to the next whole step
    step = result.brief.assumed["bid_step"]
    middle = np.exp(result.prices.mu + shift)
    return np.asarray(np.round(np.ceil(middle / step - 1e-9) * step, 10))
