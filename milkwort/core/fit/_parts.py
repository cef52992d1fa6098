"""Money divided among campaigns: which share of each step the limits leave room for."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit._problem import Problem
from milkwort.core.fit.tolerances import EXACT_ROUNDING, ROUNDING

__all__ = ["Parts", "Taken", "parts_of", "take"]


@dataclass(frozen=True)
class Parts:
    """The parts that money is limited in, and what is left of each after the locked bids.

    Every part lies in one side (the scouting side or the other), every side in the purse.

    Attributes
    ----------
    of_row : Ints, shape (n_keywords,)
        The part of each keyword.
    campaign : Ints, shape (n_parts,)
        Its campaign number; −1 for all that no limit names.
    least, most : Floats, shape (n_parts,)
        Money a month still to be spent at least and at most.
    side : Ints, shape (n_parts,)
    side_most : Floats, shape (n_sides,)
    purse : float
        Money a month above what locked bids take.
    """

    of_row: Ints
    campaign: Ints
    least: Floats
    most: Floats
    side: Ints
    side_most: Floats
    purse: float


@dataclass(frozen=True)
class Taken:
    """What of each step divisible money would take, and the price of every limit.

    Attributes
    ----------
    spend : Floats, shape (n_steps,)
        Money a month, at most the step's own.
    value : float
        Goal a month.
    purse_return : float
        Goal that one more unit in the purse would bring; 0 where money is left.
    side_return, part_return : Floats
        Goal per unit at the edge of each side and part: what a step there must bring.
    """

    spend: Floats
    value: float
    purse_return: float
    side_return: Floats
    part_return: Floats


def parts_of(problem: Problem, purse: float) -> Parts:
    """Divide the money of a problem as its limits say.

    Parameters
    ----------
    problem : Problem
    purse : float
        Money a month, what locked bids take included.
    """
    limits = problem.limits
    named = sorted({*limits.campaigns, *(() if limits.scouting is None else (limits.scouting,))})
    campaign = np.array([-1, *named], dtype=np.int64)
    of_row = np.zeros(len(problem.mu), dtype=np.int64)
    for number, name in enumerate(named, start=1):
        of_row[problem.campaign == name] = number
    locked = np.bincount(of_row, problem.locked_spend, minlength=len(campaign))
    least, most = limits.least_of(campaign), limits.most_of(campaign)
    side = (campaign == limits.scouting).astype(np.int64) if limits.scouting is not None else (
        np.zeros(len(campaign), dtype=np.int64)
    )  # fmt: skip
    side_most = np.array([np.inf])
    if limits.scouting is not None:
        share = limits.scouting_share
        in_side = np.bincount(side, locked, minlength=2)
        side_most = np.maximum(np.array([purse * (1 - share), purse * share]) - in_side, 0.0)
    return Parts(
        of_row=of_row,
        campaign=campaign,
        least=np.maximum(least - locked, 0.0),
        most=np.maximum(most * (1 + EXACT_ROUNDING) - locked, 0.0),
        side=side,
        side_most=side_most,
        purse=max(purse - float(locked.sum()), 0.0),
    )


def attainable(parts: Parts, part: Ints, spend: Floats) -> Parts:
    """Lower each least to what its part's steps can spend at all."""
    there = np.bincount(part, spend, minlength=len(parts.least))
    return replace(parts, least=np.minimum(parts.least, np.minimum(there, parts.most)))


def take(parts: Parts, part: Ints, spend: Floats, returns: Floats) -> Taken:
    """Spend the money on steps given best first, as if they were divisible.

    Limits nest, and steps get dearer, so taking the best step that every limit leaves
    room for is the best there is.

    Parameters
    ----------
    parts : Parts
    part : Ints, shape (n_steps,)
        The part each step's keyword lies in.
    spend, returns : Floats, shape (n_steps,)
        Money a month, and goal per unit of it, falling.
    """
    n_parts, n_sides = len(parts.most), len(parts.side_most)
    room, forced = np.zeros(len(spend)), np.zeros(len(spend))
    part_return = np.zeros(n_parts)
    for number in range(n_parts):
        mine = np.flatnonzero(part == number) if n_parts > 1 else np.arange(len(part))
        before = np.cumsum(spend[mine]) - spend[mine]
        room[mine] = np.clip(parts.most[number] - before, 0.0, spend[mine])
        forced[mine] = np.clip(parts.least[number] - before, 0.0, room[mine])
        part_return[number] = _cut_at(room[mine], spend[mine], returns[mine])
    forced = _clipped(forced, parts.purse)
    free = room - forced
    side_of = parts.side[part]
    side_return = np.zeros(n_sides)
    for number in range(n_sides):
        mine = np.flatnonzero(side_of == number) if n_sides > 1 else np.arange(len(part))
        wanted = free[mine]
        free[mine] = _clipped(wanted, parts.side_most[number] - float(forced[mine].sum()))
        side_return[number] = _cut_at(free[mine], wanted, returns[mine])
    wanted = free
    free = _clipped(wanted, parts.purse - float(forced.sum()))
    purse_return = _cut_at(free, wanted, returns)
    side_return = np.maximum(side_return, purse_return)
    part_return = np.maximum(part_return, side_return[parts.side])
    for number in np.flatnonzero(parts.least > 0).tolist():
        held = returns[(part == number) & (forced > 0)]
        if len(held):
            part_return[number] = min(part_return[number], float(held[-1]))
    spent = forced + free
    return Taken(spent, float((spent * returns).sum()), purse_return, side_return, part_return)


def _clipped(wanted: Floats, most: float) -> Floats:
    """Take from the front until a sum is reached."""
    return np.clip(most - (np.cumsum(wanted) - wanted), 0.0, wanted)


def _cut_at(taken: Floats, wanted: Floats, returns: Floats) -> float:
    """Return the return of the first step that is not taken whole; 0 where all are."""
    cut = taken < wanted - ROUNDING * (1 + wanted)
    first = int(cut.argmax()) if len(cut) else 0
    return float(returns[first]) if len(cut) and cut[first] else 0.0
