"""Which bid each keyword takes: by hand, by the method of its group or plan, or as fitted."""

from __future__ import annotations

from dataclasses import dataclass, fields

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.brief.brief import Brief, Policy
from milkwort.core.fit.bids import BidSteps, floor_to_step, method_bids
from milkwort.core.fit.fit import Fit
from milkwort.core.market.demand import Demand
from milkwort.core.market.keyword_table import KeywordTable
from milkwort.core.market.prices import Prices
from milkwort.core.market.standing import Standing

__all__ = ["Market", "bids_of", "by_method", "fixed_steps", "hand_steps", "policy_rows"]


@dataclass(frozen=True)
class Market:
    """What bids are chosen on: a brief's keywords, with their searches, prices and standing."""

    brief: Brief
    table: KeywordTable
    demand: Demand
    prices: Prices
    standing: Standing


def policy_rows(brief: Brief, table: KeywordTable) -> list[tuple[Policy, NDArray[np.bool_]]]:
    """Return each policy that is followed, with the rows that follow it.

    Parameters
    ----------
    brief : Brief
    table : KeywordTable

    Returns
    -------
    list of (Policy, ndarray of bool of shape (n_keywords,))
        The plan's own first; every row follows one.
    """
    own = np.zeros(len(table), dtype=bool)
    by_policy: dict[Policy, NDArray[np.bool_]] = {}
    for group, policy in brief.own_policies.items():
        mine = table.group == group
        own |= mine
        by_policy[policy] = by_policy.get(policy, np.zeros(len(table), dtype=bool)) | mine
    return [(brief.policy, ~own), *by_policy.items()]


def by_method(market: Market) -> BidSteps:
    """Return the way to the bid of every keyword that follows a method.

    Parameters
    ----------
    market : Market

    Returns
    -------
    BidSteps
        A keyword whose bid is fitted has none: NaN, and it doesn't run.
    """
    brief, table = market.brief, market.table
    n = len(table)
    columns = {f.name: np.full(n, np.nan) for f in fields(BidSteps) if f.name != "runs"}
    runs = np.zeros(n, dtype=bool)
    for policy, rows in policy_rows(brief, table):
        if policy.name == "fitted" or not rows.any():
            continue
        made = method_bids(
            policy,
            market.prices,
            table.match,
            market.demand.words,
            market.standing.ceiling,
            brief.assumed,
            last_cpc=table.last_cpc,
            day_money=brief.monthly_spend / brief.assumed["month_days"],
        )
        for name, column in columns.items():
            column[rows] = getattr(made, name)[rows]
        runs[rows] = made.runs[rows]
    return BidSteps(**columns, runs=runs & table.kept & (market.demand.click_weight > 0))


def hand_steps(brief: Brief, table: KeywordTable, demand: Demand, prices: Prices) -> Ints:
    """Return bids set by hand in whole steps: −1 for none, 0 for one too low to run.

    Parameters
    ----------
    brief : Brief
    table : KeywordTable
    demand : Demand
    prices : Prices
    """
    step = brief.assumed["bid_step"]
    usable = table.kept & prices.known & np.isfinite(table.locked_bid) & ~demand.stopped
    whole = np.round(floor_to_step(table.locked_bid, brief.assumed) / step)
    steps = np.where(usable, np.nan_to_num(whole), -1).astype(np.int64)
    return np.where(usable & (steps * step < brief.assumed["min_bid"] - 1e-9), 0, steps)


def fixed_steps(market: Market, hand: Ints) -> Ints:
    """Return the bids that the fit must take as they are, in whole steps; −1 where it chooses.

    Bids by hand; and where groups have ways of their own, those that follow a method: what
    is fitted is fitted around them. A method for the whole plan leaves the fit free, so that
    it says what fitted bids would bring instead.

    Parameters
    ----------
    market : Market
    hand : Ints, shape (n_keywords,)
        As `hand_steps` returns them.
    """
    if not market.brief.own_policies:
        return hand
    made, step = by_method(market), market.brief.assumed["bid_step"]
    follows = np.zeros(len(hand), dtype=bool)
    for policy, rows in policy_rows(market.brief, market.table):
        follows |= rows & (policy.name != "fitted")
    whole = np.round(np.nan_to_num(made.bid) / step).astype(np.int64)
    usable = follows & market.table.kept & market.prices.known & ~market.demand.stopped
    steps = np.where(made.runs, whole, 0)
    return np.where(hand >= 0, hand, np.where(usable, steps, -1))


def bids_of(market: Market, fitted: Fit, hand: Ints) -> Floats:
    """Return the bid of every keyword, money a click; NaN where it doesn't run.

    Parameters
    ----------
    market : Market
    fitted : Fit
        With every fixed bid as it is.
    hand : Ints, shape (n_keywords,)
        As `hand_steps` returns them.
    """
    step = market.brief.assumed["bid_step"]
    steps = fitted.steps[: len(market.table)]
    bid = np.where(steps > 0, np.round(steps * step, 10), np.nan)
    made = by_method(market)
    for policy, rows in policy_rows(market.brief, market.table):
        if policy.name != "fitted":
            bid = np.where(rows, np.where(made.runs, made.bid, np.nan), bid)
    return np.where(hand >= 0, np.where(hand > 0, np.round(hand * step, 10), np.nan), bid)
