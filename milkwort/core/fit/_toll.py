"""The relaxation of a limited fit: each keyword that runs is charged a toll.

At the toll where just so many run, no answer passes the relaxation's bound.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit._choices import Choices
from milkwort.core.fit._parts import Parts, Taken, take
from milkwort.core.fit._problem import Problem
from milkwort.core.fit.tolerances import ROUNDING

__all__ = ["Hulls", "Relaxed", "Steps", "relax"]

_TURNS = 60
"""Tolls tried at most; a dozen is usual."""
_HALVE_EVERY = 4
"""Now and then the span is halved, so that two flat ends never hold each other up."""


@dataclass(frozen=True)
class Steps:
    """Steps best first under some toll; arrays of shape (n_steps,)."""

    owner: Ints
    part: Ints
    spend: Floats
    returns: Floats
    starts: NDArray[np.bool_]
    """Whether the step makes a keyword run; a spot's is not counted."""


@dataclass(frozen=True)
class Relaxed:
    """The relaxation at one toll."""

    toll: float
    steps: Steps
    taken: Taken
    running: float
    bound: float


class Hulls:
    """The hull steps of a problem, ready to be charged a toll."""

    def __init__(self, problem: Problem, choices: Choices, parts: Parts) -> None:
        hull, order = choices.hull, choices.order
        self.choices, self.order = choices, order
        value = choices.returns[np.argsort(order)] * hull.spend
        self.first = np.flatnonzero(hull.before < 0)
        count = np.diff(np.append(self.first, len(hull.owner)))
        start = np.repeat(self.first, count)
        self.spend_so_far = _within(hull.spend, start)
        self.value_so_far = _within(value, start)
        self.count = count
        self.part = parts.of_row[hull.owner]
        self.keywords = problem.keywords

    @property
    def highest_toll(self) -> float:
        return float(self.value_so_far.max(initial=0.0))

    def steps(self, toll: float) -> Steps:
        hull, order = self.choices.hull, self.order
        if toll <= 0 or not len(self.first):
            starts = (hull.before[order] < 0) & (hull.owner[order] < self.keywords)
            return Steps(
                hull.owner[order], self.part[order], hull.spend[order],
                self.choices.returns, starts,
            )  # fmt: skip
        # with a toll a keyword starts with the jump that brings most per unit of money
        charged = toll * (hull.owner < self.keywords)
        ratio = (self.value_so_far - charged) / self.spend_so_far
        best = np.maximum.reduceat(ratio, self.first)
        at_best = ratio >= np.repeat(best, self.count)
        places = np.where(at_best, np.arange(len(ratio)), -1)
        jump = np.maximum.reduceat(places, self.first)
        runs = best > 0
        jump_of = np.repeat(np.where(runs, jump, len(ratio)), self.count)
        stays = order > jump_of[order]
        later, later_returns = order[stays], self.choices.returns[stays]
        jump, best = jump[runs], best[runs]
        rank = np.argsort(-best, kind="stable")
        jump, best = jump[rank], best[rank]
        to = np.searchsorted(-later_returns, -best, side="left")
        at = np.insert(later, to, jump)
        starts = np.insert(np.zeros(len(later), dtype=bool), to, True)
        spend = np.where(starts, self.spend_so_far[at], hull.spend[at])
        starts &= hull.owner[at] < self.keywords
        return Steps(
            hull.owner[at], self.part[at], spend, np.insert(later_returns, to, best), starts
        )


def relax(
    hulls: Hulls, parts: Parts, most: int | None, near: float = ROUNDING
) -> tuple[Relaxed, Relaxed | None, Relaxed]:
    """Return the relaxations where few enough run, where a few too many do, and the tightest.

    Parameters
    ----------
    hulls : Hulls
    parts : Parts
    most : int or None
        Keywords that may run.
    near : float
        The tightest lies no more than this share above the least there is.
    """

    def at(toll: float) -> Relaxed:
        steps = hulls.steps(toll)
        taken = take(parts, steps.part, steps.spend, steps.returns)
        share = taken.spend[steps.starts] / steps.spend[steps.starts]
        bound = taken.value + toll * (most or 0)
        return Relaxed(toll, steps, taken, float(share.sum()), bound)

    free = at(0.0)
    if most is None or free.running <= most + ROUNDING:
        return free, None, free
    low, high = free, at(hulls.highest_toll)
    # the bound is convex in the toll, and straight between two tolls where the same steps
    # are taken: no bound is less than where the lines at both ends cross
    best = min(low, high, key=lambda r: r.bound)
    for turn in range(_TURNS):
        gross_low, gross_high = (r.taken.value + r.toll * r.running for r in (low, high))
        apart = low.running - high.running
        if apart <= ROUNDING:
            break
        crossing = (gross_low - gross_high) / apart
        least = gross_low + crossing * (most - low.running)
        if best.bound <= least + near * abs(least):
            break
        toll = crossing
        if not low.toll < toll < high.toll or turn % _HALVE_EVERY == _HALVE_EVERY - 1:
            toll = (low.toll + high.toll) / 2
        middle = at(toll)
        best = min(best, middle, key=lambda r: r.bound)
        if middle.running > most:
            low = middle
        else:
            high = middle
    return high, low, best


def _within(values: Floats, start: Ints) -> Floats:
    """Return running sums that start anew where each group starts."""
    total = np.cumsum(values)
    before = total[start] - values[start] if len(start) else total
    return total - before
