"""The fit under limits: at most so many keywords, least and most money for campaigns.

Each keyword that runs is charged a *toll*; the toll at which just so many run gives the
relaxation's bound, and names the keywords to look after. Their bids are fitted without the
toll, and where a gap stays it is closed by a small exact problem.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit._choices import Choices
from milkwort.core.fit._ladder import Ladder, ladder_of
from milkwort.core.fit._parts import Parts, Taken, attainable, parts_of
from milkwort.core.fit._problem import Problem
from milkwort.core.fit._search import FEW, Search
from milkwort.core.fit._toll import Hulls, Relaxed, relax
from milkwort.core.fit.tolerances import CLOSE, CURVE_FAR, LIMITED_PROVEN, ROUNDING, WELL_CLOSE

__all__ = ["Limited", "fit_limited", "relaxed_limited"]


@dataclass(frozen=True)
class Limited:
    """An answer under limits.

    Attributes
    ----------
    chosen : Ints, shape (n_keywords,)
        The option of each keyword, −1 for not running.
    bound : float
        Goal above the locked bids that no answer passes.
    relaxed : float
        Goal above the locked bids were every step divisible, under the same limits.
    exact : bool
    purse_return : float
        Goal per unit of money at the purse's edge.
    row_return : Floats, shape (n_keywords,)
        The same at the edge of what the keyword's money is limited by.
    ladder : Ladder
        Steps of the keywords that were picked.
    """

    chosen: Ints
    bound: float
    relaxed: float
    exact: bool
    purse_return: float
    row_return: Floats
    ladder: Ladder


def fit_limited(
    problem: Problem,
    choices: Choices,
    purse: float,
    *,
    close: float = CLOSE,
    finish: bool = True,
) -> Limited:
    """Choose bids under limits.

    Parameters
    ----------
    problem : Problem
    choices : Choices
    purse : float
        Money a month, what locked bids take included.
    close : float
        A gap under this share of the bound is near enough.
    finish : bool
        Whether a wider gap is closed by an exact problem; else it is only stated, unless it is
        far wider. Whether the least sums can be kept is always asked, but not at any price.

    Returns
    -------
    Limited
    """
    parts = parts_of(problem, purse)
    hulls = Hulls(problem, choices, parts)
    parts = attainable(parts, hulls.part, choices.hull.spend)
    found = _found(problem, choices, hulls, parts, close, finish)
    if found is None:  # the least sums cannot be met with the rest: what can be is, and it is said
        parts = replace(parts, least=np.zeros(len(parts.least)))
        found = _found(problem, choices, hulls, parts, close, finish)
        assert found is not None
    relaxed, search, bound = found
    return Limited(
        chosen=search.chosen,
        bound=bound,
        relaxed=relaxed.bound,
        exact=bound - search.value <= LIMITED_PROVEN * abs(bound),
        purse_return=_purse_return(problem, parts, relaxed.taken),
        row_return=relaxed.taken.part_return[parts.of_row],
        ladder=_picked_ladder(problem, choices, search.chosen, _most_keywords(problem), parts),
    )


def _found(
    problem: Problem, choices: Choices, hulls: Hulls, parts: Parts, close: float, finish: bool
) -> tuple[Relaxed, Search, float] | None:
    """Return the relaxation, the best answer found and its bound; None where none keeps all."""
    if not _can_be_kept(parts):
        return None
    most = _most_keywords(problem)
    under, over, relaxed = relax(hulls, parts, most, ROUNDING if finish else close * WELL_CLOSE)
    goal = problem.value(choices.options.owner, choices.options.clicks, choices.options.spend)
    found = Search(problem, choices, parts, goal, most)
    for rows in _picks(hulls, under, over, most, problem, parts):
        found.try_rows(hulls, rows)
        if relaxed.bound - found.value <= close * WELL_CLOSE * abs(relaxed.bound):
            break
    bound = relaxed.bound
    # one of many points is finished only where it is far from its bound, or where least sums
    # are not kept yet
    if bound - found.value > (close if finish else CURVE_FAR) * abs(bound):
        bound = found.finish(relaxed, close, quick=not finish)
    if not np.isfinite(found.value):
        return None
    return relaxed, found, max(bound, found.value)


def _can_be_kept(parts: Parts) -> bool:
    """Return whether the least sums leave room for each other."""
    in_side = np.bincount(parts.side, parts.least, minlength=len(parts.side_most))
    edge = 1 + ROUNDING
    return bool(
        (parts.least <= parts.most * edge).all()
        and (in_side <= parts.side_most * edge).all()
        and parts.least.sum() <= parts.purse * edge
    )


def _purse_return(problem: Problem, parts: Parts, taken: Taken) -> float:
    """Return the goal per unit of money at the purse's edge; a share of it goes to each side."""
    if problem.limits.scouting is None:
        return taken.purse_return
    share = problem.limits.scouting_share
    return float(np.array([1 - share, share]) @ taken.side_return)


def relaxed_limited(problem: Problem, choices: Choices, purse: float) -> float:
    """Return the goal above the locked bids that no answer for a purse passes."""
    parts = parts_of(problem, purse)
    hulls = Hulls(problem, choices, parts)
    parts = attainable(parts, hulls.part, choices.hull.spend)
    return relax(hulls, parts, _most_keywords(problem))[2].bound


def _most_keywords(problem: Problem) -> int | None:
    most = problem.limits.max_keywords
    return None if most is None else max(most - int((problem.locked_steps > 0).sum()), 0)


def _picks(
    hulls: Hulls, under: Relaxed, over: Relaxed | None, most: int | None, problem: Problem,
    parts: Parts,
) -> list[NDArray[np.bool_]]:  # fmt: skip
    """Return sets of keywords worth fitting bids for, each of at most so many; spots always."""
    n = len(problem.mu)
    spots = np.arange(n) >= problem.keywords
    if over is None or most is None:
        return [np.ones(n, dtype=bool)]
    picks = []
    for one in (under, over):
        starts = np.flatnonzero(one.steps.starts)
        owner, taken = one.steps.owner[starts], one.taken.spend[starts]
        asked = parts.least[parts.of_row[owner]] > 0
        # those that run come first, then the next best; or those a least sum asks for
        for free in (np.zeros(len(starts)), ~asked)[: 1 + asked.any()]:
            order = np.lexsort((np.arange(len(starts)), free, taken <= 0))
            rows = spots.copy()
            rows[owner[order[:most]]] = True
            picks.append(rows)
    if most > FEW:
        return picks
    best = np.maximum.reduceat(hulls.value_so_far, hulls.first)
    first = hulls.choices.hull.owner[hulls.first]
    ranked = first[np.argsort(-best, kind="stable")]
    rows = spots.copy()
    rows[ranked[ranked < problem.keywords][:most]] = True
    return [*picks, rows]


def _picked_ladder(
    problem: Problem, choices: Choices, chosen: Ints, most: int | None, parts: Parts
) -> Ladder:
    """Return the ladder of the keywords picked, as far as their campaigns may go."""
    hull, order = choices.hull, choices.order
    mine = np.ones(len(order), dtype=bool)
    if most is not None:
        runs = (chosen >= 0) | (np.arange(len(chosen)) >= problem.keywords)
        mine = runs[hull.owner[order]]
    steps, returns = order[mine], choices.returns[mine]
    part = parts.of_row[hull.owner[steps]]
    fits = np.ones(len(steps), dtype=bool)
    for number in np.flatnonzero(np.isfinite(parts.most)).tolist():
        at = np.flatnonzero(part == number)
        fits[at] = np.cumsum(hull.spend[steps[at]]) <= parts.most[number] * (1 + ROUNDING)
    locked = problem.locked_spend.sum(), problem.locked_value.sum()
    return ladder_of(choices, steps[fits], returns[fits], float(locked[0]), float(locked[1]))
