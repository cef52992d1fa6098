"""How fast a month's money goes: what will be left, or on which day it is out."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from milkwort.core.errors import BadValueError
from milkwort.core.learn.by_now import share_of_month
from milkwort.core.plan.run import PlanResult

__all__ = ["Pace", "pace_of"]


@dataclass(frozen=True)
class Pace:
    """What becomes of a month's money if it goes on like this.

    Attributes
    ----------
    spent, purse : float
        Money so far, and of the whole month.
    by_now : float
        Money that the purse holds for the days that have gone.
    at_end : float
        Money spent by the month's end, as if there were no purse.
    left : float
        Money that will be left; 0 where it runs out.
    out : date or None
        The day on which it is gone.
    """

    spent: float
    purse: float
    by_now: float
    at_end: float
    left: float
    out: date | None


def pace_of(
    result: PlanResult, spent: float, purse: float, first: date, seen: date, end: date
) -> Pace:
    """Carry on what was spent so far: quiet weekdays and busy ones count as in the plan.

    Parameters
    ----------
    result : PlanResult
    spent : float
        Money of the days from first to seen.
    purse : float
        Money of the days from first to end.
    first, seen, end : date
        Of one calendar month, in this order.

    Raises
    ------
    BadValueError
        Where they are not.
    """
    if not first <= seen <= end or (first.year, first.month) != (end.year, end.month):
        raise BadValueError("days", "three of one month, in order", f"{first}, {seen}, {end}")
    whole = share_of_month(result, first, end)
    gone = share_of_month(result, first, seen) / whole if whole > 0 else 1.0
    at_end = spent / gone if gone > 0 else spent
    out = None
    if at_end > purse > 0:
        out = seen
        while out < end and at_end * share_of_month(result, first, out) / whole < purse:
            out += timedelta(1)
    return Pace(spent, purse, purse * gone, at_end, max(purse - at_end, 0.0), out)
