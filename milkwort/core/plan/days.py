"""The days of one month: money by weekday and hour, and when a campaign's day runs dry."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.brief.showing import Showing, week_of
from milkwort.core.plan._month_of_days import Day
from milkwort.core.plan.budgets import Budgets, daily_budgets
from milkwort.core.plan.cents import in_cents
from milkwort.core.plan.run import PlanResult

__all__ = ["CampaignDay", "MonthDays", "month_days"]

_DRAWS = 2000
_EVENING = 18
"""The hour at which the evening begins."""


@dataclass(frozen=True)
class CampaignDay:
    """One campaign's money by the day.

    Attributes
    ----------
    campaign : int
        Its number, −1 for none.
    daily : float
        Budget a day, in whole cents.
    spend, clicks : float
        Expected, a month.
    lost : float
        Clicks a month that a day's budget cuts off on busy days.
    gone, gone_early : float
        Share of days on which the money is gone before midnight, and before the evening.
    hour : float or None
        About when, in the middle of those days: 14.5 is half past two; None where it lasts.
    """

    campaign: int
    daily: float
    spend: float
    clicks: float
    lost: float
    gone: float
    gone_early: float
    hour: float | None


@dataclass(frozen=True)
class MonthDays:
    """One month by the day.

    Attributes
    ----------
    dates : tuple of date
    spend : Floats, shape (n_days,)
        Expected of each day, in whole cents; adds up to the month's.
    week : Floats, shape (7, 24)
        Expected money of each hour of a week, Monday first; a month's worth.
    campaigns : tuple of CampaignDay
    lost_shared : float
        Clicks a month that would be lost were all campaigns to share one budget.
    """

    dates: tuple[date, ...]
    spend: Floats
    week: Floats
    campaigns: tuple[CampaignDay, ...]
    lost_shared: float


def month_days(month: PlanResult, dates: list[date]) -> MonthDays:
    """Return one month by its days.

    Parameters
    ----------
    month : PlanResult
        As the year has it.
    dates : list of date
        That are lived.
    """
    budgets = daily_budgets(month)
    shapes = [week_of(_showing(month, int(c)), month.brief.assumed) for c in budgets.campaign]
    weekdays = np.array([day.weekday() for day in dates], dtype=np.int64)
    by_day, week = np.zeros(len(dates)), np.zeros((7, 24))
    campaigns = []
    for at, shape in enumerate(shapes):
        weight = shape.sum(axis=1)[weekdays]
        share = weight / weight.sum() if weight.sum() > 0 else np.zeros(len(dates))
        by_day += float(budgets.spend[at]) * share
        hours = np.divide(shape, shape.sum(axis=1, keepdims=True), out=np.zeros((7, 24)),
                          where=shape.sum(axis=1, keepdims=True) > 0)  # fmt: skip
        of_weekday = np.bincount(weekdays, share, minlength=7)
        week += float(budgets.spend[at]) * of_weekday[:, None] * hours
        campaigns.append(_campaign(month, budgets, at, share, weekdays, hours))
    return MonthDays(
        dates=tuple(dates),
        spend=in_cents(by_day, round(month.totals.spend, 2)),
        week=week,
        campaigns=tuple(campaigns),
        lost_shared=budgets.lost_shared,
    )


def _showing(month: PlanResult, campaign: int) -> Showing:
    own = month.brief.own_terms.get(campaign)
    return month.brief.showing if own is None or own.showing is None else own.showing


def _campaign(
    month: PlanResult, budgets: Budgets, at: int, share: Floats, weekdays: Ints, hours: Floats
) -> CampaignDay:
    """Live through many days of one campaign and see when its money is gone."""
    number, daily = int(budgets.campaign[at]), float(budgets.daily[at])
    rng = np.random.default_rng([1, number + 1])
    shown = np.flatnonzero(share > 0)
    gone = early = 0.0
    hour = None
    if len(shown) and budgets.clicks[at] > 0:
        day = _market_day(month, number, daily)
        drawn = rng.choice(shown, _DRAWS)
        wanted_clicks = day.clicks * share[drawn]
        wanted = day.money_of(rng.poisson(wanted_clicks).astype(np.float64), rng)
        # a day may run over its budget where the platform lets it
        allowed = daily * (1 + month.brief.assumed["day_over"])
        out = wanted > allowed
        if out.any():
            part = allowed / wanted[out]
            run = np.cumsum(hours[weekdays[drawn[out]]], axis=1)
            when = (run < part[:, None]).sum(axis=1).astype(np.float64)
            gone, early = float(out.mean()), float((when < _EVENING).sum() / _DRAWS)
            hour = float(np.median(when))
    return CampaignDay(
        campaign=number,
        daily=daily,
        spend=float(budgets.spend[at]),
        clicks=float(budgets.clicks[at]),
        lost=float(budgets.lost[at]),
        gone=gone,
        gone_early=early,
        hour=hour,
    )


def _market_day(month: PlanResult, campaign: int, daily: float) -> Day:
    keywords = np.isfinite(month.bid) & (month.table.campaign == campaign)
    spots = np.array([s.campaign == campaign for s in month.brief.spots], dtype=bool)
    pace = max(month.expected.pace, 1e-12)
    clicks = np.concatenate((month.expected.clicks[keywords], month.spots.clicks[spots])) / pace
    spend = np.concatenate((month.expected.spend[keywords], month.spots.spend[spots])) / pace
    cpc = np.divide(spend, clicks, out=np.zeros(len(clicks)), where=clicks > 0)
    assumed = month.brief.assumed
    spread = 0.0 if month.brief.pricing == "pay_bid" else assumed["draw_click_price"]
    return Day(clicks[None, :], cpc[None, :], spread, daily)
