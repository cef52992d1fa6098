"""What a plan expects of the days that have gone: its months, by season, weekday and hours."""

from __future__ import annotations

from calendar import monthrange
from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.brief.showing import week_of
from milkwort.core.errors import BadValueError
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.year import season_of

__all__ = ["Elapsed", "elapsed_of", "share_of_month"]

_MEAN_DAYS = 365 / 12


@dataclass(frozen=True)
class Elapsed:
    """Searches of some days over those of the plan's mean month.

    Attributes
    ----------
    first, last : date
    factor : Floats, shape (n_keywords,)
        By which a mean month's searches are those of these days.
    """

    first: date
    last: date
    factor: Floats


def elapsed_of(result: PlanResult, first: date, last: date) -> Elapsed:
    """Return what the days from first to last hold of a plan's searches.

    Parameters
    ----------
    result : PlanResult
    first, last : date
        Ends included.

    Returns
    -------
    Elapsed

    Raises
    ------
    BadValueError
        Where the last day comes before the first.
    """
    if last < first:
        raise BadValueError("last day", f"a day from {first} on", str(last))
    season = season_of(result)
    factor = np.zeros(len(result.table))
    at = first
    while at <= last:
        end = min(last, date(at.year, at.month, monthrange(at.year, at.month)[1]))
        days = monthrange(at.year, at.month)[1]
        share = share_of_month(result, at, end)
        factor += season[:, at.month - 1] * days / _MEAN_DAYS * share
        at = end + timedelta(1)
    return Elapsed(first, last, factor)


def share_of_month(result: PlanResult, first: date, last: date) -> float:
    """Return the share of a calendar month's searches that some of its days hold.

    Parameters
    ----------
    result : PlanResult
        Its days and hours of showing are read.
    first, last : date
        Of one month, ends included.
    """
    weight = week_of(result.brief.showing, result.brief.assumed).sum(axis=1)
    days = monthrange(first.year, first.month)[1]
    all_days = [date(first.year, first.month, day + 1).weekday() for day in range(days)]
    some = all_days[first.day - 1 : last.day]
    total = float(weight[all_days].sum())
    return float(weight[some].sum()) / total if total > 0 else len(some) / days
