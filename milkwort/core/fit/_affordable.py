"""What there is money for: a choice that alone costs more than the purse can be in no answer."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit._choices import Choices, falling, returns_of
from milkwort.core.fit._problem import Problem
from milkwort.core.fit.options import Hull, Options, hull_of
from milkwort.core.fit.tolerances import ROUNDING

__all__ = ["Affordable", "affordable"]


@dataclass(frozen=True)
class Affordable:
    """Choices without those that are out of reach.

    Attributes
    ----------
    choices : Choices
    number : Ints
        Of each option among all options.
    """

    choices: Choices
    number: Ints


def affordable(problem: Problem, choices: Choices, room: float) -> Affordable | None:
    """Leave out what alone costs more than there is.

    A relaxation may take a part of any step: where one keyword's bid would take many purses, a
    part of it promises what no bid brings, and the gap to it can't be closed. Without such
    steps the bound is that of choices that can be made.

    Parameters
    ----------
    problem : Problem
    choices : Choices
    room : float
        Money a month.

    Returns
    -------
    Affordable or None
        None where everything is within reach.
    """
    options, hull = choices.options, choices.hull
    dear = options.spend > room * (1 + ROUNDING)
    if not dear.any():
        return None
    stays = np.flatnonzero(~dear)
    left = Options(*(column[stays] for column in vars(options).values()))
    new_number = np.cumsum(~dear) - 1
    touched = np.zeros(int(options.owner.max()) + 1, dtype=bool)
    touched[options.owner[dear]] = True
    is_spot = hull.owner >= problem.keywords
    # a spot's steps are all alike: what is dear is cut off their end
    same = np.where(is_spot, ~dear[hull.option], ~touched[hull.owner])
    kept = _numbered(hull, same, new_number)
    anew = _anew(problem, left, touched)
    joined = Hull(*map(np.concatenate, zip(vars(kept).values(), vars(anew).values(), strict=True)))
    returns = returns_of(problem, joined)
    order = falling(returns)
    return Affordable(
        replace(choices, options=left, hull=joined, order=order, returns=returns[order]), stays
    )


def _numbered(hull: Hull, which: NDArray[np.bool_], number: Ints) -> Hull:
    some = Hull(*(column[which] for column in vars(hull).values()))
    before = np.where(some.before >= 0, number[np.maximum(some.before, 0)], -1)
    return replace(some, option=number[some.option], before=before)


def _anew(problem: Problem, left: Options, touched: NDArray[np.bool_]) -> Hull:
    """Return the hull steps of keywords that lost options."""
    at = np.flatnonzero(touched[left.owner] & (left.owner < problem.keywords))
    hull = hull_of(Options(*(column[at] for column in vars(left).values())))
    worth: Floats = problem.worth_per_click[hull.owner] * hull.clicks * (1 + ROUNDING)
    within = hull.spend <= worth
    return _numbered(hull, within, at)
