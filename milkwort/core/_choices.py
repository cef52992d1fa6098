"""The steps the money may take: options, hulls and their order, patched where little changed."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from milkwort.core._options import Hull, Options, hull_of, options_of
from milkwort.core._problem import Problem
from milkwort.core.keyword_table import Floats, Ints

__all__ = ["Choices", "choices_of"]

_SLACK = 1e-9
_FEW = 8
"""Where more than one keyword in so many changed, everything is made anew."""


@dataclass(frozen=True)
class Choices:
    """Options and hull steps of the keywords that may run.

    Attributes
    ----------
    options : Options
    hull : Hull
    order : Ints, shape (n_steps,)
        Hull steps by falling return.
    returns : Floats, shape (n_steps,)
        Goal per unit of money, in that order.
    """

    options: Options
    hull: Hull
    order: Ints
    returns: Floats
    seen: dict[str, Any]
    """What they were made from."""


def choices_of(
    problem: Problem, may_run: NDArray[np.bool_], before: Choices | None = None
) -> Choices:
    """List what each of some keywords may do.

    Parameters
    ----------
    problem : Problem
    may_run : ndarray of bool, shape (n_keywords,)
    before : Choices, optional
        Of an earlier problem; what did not change since is taken over.

    Returns
    -------
    Choices
        Equal to one made anew.
    """
    included = may_run & (problem.locked_steps < 0) & np.isfinite(problem.mu)
    seen = {"included": included, **_inputs(problem)}
    changed = None if before is None else _changed(before.seen, seen)
    if before is None or changed is None or changed.sum() * _FEW > len(changed):
        options, hull = _made(problem, np.flatnonzero(included))
        returns = _returns(problem, hull)
        order = _falling(returns)
        return Choices(options, hull, order, returns[order], seen)
    if not changed.any():
        return before
    return _patched(problem, before, changed, included, seen)


def _inputs(problem: Problem) -> dict[str, Any]:
    return {
        "mu": problem.mu,
        "sigma": problem.sigma,
        "click_weight": problem.click_weight,
        "ceiling": problem.ceiling,
        "value_per_click": problem.value_per_click,
        "worth_per_click": problem.worth_per_click,
        "rules": (
            problem.pricing,
            problem.less_spend,
            problem.limits.min_clicks,
            tuple(problem.assumed.changes.items()),
        ),
    }


def _changed(before: dict[str, Any], now: dict[str, Any]) -> NDArray[np.bool_] | None:
    """Return the keywords whose choices may differ; None where all may."""
    if before["rules"] != now["rules"] or len(before["mu"]) != len(now["mu"]):
        return None
    changed = np.zeros(len(now["mu"]), dtype=bool)
    for name, column in now.items():
        if name != "rules" and column is not before[name]:
            differs = column != before[name]
            if column.dtype.kind == "f":
                differs &= ~(np.isnan(column) & np.isnan(before[name]))
            changed |= differs
    return changed


def _made(problem: Problem, rows: Ints) -> tuple[Options, Hull]:
    options = options_of(
        rows,
        problem.mu,
        problem.sigma,
        problem.click_weight,
        problem.ceiling,
        problem.pricing,
        problem.assumed,
    )
    if problem.limits.min_clicks > 0:
        enough = options.clicks >= problem.limits.min_clicks
        options = Options(*(column[enough] for column in vars(options).values()))
    hull = hull_of(options)
    # no step whose extra spend is above what its extra clicks are worth; marginal prices
    # rise along a hull, so what is cut is always its end
    worth = hull.spend <= problem.worth_per_click[hull.owner] * hull.clicks * (1 + _SLACK)
    if worth.all():
        return options, hull
    hull = Hull(*(column[worth] for column in vars(hull).values()))
    return _without_dear(problem, options, hull)


def _without_dear(problem: Problem, options: Options, hull: Hull) -> tuple[Options, Hull]:
    """Drop options that only a step dearer than its worth would lead to."""
    on_hull = np.zeros(len(options.owner), dtype=bool)
    on_hull[hull.option] = True
    last = np.maximum.accumulate(np.where(on_hull, np.arange(len(on_hull)), -1))
    same = (last >= 0) & (options.owner[np.maximum(last, 0)] == options.owner)
    from_clicks = np.where(same, options.clicks[last], 0.0)
    from_spend = np.where(same, options.spend[last], 0.0)
    limit = problem.worth_per_click[options.owner] * (options.clicks - from_clicks)
    stays = on_hull | (options.spend - from_spend <= limit * (1 + _SLACK))
    number = np.cumsum(stays) - 1
    kept_options = Options(*(column[stays] for column in vars(options).values()))
    before = np.where(hull.before >= 0, number[np.maximum(hull.before, 0)], -1)
    return kept_options, Hull(hull.owner, number[hull.option], before, hull.clicks, hull.spend)


def _returns(problem: Problem, hull: Hull) -> Floats:
    return np.asarray(problem.value(hull.owner, hull.clicks, hull.spend) / hull.spend)


def _falling(returns: Floats) -> Ints:
    """Return the order of falling returns, equal ones as they came.

    A keyword's own steps must stay in their order. The plain sort is several times as fast
    as a stable one, and equal returns are few.
    """
    order = np.argsort(-returns)
    ranked = returns[order]
    tied = ranked[1:] == ranked[:-1]
    if not tied.any():
        return order
    run = np.concatenate(([0], np.cumsum(~tied)))
    among = np.flatnonzero(np.concatenate((tied, [False])) | np.concatenate(([False], tied)))
    order[among] = order[among][np.lexsort((order[among], run[among]))]
    return order


def _patched(
    problem: Problem,
    old: Choices,
    changed: NDArray[np.bool_],
    included: NDArray[np.bool_],
    seen: dict[str, Any],
) -> Choices:
    """Put the choices of the changed keywords in the place of their old ones."""
    new, new_hull = _made(problem, np.flatnonzero(changed & included))
    stays = ~changed[old.options.owner]
    at = np.searchsorted(old.options.owner[stays], new.owner)
    options = Options(
        *(
            np.insert(column[stays], at, more)
            for column, more in zip(vars(old.options).values(), vars(new).values(), strict=True)
        )
    )
    # where old and new options stand now, so that the hulls can point to them
    is_new = np.insert(np.zeros(int(stays.sum()), dtype=bool), at, True)
    old_place = np.full(len(stays), -1, dtype=np.int64)
    old_place[stays] = np.flatnonzero(~is_new)
    hull, hull_place, hull_new = _patched_hull(
        old.hull, new_hull, changed, old_place, np.flatnonzero(is_new)
    )
    returns = _returns(problem, new_hull)
    first = np.argsort(-returns, kind="stable")
    still = hull_place[old.order] >= 0
    order, kept_returns = hull_place[old.order[still]], old.returns[still]
    to = np.searchsorted(-kept_returns, -returns[first], side="right")
    return Choices(
        options,
        hull,
        np.insert(order, to, hull_new[first]),
        np.insert(kept_returns, to, returns[first]),
        seen,
    )


def _patched_hull(
    old: Hull, new: Hull, changed: NDArray[np.bool_], old_place: Ints, new_place: Ints
) -> tuple[Hull, Ints, Ints]:
    stays = ~changed[old.owner]
    at = np.searchsorted(old.owner[stays], new.owner)

    def moved(number: Ints, place: Ints) -> Ints:
        if len(place) == 0:
            return number
        return np.where(number >= 0, place[np.maximum(number, 0)], -1)

    hull = Hull(
        owner=np.insert(old.owner[stays], at, new.owner),
        option=np.insert(moved(old.option[stays], old_place), at, moved(new.option, new_place)),
        before=np.insert(moved(old.before[stays], old_place), at, moved(new.before, new_place)),
        clicks=np.insert(old.clicks[stays], at, new.clicks),
        spend=np.insert(old.spend[stays], at, new.spend),
    )
    is_new = np.insert(np.zeros(int(stays.sum()), dtype=bool), at, True)
    place = np.full(len(stays), -1, dtype=np.int64)
    place[stays] = np.flatnonzero(~is_new)
    return hull, place, np.flatnonzero(is_new)
