"""The fit asked the other way round: how much money a goal takes."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from milkwort.core.arrays import Ints
from milkwort.core.brief.kinds import Goal
from milkwort.core.fit.fit import Fit, fit
from milkwort.core.fit.tolerances import CURVE_CLOSE, MANY_LIMITED
from milkwort.core.plan.run import PlanResult, run_plan

__all__ = ["LeastMoney", "MoneyForClicks", "least_money", "money_for_clicks"]

_CENT = 0.01
_NEAR = 1e-3
_TRIES = 4
_REACHED = 1e-9
"""A goal is reached where no more than this share of it is missing."""


@dataclass(frozen=True)
class LeastMoney:
    """The smallest purse that brings a goal.

    Attributes
    ----------
    purse : float or None
        Money a month, to the cent, and under limits to a thousandth where there are thousands
        of keywords; None where the goal lies above what any purse brings.
    most : float
        What any purse brings at most, a month.
    saturation : float
        The purse, to the cent, that brings it.
    """

    purse: float | None
    most: float
    saturation: float


def least_money(result: PlanResult, wanted: float, goal: Goal | None = None) -> LeastMoney:
    """Return the smallest purse whose fit reaches a goal, under the plan's limits.

    Parameters
    ----------
    result : PlanResult
    wanted : float
        Of the goal, a month.
    goal : Goal, optional
        What is wanted; the plan's own goal where left out.
    """
    if goal is not None and goal != result.brief.goal:
        result = run_plan(replace(result.brief, goal=goal), result.table, result)
    most_purse = _saturation(result)
    many = result.problem.limits.any and len(result.table) > MANY_LIMITED
    most = _value(result, most_purse, quick=many)
    enough = wanted * (1 - _REACHED)
    base = _floor(result)
    if most < enough:
        does = most_purse if many else _least(result, most * (1 - _REACHED), base, most_purse)
        return LeastMoney(None, most, does)
    return LeastMoney(_least(result, enough, base, most_purse), most, most_purse)


def _least(result: PlanResult, enough: float, low: float, high: float) -> float:
    """Return the smallest sum that does, between one that is too small and one that does."""
    if result.problem.limits.any and len(result.table) > MANY_LIMITED:
        return _near(result, enough, low, high)
    if not result.problem.limits.any:
        low, high = _bracket(result, enough, low, high)
    least, most = int(np.floor(low / _CENT)), int(np.ceil(high / _CENT - _REACHED))
    while least < most:
        middle = (least + most) // 2
        if _reaches(result, middle * _CENT, enough):
            most = middle
        else:
            least = middle + 1
    return round(most * _CENT, 2)


def _bracket(result: PlanResult, enough: float, low: float, high: float) -> tuple[float, float]:
    """Narrow the sums by the ladder: whole steps that reach it do; divisible ones that don't,
    don't.
    """
    ladder = result.fit.ladder
    at = int(np.searchsorted(ladder.value_so_far, enough))
    if at == len(ladder.steps):
        return low, high
    before = float(ladder.value_so_far[at - 1]) if at else ladder.base_value
    spent = float(ladder.spend_so_far[at - 1]) if at else ladder.base_spend
    if enough > before:
        low = max(low, spent + (enough - before) / ladder.return_at(at) - _CENT)
    return low, min(high, float(ladder.spend_so_far[at]))


def _near(result: PlanResult, enough: float, low: float, high: float) -> float:
    """Return a sum that does, close to the smallest: each fit of so many takes its time.

    The goal grows about as the root of the money does, so the next sum to try is read off the
    straight line between the roots of one that is too small and one that does.
    """
    purse, brings = result.brief.monthly_spend, result.fit.value
    ends = {low: 0.0, high: _value(result, high, quick=True)} | {purse: brings}
    for _ in range(_TRIES):
        low = max(p for p, v in ends.items() if v < enough)
        high = min(p for p, v in ends.items() if v >= enough)
        if high - low <= _NEAR * high:
            break
        share = (enough - ends[low]) / max(ends[high] - ends[low], 1e-300)
        root = np.sqrt(low) + min(max(share, 0.05), 0.95) * (np.sqrt(high) - np.sqrt(low))
        tried = float(np.ceil(root**2 / _CENT) * _CENT)
        if tried in ends:
            break
        ends[tried] = _value(result, tried, quick=True)
    return round(min(p for p, v in ends.items() if v >= enough), 2)


def _reaches(result: PlanResult, purse: float, enough: float) -> bool:
    """Say whether the fit for a sum reaches a goal."""
    if result.problem.limits.any:
        # far from the answer a quick fit tells: what it found can be had, its bound can't be passed
        quick = _fitted(result, purse, quick=True)
        if quick.bound < enough:
            return False
        if quick.value >= enough and not quick.unmet:
            return True
    return _fitted(result, purse).value >= enough


def _value(result: PlanResult, purse: float, *, quick: bool = False) -> float:
    return _fitted(result, purse, quick=quick).value


def _fitted(result: PlanResult, purse: float, *, quick: bool = False) -> Fit:
    asked = replace(result.problem, purse=purse)
    if quick:
        return fit(asked, result.may_run, result.fit.choices, close=CURVE_CLOSE, finish=False)
    return fit(asked, result.may_run, result.fit.choices)


def _floor(result: PlanResult) -> float:
    """Return the money that bids set by hand take whatever is wanted."""
    return float(result.problem.locked_spend.sum())


def _saturation(result: PlanResult) -> float:
    """Return a purse, in whole cents, above which nothing is gained."""
    choices = result.fit.choices
    everything = float(choices.hull.spend.sum()) if len(choices.options.owner) else 0.0
    share = result.problem.limits.scouting_share
    side = min(share, 1 - share) if result.problem.limits.scouting is not None else 1.0
    whole = (everything + _floor(result)) / (side if 0 < side < 1 else 1.0)
    return float(np.ceil(whole / _CENT + _REACHED) * _CENT)


@dataclass(frozen=True)
class MoneyForClicks:
    """What it takes to show every kept keyword often enough to learn of it.

    Attributes
    ----------
    spend : float
        Money a month: of each keyword the cheapest bid that brings the clicks.
    keywords : int
        How many are counted in it.
    too_few : Ints
        Kept rows that can't have so many clicks under their ceilings.
    """

    spend: float
    keywords: int
    too_few: Ints


def money_for_clicks(result: PlanResult, clicks: float) -> MoneyForClicks:
    """Return the least money that brings every kept keyword at least so many clicks.

    Parameters
    ----------
    result : PlanResult
    clicks : float
        A month, for each keyword.
    """
    options = fit(
        replace(result.problem, limits=replace(result.problem.limits, min_clicks=0.0)),
        result.may_run,
    ).choices.options
    n = len(result.table)
    enough = (options.clicks >= clicks * (1 - _REACHED)) & (options.owner < n)
    least = np.full(n, np.inf)
    np.minimum.at(least, options.owner[enough], options.spend[enough])
    locked = result.problem.locked_steps[:n] > 0
    has = result.problem.locked_clicks[:n] >= clicks * (1 - _REACHED)
    least[locked] = np.where(has, result.problem.locked_spend[:n], np.inf)[locked]
    mine = result.table.kept & result.may_run[:n]
    found = mine & np.isfinite(least)
    return MoneyForClicks(
        spend=float(least[found].sum()),
        keywords=int(found.sum()),
        too_few=np.flatnonzero(mine & ~np.isfinite(least)),
    )
