"""What every screen shows: the trail, the purse, and what a click is worth."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from milkwort.api.plan.columns import plain
from milkwort.core.assumptions import RETIRED
from milkwort.core.brief.backward import backward
from milkwort.core.brief.showing import shown_share
from milkwort.core.brief.strange import strange
from milkwort.core.market.keyword_table import CALLS
from milkwort.core.plan.draws import Draws
from milkwort.core.plan.notes import notices_of
from milkwort.core.plan.purse import saturated, spend_a_day, spend_by_group
from milkwort.core.plan.run import PlanResult
from milkwort.store.plans import PlanRecord
from milkwort.store.sheet import Sheet

__all__ = ["brief_block", "purse_block", "ranges_block", "trail_block"]


def trail_block(
    result: PlanResult, hand_overs: int, campaigns: int, without_ad: int
) -> dict[str, Any]:
    """Return the live result of each stage."""
    calls = np.bincount(result.table.call, minlength=len(CALLS))
    return {
        "ceiling": result.brief.worth.ceiling,
        "keywords": len(result.table),
        "kept": int(calls[CALLS.index("keep")]),
        "to_call": int(calls[CALLS.index("none")]),
        "groups": len(np.unique(result.table.group[result.table.kept])),
        "campaigns": campaigns,
        "without_ad": without_ad,
        "spend": result.totals.spend,
        "purse": result.brief.monthly_spend,
        "hand_overs": hand_overs,
    }


def purse_block(result: PlanResult, sheet: Sheet, retired: Sequence[str] = ()) -> dict[str, Any]:
    """Return what the plan does with the money, a month."""
    totals, fitted = result.totals, result.fit
    return {
        "purse": result.brief.monthly_spend,
        "per_day": spend_a_day(result),
        "spend": totals.spend,
        "clicks": totals.clicks,
        "customers": totals.customers,
        "cost_per_customer": plain(totals.cost_per_customer),
        "profit": totals.profit,
        "revenue": totals.revenue,
        "running": totals.keywords,
        "goal": result.brief.goal,
        "next_unit": fitted.next_unit,
        "next_return": fitted.next_return,
        "pace": result.expected.pace,
        "gap": fitted.gap,
        "exact": fitted.exact,
        "policy": result.brief.policy.name,
        "saturated": saturated(result),
        "segments": _segments(result, sheet),
        "notices": [*notices_of(result), *(f"No longer counted: {RETIRED[r]}." for r in retired)],
    }


def ranges_block(draws: Draws, revision: int) -> dict[str, Any]:
    """Return the 10th to 90th percentile of each figure of the purse, and its chances."""
    return {
        "revision": revision,
        "draws": draws.count,
        "figures": {
            name: {"low": plain(r.low), "middle": plain(r.middle), "high": plain(r.high)}
            for name, r in draws.ranges.items()
        },
        "profit_chance": draws.profit_chance,
        "no_customer_chance": draws.no_customer_chance,
        "early_chance": draws.early_chance,
        "early_day": draws.early_day,
        "moves": [
            {
                "input": name,
                "customers_low": swing.customers[0],
                "customers_high": swing.customers[1],
                "profit_low": swing.profit[0],
                "profit_high": swing.profit[1],
            }
            for name, swing in draws.moves.items()
        ],
    }


def brief_block(record: PlanRecord) -> dict[str, Any]:
    """Return the brief by field, with the descent from sale to click and back."""
    brief = record.brief
    worth = brief.worth
    return {
        "name": record.name,
        "label": record.label,
        "values": record.values,
        "not_entered": list(record.not_entered),
        "assumptions": record.assumptions,
        "worth": {
            "sale_value": brief.offer.sale_value,
            "kept": worth.kept,
            "contribution": worth.contribution,
            "allowed": worth.allowed,
            "rate_low": worth.rate.low,
            "rate": worth.rate.likely,
            "rate_high": worth.rate.high,
            "break_even_cpc": worth.break_even_cpc,
            "ceiling": worth.ceiling,
            "ceiling_low": worth.ceiling_low,
            "ceiling_high": worth.ceiling_high,
        },
        "purse": brief.monthly_spend,
        "backward": [vars(line) for line in backward(brief)],
        "strange": strange(brief),
        "shown_share": shown_share(brief.showing, brief.assumed),
        "reading_rule": record.reading_rule,
        "acting": {
            name: brief.assumed[name] for name in ("stretch", "low_percentile", "high_percentile")
        },
    }


def _segments(result: PlanResult, sheet: Sheet) -> list[dict[str, Any]]:
    spend = spend_by_group(result, len(sheet.labels))
    names = ["No group", *sheet.labels]
    ids = [None, *(group.id for group in sheet.structure.groups)]
    found = [
        {"id": i, "spot_id": None, "name": name, "spend": float(s)}
        for i, name, s in zip(ids, names, spend, strict=True)
        if s > 0
    ]
    found += [
        {"id": None, "spot_id": one.id, "name": one.spot.name, "spend": float(spend)}
        for one, spend in zip(sheet.structure.spots, result.spots.spend.tolist(), strict=True)
        if spend > 0
    ]
    return sorted(found, key=lambda segment: -float(str(segment["spend"])))
