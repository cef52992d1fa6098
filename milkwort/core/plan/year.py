"""Twelve months ahead: the season, a purse that follows it or not, bids kept or fitted anew."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.brief.kinds import YearPurse
from milkwort.core.errors import BadValueError
from milkwort.core.plan.calendar import Months, months_from
from milkwort.core.plan.one_month import is_fitted, month_of
from milkwort.core.plan.run import PlanResult

__all__ = ["Year", "YearAhead", "season_of", "year_ahead"]

_MEAN_DAYS = 365 / 12


@dataclass(frozen=True)
class Year:
    """Twelve months; arrays of shape (12,), the first being the start month.

    Attributes
    ----------
    month : Ints
        1 for January.
    days : Ints
        That are lived; fewer than the calendar's in a first or last month in part.
    index : Floats
        Searches of the plan's keywords against a mean month, the days aside.
    purse, spend : Floats
        Money.
    clicks, customers, revenue, profit : Floats
    market : Floats
        Money that the month could take at most: of every step worth its price where bids are
        fitted, else of the bids as they stand.
    """

    month: Ints
    days: Ints
    index: Floats
    purse: Floats
    spend: Floats
    clicks: Floats
    customers: Floats
    revenue: Floats
    profit: Floats
    market: Floats


def season_of(result: PlanResult) -> Floats:
    """Return the month index of each keyword, January first, mean 1.

    Its own twelve figures, else the plan's season, else flat.

    Parameters
    ----------
    result : PlanResult

    Returns
    -------
    Floats, shape (n_keywords, 12)
    """
    months = result.table.months
    own = np.isfinite(months).all(axis=1) & (np.nan_to_num(months).sum(axis=1) > 0)
    plan = np.array(result.brief.season or (1.0,) * 12)
    index = np.tile(plan / plan.mean(), (len(months), 1))
    index[own] = months[own] / months[own].mean(axis=1, keepdims=True)
    return index


class YearAhead:
    """Twelve months of a plan, each of which can be opened.

    Parameters
    ----------
    result : PlanResult
    months : Months
    purse : {"flat", "season", "own"}
        The monthly money each month, or the same yearly sum spread as clicks are to be had,
        or sums of the planner's own.
    refit : bool
        Whether bids are fitted anew each month where that brings more, or stay as they are.
    own : sequence of 12 floats, optional
        Money of each month; flat where left out.
    """

    def __init__(
        self,
        result: PlanResult,
        months: Months,
        *,
        purse: YearPurse = "flat",
        refit: bool = False,
        own: Sequence[float] | None = None,
    ) -> None:
        self.result, self.months, self.refit = result, months, refit
        self.season = season_of(result)[:, months.number - 1]
        self.factor = self.season * months.days / _MEAN_DAYS
        self.part = months.days / months.whole
        running = np.nan_to_num(result.expected.clicks)
        self._weight = running / running.sum() if running.sum() > 0 else running
        self.purse = self._purses(purse, own)

    def _purses(self, purse: YearPurse, own: Sequence[float] | None) -> Floats:
        flat = self.result.brief.monthly_spend * self.part
        if purse == "own" and own is not None:
            return np.where(self.months.days > 0, np.asarray(own, dtype=np.float64), 0.0)
        wanted = self._weight @ self.factor
        if purse == "season" and wanted.sum() > 0:
            return np.asarray(flat.sum() * wanted / wanted.sum())
        return np.asarray(flat)

    def month(self, number: int) -> PlanResult:
        """Return one month as a plan of its own; one of no days brings nothing.

        Parameters
        ----------
        number : int
            0 for the first.
        """
        return month_of(
            self.result,
            self.factor[:, number],
            float(self.purse[number]),
            refit=self.refit,
            part=float(self.part[number]),
            days=float(max(self.months.days[number], 1)),
        )

    @property
    def market(self) -> Floats:
        """Money that each month could take at most."""
        ladder, problem = self.result.fit.ladder, self.result.problem
        if is_fitted(self.result):
            grows = np.vstack((self.factor, np.tile(self.part, (problem.spots, 1))))
            steps = np.zeros(len(grows))
            np.add.at(steps, ladder.owner, ladder.spend)
            return np.asarray((steps + problem.locked_spend) @ grows)
        wanted = np.nan_to_num(self.result.expected.spend) / max(self.result.expected.pace, 1e-12)
        return np.asarray(wanted @ self.factor)

    def sums(self) -> Year:
        """Return what the twelve months come to."""
        totals = [self.month(number).totals for number in range(12)]
        names = ("spend", "clicks", "customers", "revenue", "profit")
        columns = {name: np.array([getattr(t, name) for t in totals]) for name in names}
        return Year(
            month=self.months.number,
            days=self.months.days,
            index=self._weight @ self.season,
            purse=self.purse,
            market=self.market,
            **columns,
        )


def year_ahead(
    result: PlanResult,
    start_month: int,
    *,
    purse: YearPurse = "flat",
    refit: bool = False,
    year: int = 2027,
) -> Year:
    """Forecast twelve whole months.

    Parameters
    ----------
    result : PlanResult
    start_month : int
        1 for January.
    purse : {"flat", "season"}
        The monthly money each month, or the same yearly sum spread as clicks are to be had.
    refit : bool
        Whether bids are fitted anew each month where that brings more, or stay as they are.
    year : int
        Of the start month; decides February's days.

    Raises
    ------
    BadValueError
        For a month out of range.
    """
    if not 1 <= start_month <= 12:
        raise BadValueError("start month", "a month from 1 to 12", start_month)
    months = months_from(date(year, start_month, 1))
    return YearAhead(result, months, purse=purse, refit=refit).sums()
