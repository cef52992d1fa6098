"""The bids next to a keyword's own, and what it misses at the one it has."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit.options import bid_lattice
from milkwort.core.market.prices import at_bid
from milkwort.core.plan.run import PlanResult

__all__ = ["AtBid", "Missed", "missed", "next_bids"]


@dataclass(frozen=True)
class AtBid:
    """What one keyword brings at one bid, before any pacing; a month.

    Attributes
    ----------
    bid, spend, profit : float
        Money a click, and money.
    reach : float
        Share of its searches that it wins: how often it would be first for them.
    clicks, customers : float
    """

    bid: float
    reach: float
    clicks: float
    spend: float
    customers: float
    profit: float


@dataclass(frozen=True)
class Missed:
    """Searches that keywords are not shown for; arrays of shape (n_keywords,), a month.

    Attributes
    ----------
    for_bid : Floats
        Not won at this bid; all of them where a kept keyword doesn't run.
    for_money : Floats
        Won, but unshown for want of money.
    """

    for_bid: Floats
    for_money: Floats


def missed(result: PlanResult) -> Missed:
    """Return what each kept keyword misses; 0 for others.

    Parameters
    ----------
    result : PlanResult
    """
    searches = np.where(result.table.kept, np.nan_to_num(result.demand.searches), 0.0)
    runs = np.isfinite(result.bid)
    reach = np.where(runs, result.expected.reach, 0.0)
    return Missed(
        for_bid=searches * (1 - reach),
        for_money=searches * reach * (1 - result.expected.pace),
    )


def next_bids(result: PlanResult, row: int) -> tuple[AtBid | None, AtBid | None, AtBid | None]:
    """Return what a keyword brings a step of the lattice lower, at its bid, and a step higher.

    Parameters
    ----------
    result : PlanResult
    row : int

    Returns
    -------
    lower, now, higher : AtBid or None
        None where there is no such bid: it doesn't run, the least bid, its ceiling.
    """
    bid, assumed = float(result.bid[row]), result.brief.assumed
    if not np.isfinite(bid):
        return None, None, None
    step = assumed["bid_step"]
    ceiling = float(result.standing.ceiling[row])
    lattice = bid_lattice(max(bid, ceiling) * assumed["lattice_ratio"], assumed)
    whole = round(bid / step)
    below, above = lattice[lattice < whole], lattice[lattice > whole]
    lower = int(below[-1]) * step if len(below) else None
    higher = int(above[0]) * step if len(above) else None
    top = np.floor(ceiling / step + 1e-9) * step
    if higher is not None and higher > top:
        higher = top if top > bid + step / 2 else None
    found = [_at(result, row, b) for b in (lower, bid, higher)]
    return found[0], found[1], found[2]


def _at(result: PlanResult, row: int, bid: float | None) -> AtBid | None:
    if bid is None:
        return None
    rows: Ints = np.array([row])
    at = at_bid(
        np.array([bid]),
        result.prices.mu[rows],
        result.prices.sigma[rows],
        result.demand.searches[rows],
        result.demand.click_weight[rows],
        result.brief.pricing,
        result.brief.assumed,
    )
    clicks, spend = float(at.clicks[0]), float(at.spend[0])
    customers = clicks * float(result.demand.rate[row])
    return AtBid(
        bid=round(bid, 10),
        reach=float(at.reach[0]),
        clicks=clicks,
        spend=spend,
        customers=customers,
        profit=customers * float(result.worth.contribution[row]) - spend,
    )
