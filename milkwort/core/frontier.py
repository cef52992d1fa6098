"""The most of the goal for every sum of money, from nothing to saturation."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core.fit import Fit, Problem, fit
from milkwort.core.keyword_table import Floats

__all__ = ["frontier"]

_POINTS = 64
_LIMITED_POINTS = 41
_LIMITED_CLOSE = 0.01
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
    limits = problem.limits
    ladder = fitted.ladder
    if limits.max_keywords is not None or limits.campaigns or limits.scouting is not None:
        return _limited_frontier(problem, kept, fitted)
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


def _limited_frontier(
    problem: Problem, kept: NDArray[np.bool_], fitted: Fit
) -> tuple[Floats, Floats]:
    """Fit anew for each sum: which keywords are picked depends on the money."""
    rich = replace(problem, purse=_saturation(problem, fitted))
    most = fit(rich, kept, fitted.choices, close=_LIMITED_CLOSE)
    sums = most.spend * np.linspace(0, 1, _LIMITED_POINTS) ** 2
    found = [
        fit(replace(problem, purse=float(s)), kept, fitted.choices, close=_LIMITED_CLOSE)
        for s in sums[:-1]
    ]
    spends = np.array([*sums[:-1], most.spend, fitted.spend])
    values = np.array([*(f.value for f in found), most.value, fitted.value])
    order = np.argsort(spends, kind="stable")
    return spends[order], np.maximum.accumulate(values[order])


def _saturation(problem: Problem, fitted: Fit) -> float:
    """Return a sum of money that no choice of bids could spend."""
    options = fitted.choices.options
    everything = float(fitted.choices.hull.spend.sum()) if len(options.owner) else 0.0
    share = problem.limits.scouting_share if problem.limits.scouting is not None else 0.0
    least_side = min(share, 1 - share) if 0 < share < 1 else 1.0
    return (everything + fitted.ladder.base_spend + 1.0) / least_side
