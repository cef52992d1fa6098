"""Limits of a plan that could not be kept, and by how much."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit._problem import Problem
from milkwort.core.fit.tolerances import ROUNDING

__all__ = ["Unmet", "unmet_of"]


@dataclass(frozen=True)
class Unmet:
    """One limit.

    Attributes
    ----------
    limit : str
        ``max_keywords``, ``least_spend``, ``most_spend`` or ``scouting_share``.
    campaign : int
        Number of the campaign concerned; −1 for none.
    wanted, got : float
        Keywords, or money a month.
    """

    limit: str
    campaign: int
    wanted: float
    got: float


def unmet_of(problem: Problem, steps: Ints, spend: Floats) -> tuple[Unmet, ...]:
    """Hold an answer against the limits.

    Parameters
    ----------
    problem : Problem
    steps : Ints, shape (n_keywords,)
        Bids in whole steps, 0 for not running.
    spend : Floats, shape (n_keywords,)
        Money a month.
    """
    limits = problem.limits
    found = []
    running = int((steps[: problem.keywords] > 0).sum())
    if limits.max_keywords is not None and running > limits.max_keywords:
        found.append(Unmet("max_keywords", -1, limits.max_keywords, running))
    for number, limit in sorted(limits.campaigns.items()):
        got = float(spend[problem.campaign == number].sum())
        if got < limit.least * (1 - ROUNDING):
            found.append(Unmet("least_spend", number, limit.least, got))
        if got > limit.most * (1 + ROUNDING):
            found.append(Unmet("most_spend", number, limit.most, got))
    if limits.scouting is not None:
        found += _scouting(problem, spend)
    return tuple(found)


def _scouting(problem: Problem, spend: Floats) -> list[Unmet]:
    """Say where one side of the scouting share takes money that is the other's."""
    share, number = problem.limits.scouting_share, problem.limits.scouting
    inside = problem.campaign == number
    sides = ((number or 0, inside, share), (-1, ~inside, 1 - share))
    found = []
    for campaign, rows, part in sides:
        wanted, got = part * problem.purse, float(np.sum(spend[rows]))
        if got > wanted * (1 + ROUNDING) + ROUNDING:
            found.append(Unmet("scouting_share", campaign, wanted, got))
    return found
