"""What every screen shows: the trail, the purse, and what a click is worth."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

import numpy as np

from milkwort.api.plan.columns import plain
from milkwort.core.assumptions import RETIRED
from milkwort.core.brief.brief import Brief
from milkwort.core.brief.showing import shown_share
from milkwort.core.market.keyword_table import CALLS
from milkwort.core.plan.draws import Draws
from milkwort.core.plan.notes import notices_of
from milkwort.core.plan.run import PlanResult
from milkwort.store.plans import PlanRecord
from milkwort.store.sheet import Sheet

__all__ = ["brief_block", "purse_block", "ranges_block", "trail_block"]

_NICE = (0.05, 0.1, 0.2, 0.5, 1.0, 2.0, 4.0, 8.0, 16.0, 32.0, 64.0, 128.0, 256.0)


def trail_block(result: PlanResult, hand_overs: int) -> dict[str, Any]:
    """Return the live result of each stage."""
    calls = np.bincount(result.table.call, minlength=len(CALLS))
    return {
        "ceiling": result.brief.worth.ceiling,
        "keywords": len(result.table),
        "kept": int(calls[CALLS.index("keep")]),
        "to_call": int(calls[CALLS.index("none")]),
        "groups": len(np.unique(result.table.group[result.table.kept])),
        "spend": result.totals.spend,
        "purse": result.brief.monthly_spend,
        "hand_overs": hand_overs,
    }


def purse_block(result: PlanResult, sheet: Sheet, retired: Sequence[str] = ()) -> dict[str, Any]:
    """Return what the plan does with the money, a month."""
    totals, fitted = result.totals, result.fit
    return {
        "purse": result.brief.monthly_spend,
        "per_day": totals.spend / result.brief.assumed["month_days"],
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
        "saturated": fitted.next_return == 0 and totals.keywords > 0,
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
        "unsaid": list(record.unsaid),
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
        "backward": _backward(brief),
        "strange": _strange(brief),
        "shown_share": shown_share(brief.showing, brief.assumed),
        "reading_rule": record.reading_rule,
    }


def _segments(result: PlanResult, sheet: Sheet) -> list[dict[str, Any]]:
    spend = np.bincount(
        np.maximum(result.table.group, -1) + 1,
        weights=result.expected.spend,
        minlength=len(sheet.labels) + 1,
    )
    names = ["No group", *sheet.labels]
    ids = [None, *(group.id for group in sheet.structure.groups)]
    found = [
        {"id": i, "name": name, "spend": float(s)}
        for i, name, s in zip(ids, names, spend, strict=True)
        if s > 0
    ]
    return sorted(found, key=lambda segment: -float(str(segment["spend"])))


def _backward(brief: Brief) -> list[dict[str, Any]]:
    """Return, for a few click prices about the ceiling, how many clicks may make a sale."""
    worth = brief.worth
    ceiling = worth.ceiling or worth.break_even_cpc or 1.0
    nearest = min(range(len(_NICE)), key=lambda i: abs(math.log(_NICE[i] / ceiling)))
    start = min(max(nearest - 2, 0), len(_NICE) - 4)
    return [
        {
            "price": price,
            "rule": worth.allowed / price,
            "break_even": worth.contribution / price,
            "expected": plain(1 / worth.rate.likely if worth.rate.likely else None),
            "meets_rule": worth.rate.likely * worth.allowed >= price,
            "breaks_even": worth.rate.likely * worth.contribution >= price,
        }
        for price in _NICE[start : start + 4]
    ]


def _strange(brief: Brief) -> list[str]:
    """Return what is odd about a brief that is still possible, in words."""
    worth, said = brief.worth, []
    least = brief.assumed["min_bid"]
    if worth.ceiling < least:
        said.append(
            f"The ceiling of {worth.ceiling:.2f} is under the least bid of {least:.2f}: "
            "no click is cheap enough."
        )
    elif 0 < brief.monthly_spend < 10 * worth.ceiling:
        said.append(
            f"{brief.monthly_spend:g} a month buys fewer than ten clicks at the ceiling: "
            "too few to learn from."
        )
    if brief.monthly_spend == 0:
        said.append("The purse is empty: nothing will run.")
    if worth.rate.likely == 0:
        said.append("A conversion rate of 0: no click is worth anything.")
    if brief.ceiling.may_pay_to_learn and worth.allowed > worth.contribution:
        said.append("The allowed cost passes what a customer brings: this pays to learn.")
    return said
