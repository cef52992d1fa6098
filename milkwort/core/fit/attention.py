"""What looking after fewer keywords costs: the best goal with at most so many."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core.fit.fit import Fit, Problem, fit
from milkwort.core.fit.tolerances import CURVE_CLOSE

__all__ = ["ATTENTION", "AttentionPoint", "attention"]

ATTENTION: tuple[int, ...] = (1, 2, 3, 5, 8, 12, 20, 30, 50, 80, 120, 300, 1000)
"""Numbers of keywords that the attention curve is worked out for."""


@dataclass(frozen=True)
class AttentionPoint:
    """The best goal a month with at most so many keywords.

    Attributes
    ----------
    keywords : int
    value : float
    gap : float
        How far the value may lie below the best, as a share of what none passes.
    """

    keywords: int
    value: float
    gap: float


def attention(problem: Problem, kept: NDArray[np.bool_], fitted: Fit) -> list[AttentionPoint]:
    """Return the best goal with at most so many keywords looked after.

    Parameters
    ----------
    problem : Problem
    kept : ndarray of bool
    fitted : Fit
        The fit of the same problem.

    Returns
    -------
    list of AttentionPoint
        Keywords and goal rising; ends with what the fit itself runs. With fewer keywords than
        it takes to keep a least spend that the fit keeps, there is no answer, and no point.
    """
    running = int((fitted.steps[: problem.keywords] > 0).sum())
    curve: list[AttentionPoint] = []
    for most in ATTENTION:
        if most >= running:
            break
        limits = replace(problem.limits, max_keywords=most)
        some = fit(
            replace(problem, limits=limits), kept, fitted.choices, close=CURVE_CLOSE, finish=False
        )
        if len(some.unmet) > len(fitted.unmet):
            continue
        value = max(some.value, curve[-1].value if curve else 0.0)
        bound = min(max(some.bound, value), max(fitted.bound, value))
        curve.append(AttentionPoint(most, value, (bound - value) / bound if bound > 0 else 0.0))
    last = AttentionPoint(running, fitted.value, fitted.gap)
    return [*curve, last] if running else curve
