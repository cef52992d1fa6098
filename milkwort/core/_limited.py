"""The fit under limits: at most so many keywords, least and most money for campaigns.

Each keyword that runs is charged a *toll*; the toll at which just so many run gives the
relaxation's bound, and names the keywords to look after. Their bids are fitted without the
toll, and where a gap stays it is closed by a small exact problem.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core._choices import Choices
from milkwort.core._ladder import Ladder, ladder_of
from milkwort.core._parts import Parts, Taken, attainable, parts_of, take
from milkwort.core._problem import Problem
from milkwort.core._reduced import Reduced, solve_reduced
from milkwort.core.keyword_table import Floats, Ints

__all__ = ["Limited", "fit_limited", "relaxed_limited"]

_TOLLS = 15
"""Halvings of the toll; the last one is exact to a thirty-thousandth of the first."""
_MOVES = 40
_CLOSE = 5e-4
"""A gap under this share of the bound needs no exact finish."""
_PROVEN = 2e-6
_NEAR_MOST = 0.02
"""The toll is found once the keywords that run under it differ by no more than this share."""
_EXCHANGES = 12
_WELL_CLOSE = 0.1
"""So much nearer than asked for, no other set of keywords is tried."""
_FEW = 20
"""With so few keywords the purse may not bind: then the ones that bring most are best."""
_EDGE = 1e-9


@dataclass(frozen=True)
class Limited:
    """An answer under limits.

    Attributes
    ----------
    chosen : Ints, shape (n_keywords,)
        The option of each keyword, −1 for not running.
    bound : float
        Goal above the locked bids that no answer passes.
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
    exact: bool
    purse_return: float
    row_return: Floats
    ladder: Ladder


@dataclass(frozen=True)
class _Steps:
    """Steps best first under some toll; arrays of shape (n_steps,)."""

    owner: Ints
    part: Ints
    spend: Floats
    returns: Floats
    starts: NDArray[np.bool_]
    """Whether the step makes its keyword run."""


@dataclass(frozen=True)
class _Relaxed:
    """The relaxation at one toll."""

    toll: float
    steps: _Steps
    taken: Taken
    running: float
    bound: float


class _Hulls:
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

    @property
    def highest_toll(self) -> float:
        return float(self.value_so_far.max(initial=0.0))

    def steps(self, toll: float) -> _Steps:
        hull, order = self.choices.hull, self.order
        if toll <= 0 or not len(self.first):
            starts = hull.before[order] < 0
            return _Steps(
                hull.owner[order], self.part[order], hull.spend[order],
                self.choices.returns, starts,
            )  # fmt: skip
        # with a toll a keyword starts with the jump that brings most per unit of money
        ratio = (self.value_so_far - toll) / self.spend_so_far
        best = np.maximum.reduceat(ratio, self.first)
        at_best = ratio >= np.repeat(best, self.count)
        places = np.where(at_best, np.arange(len(ratio)), -1)
        jump = np.maximum.reduceat(places, self.first)
        runs = best > 0
        jump_of = np.repeat(np.where(runs, jump, len(ratio)), self.count)
        later = order[(order > jump_of[order])]
        later_returns = self.choices.returns[order > jump_of[order]]
        jump, best = jump[runs], best[runs]
        rank = np.argsort(-best, kind="stable")
        jump, best = jump[rank], best[rank]
        to = np.searchsorted(-later_returns, -best, side="left")
        at = np.insert(later, to, jump)
        starts = np.insert(np.zeros(len(later), dtype=bool), to, True)
        spend = np.where(starts, self.spend_so_far[at], hull.spend[at])
        return _Steps(
            hull.owner[at], self.part[at], spend, np.insert(later_returns, to, best), starts
        )


def fit_limited(
    problem: Problem, choices: Choices, purse: float, *, close: float = _CLOSE
) -> Limited:
    """Choose bids under limits.

    Parameters
    ----------
    problem : Problem
    choices : Choices
    purse : float
        Money a month, what locked bids take included.
    close : float
        A gap above this share of the bound is closed by an exact problem.

    Returns
    -------
    Limited
    """
    parts = parts_of(problem, purse)
    hulls = _Hulls(problem, choices, parts)
    parts = attainable(parts, hulls.part, choices.hull.spend)
    most = _most_keywords(problem)
    under, over, relaxed = _relax(hulls, parts, most)
    goal = problem.value(choices.options.owner, choices.options.clicks, choices.options.spend)
    found = _Search(problem, choices, parts, goal, most)
    for rows in _picks(hulls, under, over, most, len(problem.mu)):
        found.try_rows(hulls, rows)
        if relaxed.bound - found.value <= close * _WELL_CLOSE * abs(relaxed.bound):
            break
    bound = relaxed.bound
    if bound - found.value > close * abs(bound):
        bound = found.finish(relaxed, close)
    bound = max(bound, found.value)
    return Limited(
        chosen=found.chosen,
        bound=bound,
        exact=bound - found.value <= _PROVEN * abs(bound),
        purse_return=relaxed.taken.purse_return,
        row_return=relaxed.taken.part_return[parts.of_row],
        ladder=_picked_ladder(problem, choices, found.chosen, most, parts),
    )


def relaxed_limited(problem: Problem, choices: Choices, purse: float) -> float:
    """Return the goal above the locked bids that no answer for a purse passes."""
    parts = parts_of(problem, purse)
    hulls = _Hulls(problem, choices, parts)
    parts = attainable(parts, hulls.part, choices.hull.spend)
    return _relax(hulls, parts, _most_keywords(problem))[2].bound


def _most_keywords(problem: Problem) -> int | None:
    most = problem.limits.max_keywords
    return None if most is None else max(most - int((problem.locked_steps > 0).sum()), 0)


def _relax(
    hulls: _Hulls, parts: Parts, most: int | None
) -> tuple[_Relaxed, _Relaxed | None, _Relaxed]:
    """Return the relaxations where few enough run, where a few too many do, and the tightest."""

    def at(toll: float) -> _Relaxed:
        steps = hulls.steps(toll)
        taken = take(parts, steps.part, steps.spend, steps.returns)
        share = taken.spend[steps.starts] / steps.spend[steps.starts]
        bound = taken.value + toll * (most or 0)
        return _Relaxed(toll, steps, taken, float(share.sum()), bound)

    free = at(0.0)
    if most is None or free.running <= most + _EDGE:
        return free, None, free
    low, high = free, at(hulls.highest_toll)
    best = min(low, high, key=lambda r: r.bound)
    for _ in range(_TOLLS):
        middle = at((low.toll + high.toll) / 2)
        best = min(best, middle, key=lambda r: r.bound)
        if middle.running > most:
            low = middle
        else:
            high = middle
        if low.running - high.running <= max(1.0, most * _NEAR_MOST):
            break
    return high, low, best


def _picks(
    hulls: _Hulls, under: _Relaxed, over: _Relaxed | None, most: int | None, n: int
) -> list[NDArray[np.bool_]]:
    """Return sets of keywords worth fitting bids for, each of at most so many."""
    if over is None or most is None:
        return [np.ones(n, dtype=bool)]
    picks = []
    for one in (under, over):
        starts = np.flatnonzero(one.steps.starts)
        taken = one.taken.spend[starts]
        # those that run come first, then the next best
        order = np.lexsort((np.arange(len(starts)), taken <= 0))
        rows = np.zeros(n, dtype=bool)
        rows[one.steps.owner[starts[order[:most]]]] = True
        picks.append(rows)
    if most > _FEW:
        return picks
    best = np.maximum.reduceat(hulls.value_so_far, hulls.first)
    rows = np.zeros(n, dtype=bool)
    rows[hulls.choices.hull.owner[hulls.first[np.argsort(-best, kind="stable")[:most]]]] = True
    return [*picks, rows]


class _Search:
    """The best answer found so far."""

    def __init__(
        self, problem: Problem, choices: Choices, parts: Parts, goal: Floats, most: int | None
    ) -> None:
        self.problem, self.choices, self.parts = problem, choices, parts
        self.goal, self.most = goal, most
        self.chosen = np.full(len(problem.mu), -1, dtype=np.int64)
        self.value = -np.inf if (parts.least > 0).any() else 0.0
        self._part = parts.of_row[choices.options.owner]

    def try_rows(self, hulls: _Hulls, rows: NDArray[np.bool_]) -> None:
        """Fit bids for some keywords and keep them if they bring more."""
        hull, order = self.choices.hull, self.choices.order
        mine = order[rows[hull.owner[order]]]
        returns = self.choices.returns[rows[hull.owner[order]]]
        parts = self._rounded_up(hulls.part[mine], hull.spend[mine])
        taken = take(parts, hulls.part[mine], hull.spend[mine], returns)
        whole = taken.spend >= hull.spend[mine] * (1 - _EDGE)
        chosen = np.full(len(self.chosen), -1, dtype=np.int64)
        chosen[hull.owner[mine[whole]]] = hull.option[mine[whole]]
        self._fill(chosen, rows)
        if self.most is not None and self.most <= _FEW:
            self._exchange(chosen)
        at = chosen[chosen >= 0]
        spent = np.bincount(self._part[at], self.choices.options.spend[at],
                            minlength=len(self.parts.least))  # fmt: skip
        value = float(self.goal[at].sum())
        if value > self.value and (spent >= self.parts.least * (1 - _EDGE)).all():
            self.chosen, self.value = chosen, value

    def finish(self, relaxed: _Relaxed, close: float) -> float:
        """Close the gap with a small exact problem, and return the bound it proves."""
        options = self.choices.options
        money = relaxed.taken.part_return[self._part]
        price = self.goal - money * options.spend - relaxed.toll
        reduced = Reduced(
            owner=options.owner,
            spend=options.spend,
            goal=self.goal,
            net=price,
            part=self._part,
            parts=self.parts,
            most=self.most,
        )
        known = self.value if np.isfinite(self.value) else None
        solved = solve_reduced(reduced, relaxed.bound, known, close / 2)
        if solved.chosen is not None:
            self.chosen = np.full(len(self.chosen), -1, dtype=np.int64)
            self.chosen[options.owner[solved.chosen]] = solved.chosen
            self.value = float(self.goal[solved.chosen].sum())
        if not np.isfinite(self.value):
            self.value = float(self.goal[self.chosen[self.chosen >= 0]].sum())
        return solved.bound

    def _rounded_up(self, part: Ints, spend: Floats) -> Parts:
        """Raise each least to the end of the step it falls in, so that whole steps meet it."""
        least = self.parts.least.copy()
        for number in np.flatnonzero(least > 0).tolist():
            so_far = np.cumsum(spend[part == number])
            at = int(np.searchsorted(so_far, least[number] * (1 - _EDGE)))
            if at < len(so_far) and so_far[at] <= self.parts.most[number]:
                least[number] = so_far[at]
        return replace(self.parts, least=least)

    def _fill(self, chosen: Ints, rows: NDArray[np.bool_]) -> None:
        """Take the best single moves that the rest of the money allows; `chosen` is changed."""
        options, parts = self.choices.options, self.parts
        at = np.flatnonzero(chosen >= 0)
        spent, brings = np.zeros(len(chosen)), np.zeros(len(chosen))
        spent[at], brings[at] = options.spend[chosen[at]], self.goal[chosen[at]]
        in_part = np.bincount(parts.of_row, spent, minlength=len(parts.most)).astype(np.float64)
        room = self._room(in_part)
        # room only shrinks, so nothing that doesn't fit now ever will
        limit = np.where(rows, spent + room[parts.of_row], -1.0)
        mine = np.flatnonzero(options.spend <= limit[options.owner])
        mine = mine[self.goal[mine] > brings[options.owner[mine]]]
        owner, part = options.owner[mine], self._part[mine]
        d_spend, d_goal = options.spend[mine] - spent[owner], self.goal[mine] - brings[owner]
        for _ in range(_MOVES):
            gain = np.where(d_spend <= room[part] + _EDGE * (d_spend < 0), d_goal, -np.inf)
            best = int(gain.argmax()) if len(gain) else -1
            if best < 0 or gain[best] <= 0:
                return
            took, more = float(d_spend[best]), float(d_goal[best])
            chosen[owner[best]] = mine[best]
            in_part[part[best]] += took
            room = self._room(in_part)
            same = owner == owner[best]
            d_spend[same] -= took
            d_goal[same] -= more

    def _exchange(self, chosen: Ints) -> None:
        """Put another keyword in the place of one, as long as that brings more."""
        options = self.choices.options
        if len(self.parts.most) > 1 or not len(options.owner):
            return  # one keyword's money may then lie in another part than the other's
        for _ in range(_EXCHANGES):
            rows = np.flatnonzero(chosen >= 0)
            spend, goal = options.spend[chosen[rows]], self.goal[chosen[rows]]
            rest = self.parts.purse - float(spend.sum())
            out = np.flatnonzero(chosen[options.owner] < 0)
            best, place, with_ = _EDGE, -1, -1
            for at in range(len(rows)):
                fits = out[options.spend[out] <= rest + spend[at]]
                if len(fits):
                    top = int(fits[self.goal[fits].argmax()])
                    gain = float(self.goal[top] - goal[at])
                    if gain > best:
                        best, place, with_ = gain, int(rows[at]), top
            if place < 0:
                return
            chosen[place] = -1
            chosen[options.owner[with_]] = with_
            self._fill(chosen, chosen >= 0)

    def _room(self, in_part: Floats) -> Floats:
        """Return the money left for each part: its own, its side's and the purse's."""
        parts = self.parts
        in_side = np.bincount(parts.side, in_part, minlength=len(parts.side_most))
        side = (parts.side_most - in_side)[parts.side]
        rest = parts.purse - float(in_part.sum())
        return np.minimum(np.minimum(parts.most - in_part, side), rest).astype(np.float64)


def _picked_ladder(
    problem: Problem, choices: Choices, chosen: Ints, most: int | None, parts: Parts
) -> Ladder:
    """Return the ladder of the keywords picked, as far as their campaigns may go."""
    hull, order = choices.hull, choices.order
    mine = np.ones(len(order), dtype=bool)
    if most is not None:
        mine = (chosen >= 0)[hull.owner[order]]
    steps, returns = order[mine], choices.returns[mine]
    part = parts.of_row[hull.owner[steps]]
    fits = np.ones(len(steps), dtype=bool)
    for number in np.flatnonzero(np.isfinite(parts.most)).tolist():
        at = np.flatnonzero(part == number)
        fits[at] = np.cumsum(hull.spend[steps[at]]) <= parts.most[number] * (1 + _EDGE)
    locked = problem.locked_spend.sum(), problem.locked_value.sum()
    return ladder_of(choices, steps[fits], returns[fits], float(locked[0]), float(locked[1]))


def _within(values: Floats, start: Ints) -> Floats:
    """Return running sums that start anew where each group starts."""
    total = np.cumsum(values)
    before = total[start] - values[start] if len(start) else total
    return total - before
