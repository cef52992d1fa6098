"""Other ways to bid, limits, caps and inverse questions."""

from __future__ import annotations

from typing import Annotated, Any, Literal

import numpy as np
from fastapi import APIRouter, Query, Response

from milkwort.api.fit.choices_schemas import (
    BidMoveChange,
    BidMoveTried,
    CapView,
    CurvesView,
    LeastView,
    LimitsView,
    SumsView,
    WaysView,
)
from milkwort.api.fit.versions import Others, family_plans
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.api.plan.summary import purse_block
from milkwort.core.arrays import Floats
from milkwort.core.brief.kinds import Goal
from milkwort.core.counted import counted
from milkwort.core.errors import NothingUsableError
from milkwort.core.plan.beside import missed
from milkwort.core.plan.bid_changes import BidMove, MovedBids, moved_bids
from milkwort.core.plan.curve import curve_of, gaps_said
from milkwort.core.plan.inverse import least_money, money_for_clicks
from milkwort.core.plan.limits_cost import limit_costs
from milkwort.core.plan.methods import OtherWay, other_ways
from milkwort.core.plan.one_cap import OneCap, one_cap
from milkwort.core.plan.run import attention_of, run_plan
from milkwort.store.keywords import lock_bids
from milkwort.store.sheet import with_locked

router = APIRouter(tags=["fit"])

_NAMED = 12
_SAID = {
    "low": "the low price", "middle": "the middle price", "high": "the high price",
    "percentile": "a percentile of the price", "times": "a share more or less",
    "suggestion": "the suggestion where it is lower", "at_most": "not above a price",
    "odd": "an odd step", "lock": "locked as they are", "unlock": "given back to the policy",
    "fitted": "the fitted bid",
}  # fmt: skip

Share = Annotated[float | None, Query(ge=0, le=10)]
Price = Annotated[float | None, Query(gt=0, le=1e12)]


@router.get("/plans/{plan_id}/fit/ways", responses=shape_of(WaysView))
def ways(
    plan_id: int, work: Work, percentile: Share = None, high_plus: Share = None,
    last_seen: Share = None, flat: Price = None,
) -> Response:  # fmt: skip
    """Return what every way to bid would bring for the same keywords and money."""
    loaded = work.plan(plan_id)
    asked = {"percentile": percentile, "high_plus": high_plus, "last_seen": last_seen}
    shares = {name: share for name, share in asked.items() if share is not None}
    goal = loaded.result.brief.goal
    found = other_ways(loaded.result, shares, flat)
    return sent({
        "revision": loaded.record.revision, "goal": goal,
        "ways": [way_item(way, goal) for way in found],
    })  # fmt: skip


def way_item(way: OtherWay, goal: str) -> dict[str, Any]:
    """Return one way to bid as it is sent."""
    totals = way.totals
    return {
        "name": way.policy.name, "flat_bid": way.policy.flat_bid, "share": way.policy.share,
        "value": totals.goal(goal), "customers": totals.customers, "clicks": totals.clicks,
        "spend": totals.spend, "profit": totals.profit, "pace": way.pace, "reach": way.reach,
        "not_run": way.not_run,
    }  # fmt: skip


@router.post("/plans/{plan_id}/bids/try", responses=shape_of(BidMoveTried))
def attempt(plan_id: int, body: BidMoveChange, work: Work) -> Response:
    """Say what moving some bids would do; nothing is kept."""
    loaded = work.plan(plan_id)
    found = _moved(loaded, body)
    sheet = with_locked(loaded.sheet, found.rows, found.bid)
    result = run_plan(loaded.record.brief, sheet.table, loaded.result)
    old, new = loaded.result.bid, result.bid
    changed = int((~((old == new) | (np.isnan(old) & np.isnan(new)))).sum())
    return sent({"purse": purse_block(result, sheet), "changed": changed})


@router.post("/plans/{plan_id}/bids/move", responses=shape_of(ChangeAnswer))
def move(plan_id: int, body: BidMoveChange, work: Work, window: Window = "") -> Response:
    """Move the bids of some keywords, and lock them there."""

    def decide(plan: OpenPlan) -> Decision:
        found = _moved(plan, body)
        if not len(found.rows):
            raise NothingUsableError("None of these bids would move.")
        locked = {
            plan.sheet.ids[row]: None if np.isnan(bid) else bid
            for row, bid in zip(found.rows.tolist(), found.bid.tolist(), strict=True)
        }
        label = f"bids of {counted(len(locked), 'keyword')}: {_SAID[body.way]}"
        return Decision(label, lambda c: lock_bids(c, locked))

    return sent(work.change(plan_id, decide, window=window))


def _moved(plan: OpenPlan, body: BidMoveChange) -> MovedBids:
    rows = np.asarray(plan.sheet.rows_of(list(dict.fromkeys(body.ids))), dtype=np.int64)
    return moved_bids(plan.result, rows, BidMove(body.way, body.value))


@router.get("/plans/{plan_id}/fit/limits", responses=shape_of(LimitsView))
def limits(plan_id: int, work: Work) -> Response:
    """Return what each limit costs, and the best goal with at most so many keywords."""
    loaded = work.plan(plan_id)
    campaigns = loaded.sheet.structure.campaigns
    curve = attention_of(loaded.result)
    return sent({
        "revision": loaded.record.revision,
        "goal": loaded.result.brief.goal,
        "limits": [
            {
                "limit": one.limit, "wanted": one.wanted, "costs": one.costs,
                "campaign_id": None if one.campaign is None else campaigns[one.campaign].id,
                "campaign": "" if one.campaign is None else campaigns[one.campaign].name,
            }
            for one in limit_costs(loaded.result)
        ],
        "attention_keywords": [point.keywords for point in curve],
        "attention_value": [point.value for point in curve],
        "attention_gap": gaps_said(np.array([point.gap for point in curve])),
    })  # fmt: skip


@router.get("/plans/{plan_id}/fit/curves", responses=shape_of(CurvesView))
def curves(plan_id: int, work: Work, goal: Goal | None = None, others: Others = []) -> Response:  # noqa: B006 -- read only
    """Return the goal against the purse, of a plan and of some of its versions."""
    plans = family_plans(work, plan_id, others)
    wanted = goal or plans[0].result.brief.goal
    found = [(plan, curve_of(plan.result, wanted)) for plan in plans]
    return sent({
        "goal": wanted,
        "curves": [
            {
                "plan_id": plan.record.id,
                "label": plan.record.label,
                "purse": curve.frontier.purse,
                "value": curve.frontier.value,
                "gap": gaps_said(curve.frontier.gap),
                "at": plan.result.brief.monthly_spend,
                "knee": curve.knee,
                "saturation": curve.saturation,
            }
            for plan, curve in found
        ],
    })  # fmt: skip


@router.get("/plans/{plan_id}/fit/least", responses=shape_of(LeastView))
def least(
    plan_id: int,
    work: Work,
    wanted: Annotated[float, Query(ge=0, le=1e12)] = 1.0,
    goal: Goal | Literal["clicks_each"] | None = None,
) -> Response:
    """Return the least money that brings a goal, or so many clicks to each kept keyword."""
    loaded = work.plan(plan_id)
    purse = loaded.result.brief.monthly_spend
    if goal == "clicks_each":
        each = money_for_clicks(loaded.result, wanted)
        named = [loaded.sheet.entries[row].text for row in each.too_few[:_NAMED].tolist()]
        return sent({
            "goal": goal, "wanted": wanted, "purse": each.spend, "more": each.spend - purse,
            "most": None, "saturation": None, "keywords": each.keywords, "too_few": named,
            "too_few_count": len(each.too_few),
        })  # fmt: skip
    found = least_money(loaded.result, wanted, goal)
    return sent({
        "goal": goal or loaded.result.brief.goal, "wanted": wanted, "purse": found.purse,
        "more": None if found.purse is None else found.purse - purse, "most": found.most,
        "saturation": found.saturation, "keywords": 0, "too_few": [], "too_few_count": 0,
    })  # fmt: skip


@router.get("/plans/{plan_id}/fit/cap", responses=shape_of(CapView))
def cap(plan_id: int, work: Work, odd: bool = False) -> Response:
    """Return the one cap to give a platform that bids by itself for most clicks."""
    result = work.plan(plan_id).result
    goal = result.brief.goal

    def item(found: OneCap | None) -> dict[str, float] | None:
        if found is None:
            return None
        totals = found.brings.totals
        return {"cap": found.cap, "value": totals.goal(goal), "customers": totals.customers,
                "clicks": totals.clicks, "spend": totals.spend,
                "pace": found.brings.pace}  # fmt: skip

    return sent({
        "goal": goal,
        "bare": item(one_cap(result, odd_step=odd)),
        "own": item(one_cap(result, odd_step=odd, bare=False)),
        "fitted": result.fit.value,
        "raise_share": result.brief.assumed["platform_raise"],
    })  # fmt: skip


@router.get("/plans/{plan_id}/fit/sums", responses=shape_of(SumsView))
def sums(plan_id: int, work: Work, by: Literal["group", "campaign"] = "group") -> Response:
    """Return what groups or campaigns win, miss, bring and cost, in sum."""
    loaded = work.plan(plan_id)
    structure = loaded.sheet.structure
    held: list[tuple[int | None, str]] = [(None, "No group" if by == "group" else "No campaign")]
    if by == "group":
        held += [(g.id, label) for g, label in
                 zip(structure.groups, loaded.sheet.labels, strict=True)]  # fmt: skip
    else:
        held += [(c.id, c.name) for c in structure.campaigns]
    return sent({"revision": loaded.record.revision, **_sums(loaded, by, held)})


def _sums(loaded: OpenPlan, by: str, held: list[tuple[int | None, str]]) -> dict[str, Any]:
    result, n = loaded.result, len(held)
    kept = result.table.kept
    of = (result.table.group if by == "group" else result.table.campaign) + 1
    place = np.clip(of, 0, n - 1)[kept]

    def sum_of(values: Floats) -> Floats:
        return np.bincount(place, np.nan_to_num(values[kept]), minlength=n).astype(np.float64)

    lost, e = missed(result), result.expected
    searches = sum_of(result.demand.searches)
    keywords = np.bincount(place, minlength=n)
    shown = np.flatnonzero(keywords > 0)
    columns = {
        "searches": searches,
        "reach": np.divide(
            sum_of(e.impressions), searches, out=np.zeros(n), where=searches > 0
        ),
        "not_won": sum_of(lost.for_bid), "unshown": sum_of(lost.for_money),
        "clicks": sum_of(e.clicks), "customers": sum_of(e.customers),
        "spend": sum_of(e.spend), "profit": sum_of(e.profit),
    }  # fmt: skip
    running = np.bincount(place, np.isfinite(result.bid[kept]), minlength=n)
    return {
        "id": [held[at][0] for at in shown],
        "name": [held[at][1] for at in shown],
        "keywords": keywords[shown],
        "running": running[shown].astype(np.int64),
        **{name: column[shown] for name, column in columns.items()},
    }
