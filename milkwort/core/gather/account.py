"""What a plan changes of the account that runs now, and what that is worth."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.brief.brief import Policy
from milkwort.core.market.forecast import Totals
from milkwort.core.market.keyword_table import CALLS
from milkwort.core.plan.run import PlanResult, run_plan

__all__ = ["CHANGES", "AccountChanges", "changes_of_account"]

CHANGES: tuple[str, ...] = ("start", "stop", "raise", "cut", "same")
_START, _STOP, _RAISE, _CUT, _SAME = range(5)


@dataclass(frozen=True)
class AccountChanges:
    """The account as it runs held against the plan, under the plan's own assumptions.

    Attributes
    ----------
    rows : Ints, shape (n_changes,)
        Rows of the table that run now, in the plan, or in both.
    what : Ints
        Position in `CHANGES`.
    bid_now, bid_plan : Floats
        Money a click; NaN where it doesn't run.
    spend_now, spend_plan, customers_now, customers_plan : Floats
        A month.
    now, plan : Totals
        Sums of the month as the account runs, and as planned.
    """

    rows: Ints
    what: Ints
    bid_now: Floats
    bid_plan: Floats
    spend_now: Floats
    spend_plan: Floats
    customers_now: Floats
    customers_plan: Floats
    now: Totals
    plan: Totals


def changes_of_account(result: PlanResult, rows: Ints, bids: Floats) -> AccountChanges:
    """Hold the plan against what runs.

    Both are worked out by the same model, purse and negatives, so that the difference is
    that of keywords and bids alone. What the account would spend above the purse is paced.

    Parameters
    ----------
    result : PlanResult
    rows : Ints, shape (n_running,)
        Rows of the table that run now.
    bids : Floats, shape (n_running,)
        Their bids, money a click.

    Returns
    -------
    AccountChanges
    """
    now = _as_it_runs(result, rows, bids)
    either = np.flatnonzero(np.isfinite(now.bid) | np.isfinite(result.bid))
    before, after = now.bid[either], result.bid[either]
    step = result.brief.assumed["bid_step"]
    what = np.select(
        [np.isnan(before), np.isnan(after), after > before + step / 2, after < before - step / 2],
        [_START, _STOP, _RAISE, _CUT],
        _SAME,
    )
    return AccountChanges(
        rows=either,
        what=what.astype(np.int64),
        bid_now=before,
        bid_plan=after,
        spend_now=now.expected.spend[either],
        spend_plan=result.expected.spend[either],
        customers_now=now.expected.customers[either],
        customers_plan=result.expected.customers[either],
        now=now.totals,
        plan=result.totals,
    )


def _as_it_runs(result: PlanResult, rows: Ints, bids: Floats) -> PlanResult:
    table = result.table
    keep, none = CALLS.index("keep"), CALLS.index("none")
    call = np.where(table.kept, none, table.call)
    call[rows] = keep
    locked = np.full(len(table), np.nan)
    locked[rows] = bids
    # every keyword that runs has its own bid: the flat one is never used
    brief = replace(result.brief, policy=Policy("flat", 1.0))
    return run_plan(brief, replace(table, call=call, locked_bid=locked))
