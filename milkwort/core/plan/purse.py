"""What a plan does with its purse: money a day, by group, and whether more would find work."""

from __future__ import annotations

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.plan.run import PlanResult

__all__ = ["saturated", "spend_a_day", "spend_by_group"]


def spend_a_day(result: PlanResult) -> float:
    """Return the expected money of a mean day.

    Parameters
    ----------
    result : PlanResult
    """
    return result.totals.spend / result.brief.assumed["month_days"]


def saturated(result: PlanResult) -> bool:
    """Say whether a plan that runs would do nothing with more money.

    Parameters
    ----------
    result : PlanResult
    """
    return result.fit.next_return == 0 and result.totals.keywords > 0


def spend_by_group(result: PlanResult, groups: int) -> Floats:
    """Return expected money a month by ad group.

    Parameters
    ----------
    result : PlanResult
    groups : int
        How many groups the plan has.

    Returns
    -------
    Floats, shape (groups + 1,)
        Keywords of no group first.
    """
    place = np.maximum(result.table.group, -1) + 1
    return np.bincount(place, result.expected.spend, groups + 1).astype(np.float64)
