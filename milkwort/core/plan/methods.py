"""Ways to bid side by side: the same keywords, the same hand-set bids, the same purse."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.brief.brief import Policy
from milkwort.core.fit.bids import BidSteps
from milkwort.core.fit.fit import Fit
from milkwort.core.fit.options import bid_lattice
from milkwort.core.market.forecast import Totals, expect, totals_of
from milkwort.core.plan.bidding import Market, bids_of, by_method, hand_steps
from milkwort.core.plan.run import PlanResult, run_plan
from milkwort.core.plan.spots import spot_choices, spot_forecast, with_spots

__all__ = ["OtherWay", "at_bids", "best_flat", "method_steps", "other_ways"]

_FLAT_TRIES = 40
_SHARES = {"percentile": 0.5, "high_plus": 0.1, "last_seen": 0.1}
"""What a method is shown with where nobody says: the middle price, a tenth more."""


@dataclass(frozen=True)
class OtherWay:
    """What another way of bidding would bring for the same money.

    Attributes
    ----------
    policy : Policy
    totals : Totals
    pace : float
        Share of everything that the purse can pay for.
    reach : float
        Share of the searches of all kept keywords that are won, paced.
    not_run : int
        Kept keywords that would not run.
    """

    policy: Policy
    totals: Totals
    pace: float
    reach: float
    not_run: int


def method_steps(result: PlanResult) -> BidSteps:
    """Return the way to each bid that follows a method; NaN where bids are fitted.

    Parameters
    ----------
    result : PlanResult
    """
    return by_method(_market(result))


def other_ways(
    result: PlanResult,
    shares: Mapping[str, float] | None = None,
    flat_bid: float | None = None,
) -> list[OtherWay]:
    """Return what each way to bid would bring for the same keywords and purse.

    Bids set by hand stay. What would cost more than the purse is paced. The flat bid is the
    one asked for, else the plan's own where it has one, else the one that brings most.

    Parameters
    ----------
    result : PlanResult
    shares : mapping, optional
        Of methods that take one, by name: a percentile, or what is added as a share.
    flat_bid : float, optional
        Money a click.

    Returns
    -------
    list of OtherWay
        Fitted first, then the methods; the last seen price only where one was seen. Empty
        where nothing could run.
    """
    if not (result.table.kept & result.prices.known).any():
        return []
    flat = flat_bid or result.brief.policy.flat_bid or best_flat(result)
    said = _SHARES | dict(shares or {})
    policies = [Policy(), Policy("low"), Policy("middle"), Policy("high")]
    policies += [Policy(name, share=said[name]) for name in ("percentile", "high_plus")]
    policies += [Policy("flat", flat), Policy("flat_or_middle", flat)]
    if np.isfinite(result.table.last_cpc[result.table.kept]).any():
        policies.append(Policy("last_seen", share=said["last_seen"]))
    beside = result.brief.policy
    fitted = _all_fitted(result)
    return [
        _under(result, replace(p, cap_clicks=beside.cap_clicks, odd_step=beside.odd_step), fitted)
        for p in policies
    ]


def _all_fitted(result: PlanResult) -> Fit:
    """Return the fit of all bids that are not set by hand."""
    if not result.brief.own_policies:
        return result.fit
    return run_plan(replace(result.brief, own_policies={}), result.table, result).fit


def best_flat(result: PlanResult) -> float:
    """Return the flat bid for all that brings most, before match and breadth.

    Parameters
    ----------
    result : PlanResult
        Of which at least one keyword could run.
    """
    goal = result.brief.goal
    return max(
        _flat_bids(result),
        key=lambda bid: _under(result, Policy("flat", bid), result.fit).totals.goal(goal),
    )


def at_bids(result: PlanResult, policy: Policy, bid: Floats) -> OtherWay:
    """Return what given bids would bring at the plan's purse, beside its spots.

    Parameters
    ----------
    result : PlanResult
    policy : Policy
        What they are called.
    bid : Floats, shape (n_keywords,)
        Money a click; NaN for a keyword that doesn't run.
    """
    brief = result.brief
    choices = spot_choices(brief)
    beside = float(spot_forecast(brief, choices, result.spots.steps, 1.0).spend.sum())
    expected = expect(brief, result.demand, result.prices, bid, result.worth, beside=beside)
    spots = spot_forecast(brief, choices, result.spots.steps, expected.pace)
    totals = with_spots(totals_of(result.demand, expected, bid), spots)
    kept = result.table.kept
    searches = float(result.demand.searches[kept].sum())
    return OtherWay(
        policy,
        totals,
        expected.pace,
        reach=float(expected.impressions[kept].sum()) / searches if searches > 0 else 0.0,
        not_run=int((kept & ~np.isfinite(bid)).sum()),
    )


def _under(result: PlanResult, policy: Policy, fitted: Fit) -> OtherWay:
    brief = replace(result.brief, policy=policy, own_policies={})
    market = replace(_market(result), brief=brief)
    hand = hand_steps(brief, result.table, result.demand, result.prices)
    return at_bids(result, policy, bids_of(market, fitted, hand))


def _market(result: PlanResult) -> Market:
    return Market(result.brief, result.table, result.demand, result.prices, result.standing)


def _flat_bids(result: PlanResult) -> list[float]:
    kept = result.table.kept & result.prices.known
    assumed = result.brief.assumed
    lattice = bid_lattice(float(result.standing.ceiling[kept].max()), assumed)
    picked = np.unique(np.linspace(0, len(lattice) - 1, _FLAT_TRIES).astype(np.int64))
    return [float(b) for b in lattice[picked] * assumed["bid_step"]]
