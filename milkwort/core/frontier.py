"""The most of the goal for every sum of money, from nothing to saturation."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core.fit import Fit, Problem, fit
from milkwort.core.keyword_table import Floats

__all__ = ["frontier"]

_POINTS = 64
_SLACK = 1e-9


def frontier(problem: Problem, kept: NDArray[np.bool_], fitted: Fit) -> tuple[Floats, Floats]:
    """Return the goal against spend, from nothing to saturation.

    Every point where a whole number of ladder steps is taken is exact; a plan with few
    steps is solved anew for the sums between them.

    Parameters
    ----------
    problem : Problem
    kept : ndarray of bool
    fitted : Fit
        The fit of the same problem.

    Returns
    -------
    spend, value : Floats
        Money and goal a month, both rising; at least 40 points where anything runs.
    """
    ladder = fitted.ladder
    base_spend, base_value = ladder.base_spend, ladder.base_value
    spend = np.concatenate(([base_spend], ladder.spend_so_far))
    value = np.concatenate(([base_value], ladder.value_so_far))
    if len(ladder.owner) >= _POINTS:
        # closer together where money is scarce and returns fall fast, and about the purse
        wanted = base_spend + (spend[-1] - base_spend) * np.linspace(0, 1, _POINTS) ** 2
        about = ladder.whole_steps(problem.purse) + np.arange(2)
        evenly = np.linspace(0, len(spend) - 1, _POINTS).astype(np.int64)
        nearest = np.searchsorted(spend, wanted - _SLACK)
        picked = np.unique(np.clip(np.r_[nearest, evenly, about], 0, len(spend) - 1))
        return spend[picked], value[picked]
    if len(ladder.owner) == 0:
        return spend, value
    return _solved_frontier(problem, kept, spend, value)


def _solved_frontier(
    problem: Problem, kept: NDArray[np.bool_], spend: Floats, value: Floats
) -> tuple[Floats, Floats]:
    sums = np.linspace(spend[0], spend[-1], _POINTS)[1:-1]
    between = [fit(replace(problem, purse=float(s)), kept) for s in sums]
    spends = np.concatenate((spend, sums))
    values = np.concatenate((value, [b.value for b in between]))
    order = np.argsort(spends, kind="stable")
    return spends[order], np.maximum.accumulate(values[order])
