"""Changes of many keywords at once: match type, offer, intent, note, own figures."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Any

from milkwort.core.match_types import Match
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
    """Add readings by hand; what isn't given stays as the reading in use has it."""
    readings = []
    for keyword_id, entry in entries:
        old = entry.reading
        prices = (old.cpc_low, old.cpc_high)
        if cpc_low is not None or cpc_high is not None:
            prices = (cpc_low, cpc_high)
        searches: dict[str, Any] = {}
        if volume is not None:
            searches = {"volume_low": volume, "volume_high": volume, "period": "month"}
        readings.append((keyword_id, replace(
            old, cpc_low=prices[0], cpc_high=prices[1], origin=_origin(old), origin_row=None,
            **searches,
        )))  # fmt: skip
    add_readings(change, readings)


def duplicate_as(change: Change, entries: Sequence[KeywordEntry], match: Match) -> list[int]:
    """Add the same keywords with another match type, not yet called."""
    fresh = [
        replace(e, match=match, call="none", reason="", call_by="", call_at="", locked_bid=None,
                key="")
        for e in entries
    ]  # fmt: skip
    return add_keywords(change, [Arrival(e) for e in fresh])


def _origin(old: ReadingEntry) -> str:
    if old.origin.startswith(BY_HAND):
        return old.origin
    return f"{BY_HAND}, else {old.origin}" if old.origin else BY_HAND
