"""Each campaign against its daily budget: on how many days its money ran out."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.learn.seen import ResultRows
from milkwort.core.pairs import pairs_once
from milkwort.core.plan.budgets import daily_budgets
from milkwort.core.plan.run import PlanResult

__all__ = ["CampaignDays", "campaign_days"]

_NEARLY = 0.98
"""Of its budget: a platform stops before a click that no longer fits."""


@dataclass(frozen=True)
class CampaignDays:
    """Arrays of shape (n_campaigns,), the campaigns that run.

    Attributes
    ----------
    campaign : Ints
        Its number; −1 for keywords in none.
    daily : Floats
        Money a day as planned.
    clicks, spend, customers : Floats
        Of the days that were seen.
    days : Ints
        Days on which it spent anything.
    cut : Ints
        Of them, those on which its budget was gone.
    lost : Floats
        Share of its searches unshown for want of money; NaN where the platform doesn't say.
    """

    campaign: Ints
    daily: Floats
    clicks: Floats
    spend: Floats
    customers: Floats
    days: Ints
    cut: Ints
    lost: Floats


def campaign_days(result: PlanResult, rows: ResultRows) -> CampaignDays:
    """Hold each campaign's days against its budget.

    Parameters
    ----------
    result : PlanResult
        Of the month, whose purse the daily budgets are of.
    rows : ResultRows
        Rows of more than a day tell of spend alone: they cut no day short.
    """
    budgets = daily_budgets(result)
    n = len(budgets.campaign)
    place = {number: at for at, number in enumerate(budgets.campaign.tolist())}
    known = np.flatnonzero(rows.keyword >= 0)
    some = rows.at(known)
    of = np.array([place.get(c, -1) for c in result.table.campaign[some.keyword].tolist()],
                  dtype=np.int64)  # fmt: skip
    mine = of >= 0
    some, of = some.at(mine), of[mine]
    spend = np.bincount(of, some.cost, minlength=n).astype(np.float64)
    by_day = some.first == some.last
    days, cut = _days(of[by_day], some.first[by_day], some.cost[by_day], budgets.daily)
    told = np.isfinite(some.could_show) & np.isfinite(some.lost_to_money)
    could = np.bincount(of[told], some.could_show[told], minlength=n)
    gone = np.bincount(of[told], some.lost_to_money[told], minlength=n)
    lost = np.divide(gone, could, out=np.full(n, np.nan), where=could > 0)
    customers = np.bincount(of, some.customers, minlength=n).astype(np.float64)
    clicks = np.bincount(of, some.clicks, minlength=n).astype(np.float64)
    return CampaignDays(budgets.campaign, budgets.daily, clicks, spend, customers, days, cut, lost)


def _days(of: Ints, day: Ints, cost: Floats, daily: Floats) -> tuple[Ints, Ints]:
    """Return on how many days each campaign spent, and on how many its money was gone."""
    n = len(daily)
    both, place = pairs_once(of, day)
    of_day = np.bincount(place, cost, minlength=len(both))
    whose = both[:, 0]
    spent = of_day > 0
    gone = spent & (of_day >= _NEARLY * daily[whose])
    return np.bincount(whose[spent], minlength=n), np.bincount(whose[gone], minlength=n)
