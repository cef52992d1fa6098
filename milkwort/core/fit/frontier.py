"""The most of the goal for every sum of money, from nothing to saturation."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats
from milkwort.core.fit.fit import Fit, Problem, fit
from milkwort.core.fit.tolerances import CURVE_CLOSE, ROUNDING

__all__ = ["Frontier", "frontier"]

_POINTS = 64
_LIMITED_POINTS = 41


@dataclass(frozen=True)
class Frontier:
    """The goal against the purse; arrays of shape (n_points,), at least 40 where anything runs.

    Attributes
    ----------
    purse : Floats
        Money there would be a month, rising.
    spend, value : Floats
        What the best bids for it spend and bring.
    gap : Floats
        How far the value may lie below the best, as a share of what none passes.
    """

    purse: Floats
    spend: Floats
    value: Floats
    gap: Floats


def frontier(problem: Problem, kept: NDArray[np.bool_], fitted: Fit) -> Frontier:
    """Return the goal against the purse, from nothing to saturation, under the same limits.

    Without limits that choose among keywords, every point where a whole number of ladder
    steps is taken is exact; a plan with few steps is fitted anew for the sums between them.

    Parameters
    ----------
    problem : Problem
    kept : ndarray of bool
    fitted : Fit
        The fit of the same problem.

    Returns
    -------
    Frontier
    """
    limits, ladder = problem.limits, fitted.ladder
    if limits.max_keywords is not None or limits.campaigns or limits.scouting is not None:
        return _limited_frontier(problem, kept, fitted)
    steps = len(ladder.steps)
    if steps >= _POINTS:
        # closer together where money is scarce and returns fall fast, and about the purse
        most = float(ladder.spend_so_far[-1])
        wanted = ladder.base_spend + (most - ladder.base_spend) * np.linspace(0, 1, _POINTS) ** 2
        nearest = np.searchsorted(ladder.spend_so_far, wanted - ROUNDING) + 1
        nearest[wanted - ROUNDING <= ladder.base_spend] = 0
        about = ladder.whole_steps(problem.purse) + np.arange(2)
        evenly = np.linspace(0, steps, _POINTS).astype(np.int64)
        at = np.unique(np.clip(np.r_[nearest, evenly, about], 0, steps))
        spend = np.where(at, ladder.spend_so_far[at - 1], ladder.base_spend)
        value = np.where(at, ladder.value_so_far[at - 1], ladder.base_value)
        return Frontier(spend, spend, value, np.zeros(len(at)))
    spend = np.concatenate(([ladder.base_spend], ladder.spend_so_far))
    value = np.concatenate(([ladder.base_value], ladder.value_so_far))
    if steps == 0:
        return Frontier(spend, spend, value, np.zeros(len(spend)))
    sums = np.linspace(spend[0], spend[-1], _POINTS)[1:-1]
    between = [fit(replace(problem, purse=float(s)), kept, fitted.choices) for s in sums]
    purse = np.concatenate((spend, sums))
    none = np.zeros(len(spend))
    return _rising(
        purse,
        np.concatenate((spend, [f.spend for f in between])),
        np.concatenate((value, [f.value for f in between])),
        np.concatenate((none, [f.gap for f in between])),
    )


def _limited_frontier(problem: Problem, kept: NDArray[np.bool_], fitted: Fit) -> Frontier:
    """Fit anew for each sum: which keywords are picked depends on the money."""

    def at(purse: float) -> Fit:
        return fit(
            replace(problem, purse=purse), kept, fitted.choices, close=CURVE_CLOSE, finish=False
        )

    most = at(_saturation(problem, fitted))
    end = _sum_that_does(problem, most)
    purse = np.r_[end * np.linspace(0, 1, _LIMITED_POINTS) ** 2, problem.purse]
    by_sum = [*(at(float(p)) for p in purse[:-2]), most, fitted]
    order = np.argsort(purse, kind="stable")
    found = [by_sum[place] for place in order.tolist()]
    for place in range(1, len(found)):
        # what less money can keep, more can: where that was not found, the answer for less stands
        less, more = found[place - 1], found[place]
        if len(more.unmet) > len(less.unmet):
            found[place] = replace(less, bound=max(more.bound, less.value))
    let_go = np.array([len(f.unmet) for f in found])
    columns = (
        purse[order],
        *(np.array([getattr(f, name) for f in found]) for name in ("spend", "value", "gap")),
    )
    # with less money than least sums take they are let go of, which may well bring more
    pieces = [
        vars(_rising(*part))
        for part in zip(
            *(np.split(c, np.flatnonzero(np.diff(let_go)) + 1) for c in columns), strict=True
        )
    ]
    return Frontier(*(np.concatenate([piece[name] for piece in pieces]) for name in pieces[0]))


def _rising(purse: Floats, spend: Floats, value: Floats, gap: Floats) -> Frontier:
    """Return points by rising purse; more money never does worse than less."""
    order = np.argsort(purse, kind="stable")
    purse, spend, value, gap = purse[order], spend[order], value[order], gap[order]
    bound = np.divide(value, 1 - gap, out=value.copy(), where=gap < 1)
    best = np.maximum.accumulate(np.where(value == np.maximum.accumulate(value),
                                          np.arange(len(value)), 0))  # fmt: skip
    value, spend = value[best], spend[best]
    bound = np.maximum(bound, value)
    short = np.divide(bound - value, bound, out=np.zeros(len(bound)), where=bound > 0)
    gap = np.where((gap >= 1) & (value <= 0), 1.0, short)
    return Frontier(purse, spend, value, gap)


def _saturation(problem: Problem, fitted: Fit) -> float:
    """Return a sum of money that no choice of bids could spend."""
    options = fitted.choices.options
    everything = float(fitted.choices.hull.spend.sum()) if len(options.owner) else 0.0
    return (everything + fitted.ladder.base_spend + 1.0) / _least_side(problem)


def _sum_that_does(problem: Problem, most: Fit) -> float:
    """Return about the least sum of money at which the most is reached."""
    if problem.limits.scouting is None:
        return most.spend
    return most.spend / _least_side(problem)


def _least_side(problem: Problem) -> float:
    share = problem.limits.scouting_share if problem.limits.scouting is not None else 0.0
    return min(share, 1 - share) if 0 < share < 1 else 1.0
