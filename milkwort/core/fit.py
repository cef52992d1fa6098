"""Choosing bids so that the money goes where it brings most.

A multiple-choice knapsack: each keyword takes one bid or does not run, the sum of their
spend stays within the purse. Steps along the upper concave hulls are taken by falling
return; that order gives the relaxation's bound, the frontier and the ladder at once. What
money is left goes to the best single moves, and where a gap stays it is closed exactly.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from milkwort.core._exact import finish
from milkwort.core._options import Hull, Options, hull_of, options_of
from milkwort.core.assumptions import Assumed
from milkwort.core.keyword_table import Floats, Ints

__all__ = ["Fit", "Ladder", "Problem", "WouldBring", "fit", "would_bring"]

_CLOSE = 5e-6
"""A gap under this share of the bound needs no exact finish."""
_ENOUGH = 1e-7
_MOVES = 24
_SLACK = 1e-9


@dataclass(frozen=True)
class Problem:
    """What the fit is given; arrays of shape (n_keywords,).

    Attributes
    ----------
    mu, sigma, click_weight, ceiling : Floats
        The market, Q and the highest price of each keyword.
    value_per_click : Floats
        Goal a click brings, before its price is taken off.
    less_spend : bool
        Whether the goal is what is left after the spend (profit).
    worth_per_click : Floats
        The most that one more click may cost, A·rate or V·m·k·rate.
    purse : float
        Money a month.
    locked_steps : Ints
        A bid set by hand in whole steps, −1 for none.
    locked_clicks, locked_spend : Floats
        What those bring a month; 0 elsewhere.
    pricing : str
    assumed : Assumed
    """

    mu: Floats
    sigma: Floats
    click_weight: Floats
    ceiling: Floats
    value_per_click: Floats
    less_spend: bool
    worth_per_click: Floats
    purse: float
    locked_steps: Ints
    locked_clicks: Floats
    locked_spend: Floats
    pricing: str
    assumed: Assumed

    def value(self, owner: Ints, clicks: Floats, spend: Floats) -> Floats:
        """Return the goal of some clicks and spend, row by row."""
        gross = self.value_per_click[owner] * clicks
        return gross - spend if self.less_spend else gross


@dataclass(frozen=True)
class Ladder:
    """Every step the money may take, best first; arrays of shape (n_steps,).

    Attributes
    ----------
    owner : Ints
        The keyword.
    from_steps, to_steps : Ints
        Bids in whole steps; 0 for not running.
    spend, value : Floats
        What the step adds, a month.
    spend_so_far, value_so_far : Floats
        Sums including this step and the locked bids.
    base_spend, base_value : float
        What the locked bids alone cost and bring.
    """

    owner: Ints
    from_steps: Ints
    to_steps: Ints
    spend: Floats
    value: Floats
    spend_so_far: Floats
    value_so_far: Floats
    base_spend: float
    base_value: float

    def whole_steps(self, money: float) -> int:
        """Return how many steps a sum of money, locked bids included, takes whole."""
        return int(np.searchsorted(self.spend_so_far, money + _SLACK, side="right"))

    def relaxed(self, money: float) -> float:
        """Return the best goal a sum of money would bring were steps divisible."""
        whole = self.whole_steps(money)
        value = float(self.value_so_far[whole - 1]) if whole else self.base_value
        if whole == len(self.owner):
            return value
        spent = float(self.spend_so_far[whole - 1]) if whole else self.base_spend
        return value + self.return_at(whole) * max(money - spent, 0.0)

    def return_at(self, step: int) -> float:
        """Return the goal per unit of money of one step."""
        return float(self.value[step] / self.spend[step])


@dataclass(frozen=True)
class Fit:
    """Bids that make most of the purse.

    Attributes
    ----------
    steps : Ints, shape (n_keywords,)
        Bids in whole steps, 0 for not running.
    value, spend : float
        Goal and money a month.
    bound : float
        No choice of these bids brings more (linear relaxation).
    exact : bool
        Whether the answer was finished exactly, or meets the bound.
    next_unit : float
        What one more unit of money would bring.
    next_return : float
        Goal per unit of money at the purse's edge; 0 where money is left.
    unspent : float
        Money that no step worth its price could use.
    ladder : Ladder
    """

    steps: Ints
    value: float
    spend: float
    bound: float
    exact: bool
    next_unit: float
    next_return: float
    unspent: float
    ladder: Ladder

    @property
    def gap(self) -> float:
        """How far the value may lie below the best, as a share of the bound."""
        return (self.bound - self.value) / self.bound if self.bound > 0 else 0.0


@dataclass(frozen=True)
class WouldBring:
    """The best answer of each keyword at a given return; arrays of shape (n_rows,).

    Attributes
    ----------
    steps : Ints
        The bid, 0 where it would not run.
    clicks, spend, value : Floats
        A month.
    """

    steps: Ints
    clicks: Floats
    spend: Floats
    value: Floats


def fit(problem: Problem, kept: NDArray[np.bool_]) -> Fit:
    """Choose bids for the kept keywords.

    Parameters
    ----------
    problem : Problem
    kept : ndarray of bool, shape (n_keywords,)
        Which keywords may run; those with a locked bid always do.

    Returns
    -------
    Fit
        The gap is at most 0.2 %, or the answer is exact.
    """
    options, hull = _choices(problem, kept)
    ladder, order = _ladder(problem, options, hull)
    base_spend, base_value = ladder.base_spend, ladder.base_value
    limit = max(problem.purse, base_spend)
    purse = limit - base_spend
    taken = ladder.whole_steps(limit)
    bound = ladder.relaxed(limit)
    chosen = np.full(len(kept), -1, dtype=np.int64)
    chosen[ladder.owner[:taken]] = hull.option[order[:taken]]
    spend = float(ladder.spend_so_far[taken - 1]) if taken else base_spend
    value = float(ladder.value_so_far[taken - 1]) if taken else base_value
    value = _use_rest(problem, options, chosen, spend, value, limit, bound)
    in_full = taken == len(ladder.owner)
    lam = 0.0 if in_full else ladder.return_at(taken)
    exact = in_full
    if not in_full and bound - value > _CLOSE * bound:
        goal = problem.value(options.owner, options.clicks, options.spend)
        exact = finish(options, goal, chosen, purse, lam, bound - base_value).exact
    at = chosen[chosen >= 0]
    spend = base_spend + float(options.spend[at].sum())
    value = base_value + float(
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
        next_unit=ladder.relaxed(limit + 1.0) - bound,
        next_return=lam,
        unspent=max(problem.purse - spend, 0.0),
        ladder=ladder,
    )


def would_bring(problem: Problem, rows: Ints, lam: float) -> WouldBring:
    """Return what keywords would add at the present return of money.

    Parameters
    ----------
    problem : Problem
    rows : Ints, shape (n_rows,)
        The keywords to ask about.
    lam : float
        Goal per unit of money at the purse's edge.

    Returns
    -------
    WouldBring
        In the order of `rows`.
    """
    mask = np.zeros(len(problem.mu), dtype=bool)
    mask[rows] = True
    options, hull = _choices(problem, mask)
    step_value = problem.value(hull.owner, hull.clicks, hull.spend)
    worth_taking = hull.option[step_value >= lam * hull.spend]
    best = np.full(len(problem.mu), -1, dtype=np.int64)
    best[options.owner[worth_taking]] = worth_taking  # rising bids: the last one stands
    at = best[rows]
    runs = at >= 0
    steps = np.zeros(len(rows), dtype=np.int64)
    clicks, spend, value = (np.zeros(len(rows)) for _ in range(3))
    picked = at[runs]
    steps[runs] = options.steps[picked]
    clicks[runs] = options.clicks[picked]
    spend[runs] = options.spend[picked]
    value[runs] = problem.value(options.owner[picked], clicks[runs], spend[runs])
    return WouldBring(steps, clicks, spend, value)


def _choices(problem: Problem, kept: NDArray[np.bool_]) -> tuple[Options, Hull]:
    rows = np.flatnonzero(kept & (problem.locked_steps < 0) & np.isfinite(problem.mu))
    options = options_of(
        rows,
        problem.mu,
        problem.sigma,
        problem.click_weight,
        problem.ceiling,
        problem.pricing,
        problem.assumed,
    )
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


def _ladder(problem: Problem, options: Options, hull: Hull) -> tuple[Ladder, Ints]:
    value = problem.value(hull.owner, hull.clicks, hull.spend)
    order = np.argsort(-value / hull.spend)
    base_spend, base_value = _locked(problem)
    spend, value = hull.spend[order], value[order]
    before = hull.before[order]
    from_steps = np.where(before >= 0, options.steps[np.maximum(before, 0)], 0) if len(order) else (
        np.zeros(0, dtype=np.int64)
    )  # fmt: skip
    return Ladder(
        owner=hull.owner[order],
        from_steps=from_steps,
        to_steps=options.steps[hull.option[order]],
        spend=spend,
        value=value,
        spend_so_far=base_spend + np.cumsum(spend),
        value_so_far=base_value + np.cumsum(value),
        base_spend=base_spend,
        base_value=base_value,
    ), order


def _locked(problem: Problem) -> tuple[float, float]:
    spend = float(problem.locked_spend.sum())
    value = float((problem.value_per_click * problem.locked_clicks).sum())
    return spend, value - spend if problem.less_spend else value


def _use_rest(
    problem: Problem,
    options: Options,
    chosen: Ints,
    spend: float,
    value: float,
    purse: float,
    bound: float,
) -> float:
    """Take the best single moves that the rest of the money allows; `chosen` is changed."""
    owner, goal = options.owner, problem.value(options.owner, options.clicks, options.spend)
    now = chosen[owner] if len(owner) else chosen[:0]
    held = now >= 0
    d_spend = options.spend - np.where(held, options.spend[now], 0.0)
    d_goal = goal - np.where(held, goal[now], 0.0)
    for _ in range(_MOVES):
        if bound - value <= _ENOUGH * abs(bound):
            break
        gain = np.where(d_spend <= purse - spend, d_goal, -np.inf)
        best = int(gain.argmax()) if len(gain) else -1
        if best < 0 or gain[best] <= 0:
            break
        spend, value = spend + float(d_spend[best]), value + float(d_goal[best])
        chosen[owner[best]] = best
        mine = slice(*np.searchsorted(owner, [owner[best], owner[best] + 1]))
        d_spend[mine] = options.spend[mine] - options.spend[best]
        d_goal[mine] = goal[mine] - goal[best]
    return value
