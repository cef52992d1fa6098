"""What looking after fewer keywords costs: the best goal with at most so many."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core.fit import Fit, Problem, fit

__all__ = ["ATTENTION", "attention"]

ATTENTION: tuple[int, ...] = (1, 2, 3, 5, 8, 12, 20, 30, 50, 80, 120, 300, 1000)
"""Numbers of keywords that the attention curve is worked out for."""
_CLOSE = 2e-3
"""Under so many limits in a row, the share of the bound that is near enough."""


def attention(problem: Problem, kept: NDArray[np.bool_], fitted: Fit) -> list[tuple[int, float]]:
    """Return the best goal with at most so many keywords looked after.

    Parameters
    ----------
    problem : Problem
    kept : ndarray of bool
    fitted : Fit
        The fit of the same problem.

    Returns
    -------
    list of (int, float)
        Keywords and goal a month, both rising; ends with what the fit itself runs.
    """
    running = int((fitted.steps > 0).sum())
    curve: list[tuple[int, float]] = []
    for most in ATTENTION:
        if most >= running:
            break
        limits = replace(problem.limits, max_keywords=most)
        some = fit(replace(problem, limits=limits), kept, fitted.choices, close=_CLOSE)
        curve.append((most, max(some.value, curve[-1][1] if curve else 0.0)))
    return [*curve, (running, fitted.value)] if running else curve
