"""The goal against the purse as a planner reads it: where it bends, and where it ends."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.brief.kinds import Goal
from milkwort.core.fit.frontier import Frontier
from milkwort.core.fit.tolerances import CURVE_CLOSE
from milkwort.core.plan.run import PlanResult, frontier_of, run_plan

__all__ = ["Curve", "curve_of", "gaps_said"]


@dataclass(frozen=True)
class Curve:
    """A frontier with its two places that have a name.

    Attributes
    ----------
    goal : Goal
    frontier : Frontier
    knee : float or None
        The purse at which the curve bends most: farthest above the straight line from nothing
        to saturation. None where there is no curve.
    saturation : float
        The purse from which on more money brings nothing.
    """

    goal: Goal
    frontier: Frontier
    knee: float | None
    saturation: float


def curve_of(result: PlanResult, goal: Goal | None = None) -> Curve:
    """Return the frontier of a plan for a goal.

    Parameters
    ----------
    result : PlanResult
    goal : Goal, optional
        The plan's own where left out.
    """
    if goal is not None and goal != result.brief.goal:
        result = run_plan(replace(result.brief, goal=goal), result.table, result)
    found = frontier_of(result)
    money, value = found.purse, found.value
    if len(money) == 0:
        return Curve(result.brief.goal, found, None, 0.0)
    # not by halving: where a least sum begins to be kept, the curve may fall
    end = int((value >= value[-1]).argmax())
    span, rise = float(money[end] - money[0]), float(value[end] - value[0])
    knee = None
    if span > 0 and rise > 0:
        above = (value - value[0]) / rise - (money - money[0]) / span
        knee = float(money[int(above[: end + 1].argmax())])
    return Curve(result.brief.goal, found, knee, float(money[end]))


def gaps_said(gap: Floats) -> Floats:
    """Return how far points may lie below the best, as it is said: 0 where none would see it.

    Parameters
    ----------
    gap : Floats
        Shares of what none passes.
    """
    return np.where(gap > CURVE_CLOSE, gap, 0.0)
