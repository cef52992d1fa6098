"""Twelve months ahead: the season, a purse that follows it or not, bids kept or fitted anew."""

from __future__ import annotations

import calendar
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.errors import BadValueError
from milkwort.core.fit.fit import fit
from milkwort.core.market.prices import at_bid
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.spots import spot_choices, spot_forecast

__all__ = ["Year", "season_of", "year_ahead"]

_MEAN_DAYS = 365 / 12
_SUMS = ("spend", "clicks", "customers", "revenue", "profit")


@dataclass(frozen=True)
class Year:
    """Twelve months; arrays of shape (12,), the first being the start month.

    Attributes
    ----------
    month : Ints
        1 for January.
    days : Ints
    index : Floats
        Searches of the plan's keywords against a mean month, the days aside.
    purse, spend : Floats
        Money.
    clicks, customers, revenue, profit : Floats
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


def year_ahead(
    result: PlanResult,
    start_month: int,
    *,
    purse: Literal["flat", "season"] = "flat",
    refit: bool = False,
    year: int = 2027,
) -> Year:
    """Forecast twelve months.

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
    month = (np.arange(12) + start_month - 1) % 12 + 1
    days = np.array(
        [calendar.monthrange(year + int(m < start_month), int(m))[1] for m in month.tolist()]
    )
    index = season_of(result)[:, month - 1]
    factor = index * days / _MEAN_DAYS
    running = np.nan_to_num(result.expected.clicks)
    weight = running / running.sum() if running.sum() > 0 else running
    money = np.full(12, result.brief.monthly_spend)
    if purse == "season" and running.sum() > 0:
        wanted = weight @ factor
        money = 12 * result.brief.monthly_spend * wanted / wanted.sum()
    sums = np.array(
        [_month(result, factor[:, m], float(money[m]), refit) for m in range(12)]
    ).reshape(12, 5)
    return Year(month, days, weight @ index, money, *sums.T)


def _month(result: PlanResult, factor: Floats, purse: float, refit: bool) -> tuple[float, ...]:
    """Return spend, clicks, customers, revenue and profit of one month.

    Refitted is the better of a new fit and the bids kept and paced: pacing may win, since
    it takes a share of every step where a fit takes whole ones.
    """
    kept = _under(result, result.bid, factor, purse, result.spots.steps)
    if not refit or result.brief.policy.name != "fitted":
        return kept
    problem = result.problem
    # spots have no season of their own
    whole = np.concatenate((factor, np.ones(problem.spots)))
    asked = replace(
        problem,
        click_weight=problem.click_weight * whole,
        purse=purse,
        locked_clicks=problem.locked_clicks * whole,
        locked_spend=problem.locked_spend * whole,
    )
    steps = fit(asked, result.may_run).steps
    own = steps[: problem.keywords]
    bid = np.where(own > 0, own * result.brief.assumed["bid_step"], np.nan)
    anew = _under(result, bid, factor, purse, steps[problem.keywords :])
    return max(anew, kept, key=lambda sums: sums[_SUMS.index(result.brief.goal)])


def _under(
    result: PlanResult, bid: Floats, factor: Floats, purse: float, steps: Ints
) -> tuple[float, ...]:
    """Return the sums of a month at given bids and steps of spots, paced to its purse."""
    spots = spot_forecast(result.brief, spot_choices(result.brief), steps, 1.0)
    weight = result.demand.click_weight * factor
    runs = np.flatnonzero(np.isfinite(bid) & result.prices.known)
    at = at_bid(
        bid[runs],
        result.prices.mu[runs],
        result.prices.sigma[runs],
        weight[runs],
        weight[runs],
        result.brief.pricing,
        result.brief.assumed,
    )
    wanted = float(at.spend.sum() + spots.spend.sum())
    pace = min(1.0, purse / wanted) if wanted > 0 else 1.0
    clicks, spend = at.clicks * pace, at.spend * pace
    customers = clicks * result.demand.rate[runs]
    revenue = float(customers @ result.worth.revenue[runs])
    profit = float(customers @ result.worth.contribution[runs]) - float(spend.sum())
    sums = (float(spend.sum()), float(clicks.sum()), float(customers.sum()), revenue, profit)
    beside = (spots.spend, spots.clicks, spots.customers, spots.revenue, spots.profit)
    return tuple(
        of_keywords + pace * float(of_spots.sum())
        for of_keywords, of_spots in zip(sums, beside, strict=True)
    )
