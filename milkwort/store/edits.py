"""Changes of many keywords at once: match type, offer, intent, note, own figures."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Any

from milkwort.core.words.match_types import Match
from milkwort.store import models
from milkwort.store.entries import Arrival, KeywordEntry, ReadingEntry
from milkwort.store.journal import Change
from milkwort.store.keywords import add_keywords, add_readings

__all__ = ["BY_HAND", "duplicate_as", "edit_keywords", "set_figures"]

BY_HAND = "set by hand"
"""Origin of figures that the planner entered."""


def edit_keywords(change: Change, ids: Sequence[int], values: dict[str, Any]) -> None:
    """Set columns of keywords: match, offer, intent, note."""
    change.update(models.Keyword, dict.fromkeys(ids, values))


def set_figures(
    change: Change,
    entries: Sequence[tuple[int, KeywordEntry]],
    volume: float | None,
    cpc_low: float | None,
    cpc_high: float | None,
) -> None:
    """Add readings by hand; what isn't given stays with the reading that says it now."""
    by_hand = ReadingEntry(origin=BY_HAND, cpc_low=cpc_low, cpc_high=cpc_high,
                           volume_low=volume, volume_high=volume)  # fmt: skip
    readings = []
    for keyword_id, entry in entries:
        searches, prices = entry.reading, entry.prices
        made = by_hand
        if made.says_searches:
            made = replace(made, basis=searches.basis, area=searches.area, months=searches.months)
        if made.says_prices:
            made = replace(made, competition=prices.competition, area=made.area or prices.area)
        readings.append((keyword_id, made))
    add_readings(change, readings)


def duplicate_as(change: Change, entries: Sequence[KeywordEntry], match: Match) -> list[int]:
    """Add the same keywords with another match type, not yet called."""
    fresh = [
        replace(e, match=match, call="none", reason="", call_by="", call_at="", locked_bid=None,
                key="")
        for e in entries
    ]  # fmt: skip
    return add_keywords(change, [Arrival(e) for e in fresh])
