"""A year drawn many times: every month meets the same luck, so the year's sums add up."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

import numpy as np

from milkwort.core.plan.draws import FIGURES, Range, draw_month, range_of
from milkwort.core.plan.year import YearAhead

__all__ = ["YearDraws", "draw_year"]


@dataclass(frozen=True)
class YearDraws:
    """Ranges of a year.

    Attributes
    ----------
    count : int
        Number of draws.
    months : tuple of 12 dicts of str to Range
        By `FIGURES`.
    year : dict of str to Range
        Of the twelve months' sums.
    """

    count: int
    months: tuple[dict[str, Range], ...]
    year: dict[str, Range]


def draw_year(
    ahead: YearAhead,
    count: int = 1000,
    seed: int = 1,
    told: Callable[[int], bool] = lambda months: True,
) -> YearDraws | None:
    """Draw the twelve months.

    Parameters
    ----------
    ahead : YearAhead
    count : int
        Number of draws; fewer are the first of more.
    seed : int
    told : callable
        Told how many months are drawn, now and then; where it says no, the work is given up.

    Returns
    -------
    YearDraws or None
        None where it was given up.
    """
    months: list[dict[str, Range]] = []
    sums = {name: np.zeros(count) for name in FIGURES}
    for number in range(12):
        month = ahead.month(number)
        drawn = draw_month(month, count, seed, partial(told, number))
        if drawn is None:
            return None
        months.append(drawn.ranges)
        for name in FIGURES:
            if name != "cost_per_customer":
                sums[name] += drawn.figures[name]
    bought = sums["customers"] > 0
    sums["cost_per_customer"] = np.full(count, np.inf)
    sums["cost_per_customer"][bought] = sums["spend"][bought] / sums["customers"][bought]
    return YearDraws(count, tuple(months), {name: range_of(s) for name, s in sums.items()})
