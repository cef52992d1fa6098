"""What a platform is told of a plan when a practice account is opened."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date
from typing import Any

import numpy as np

from milkwort.core.brief.platform import Profile
from milkwort.core.brief.showing import hours_of_day
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.intents import INTENTS

__all__ = ["opening_of"]

_LIMITS = (
    "matches", "min_bid", "bid_step", "raises", "keywords_per_group", "ads_per_group",
    "headlines", "descriptions", "headline_characters", "description_characters", "written_ads",
    "refused_characters", "negative_close_forms", "upload_rows", "day_over",
)  # fmt: skip


def opening_of(
    result: PlanResult, profile: Profile, name: str, level: str, seed: int, start: date
) -> dict[str, Any]:
    """Return what a practice account is opened with: what the planner knows.

    Parameters
    ----------
    result : PlanResult
    profile : Profile
    name : str
        Of the account.
    level : str
        How far the truth may lie from what is known: as-planned, usual, rough.
    seed : int
    start : date
        The first day.
    """
    brief, assumed = result.brief, result.brief.assumed
    said: Mapping[str, Any] = profile.as_dict()
    limits = {field: said[field] for field in _LIMITS}
    limits |= {
        "min_bid": assumed["min_bid"], "bid_step": assumed["bid_step"],
        "raises": assumed["platform_raise"], "day_over": assumed["day_over"],
        "close_forms": brief.close_forms, "negative_close_forms": brief.negative_close_forms,
    }  # fmt: skip
    quiet = assumed["weekend_searches"]
    return {
        "name": name[:200], "currency": brief.currency, "pricing": brief.pricing,
        "level": level, "seed": seed, "start": start.isoformat(), "limits": limits,
        "zone": brief.showing.zone,
        "offers": [
            {"low": o.rate.low, "likely": o.rate.likely, "high": o.rate.high,
             "close": o.close.likely if o.close is not None and o.close.likely > 0 else None}
            for o in brief.offers
        ],
        "keywords": _keywords(result),
        "low_percentile": assumed["low_percentile"], "high_percentile": assumed["high_percentile"],
        "click_rate_top": assumed["click_rate_top"],
        "click_rate_bottom": assumed["click_rate_bottom"],
        "season": None if brief.season is None else list(brief.season),
        "hours": hours_of_day(assumed).tolist(),
        "weekdays": [1.0] * 5 + [quiet] * 2,
        "intent_rates": {intent: assumed[f"intent_{intent}"] for intent in INTENTS},
    }  # fmt: skip


def _keywords(result: PlanResult) -> list[dict[str, Any]]:
    """Return each text once, as its most specific row has it."""
    table, demand, prices = result.table, result.demand, result.prices
    found: dict[str, dict[str, Any]] = {}
    # the market has hours of its own: what is told is the whole day's searches
    searches = np.divide(demand.volume, demand.shown, out=np.zeros(len(table)),
                         where=demand.shown > 0)  # fmt: skip
    ranged = np.isfinite(table.volume_low) & (table.volume_low < table.volume_high)
    scale = np.divide(searches, demand.likely, out=np.zeros(len(table)),
                      where=np.nan_to_num(demand.likely) > 0)  # fmt: skip
    months = np.isfinite(table.months).all(axis=1) & (np.nan_to_num(table.months).sum(axis=1) > 0)
    for row in np.lexsort((table.match, ~table.kept)).tolist():
        text = table.texts[row]
        if text in found or not text:
            continue
        known = bool(prices.known[row])
        found[text] = {
            "text": text, "searches": float(searches[row]),
            "searches_low": _times(table.volume_low[row], scale[row]) if ranged[row] else None,
            "searches_high": _times(table.volume_high[row], scale[row]) if ranged[row] else None,
            "price_low": float(prices.low[row]) if known else None,
            "price_high": float(prices.high[row]) if known else None,
            "intent": INTENTS[table.intent[row]], "offer": int(table.offer[row]),
            "months": table.months[row].tolist() if months[row] else None,
            "own_place": bool(demand.at_home[row]),
            "rate": None if np.isnan(table.rate[row]) else float(table.rate[row]),
        }  # fmt: skip
    return list(found.values())


def _times(value: float, by: float) -> float:
    return float(max(value, 1.0) * by)
