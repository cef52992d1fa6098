"""What each limit of a plan costs: the fit without it, beside the fit as it is."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from milkwort.core.brief.brief import Brief
from milkwort.core.brief.limits import SpendLimit
from milkwort.core.fit.fit import Fit, fit
from milkwort.core.plan.run import PlanResult, run_plan

__all__ = ["LimitCost", "LimitName", "limit_costs"]

LimitName = Literal["max_keywords", "min_clicks", "least", "most", "scouting", "max_cpc"]


@dataclass(frozen=True)
class LimitCost:
    """One limit, and what the plan would bring without it.

    Attributes
    ----------
    limit : LimitName
    campaign : int or None
        Number of the campaign it is of.
    wanted : float
        A number, clicks, money, or a share of the purse.
    costs : float
        Of the goal, a month: 0 where it does not bind.
    """

    limit: LimitName
    campaign: int | None
    wanted: float
    costs: float


def limit_costs(result: PlanResult) -> list[LimitCost]:
    """Return each limit that is set, with what it costs.

    Parameters
    ----------
    result : PlanResult
        Costs are those of fitted bids.
    """
    now = result.fit.value
    return [replace(one, costs=max(_without(result, one).value - now, 0.0)) for one in _set(result)]


def _set(result: PlanResult) -> list[LimitCost]:
    limits, found = result.brief.limits, []
    if limits.max_keywords is not None:
        found.append(LimitCost("max_keywords", None, float(limits.max_keywords), 0.0))
    if limits.min_clicks > 0:
        found.append(LimitCost("min_clicks", None, limits.min_clicks, 0.0))
    for campaign, limit in limits.campaigns.items():
        if limit.least > 0:
            found.append(LimitCost("least", campaign, limit.least, 0.0))
        if np.isfinite(limit.most):
            found.append(LimitCost("most", campaign, limit.most, 0.0))
    if limits.scouting is not None:
        found.append(LimitCost("scouting", limits.scouting, limits.scouting_share, 0.0))
    if result.brief.ceiling.max_cpc is not None:
        found.append(LimitCost("max_cpc", None, result.brief.ceiling.max_cpc, 0.0))
    return found


def _without(result: PlanResult, one: LimitCost) -> Fit:
    limits = result.brief.limits
    if one.limit == "max_cpc":
        ceiling = replace(result.brief.ceiling, max_cpc=None)
        brief: Brief = replace(result.brief, ceiling=ceiling)
        return run_plan(brief, result.table).fit
    if one.limit == "max_keywords":
        limits = replace(limits, max_keywords=None)
    elif one.limit == "min_clicks":
        limits = replace(limits, min_clicks=0.0)
    elif one.limit == "scouting":
        limits = replace(limits, scouting=None, scouting_share=0.0)
    else:
        assert one.campaign is not None
        held = limits.campaigns[one.campaign]
        freed = SpendLimit(
            0.0 if one.limit == "least" else held.least,
            np.inf if one.limit == "most" else held.most,
        )
        limits = replace(limits, campaigns={**limits.campaigns, one.campaign: freed})
    before = None if one.limit == "min_clicks" else result.fit.choices
    return fit(replace(result.problem, limits=limits), result.may_run, before)
