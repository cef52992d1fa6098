"""What draws say, as sentences with the share of months they hold in."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from milkwort.core.plan.draws import Draws
from milkwort.core.plan.run import PlanResult

__all__ = ["Odd", "odds_of"]

_DAYS = (10, 15, 20, 25, 28)


@dataclass(frozen=True)
class Odd:
    """One thing that happens in some of the months.

    Attributes
    ----------
    share : float
        Of the months, 0 to 1.
    says : str
        What happens, as it reads after "in 3 of 10 months".
    """

    share: float
    says: str


def odds_of(result: PlanResult, draws: Draws) -> list[Odd]:
    """Return what happens in how many of the months; a day only where it is worth saying.

    Parameters
    ----------
    result : PlanResult
    draws : Draws
        Of that plan.
    """
    expected = result.totals.customers
    found = [
        Odd(draws.profit_chance, "the clicks earn more than they cost"),
        Odd(draws.no_customer_chance, "nobody buys"),
        Odd(float((draws.customers >= expected).mean()), "at least the expected customers come"),
    ]
    each = result.brief.worth.allowed
    if len(result.brief.offers) == 1 and result.brief.ceiling.rule != "break_even":
        within = draws.figures["cost_per_customer"] <= each
        found.append(Odd(float(within.mean()), "a customer costs no more than your rule allows"))
    found.append(Odd(draws.early_chance, "more is searched and clicked than the money can pay for"))
    day = _day_worth_saying(draws)
    if day is not None:
        share = float((draws.day_out < day).mean())
        found.append(Odd(share, f"it would be gone before the {day}th, were days not held back"))
    return found


def _day_worth_saying(draws: Draws) -> int | None:
    """Return the first day before which the money would be out in a tenth of the months."""
    for day in _DAYS:
        if float((np.nan_to_num(draws.day_out, nan=np.inf) < day).mean()) >= 1 / 10:
            return day
    return None
