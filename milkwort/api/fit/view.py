"""The ladder of pounds as a picture: steps gathered into blocks, and what stands beside."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from milkwort.core.fit.fit import Ladder
from milkwort.core.plan.more_money import more_money
from milkwort.core.plan.run import PlanResult, frontier_of
from milkwort.store.sheet import Sheet

__all__ = ["fit_view"]

_BLOCKS = 180
_BEYOND_PURSE = 1.7
_NAMES = 3


def fit_view(result: PlanResult, sheet: Sheet, revision: int) -> dict[str, Any]:
    """Return what the Fit screen draws; money and goal a month."""
    ladder, purse = result.fit.ladder, result.brief.monthly_spend
    saturation = float(ladder.spend_so_far[-1]) if len(ladder.owner) else ladder.base_spend
    span = max(min(saturation, purse * _BEYOND_PURSE), purse, 1.0)
    curve = frontier_of(result)
    return {
        "revision": revision,
        "goal": result.brief.goal,
        "blocks": _blocks(result, sheet, span),
        "groups": ["No group", *sheet.labels, *(spot.name for spot in result.brief.spots)],
        "span": span,
        "frontier_purse": curve.purse,
        "frontier_value": curve.value,
        "value": result.value,
        "bound": result.bound,
        "more": _more(result, sheet),
        "saturation": saturation,
    }


def _blocks(result: PlanResult, sheet: Sheet, span: float) -> list[dict[str, Any]]:
    ladder = result.fit.ladder
    start = ladder.spend_so_far - ladder.spend
    shown = int(np.searchsorted(start, span))
    if shown == 0:
        return []
    start, spend, value = start[:shown], ladder.spend[:shown], ladder.value[:shown]
    bins = np.floor(start / (span / _BLOCKS))
    first = np.flatnonzero(np.r_[True, bins[1:] != bins[:-1]])
    block = np.cumsum(np.r_[False, bins[1:] != bins[:-1]])
    groups = len(sheet.labels) + 1 + len(result.brief.spots)
    # a spot stands by itself, after all groups
    of_spot = len(sheet.labels) + 1 + np.arange(len(result.brief.spots))
    group = np.concatenate((result.table.group + 1, of_spot))[ladder.owner[:shown]]
    by_group = np.bincount(block * groups + group, spend, minlength=len(first) * groups)
    texts = [*(e.text for e in sheet.entries), *(spot.name for spot in result.brief.spots)]
    names = _names(ladder, texts, block, spend, shown)
    totals = np.add.reduceat(spend, first)
    return [
        {
            "start": s, "spend": t, "return": v / t, "group": g, "steps": n, "keywords": names[i],
        }
        for i, (s, t, v, g, n) in enumerate(
            zip(
                start[first].tolist(),
                totals.tolist(),
                np.add.reduceat(value, first).tolist(),
                by_group.reshape(-1, groups).argmax(axis=1).tolist(),
                np.diff(np.r_[first, shown]).tolist(),
                strict=True,
            )
        )
    ]  # fmt: skip


def _names(
    ladder: Ladder, texts: Sequence[str], block: Any, spend: Any, shown: int
) -> dict[int, list[str]]:
    """Return, for each block, the keywords and spots that take most of its money."""
    named: dict[int, list[str]] = {}
    for step in np.lexsort((-spend, block)).tolist():
        names = named.setdefault(int(block[step]), [])
        text = texts[int(ladder.owner[:shown][step])]
        if len(names) < _NAMES and text not in names:
            names.append(text)
    return named


def _more(result: PlanResult, sheet: Sheet) -> dict[str, Any] | None:
    more = more_money(result, _NAMES)
    if more is None:
        return None
    texts = [sheet.entries[row].text for row in more.rows]
    return {"money": more.money, "value": more.value, "keywords": texts}
