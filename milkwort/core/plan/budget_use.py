"""A budget is not a spend: what of the purse will go, why the rest stays, what would use it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from milkwort.core.assumptions import Assumed
from milkwort.core.counted import in_percent
from milkwort.core.plan.draws import Draws, Range, draw_month, range_of
from milkwort.core.plan.run import PlanResult

__all__ = ["BudgetUse", "Remedy", "budget_use"]

_DRAWS = 600
_DAY_OVER = 0.2
"""How far a day may run over where it is asked what that would do and the profile says none."""


@dataclass(frozen=True)
class Remedy:
    """Something that would use more of the purse.

    Attributes
    ----------
    name : str
        In words.
    spend, customers : float
        More of each a month, in the mean of the draws.
    """

    name: str
    spend: float
    customers: float


@dataclass(frozen=True)
class BudgetUse:
    """Where a month's purse goes, in the mean of the draws; money a month.

    `spent` + `cut` + `not_searched` + `not_planned` is the purse.

    Attributes
    ----------
    purse : float
    spend : Range
        What is spent, 8 months in 10.
    spent : float
    cut : float
        Wanted on busy days, when a campaign's day is out of money that quiet days leave over.
    not_searched : float
        Expected, but not wanted: searches and clicks that don't come. Below 0 where more is
        wanted than expected.
    not_planned : float
        No step worth its price is left for it.
    remedies : tuple of Remedy
        What would use more, the most first.
    """

    purse: float
    spend: Range
    spent: float
    cut: float
    not_searched: float
    not_planned: float
    remedies: tuple[Remedy, ...]


def budget_use(
    result: PlanResult, draws: Draws, still_wanted: Callable[[], bool] = lambda: True
) -> BudgetUse:
    """Say where the purse goes.

    Parameters
    ----------
    result : PlanResult
    draws : Draws
        Of that plan.
    still_wanted : callable
        Asked now and then; once it says no, remedies are left out.
    """
    purse, expected = result.brief.monthly_spend, result.totals.spend
    spent, wanted = float(draws.spend.mean()), float(draws.wanted.mean())
    return BudgetUse(
        purse=purse,
        spend=range_of(draws.spend),
        spent=spent,
        cut=wanted - spent,
        not_searched=expected - wanted,
        not_planned=purse - expected,
        remedies=_remedies(result, draws, still_wanted),
    )


def _remedies(
    result: PlanResult, draws: Draws, still_wanted: Callable[[], bool]
) -> tuple[Remedy, ...]:
    many = min(_DRAWS, draws.count)
    now = draws.spend[:many].mean(), draws.customers[:many].mean()
    tried: list[tuple[str, PlanResult]] = []
    runs = np.isfinite(result.bid)
    campaigns = np.unique(result.table.campaign[runs])
    # one budget for all can't hold a campaign to a most of its own
    if len(campaigns) > 1 and np.isinf(result.brief.limits.most_of(campaigns)).all():
        one = replace(result.table, campaign=np.full(len(result.table), -1, dtype=np.int64))
        spots = tuple(replace(spot, campaign=-1) for spot in result.brief.spots)
        together = replace(result, table=one, brief=replace(result.brief, spots=spots))
        tried.append(("one budget for all campaigns", together))
    if result.brief.assumed["day_over"] < _DAY_OVER:
        over = Assumed(result.brief.assumed.changes | {"day_over": _DAY_OVER})
        tried.append((f"a platform that lets a day run over by {in_percent(_DAY_OVER)}",
                      replace(result, brief=replace(result.brief, assumed=over))))  # fmt: skip
    found = []
    for name, other in tried:
        drawn = draw_month(other, many, still_wanted=still_wanted)
        if drawn is None:
            return ()
        found.append(Remedy(name, float(drawn.spend.mean() - now[0]),
                            float(drawn.customers.mean() - now[1])))  # fmt: skip
    return tuple(sorted(found, key=lambda remedy: -remedy.spend))
