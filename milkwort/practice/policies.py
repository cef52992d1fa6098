"""What a planner does with a month that is over: nothing, a rule of thumb, the middle price."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.brief.brief import Policy
from milkwort.core.learn.results import Results
from milkwort.core.plan.run import PlanResult, run_plan

__all__ = ["POLICIES", "Month", "first_plan", "with_bids"]

_RULE_CLICKS, _RULE_RAISE = 10, 0.10


@dataclass(frozen=True)
class Month:
    """What is known at the end of a month.

    Attributes
    ----------
    plan : PlanResult
        The plan as it stood, for a mean month.
    so_far : Results
        All that has happened until now, by row of the plan's table.
    last_month : Results
        The same of the month that is over.
    """

    plan: PlanResult
    so_far: Results
    last_month: Results


def first_plan(plan: PlanResult, policy: str) -> PlanResult:
    """Return the plan a policy begins with."""
    if policy != "middle":
        return plan
    return run_plan(replace(plan.brief, policy=Policy("middle")), plan.table)


def _unchanged(month: Month) -> PlanResult:
    return month.plan


def _by_rule(month: Month) -> PlanResult:
    """Cut what had clicks and no customer to the least bid; raise what sold."""
    plan, seen = month.plan, month.last_month
    assumed = plan.brief.assumed
    step = assumed["bid_step"]
    runs = np.isfinite(plan.bid) & plan.table.kept
    bid = plan.bid.copy()
    cut = runs & (month.so_far.clicks >= _RULE_CLICKS) & (month.so_far.customers == 0)
    sold = runs & (seen.customers > 0)
    bid[sold] = np.floor(bid[sold] * (1 + _RULE_RAISE) / step + 1e-9) * step
    bid[cut] = assumed["min_bid"]
    return with_bids(plan, np.where(runs, np.maximum(bid, assumed["min_bid"]), np.nan))


POLICIES: dict[str, Callable[[Month], PlanResult]] = {
    "unchanged": _unchanged, "rule": _by_rule, "middle": _unchanged,
}  # fmt: skip


def with_bids(plan: PlanResult, bid: Floats) -> PlanResult:
    """Return a plan at bids set by hand, money a click; NaN where a keyword is not to run."""
    kept = plan.table.kept
    locked = np.where(kept, np.nan_to_num(bid), np.nan)  # a bid of 0 runs nowhere
    brief = replace(plan.brief, policy=Policy("fitted"), own_policies={})
    return run_plan(brief, replace(plan.table, locked_bid=locked))
