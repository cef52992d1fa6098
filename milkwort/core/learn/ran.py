"""Days on which the same bids ran, and what was to be shown on them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.learn.by_now import elapsed_of
from milkwort.core.market.prices import reach_at
from milkwort.core.plan.run import PlanResult

__all__ = ["Due", "Ran", "due_of"]


@dataclass(frozen=True)
class Ran:
    """Days on which the same bids ran.

    Attributes
    ----------
    first, last : date
        Ends included.
    bid : Floats, shape (n_keywords,)
        Money a click; NaN where a keyword did not run.
    """

    first: date
    last: date
    bid: Floats


@dataclass(frozen=True)
class Due:
    """What was to be expected on the days on which each keyword ran; arrays of shape (n_keywords,).

    Attributes
    ----------
    days : Ints
    searches, showings : Floats
        Showings at the bids that ran, not at those that stand now.
    bid : Floats
        Money a click, on the last of the days; NaN where a keyword never ran.
    """

    days: Ints
    searches: Floats
    showings: Floats
    bid: Floats


def due_of(result: PlanResult, spans: Sequence[Ran], first: date, last: date) -> Due:
    """Return what was to be expected of each keyword from first to last.

    Parameters
    ----------
    result : PlanResult
        Whose searches, prices and pace are expected.
    spans : sequence of Ran
        In order; days before the first of them ran as it says, those after the last as that does.
    first, last : date
        Ends included.
    """
    n = len(result.table)
    due = Due(np.zeros(n, dtype=np.int64), np.zeros(n), np.zeros(n), np.full(n, np.nan))
    monthly = np.nan_to_num(result.demand.searches)
    paced = _pace(result)
    for at, span in enumerate(spans):
        begins = first if at == 0 else max(first, span.first)
        ends = last if at == len(spans) - 1 else min(last, span.last)
        if ends < begins:
            continue
        ran = np.isfinite(span.bid)
        searches = np.where(ran, monthly * elapsed_of(result, begins, ends).factor, 0.0)
        reach = np.nan_to_num(reach_at(np.nan_to_num(span.bid), result.prices))
        due = Due(
            due.days + ran * ((ends - begins).days + 1), due.searches + searches,
            due.showings + searches * reach * paced, np.where(ran, span.bid, due.bid),
        )  # fmt: skip
    return due


def _pace(result: PlanResult) -> Floats:
    """Return the share of the showings at a bid that the money lasts for; 1 where not running."""
    whole = np.nan_to_num(result.demand.searches * reach_at(result.bid, result.prices))
    shown = np.nan_to_num(result.expected.impressions)
    return np.divide(shown, whole, out=np.ones(len(whole)), where=whole > 0)
