"""A wide gap closed by settling, one after another, the keywords that the purse would split."""

from __future__ import annotations

import heapq
from dataclasses import dataclass, field

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit._choices import Choices
from milkwort.core.fit._problem import Problem

__all__ = ["Branched", "branched"]

_NODES = 120
"""Relaxations looked at, at most."""


@dataclass(frozen=True)
class Branched:
    """What settling some keywords brought.

    Attributes
    ----------
    chosen : Ints, shape (n_keywords,)
        Options, −1 for not running.
    value, bound : float
        Goal of the answer, and what none passes; above that of locked bids.
    """

    chosen: Ints
    value: float
    bound: float


@dataclass(order=True)
class _Node:
    """Keywords that are settled, and what none of the answers with them passes."""

    below: float
    number: int
    settled: dict[int, int] = field(compare=False)

    @property
    def bound(self) -> float:
        return -self.below


@dataclass(frozen=True)
class _Steps:
    """Hull steps by falling return: shape (n_steps,)."""

    owner: Ints
    option: Ints
    spend: Floats
    value: Floats

    def without(self, owners: list[int]) -> _Steps:
        left = ~np.isin(self.owner, owners)
        return _Steps(self.owner[left], self.option[left], self.spend[left], self.value[left])


def branched(
    problem: Problem, choices: Choices, room: float, chosen: Ints, value: float, bound: float,
    near: float,
) -> Branched:  # fmt: skip
    """Look for a better answer and a tighter bound.

    The relaxation takes all steps above the purse's edge and a part of one. Settling that one's
    keyword, at each of its options or at none, leaves relaxations that differ by whole bids; the
    most promising is looked at first, until none promises more than what was found.

    Parameters
    ----------
    problem : Problem
    choices : Choices
        All of them within `room`.
    room : float
        Money a month, above what locked bids take.
    chosen : Ints, shape (n_keywords,)
        A feasible answer.
    value, bound : float
        Its goal, and the relaxation's, above that of locked bids.
    near : float
        Goal; a gap so wide may stay.
    """
    options, hull = choices.options, choices.hull
    goal = problem.value(options.owner, options.clicks, options.spend)
    order = choices.order
    steps = _Steps(hull.owner[order], hull.option[order], hull.spend[order],
                   choices.returns * hull.spend[order])  # fmt: skip
    starts = np.searchsorted(options.owner, np.arange(len(chosen) + 1))
    best, best_value = chosen.copy(), value
    heap = [_Node(-bound, 0, {})]
    made, passed_over = 1, -np.inf
    for _ in range(_NODES):
        if not heap or heap[0].bound <= best_value + near:
            break
        node = heapq.heappop(heap)
        left = room - sum(float(options.spend[o]) for o in node.settled.values() if o >= 0)
        has = sum(float(goal[o]) for o in node.settled.values() if o >= 0)
        free = steps.without(list(node.settled))
        taken = int(np.searchsorted(np.cumsum(free.spend), left, side="right"))
        answer = _answer(len(chosen), node.settled, free, taken)
        at = answer[answer >= 0]
        if float(goal[at].sum()) > best_value:
            best, best_value = answer, float(goal[at].sum())
        if taken == len(free.owner):
            continue  # everything is taken: nothing with these settled brings more
        split = int(free.owner[taken])
        own = np.concatenate(([-1], np.arange(starts[split], starts[split + 1])))
        bounds = _bounds(free.without([split]), left, has, options.spend, goal, own)
        for option, most in zip(own.tolist(), bounds.tolist(), strict=True):
            if most > best_value + near:
                heapq.heappush(heap, _Node(-most, made, node.settled | {split: option}))
                made += 1
            else:
                passed_over = max(passed_over, most)
    top = heap[0].bound if heap else -np.inf
    return Branched(best, best_value, min(bound, max(best_value, top, passed_over)))


def _answer(n: int, settled: dict[int, int], free: _Steps, taken: int) -> Ints:
    """Return the settled options, and of the others those that whole steps lead to."""
    answer = np.full(n, -1, dtype=np.int64)
    answer[free.owner[:taken]] = free.option[:taken]
    for owner, option in settled.items():
        answer[owner] = option
    return answer


def _bounds(
    free: _Steps, left: float, has: float, spend: Floats, goal: Floats, own: Ints
) -> Floats:
    """Return what no answer passes with one keyword at each of its options; −1 stands for none."""
    rest = left - np.where(own >= 0, spend[own], 0.0)
    money = np.concatenate(([0.0], np.cumsum(free.spend)))
    brings = np.concatenate(([0.0], np.cumsum(free.value)))
    relaxed = np.interp(rest, money, brings)
    most = has + np.where(own >= 0, goal[own], 0.0) + relaxed
    return np.where(rest >= 0, most, -np.inf)
