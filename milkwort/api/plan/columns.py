"""A plan's figures as columns on their way to the browser."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any, Literal

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.plan.figures import Shown, figures_of
from milkwort.core.plan.run import PlanResult
from milkwort.core.sift.ranks import rank_gap, strong_unpaid
from milkwort.core.words.match_types import Match
from milkwort.store.entries import KeywordEntry
from milkwort.store.sheet import Sheet

__all__ = [
    "STORED", "CallName", "FigureColumns", "figure_columns", "plain", "text_columns", "tidy",
]  # fmt: skip

CallName = Literal["none", "keep", "hold", "drop", "block"]

_FIGURES = 7


@dataclass(frozen=True)
class Stored:
    """A column of what is stored of keywords.

    Attributes
    ----------
    name : str
    holds : type
        What it holds for one keyword.
    of : callable or None
        Reads it from a keyword; None where it needs more than the keyword.
    shown : Shown or None
        None where it is only drawn.
    """

    name: str
    holds: Any
    of: Callable[[KeywordEntry], Any] | None = None
    shown: Shown | None = None


_RANK = float | None

STORED: tuple[Stored, ...] = (
    Stored("id", int),
    Stored("text", str, lambda e: e.text, Shown("keyword", "Keyword", "text", listed=False)),
    Stored("match", Match, lambda e: e.match, Shown("match", "Match", "text", picked="match")),
    Stored("intent", str, lambda e: e.intent,
           Shown("intent", "Intent", "text", listed=False, picked="intent", compared="intent")),
    Stored("call", CallName, lambda e: e.call,
           Shown("call", "Call", "text", listed=False, picked="call")),
    Stored("reason", str, lambda e: e.reason, Shown("reason", "Reason", "text", picked="reason")),
    Stored("group", str, None, Shown("group", "Group", "text", listed=False, picked="group")),
    Stored("group_id", int | None, lambda e: e.group_id),
    Stored("offer", str, None, Shown("offer", "Offer", "text", picked="offer")),
    Stored("note", str, lambda e: e.note, Shown("own_note", "Own note", "text")),
    Stored("kinds", str),
    Stored("by", str, lambda e: e.call_by, Shown("by", "Called by", "text", picked="called by")),
    Stored("at", str, lambda e: e.call_at, Shown("at", "Called", "text")),
    Stored("unpaid_rank", _RANK, lambda e: e.unpaid_rank,
           Shown("rank", "Unpaid rank", "number", ranged="unpaid rank")),
    Stored("paid_rank", _RANK, lambda e: e.paid_rank,
           Shown("paid", "Paid rank", "number", ranged="paid rank")),
    Stored("popularity", _RANK, lambda e: e.popularity,
           Shown("popularity", "Popularity", "number", ranged="popularity")),
    Stored("rank_gap", _RANK, lambda e: rank_gap(e.unpaid_rank, e.paid_rank),
           Shown("gap", "Paid less unpaid rank", "number", ranged="paid less unpaid rank")),
    Stored("strong_unpaid", bool, lambda e: strong_unpaid(e.unpaid_rank, e.paid_rank)),
    Stored("competition", _RANK, lambda e: e.prices.competition,
           Shown("competition", "Competition, %", "percent", ranged="competition, %")),
    Stored("origin", str, lambda e: e.source, Shown("origin", "Source", "text", picked="source")),
    Stored("volume_low", _RANK, lambda e: e.reading.volume_low),
    Stored("volume_high", _RANK, lambda e: e.reading.volume_high),
    Stored("months", list[float] | None, lambda e: e.reading.months),
    Stored("locked_bid", _RANK, lambda e: e.locked_bid),
)  # fmt: skip
"""What is stored of keywords and sent; what is worked out is a table of the core."""


def text_columns(
    sheet: Sheet,
    kinds: list[str],
    offers: Mapping[int | None, str],
    rows: list[int] | None = None,
) -> dict[str, list[Any]]:
    """Return what is stored of keywords, by column.

    Parameters
    ----------
    sheet : Sheet
    kinds : list of str
        Kinds of each keyword's words.
    offers : mapping of int to str
        Names of the offers by id.
    rows : list of int, optional
        Only these; all where left out.
    """
    picked = range(len(sheet.ids)) if rows is None else rows
    entries = [sheet.entries[r] for r in picked]
    beside: dict[str, list[Any]] = {
        "id": [sheet.ids[r] for r in picked],
        "group": sheet.group_labels(picked),
        "offer": [offers.get(e.offer_id, "") for e in entries],
        "kinds": kinds if rows is None else [kinds[r] for r in rows],
    }
    return {c.name: beside[c.name] if c.of is None else list(map(c.of, entries)) for c in STORED}


@dataclass(frozen=True)
class FigureColumns:
    """What a plan says of keywords: as worked out, and as sent.

    A column that is what it was before stays the very same list or array, so that it is
    neither rounded nor compared again.
    """

    exact: dict[str, Any]
    sent: dict[str, Any]

    def moved_from(self, before: FigureColumns) -> dict[str, Any]:
        """Return the columns that are not what they were."""
        return {
            name: column
            for name, column in self.sent.items()
            if column is not before.sent[name] and not _same(before.sent[name], column)
        }


def figure_columns(result: PlanResult, before: FigureColumns | None = None) -> FigureColumns:
    """Return what the plan says of keywords, by column, as the core's table has it."""
    exact = figures_of(result)
    sent = {}
    for name, column in exact.items():
        if before is not None and _same(before.exact[name], column):
            exact[name], sent[name] = before.exact[name], before.sent[name]
        else:
            sent[name] = tidy(column) if isinstance(column, np.ndarray) else column
    return FigureColumns(exact, sent)


def plain(value: float | None) -> float | None:
    """Return a figure for JSON: None for NaN and infinities."""
    return None if value is None or not np.isfinite(value) else float(value)


def tidy(values: Floats) -> Floats:
    """Return figures to seven digits, which is more than any screen shows."""
    with np.errstate(divide="ignore", invalid="ignore"):
        magnitude = np.floor(np.log10(np.abs(values)))
        scale = 10.0 ** (_FIGURES - 1 - magnitude)
        rounded = np.round(values * scale) / scale
    return np.where(np.isfinite(rounded), rounded, values)


def _same(before: Any, after: Any) -> bool:
    if before is after:
        return True
    if isinstance(after, np.ndarray):
        return bool(np.array_equal(before, after, equal_nan=True))
    return bool(before == after)
