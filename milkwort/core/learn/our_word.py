"""Our word: a range that was given, held against what came."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.errors import BadValueError
from milkwort.core.learn.came import Came
from milkwort.core.learn.results import exposure_of_spans
from milkwort.core.plan.calendar import months_from
from milkwort.core.plan.draws import Range, draw_month, range_of
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.year import YearAhead

__all__ = ["PROMISED", "Score", "SoFar", "Word", "month_so_far", "score_of", "word_of"]

PROMISED: tuple[str, ...] = ("clicks", "spend", "customers", "cost_per_customer", "profit")
"""Figures that a range is given of."""
_LOW, _HIGH = 0.1, 0.9
_EDGES = 1
"""Seed of the number that settles where within an edge what came is taken to lie."""
_DELAY = 2
"""Seed of which drawn customers are reported already."""


@dataclass(frozen=True)
class Score:
    """Where a figure that came falls among the draws.

    Attributes
    ----------
    below, at : float
        Share of the draws below it, and at it.
    """

    below: float
    at: float

    def placed(self, edge: float) -> float:
        """Return the place from 0 to 1; what is at an edge of draws lies anywhere on it.

        Parameters
        ----------
        edge : float
            From 0 to 1, drawn evenly.
        """
        return self.below + edge * self.at


@dataclass(frozen=True)
class Word:
    """One figure: the range that was given, what came, and whether it held.

    Attributes
    ----------
    figure : str
        One of `PROMISED`.
    given : Range
    actual : float or None
        None for the cost of a customer where nobody bought.
    place : float
        From 0 to 1 among the draws.
    fewer, more : float
        Share of draws with as little, and with as much.
    """

    figure: str
    given: Range
    actual: float | None
    place: float
    fewer: float
    more: float

    @property
    def held(self) -> bool:
        """Whether what came fell within 8 draws of 10."""
        return _LOW <= self.place <= _HIGH


@dataclass(frozen=True)
class SoFar:
    """What was given for a month at the end of some of its days.

    Attributes
    ----------
    days : tuple of date
    ranges : dict of str to tuple of Range
        Money and customers so far, by ``spend`` and ``customers``, one for each of `days`.
    """

    days: tuple[date, ...]
    ranges: dict[str, tuple[Range, ...]]


def score_of(drawn: Floats, actual: float | None) -> Score:
    """Return the shares of draws below what came, and at it.

    Parameters
    ----------
    drawn : Floats, shape (n_draws,)
        May hold infinities: a customer's cost where nobody buys.
    actual : float or None
        None where it is without bound.

    Raises
    ------
    BadValueError
        Where nothing was drawn.
    """
    if not len(drawn):
        raise BadValueError("draws", "one or more", 0)
    if actual is None or not np.isfinite(actual):
        return Score(float((drawn < np.inf).mean()), float((drawn == np.inf).mean()))
    # money comes in whole cents, and is drawn in fractions of one
    close = 1e-9 * max(abs(actual), 1.0)
    return Score(
        float((drawn < actual - close).mean()), float((np.abs(drawn - actual) <= close).mean())
    )


def word_of(
    result: PlanResult,
    first: date,
    last: date,
    as_of: date,
    came: Came,
    count: int = 2000,
    seed: int = 1,
    still_wanted: Callable[[], bool] = lambda: True,
) -> tuple[Word, ...] | None:
    """Hold the days of a month against the ranges that its plan gives for them.

    Customers of late clicks are not all reported yet: of those drawn, as many are left out.

    Parameters
    ----------
    result : PlanResult
        For a mean month.
    first, last : date
        Of one calendar month, ends included.
    as_of : date
        Up to which is reported.
    came : Came
        Of the same days.
    count : int
        Number of draws.
    seed : int
    still_wanted : callable

    Returns
    -------
    tuple of Word, or None
        In the order of `PROMISED`; None where it was given up.

    Raises
    ------
    BadValueError
        Where the days are not of one calendar month.
    """
    if (first.year, first.month) != (last.year, last.month) or last < first:
        raise BadValueError("last day", f"a day of {first:%B %Y} from the {first.day}. on", last)
    drawn = draw_month(_part(result, first, last), count, seed, still_wanted)
    if drawn is None:
        return None
    figures = dict(drawn.figures)
    share = _reported(result, first, last, as_of)
    all_of_them = figures["customers"]
    delay = np.random.default_rng((seed, _DELAY))
    told = delay.binomial(np.round(all_of_them).astype(np.int64), share).astype(np.float64)
    # what a drawn customer is worth on the whole stays as it was drawn
    worth = np.divide(figures["profit"] + figures["spend"], all_of_them, out=np.zeros(count),
                      where=all_of_them > 0)  # fmt: skip
    figures["customers"], figures["profit"] = told, worth * told - figures["spend"]
    figures["cost_per_customer"] = np.divide(figures["spend"], told, out=np.full(count, np.inf),
                                             where=told > 0)  # fmt: skip
    edges = np.random.default_rng((first.toordinal(), _EDGES)).random(len(PROMISED))
    return tuple(
        _word(name, figures[name], getattr(came, name), float(edge))
        for name, edge in zip(PROMISED, edges, strict=True)
    )


def month_so_far(
    result: PlanResult,
    first: date,
    last: date,
    marks: Sequence[int],
    count: int = 400,
    seed: int = 1,
    still_wanted: Callable[[], bool] = lambda: True,
) -> SoFar | None:
    """Return the money and customers that are promised by some days of a month.

    Parameters
    ----------
    result : PlanResult
    first, last : date
        Of the month, or of the part of it that is planned.
    marks : sequence of int
        After how many days, each from 1.
    count, seed : int
        Of the draws; all marks meet the same luck.
    still_wanted : callable

    Returns
    -------
    SoFar or None
        None where it was given up.
    """
    whole = (last - first).days + 1
    days = [first + timedelta(min(max(mark, 1), whole) - 1) for mark in marks]
    found: dict[str, list[Range]] = {"spend": [], "customers": []}
    for day in days:
        drawn = draw_month(_part(result, first, day), count, seed, still_wanted)
        if drawn is None:
            return None
        for name, ranges in found.items():
            ranges.append(range_of(drawn.figures[name]))
    return SoFar(tuple(days), {name: tuple(ranges) for name, ranges in found.items()})


def _part(result: PlanResult, first: date, last: date) -> PlanResult:
    return YearAhead(result, months_from(first, last)).month(0)


def _reported(result: PlanResult, first: date, last: date, as_of: date) -> float:
    """Return the share of the days' customers that is reported by a day."""
    days = np.arange(first.toordinal(), last.toordinal() + 1)
    return float(exposure_of_spans(days, days, as_of.toordinal(), result.brief.assumed).mean())


def _word(name: str, drawn: Floats, actual: float | None, edge: float) -> Word:
    score = score_of(drawn, actual)
    return Word(
        figure=name, given=range_of(drawn), actual=actual, place=score.placed(edge),
        fewer=score.below + score.at, more=1 - score.below,
    )  # fmt: skip
