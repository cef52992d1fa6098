"""A fit's last gap closed exactly, on the few choices that could still matter."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit._parts import Parts
from milkwort.core.fit.tolerances import REDUCED_NEAR, ROUNDING, SOLVER_SLACK, STATED

__all__ = ["FEW_OPTIONS", "MANY_OPTIONS", "Reduced", "Solved", "solve_reduced"]

_INFEASIBLE = 2
_MOST_ALIKE = 5000
"""Among more owners than this, none are looked for that are alike."""


FEW_OPTIONS = (150, 600)
"""Choices let in, one attempt after another."""
MANY_OPTIONS = (*FEW_OPTIONS, 2400)
"""The same where a bound must be proven: what is left out may be what keeps it high."""
_NODES = 8
"""Branches of the solver's search, each attempt."""
_MANY_NODES = 200
"""The same for a last attempt, where a gap that may not stay is left."""


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
    counted : ndarray of bool or None
        Whether an option's owner counts among them; None: all do.
    """

    owner: Ints
    spend: Floats
    goal: Floats
    net: Floats
    part: Ints
    parts: Parts
    most: int | None
    counted: NDArray[np.bool_] | None = None

    @property
    def counts(self) -> NDArray[np.bool_]:
        """Whether each option's owner counts among those that may run."""
        return np.ones(len(self.owner), dtype=bool) if self.counted is None else self.counted


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
    problem: Reduced,
    bound: float,
    known: float | None,
    near: float = REDUCED_NEAR,
    sizes: tuple[int, ...] = FEW_OPTIONS,
    *,
    last: bool = True,
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
    sizes : tuple of int
        How many choices are let in, one attempt after another.
    last : bool
        Whether a gap that may not stay is worth a long attempt at the end.
    """
    if len(problem.owner) == 0:
        return Solved(None, 0.0)
    kinds = _kinds(problem)
    at, kind = kinds.options, kinds.kind
    first = np.flatnonzero(np.r_[True, kind[1:] != kind[:-1]])
    best = np.maximum(np.maximum.reduceat(problem.net[at], first), 0.0)
    price = best[kind] - problem.net[at]
    order = np.argsort(price, kind="stable")
    answer: Ints | None = None
    tightest = bound
    attempts = [(size, _NODES) for size in sizes] + [(sizes[-1], _MANY_NODES)] * last
    for size, nodes in attempts:
        gap = np.inf if known is None else bound - known
        if nodes == _MANY_NODES and known is not None and tightest - known <= STATED * abs(bound):
            break
        allowed = order[: np.searchsorted(price[order], gap * (1 + ROUNDING))]
        picked = np.sort(allowed[:size])
        counts, upper = _solve(problem, kinds, picked, near, nodes)
        if counts is not None:
            solved = kinds.dealt_out(picked, counts)
            value = float(problem.goal[solved].sum())
            better = known is None or value > known + ROUNDING * abs(bound)
            if better and _keeps(problem, solved):
                answer, known = solved, value
        whole = len(picked) == len(allowed)
        left_out = -np.inf if whole else bound - float(price[order[size]])
        tightest = min(tightest, max(upper, left_out, -np.inf if known is None else known))
        closed = known is not None and tightest - known <= near * abs(bound)
        if closed or (whole and known is not None and tightest - known <= STATED * abs(bound)):
            break
    return Solved(answer, tightest)


@dataclass(frozen=True)
class _Kinds:
    """Owners that have the very same choices, taken together: which of them runs is all one.

    Attributes
    ----------
    options, kind : Ints, shape (n_choices,)
        An option of the first owner of a kind, and the kind's number.
    members : list of Ints
        Of each kind, the first option of each of its owners.
    """

    options: Ints
    kind: Ints
    members: list[Ints]

    def dealt_out(self, picked: Ints, counts: Ints) -> Ints:
        """Return one option an owner where so many owners of a kind take each choice."""
        dealt = [0] * len(self.members)
        found = []
        for choice, count in zip(picked.tolist(), counts.tolist(), strict=True):
            members = self.members[kind := int(self.kind[choice])]
            offset = self.options[choice] - members[0]
            found.append(members[dealt[kind] : dealt[kind] + count] + offset)
            dealt[kind] += count
        return np.concatenate([np.zeros(0, dtype=np.int64), *found]).astype(np.int64)


def _kinds(problem: Reduced) -> _Kinds:
    owner = problem.owner
    first = np.flatnonzero(np.r_[True, owner[1:] != owner[:-1]])
    ends = np.append(first[1:], len(owner))
    if len(first) > _MOST_ALIKE:
        kind = np.repeat(np.arange(len(first)), ends - first)
        return _Kinds(np.arange(len(owner)), kind, [first[i : i + 1] for i in range(len(first))])
    known: dict[bytes, list[int]] = {}
    counts = problem.counts
    for start, end in zip(first.tolist(), ends.tolist(), strict=True):
        choices = np.concatenate((problem.spend[start:end], problem.goal[start:end]))
        known.setdefault(
            choices.tobytes()
            + int(problem.part[start]).to_bytes(8, "big")
            + bytes([bool(counts[start])]),
            [],
        ).append(start)
    size = dict(zip(first.tolist(), (ends - first).tolist(), strict=True))
    options = [np.arange(starts[0], starts[0] + size[starts[0]]) for starts in known.values()]
    kind = np.repeat(np.arange(len(options)), [len(o) for o in options])
    members = [np.array(starts, dtype=np.int64) for starts in known.values()]
    return _Kinds(np.concatenate(options), kind, members)


def _solve(
    problem: Reduced, kinds: _Kinds, picked: Ints, near: float, nodes: int
) -> tuple[Ints | None, float]:
    """Return how many owners take each of some choices, and what no answer passes."""
    counts, upper = _solved(problem, kinds, picked, near, nodes, 0.0)
    if counts is not None and not _keeps(problem, kinds.dealt_out(picked, counts)):
        # what was proven of the limits themselves stays; only its answer is of no use
        counts, _ = _solved(problem, kinds, picked, near, nodes, SOLVER_SLACK)
    return counts, upper


def _solved(
    problem: Reduced, kinds: _Kinds, picked: Ints, near: float, nodes: int, by: float
) -> tuple[Ints | None, float]:
    """Ask the solver, with the limits of money drawn in by so much."""
    from scipy.optimize import Bounds, LinearConstraint, milp
    from scipy.sparse import coo_array

    n = len(picked)
    if n == 0:
        return None, 0.0
    options = kinds.options[picked]
    held, place = np.unique(kinds.kind[picked], return_inverse=True)
    many = np.array([len(kinds.members[k]) for k in held.tolist()], dtype=np.float64)
    rows = _limits(problem, options, by)
    dense = np.array([r[0] for r in rows])
    at = np.nonzero(dense)
    matrix = coo_array(
        (
            np.concatenate((dense[at], np.ones(n))),
            (np.concatenate((at[0], len(rows) + place)), np.concatenate((at[1], np.arange(n)))),
        ),
        shape=(len(rows) + len(held), n),
    )
    solved = milp(
        -problem.goal[options],
        integrality=np.ones(n),
        bounds=Bounds(0, many[place]),
        constraints=LinearConstraint(
            matrix.tocsr(),
            np.concatenate(([r[1] for r in rows], np.full(len(held), -np.inf))),
            np.concatenate(([r[2] for r in rows], many)),
        ),
        options={"mip_rel_gap": near / 2, "node_limit": nodes},
    )
    if solved.x is None:
        return None, -np.inf if solved.status == _INFEASIBLE else np.inf
    return np.round(solved.x).astype(np.int64), -float(solved.mip_dual_bound)


def _limits(problem: Reduced, options: Ints, by: float) -> list[tuple[Floats, float, float]]:
    """Return what every limit counts of each option, its least and its most."""
    parts, spend, part = problem.parts, problem.spend[options], problem.part[options]
    rows: list[tuple[Floats, float, float]] = []
    for number in range(len(parts.most)):
        least, most = float(parts.least[number]), max(float(parts.most[number]) - by, 0.0)
        if np.isfinite(most) or least > 0:
            least = least + by if least > 0 else -np.inf
            rows.append((spend * (part == number), min(least, most), most))
    for number in np.flatnonzero(np.isfinite(parts.side_most)).tolist():
        most = max(float(parts.side_most[number]) - by, 0.0)
        rows.append((spend * (parts.side[part] == number), -np.inf, most))
    rows.append((spend, -np.inf, max(parts.purse - by, 0.0)))
    if problem.most is not None:
        rows.append((problem.counts[options].astype(np.float64), -np.inf, float(problem.most)))
    return rows


def _keeps(problem: Reduced, chosen: Ints) -> bool:
    """Return whether an answer keeps to every limit."""
    parts = problem.parts
    spent = np.bincount(problem.part[chosen], problem.spend[chosen], minlength=len(parts.most))
    in_side = np.bincount(parts.side, spent, minlength=len(parts.side_most))
    edge = 1 + ROUNDING
    return bool(
        (problem.most is None or problem.counts[chosen].sum() <= problem.most)
        and spent.sum() <= parts.purse * edge
        and (spent <= parts.most * edge).all()
        and (spent >= parts.least * (1 - ROUNDING)).all()
        and (in_side <= parts.side_most * edge).all()
    )
