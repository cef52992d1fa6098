"""What money the steps leave, given to the best single moves."""

from __future__ import annotations

from typing import Protocol

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit.options import Options
from milkwort.core.fit.tolerances import ENOUGH

__all__ = ["Valued", "use_rest"]

_MOVES = 24


class Valued(Protocol):
    """What says how much of the goal some clicks and spend are."""

    def value(self, owner: Ints, clicks: Floats, spend: Floats) -> Floats:
        """Return the goal, row by row."""


def use_rest(
    problem: Valued, options: Options, chosen: Ints, rest: float, value: float, bound: float
) -> float:
    """Take the best single moves that the rest of the money allows.

    Parameters
    ----------
    problem : Valued
    options : Options
        Each keyword's by rising spend.
    chosen : Ints, shape (n_keywords,)
        Changed in place.
    rest : float
        Money left.
    value, bound : float
        Of the goal so far, and at most.

    Returns
    -------
    float
        The goal with the moves.
    """
    if bound - value <= ENOUGH * abs(bound) or not len(options.owner):
        return value
    at = np.flatnonzero(chosen >= 0)
    spent, brings = np.zeros(len(chosen)), np.zeros(len(chosen))
    spent[at] = options.spend[chosen[at]]
    brings[at] = problem.value(at, options.clicks[chosen[at]], spent[at])
    # the rest only shrinks, so nothing that doesn't fit now ever will
    mine = _within(options, chosen, spent + rest)
    owner, spend = options.owner[mine], options.spend[mine]
    d_goal = problem.value(owner, options.clicks[mine], spend) - brings[owner]
    better = d_goal > 0
    mine, owner, d_goal = mine[better], owner[better], d_goal[better]
    d_spend = spend[better] - spent[owner]
    for _ in range(_MOVES):
        if not len(d_goal) or bound - value <= ENOUGH * abs(bound):
            break
        best = int(d_goal.argmax())
        took, more, who = float(d_spend[best]), float(d_goal[best]), owner[best]
        if more <= 0:
            break
        rest, value = rest - took, value + more
        chosen[who] = mine[best]
        same = owner == who
        d_goal[same] -= more
        d_spend[same] -= took
        fits = d_spend <= rest
        mine, owner, d_goal, d_spend = mine[fits], owner[fits], d_goal[fits], d_spend[fits]
    return value


def _within(options: Options, chosen: Ints, most: Floats) -> Ints:
    """Return the options dearer than the chosen ones that cost each keyword no more than `most`.

    A cheaper one would bring less: what is chosen lies on a hull.
    """
    has = np.bincount(options.owner, minlength=len(chosen))
    end = np.cumsum(has)
    low = start = np.where(chosen >= 0, chosen + 1, end - has)
    high = end
    while (apart := low < high).any():  # halving, for all keywords at once
        middle = np.where(apart, (low + high) // 2, 0)
        fits = apart & (options.spend[middle] <= most)
        low, high = np.where(fits, middle + 1, low), np.where(apart & ~fits, middle, high)
    many = low - start
    return np.asarray(np.arange(many.sum()) + np.repeat(start - (np.cumsum(many) - many), many))
