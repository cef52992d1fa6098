"""A fit's last gap closed exactly, on the few choices that could still matter."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import coo_array

from milkwort.core._parts import Parts
from milkwort.core.keyword_table import Floats, Ints

__all__ = ["Reduced", "Solved", "solve_reduced"]

_SIZES = (250, 1000, 4000, 12000)
"""Choices let in, one attempt after another."""
_NODES = 200
_NEAR = 1e-6
_INFEASIBLE = 2
_EDGE = 1e-9


@dataclass(frozen=True)
class Reduced:
    """Options to choose from; arrays of shape (n_options,).

    Attributes
    ----------
    owner : Ints
    spend, goal : Floats
        A month.
    net : Floats
        Goal less what the relaxation charges for the option's money and for running.
    part : Ints
    parts : Parts
    most : int or None
        At most so many owners may run.
    """

    owner: Ints
    spend: Floats
    goal: Floats
    net: Floats
    part: Ints
    parts: Parts
    most: int | None


@dataclass(frozen=True)
class Solved:
    """What an exact problem on the choices that matter said.

    Attributes
    ----------
    chosen : Ints or None
        Options of a better answer; None where none was found.
    bound : float
        No answer passes it; at most the bound that was given.
    """

    chosen: Ints | None
    bound: float


def solve_reduced(
    problem: Reduced, bound: float, known: float | None, near: float = _NEAR
) -> Solved:
    """Look for an answer better than a known one, and for a tighter bound.

    An option whose *price*, what it leaves below its owner's best net, is more than the
    present gap can be in no better answer. The cheapest are let in first: an answer with
    any that was left out lies below the bound by at least the cheapest price left out.

    Parameters
    ----------
    problem : Reduced
    bound : float
        No answer passes it.
    known : float or None
        Goal of a known answer; None for none.
    near : float
        A gap under this share of the bound is near enough.
    """
    owners, first, place = np.unique(problem.owner, return_index=True, return_inverse=True)
    if len(owners) == 0:
        return Solved(None, 0.0)
    best = np.maximum(np.maximum.reduceat(problem.net, first), 0.0)
    price = best[place] - problem.net
    order = np.argsort(price, kind="stable")
    answer: Ints | None = None
    tightest = bound
    for size in _SIZES:
        gap = np.inf if known is None else bound - known
        allowed = order[: np.searchsorted(price[order], gap * (1 + 1e-9))]
        picked = np.sort(allowed[:size])
        solved, upper = _solve(problem, picked, near)
        if solved is not None:
            value = float(problem.goal[solved].sum())
            if known is None or value > known + _EDGE * abs(bound):
                answer, known = solved, value
        whole = len(picked) == len(allowed)
        left_out = -np.inf if whole else bound - float(price[order[size]])
        tightest = min(tightest, max(upper, left_out, -np.inf if known is None else known))
        if whole or (known is not None and tightest - known <= near * abs(bound)):
            break
    return Solved(answer, tightest)


def _solve(problem: Reduced, picked: Ints, near: float) -> tuple[Ints | None, float]:
    """Return the best choice of some options, and what none of them passes."""
    n, parts = len(picked), problem.parts
    if n == 0:
        return None, 0.0
    owners, place = np.unique(problem.owner[picked], return_inverse=True)
    rows: list[tuple[Floats, float, float]] = []
    spend, part = problem.spend[picked], problem.part[picked]
    for number in range(len(parts.most)):
        if np.isfinite(parts.most[number]) or parts.least[number] > 0:
            rows.append((spend * (part == number), parts.least[number], parts.most[number]))
    for number in np.flatnonzero(np.isfinite(parts.side_most)).tolist():
        mine = parts.side[part] == number
        rows.append((spend * mine, -np.inf, float(parts.side_most[number])))
    rows.append((spend, -np.inf, parts.purse))
    if problem.most is not None:
        rows.append((np.ones(n), -np.inf, float(problem.most)))
    dense = np.array([r[0] for r in rows])
    at = np.nonzero(dense)
    matrix = coo_array(
        (
            np.concatenate((dense[at], np.ones(n))),
            (np.concatenate((at[0], len(rows) + place)), np.concatenate((at[1], np.arange(n)))),
        ),
        shape=(len(rows) + len(owners), n),
    )
    ones = np.ones(len(owners))
    solved = milp(
        -problem.goal[picked],
        integrality=np.ones(n),
        bounds=Bounds(0, 1),
        constraints=LinearConstraint(
            matrix.tocsr(),
            np.concatenate(([r[1] for r in rows], -np.inf * ones)),
            np.concatenate(([r[2] for r in rows], ones)),
        ),
        options={"mip_rel_gap": near, "node_limit": _NODES},
    )
    if solved.x is None:
        return None, -np.inf if solved.status == _INFEASIBLE else np.inf
    return picked[solved.x > 0.5], -float(solved.mip_dual_bound)
