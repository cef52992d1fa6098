"""The steps the money may take: options, hulls and their order, patched where little changed."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit._problem import Problem
from milkwort.core.fit.options import Hull, Options, hull_of, options_of, spot_hull, spot_options
from milkwort.core.fit.tolerances import ROUNDING

__all__ = ["Choices", "choices_of", "falling", "returns_of"]

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

    @cached_property
    def by_spend(self) -> Ints:
        """Options by rising spend."""
        return np.argsort(self.options.spend, kind="stable")


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
        returns = returns_of(problem, hull)
        order = _same_order(returns, before) if before is not None else None
        order = falling(returns) if order is None else order
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
    spots = rows[rows >= problem.keywords]
    options = options_of(
        rows[rows < problem.keywords],
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
    if len(spots):
        options, hull = _with_spots(problem, spots, options, hull)
    # no step whose extra spend is above what its extra clicks are worth; marginal prices
    # rise along a hull, so what is cut is always its end
    worth = hull.spend <= problem.worth_per_click[hull.owner] * hull.clicks * (1 + ROUNDING)
    if worth.all():
        return options, hull
    hull = Hull(*(column[worth] for column in vars(hull).values()))
    return _without_dear(problem, options, hull)


def _with_spots(
    problem: Problem, spots: Ints, options: Options, hull: Hull
) -> tuple[Options, Hull]:
    """Put spots behind the keywords: their steps are all alike, to the last digit."""
    more = spot_options(spots, problem.click_weight[spots], problem.ceiling[spots])
    steps = spot_hull(more, len(options.owner))
    return (
        Options(
            *map(np.concatenate, zip(vars(options).values(), vars(more).values(), strict=True))
        ),
        Hull(*map(np.concatenate, zip(vars(hull).values(), vars(steps).values(), strict=True))),
    )


def _without_dear(problem: Problem, options: Options, hull: Hull) -> tuple[Options, Hull]:
    """Drop options that only a step dearer than its worth would lead to."""
    on_hull = np.zeros(len(options.owner), dtype=bool)
    on_hull[hull.option] = True
    last = np.maximum.accumulate(np.where(on_hull, np.arange(len(on_hull)), -1))
    same = (last >= 0) & (options.owner[np.maximum(last, 0)] == options.owner)
    from_clicks = np.where(same, options.clicks[last], 0.0)
    from_spend = np.where(same, options.spend[last], 0.0)
    limit = problem.worth_per_click[options.owner] * (options.clicks - from_clicks)
    stays = on_hull | (options.spend - from_spend <= limit * (1 + ROUNDING))
    number = np.cumsum(stays) - 1
    kept_options = Options(*(column[stays] for column in vars(options).values()))
    before = np.where(hull.before >= 0, number[np.maximum(hull.before, 0)], -1)
    return kept_options, Hull(hull.owner, number[hull.option], before, hull.clicks, hull.spend)


def returns_of(problem: Problem, hull: Hull) -> Floats:
    """Return the goal per unit of money of each hull step."""
    return np.asarray(problem.value(hull.owner, hull.clicks, hull.spend) / hull.spend)


def _same_order(returns: Floats, before: Choices) -> Ints | None:
    """Return the order of before, where it still falls: many assumptions scale all alike."""
    if len(returns) != len(before.order):
        return None
    ranked = returns[before.order]
    return before.order if bool((ranked[1:] < ranked[:-1]).all()) else None


def falling(returns: Floats) -> Ints:
    """Return the order of falling returns, equal ones as they came.

    A keyword's own steps must stay in their order. Whole numbers are sorted several times as
    fast as places are by what stands at them: so each return, as the whole number that rises
    as it falls, gives up its last digits to its place. Those that only these told apart are
    few, and put in order by themselves.
    """
    bits = (0.0 - returns).view(np.int64)
    rising = bits ^ ((bits >> 63) & np.int64(2**63 - 1))
    places = np.int64(2 ** max(len(returns) - 1, 1).bit_length() - 1)
    rising &= ~places
    rising |= np.arange(len(returns), dtype=np.int64)
    rising.sort()
    order = rising & places
    # alike but for the place: of one sign, as whole numbers that differ by less
    at = np.flatnonzero((rising[1:] ^ rising[:-1]).view(np.uint64) <= np.uint64(places))
    if not len(at):
        return order
    among = np.union1d(at, at + 1)
    new = np.concatenate(([True], ~np.isin(among[1:] - 1, at)))
    some = order[among]
    order[among] = some[np.lexsort((some, -returns[some], np.cumsum(new)))]
    return order


def _patched(
    problem: Problem,
    old: Choices,
    changed: NDArray[np.bool_],
    included: NDArray[np.bool_],
    seen: dict[str, Any],
) -> Choices:
    """Put the choices of the changed keywords in the place of their old ones."""
    rows = np.flatnonzero(changed)
    new, new_hull = _made(problem, np.flatnonzero(changed & included))
    places = _Splice(old.options.owner, new.owner, rows)
    steps = _Splice(old.hull.owner, new_hull.owner, rows)
    hull = Hull(
        owner=steps.joined(old.hull.owner, new_hull.owner),
        option=steps.joined(old.hull.option, new_hull.option, places),
        before=steps.joined(old.hull.before, new_hull.before, places),
        clicks=steps.joined(old.hull.clicks, new_hull.clicks),
        spend=steps.joined(old.hull.spend, new_hull.spend),
    )
    returns = returns_of(problem, new_hull)
    first = np.argsort(-returns, kind="stable")
    order, stays = steps.moved(old.order)
    kept_returns = old.returns[stays]
    to = np.searchsorted(_ranks(kept_returns, order), _ranks(returns, steps.of_new)[first])
    columns = zip(vars(old.options).values(), vars(new).values(), strict=True)
    return Choices(
        Options(*(places.joined(column, more) for column, more in columns)),
        hull,
        np.insert(order, to, steps.of_new[first]),
        np.insert(kept_returns, to, returns[first]),
        seen,
    )


def _ranks(returns: Floats, places: Ints) -> NDArray[np.complex128]:
    """Return what falls into the order of `falling`: by return, and equal ones by their place."""
    ranks = np.empty(len(returns), dtype=np.complex128)
    ranks.real, ranks.imag = -returns, places
    return ranks


class _Splice:
    """Arrays by keyword, rising, with the segments of a few keywords replaced.

    Parameters
    ----------
    old, new : Ints
        The keyword of each place, in the old array and in the replacements.
    rows : Ints
        The keywords replaced, rising.
    """

    def __init__(self, old: Ints, new: Ints, rows: Ints) -> None:
        self.old_start = np.searchsorted(old, rows)
        self.old_end = np.searchsorted(old, rows, side="right")
        self.new_start = np.searchsorted(new, rows)
        self.new_end = np.searchsorted(new, rows, side="right")
        gained = (self.new_end - self.new_start) - (self.old_end - self.old_start)
        self.shift = np.concatenate(([0], np.cumsum(gained)))
        """How far what stands between two replaced segments moves."""
        size = self.new_end - self.new_start
        move = self.old_start + self.shift[:-1] - self.new_start
        self.of_new = np.arange(len(new)) + np.repeat(move, size)
        """Where each replacement comes to stand."""

    def joined(self, old: Any, new: Any, to: _Splice | None = None) -> Any:
        """Return one column spliced; where it holds places of another array, these move too."""
        ends = [0, *self.old_end.tolist()]
        starts = [*self.old_start.tolist(), len(old)]
        pieces = []
        for at, (start, end) in enumerate(zip(ends, starts, strict=True)):
            piece = old[start:end]
            pieces.append(piece if to is None else _shifted(piece, int(to.shift[at])))
            if at < len(self.new_start):
                piece = new[self.new_start[at] : self.new_end[at]]
                if to is not None and len(piece):
                    piece = np.where(piece >= 0, to.of_new[np.maximum(piece, 0)], -1)
                pieces.append(piece)
        return np.concatenate(pieces)

    def moved(self, places: Ints) -> tuple[Ints, NDArray[np.bool_]]:
        """Return places where they now are, and which of them were not replaced."""
        passed = np.searchsorted(self.old_end, places, side="right")
        stays = np.searchsorted(self.old_start, places, side="right") == passed
        return (places + self.shift[passed])[stays], stays


def _shifted(places: Ints, by: int) -> Ints:
    """Move places; −1 stays what it is."""
    if by == 0:
        return places
    moved = places + by
    moved[places < 0] = -1
    return moved
