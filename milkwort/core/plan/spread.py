"""The best way to spread a year's money: equal return at the margin, the same sum."""

from __future__ import annotations

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.plan.cents import in_cents
from milkwort.core.plan.year import YearAhead

__all__ = ["best_spread"]


def best_spread(year: YearAhead, total: float) -> Floats:
    """Return the money of each month, in whole cents, that brings most over the year.

    What a step costs and brings grows alike with a month's searches, so its return is the same
    in every month: the year's money buys steps by falling return, each in all months at once.

    Parameters
    ----------
    year : YearAhead
        Of a plan whose bids are fitted.
    total : float
        Money a year.

    Returns
    -------
    Floats, shape (12,)
        Its sum is the total; what no month can use is spread as searches are.
    """
    ladder, problem = year.result.fit.ladder, year.result.problem
    grows = np.vstack((year.factor, np.tile(year.part, (problem.spots, 1))))
    base = problem.locked_spend @ grows
    steps = ladder.spend[:, None] * grows[ladder.owner]
    spent = np.cumsum(steps.sum(axis=1))
    left = max(total - float(base.sum()), 0.0)
    whole = int(np.searchsorted(spent, left, side="right"))
    money = base + steps[:whole].sum(axis=0)
    rest = left - (float(spent[whole - 1]) if whole else 0.0)
    if whole < len(steps) and steps[whole].sum() > 0:
        money = money + steps[whole] * (rest / steps[whole].sum())
    elif rest > 0:
        lived = year.months.days / max(int(year.months.days.sum()), 1)
        money = money + rest * lived
    return in_cents(money, total)
