"""Choosing bids so that the money goes where it brings most.

A multiple-choice knapsack: each keyword takes one bid or does not run, the sum of their
spend stays within the purse. Steps along the upper concave hulls are taken by falling
return; that order gives the relaxation's bound, the frontier and the ladder at once. What
money is left goes to the best single moves, and where a gap stays it is closed exactly.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit._affordable import affordable
from milkwort.core.fit._answer import Fit
from milkwort.core.fit._branched import branched
from milkwort.core.fit._choices import Choices, choices_of
from milkwort.core.fit._exact import finish
from milkwort.core.fit._ladder import Ladder, ladder_of
from milkwort.core.fit._limited import Limited, fit_limited, relaxed_limited
from milkwort.core.fit._parts import parts_of
from milkwort.core.fit._problem import Problem
from milkwort.core.fit._reduced import MANY_OPTIONS, Reduced, solve_reduced
from milkwort.core.fit._rest import use_rest
from milkwort.core.fit.options import Options
from milkwort.core.fit.tolerances import (
    CLOSE,
    ENOUGH,
    EXACT_NEAR,
    EXACT_ROUNDING,
    FINISH_CLOSE,
    FINISH_NEAR,
    MANY_CHOICES,
    NOISE,
    PROVEN,
    STATED,
    VERY_MANY_CHOICES,
)
from milkwort.core.fit.unmet import Unmet, unmet_of

__all__ = ["Fit", "Ladder", "Problem", "Unmet", "fit"]


def fit(
    problem: Problem,
    kept: NDArray[np.bool_],
    before: Choices | None = None,
    *,
    close: float = CLOSE,
    finish: bool = True,
) -> Fit:
    """Choose bids for the kept keywords.

    Parameters
    ----------
    problem : Problem
    kept : ndarray of bool, shape (n_keywords,)
        Which keywords may run; those with a locked bid always do.
    before : Choices, optional
        Of an earlier fit; what did not change since is not worked out again.
    close : float
        Under limits, a gap of up to this share of the bound is left.
    finish : bool
        Under limits, whether a wider gap is closed by an exact problem: where a curve of
        many fits is wanted it is only stated.

    Returns
    -------
    Fit
        The gap is at most 0.2 %, or the answer is exact; under limits else with its bound.
    """
    choices = choices_of(problem, kept, before)
    base_spend = float(problem.locked_spend.sum())
    limit = max(problem.purse, base_spend) * (1 + EXACT_ROUNDING)
    limits = problem.limits
    if limits.max_keywords is not None or limits.campaigns or limits.scouting is not None:
        reach = affordable(problem, choices, limit - base_spend) if finish else None
        if reach is not None:
            rough = _answer_limited(problem, kept, choices, limit, close, finish=False)
            if rough.gap > STATED:
                found = _answer_limited(problem, kept, reach.choices, limit, close, finish)
                unit = _next_unit(problem, choices, limit, relaxed_limited(problem, choices, limit))
                return replace(_at_the_edge(found, unit, unit), choices=choices)
        return _answer_limited(problem, kept, choices, limit, close, finish)
    ladder = ladder_of(
        choices, choices.order, choices.returns, base_spend, float(problem.locked_value.sum())
    )
    return _answer_free(problem, kept, choices, ladder, limit)


def _answer_free(
    problem: Problem, kept: NDArray[np.bool_], choices: Choices, ladder: Ladder, limit: float
) -> Fit:
    options, hull, order = choices.options, choices.hull, choices.order
    base_spend, base_value = ladder.base_spend, ladder.base_value
    taken = ladder.whole_steps(limit)
    bound = ladder.relaxed(limit)
    chosen = np.full(len(kept), -1, dtype=np.int64)
    took = np.zeros(len(order), dtype=bool)
    took[order[:taken]] = True  # read in the hull's own order: the last step of each stands
    chosen[hull.owner[took]] = hull.option[took]
    spend = float(ladder.spend_so_far[taken - 1]) if taken else base_spend
    value = float(ladder.value_so_far[taken - 1]) if taken else base_value
    value = use_rest(problem, options, chosen, limit - spend, value, bound)
    in_full = taken == len(order)
    next_return = 0.0 if in_full else ladder.return_at(taken)
    tightest, exact = bound, in_full
    few = len(options.owner) <= MANY_CHOICES
    near = in_full or bound - value <= _near_enough(len(options.owner)) * bound
    reach = None if near else affordable(problem, choices, limit - base_spend)
    if reach is not None:
        found = _answer_free(problem, kept, reach.choices, _ladder(reach.choices, ladder), limit)
        unit = ladder.relaxed(limit + 1.0) - ladder.relaxed(limit)
        edge = _at_the_edge(found, unit, next_return)
        return replace(edge, choices=choices, ladder=ladder)
    if not near and not few and bound - value > STATED * bound:
        room, gap = limit - base_spend, FINISH_CLOSE * bound
        settled = branched(problem, choices, room, chosen, value - base_value,
                           bound - base_value, gap)  # fmt: skip
        chosen[:] = settled.chosen
        spend = base_spend + float(options.spend[chosen[chosen >= 0]].sum())
        tightest = settled.bound + base_value
        value = use_rest(problem, options, chosen, limit - spend, settled.value + base_value,
                         tightest)  # fmt: skip
        near = tightest - value <= STATED * tightest
    if not near:
        goal = problem.value(options.owner, options.clicks, options.spend)
        done = finish(options, goal, chosen, limit - base_spend, next_return, bound - base_value,
                      0.0 if few else EXACT_NEAR * bound)  # fmt: skip
        exact, value = done.exact, bound - done.short
        if not exact and done.short > STATED * bound:
            tightest, value = _proven(problem, options, chosen, limit, next_return, bound, value)
            exact = tightest - value <= PROVEN * tightest
    return _answer(
        problem, kept, choices, ladder, chosen,
        bound=tightest, exact=exact, next_return=next_return,
        row_return=np.full(len(kept), next_return), next_unit=ladder.relaxed(limit + 1.0) - bound,
    )  # fmt: skip


def _at_the_edge(found: Fit, next_unit: float, next_return: float) -> Fit:
    """Return a fit of what the money can pay for, with what more money would bring.

    Where all of that is taken, the return at the edge is that of what costs too much.
    """
    if next_unit <= 0 or found.next_return > 0:
        return replace(found, next_unit=next_unit)
    return replace(
        found, next_unit=next_unit, next_return=next_return,
        row_return=np.full(len(found.row_return), next_return),
    )  # fmt: skip


def _near_enough(many: int) -> float:
    """Return the gap, as a share, that of so many choices needs no exact finish."""
    if many <= MANY_CHOICES:
        return PROVEN
    return FINISH_CLOSE if many <= VERY_MANY_CHOICES else STATED


def _ladder(choices: Choices, like: Ladder) -> Ladder:
    return ladder_of(choices, choices.order, choices.returns, like.base_spend, like.base_value)


def _proven(
    problem: Problem,
    options: Options,
    chosen: Ints,
    limit: float,
    next_return: float,
    bound: float,
    value: float,
) -> tuple[float, float]:
    """Let a solver tighten the bound, and return it with the goal; `chosen` may change."""
    parts = parts_of(problem, limit)
    goal = problem.value(options.owner, options.clicks, options.spend)
    base = float(problem.locked_value.sum())
    reduced = Reduced(
        owner=options.owner,
        spend=options.spend,
        goal=goal,
        net=goal - next_return * options.spend,
        part=np.zeros(len(options.owner), dtype=np.int64),
        parts=parts,
        most=None,
    )
    solved = solve_reduced(reduced, bound - base, value - base, FINISH_NEAR, MANY_OPTIONS)
    if solved.chosen is not None:
        chosen[:] = -1
        chosen[options.owner[solved.chosen]] = solved.chosen
        value = base + float(goal[solved.chosen].sum())
    return solved.bound + base, value


def _answer_limited(
    problem: Problem,
    kept: NDArray[np.bool_],
    choices: Choices,
    limit: float,
    close: float,
    finish: bool,
) -> Fit:
    found = fit_limited(problem, choices, limit, close=close, finish=finish)
    more = 0.0
    if finish:  # a point of a curve is not asked for it
        more = _next_unit(problem, choices, limit, found.relaxed)
    next_return = found.purse_return if more or not finish else 0.0
    answer = _answer(
        problem, kept, choices, found.ladder, found.chosen,
        bound=found.bound + found.ladder.base_value, exact=found.exact,
        next_return=next_return or more, row_return=found.row_return, next_unit=more,
    )  # fmt: skip
    return replace(answer, unmet=unmet_of(problem, answer.steps, _spends(problem, choices, found)))


def _next_unit(problem: Problem, choices: Choices, limit: float, relaxed: float) -> float:
    more = relaxed_limited(problem, choices, limit + 1.0) - relaxed
    return more if more > ENOUGH * abs(relaxed) * NOISE else 0.0


def _spends(problem: Problem, choices: Choices, found: Limited) -> Floats:
    """Return what each keyword spends a month, locked bids included."""
    at = found.chosen[found.chosen >= 0]
    spend = problem.locked_spend.copy()
    np.add.at(spend, choices.options.owner[at], choices.options.spend[at])
    return spend


def _answer(
    problem: Problem,
    kept: NDArray[np.bool_],
    choices: Choices,
    ladder: Ladder,
    chosen: Ints,
    *,
    bound: float,
    exact: bool,
    next_return: float,
    row_return: Floats,
    next_unit: float,
) -> Fit:
    options = choices.options
    at = chosen[chosen >= 0]
    spend = ladder.base_spend + float(options.spend[at].sum())
    value = ladder.base_value + float(
        problem.value(options.owner[at], options.clicks[at], options.spend[at]).sum()
    )
    steps = np.maximum(problem.locked_steps, 0) * kept
    steps[options.owner[at]] = options.steps[at]
    return Fit(
        steps=steps,
        value=value,
        spend=spend,
        bound=max(bound, value),
        exact=exact,
        next_unit=next_unit,
        next_return=next_return,
        row_return=row_return,
        unspent=max(problem.purse - spend, 0.0),
        ladder=ladder,
        choices=choices,
    )
