"""What keywords outside the plan would bring at the present return of money."""

from __future__ import annotations

from dataclasses import dataclass, fields

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit._choices import choices_of
from milkwort.core.fit._problem import Problem

__all__ = ["WouldBring", "would_bring"]

_AT_ONCE = 20_000
"""Every bid of every keyword is listed: so many keywords at a time, for the memory's sake."""


@dataclass(frozen=True)
class WouldBring:
    """The best answer of each keyword at a given return; arrays of shape (n_rows,).

    Attributes
    ----------
    steps : Ints
        The bid, 0 where it would not run.
    clicks, spend, value : Floats
        A month.
    """

    steps: Ints
    clicks: Floats
    spend: Floats
    value: Floats


def would_bring(problem: Problem, rows: Ints, next_return: Floats | float) -> WouldBring:
    """Return what keywords would add at the present return of money.

    Parameters
    ----------
    problem : Problem
    rows : Ints, shape (n_rows,)
        The keywords to ask about.
    next_return : float or Floats of shape (n_keywords,)
        Goal per unit of money at the edge of what limits the keyword's money.

    Returns
    -------
    WouldBring
        In the order of `rows`.
    """
    parts = [
        _would_bring(problem, rows[at : at + _AT_ONCE], next_return)
        for at in range(0, max(len(rows), 1), _AT_ONCE)
    ]
    return WouldBring(
        *(
            np.concatenate([getattr(part, name.name) for part in parts])
            for name in fields(WouldBring)
        )
    )


def _would_bring(problem: Problem, rows: Ints, next_return: Floats | float) -> WouldBring:
    mask = np.zeros(len(problem.mu), dtype=bool)
    mask[rows] = True
    choices = choices_of(problem, mask)
    options, hull = choices.options, choices.hull
    step_value = problem.value(hull.owner, hull.clicks, hull.spend)
    edge = np.broadcast_to(np.asarray(next_return, dtype=np.float64), problem.mu.shape)[hull.owner]
    worth_taking = hull.option[step_value >= edge * hull.spend]
    best = np.full(len(problem.mu), -1, dtype=np.int64)
    best[options.owner[worth_taking]] = worth_taking  # rising bids: the last one stands
    at = best[rows]
    runs = at >= 0
    steps = np.zeros(len(rows), dtype=np.int64)
    clicks, spend, value = (np.zeros(len(rows)) for _ in range(3))
    picked = at[runs]
    steps[runs] = options.steps[picked]
    clicks[runs] = options.clicks[picked]
    spend[runs] = options.spend[picked]
    value[runs] = problem.value(options.owner[picked], clicks[runs], spend[runs])
    return WouldBring(steps, clicks, spend, value)
