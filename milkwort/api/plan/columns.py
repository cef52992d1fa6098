"""A plan's figures as columns on their way to the browser."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.market.prices import price_at_reach
from milkwort.core.market.standing import STANDINGS, clicks_to_first_sale, come_in_columns
from milkwort.core.plan.notes import notes_of
from milkwort.core.plan.run import PlanResult
from milkwort.core.sift.ranks import rank_gap, strong_unpaid
from milkwort.store.sheet import Sheet

__all__ = ["FigureColumns", "figure_columns", "plain", "text_columns", "tidy"]

_FIGURES = 7


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
    return {
        "id": [sheet.ids[r] for r in picked],
        "text": [e.text for e in entries],
        "match": [e.match for e in entries],
        "intent": [e.intent for e in entries],
        "call": [e.call for e in entries],
        "reason": [e.reason for e in entries],
        "group": sheet.group_labels(picked),
        "group_id": [e.group_id for e in entries],
        "offer": [offers.get(e.offer_id, "") for e in entries],
        "note": [e.note for e in entries],
        "kinds": kinds if rows is None else [kinds[r] for r in rows],
        "by": [e.call_by for e in entries],
        "at": [e.call_at for e in entries],
        "unpaid_rank": [e.unpaid_rank for e in entries],
        "paid_rank": [e.paid_rank for e in entries],
        "competition": [e.prices.competition for e in entries],
        "rank_gap": [rank_gap(e.unpaid_rank, e.paid_rank) for e in entries],
        "strong_unpaid": [strong_unpaid(e.unpaid_rank, e.paid_rank) for e in entries],
        "popularity": [e.popularity for e in entries],
        "origin": [e.source for e in entries],
        "volume_low": [e.reading.volume_low for e in entries],
        "volume_high": [e.reading.volume_high for e in entries],
        "months": [e.reading.months for e in entries],
        "locked_bid": [e.locked_bid for e in entries],
    }


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
    """Return what the plan says of keywords, by column; money a click, figures a month.

    `clicks`, `spend` and `customers` are those of this plan for a kept keyword, and what
    it would bring for any other.
    """
    exact = _exact(result)
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


def _exact(result: PlanResult) -> dict[str, Any]:
    e, outside, kept = result.expected, result.not_kept, result.table.kept
    prices, standing = result.prices, result.standing
    come = come_in_columns(result.brief, result.demand, prices, result.table.offer)
    first_sale = clicks_to_first_sale(result.demand.rate, result.brief.assumed)
    return {
        "searches": np.where(np.isnan(result.demand.likely), np.nan, result.demand.own),
        "rate": result.demand.rate,
        "cpc_low": prices.low,
        "cpc_high": prices.high,
        "cpc_median": np.exp(prices.mu),
        "cpc_at_line": price_at_reach(result.brief.assumed["stretch"], prices),
        "ceiling": standing.ceiling,
        "headroom": np.where(np.isneginf(standing.headroom), -1e9, standing.headroom),
        "reach": standing.reach,
        "rate_at_line": come.rate,
        "value_at_line": come.sale_value,
        "price_at_line": come.price_factor,
        "spill": result.demand.spill,
        "first_sale": first_sale,
        "standing": np.array(STANDINGS)[standing.standing].tolist(),
        "bid": result.bid,
        "bid_reach": e.reach,
        "cpc": e.cpc,
        "clicks": np.where(kept, e.clicks, outside.clicks),
        "spend": np.where(kept, e.spend, outside.spend),
        "customers": np.where(kept, e.customers, outside.customers),
        "notes": notes_of(result),
    }


def _same(before: Any, after: Any) -> bool:
    if before is after:
        return True
    if isinstance(after, np.ndarray):
        return bool(np.array_equal(before, after, equal_nan=True))
    return bool(before == after)
