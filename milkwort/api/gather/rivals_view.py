"""The newest list of rivals against a plan, as its screen shows it."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from milkwort.api.gather.sources import row_of_idea
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.workspace import Workspace
from milkwort.core.errors import PlannerError, Refusal
from milkwort.core.gather.rival_sightings import Sighting, ads_seen, months_listed, sightings
from milkwort.core.gather.rival_totals import rival_totals, shared_keywords
from milkwort.core.gather.rivals import (
    Overlap,
    RivalRow,
    changes_between,
    kept_texts,
    overlap_with,
    rank_gaps,
)
from milkwort.formats.keyword_rows import table_of
from milkwort.store.rival_lists import load_rival_lists

__all__ = ["rivals_view"]


def rivals_view(
    work: Workspace, plan_id: int, refused: Sequence[Refusal], rival: str | None = None
) -> dict[str, Any]:
    """Return what `RivalsView` holds.

    Parameters
    ----------
    refused : sequence of Refusal
        Rows of the file it came from.
    rival : str, optional
        Keywords and ads of one rival alone; totals stay those of all.
    """
    loaded = work.plan(plan_id)
    with work.database.read() as session:
        lists = load_rival_lists(session, loaded.record.client_id)
    now = lists[-1]
    before: tuple[RivalRow, ...] = lists[-2].rows if len(lists) > 1 else ()
    chosen = [row for row in now.rows if rival in (None, row.rival)]
    overlap = overlap_with(loaded.sheet.table, chosen)
    ours = kept_texts(loaded.sheet.table)
    seen = _Seen(now.rows)
    return {
        "name": now.name,
        "at": now.at,
        "rivals": seen.rivals,
        "of": rival,
        "months": [f"{month // 12}-{month % 12 + 1:02d}" for month in seen.window],
        "both": len(overlap.both),
        "only_they": len(overlap.only_they),
        "only_we": len(overlap.only_we),
        "keywords": _keywords(work, loaded, seen, sightings(now.rows, rival), overlap),
        "ads": _ads(seen, rival),
        "totals": _totals(seen, ours),
        "shared": _shared(now.rows, ours),
        "changes": [
            {"rival": c.rival, "new": list(c.new), "given_up": list(c.given_up)}
            for c in (changes_between(before, now.rows) if before else [])
        ],
        "refused": [r.as_dict() for r in refused],
    }


class _Seen:
    """A list's rivals and months, and sightings as columns with places in these."""

    def __init__(self, rows: Sequence[RivalRow]) -> None:
        self.rows = rows
        self.rivals = sorted({row.rival for row in rows})
        self.window = months_listed(rows)
        self._place = {rival: at for at, rival in enumerate(self.rivals)}

    def columns(self, found: Sequence[Sighting]) -> dict[str, Any]:
        """Return what `SightingColumns` holds."""
        start = self.window.start
        plain = ("name", "days", "running", "position", "clicks", "monthly_cost", "clicks_share",
                 "ads", "pages")  # fmt: skip
        return {name: [getattr(s, name) for s in found] for name in plain} | {
            "rivals": [[self._place[rival] for rival in s.rivals] for s in found],
            "months": [[month - start for month in s.months] for s in found],
        }


def _keywords(
    work: Workspace, loaded: OpenPlan, seen: _Seen, found: Sequence[Sighting], overlap: Overlap
) -> dict[str, Any]:
    by_text = {s.name: s for s in found}
    brings, why = _brings(work, loaded, overlap.only_they)
    ordered = [by_text[text] for text in (*brings, *overlap.both)]
    return seen.columns(ordered) | {
        "ours": [s.name not in brings for s in ordered],
        "would_bring": [brings.get(s.name) for s in ordered],
        "unknown_why": why,
    }


def _brings(
    work: Workspace, loaded: OpenPlan, texts: tuple[str, ...]
) -> tuple[dict[str, float | None], str]:
    """Return customers a month that each text would bring, the best first, or why not known."""
    if not texts:
        return {}, ""
    try:
        ideas = work.known_ideas(texts)
    except PlannerError as no:
        return dict.fromkeys(texts), str(no)
    result = loaded.result
    rows = [row_of_idea(n, idea) for n, idea in enumerate(ideas, start=1)]
    candidates, _ = table_of(rows, result.brief.volume_basis)
    candidates = candidates.with_calls(np.arange(len(rows)), "none")
    order, customers = rank_gaps(result, candidates, candidates.texts)
    return {candidates.texts[i]: float(customers[i]) for i in order.tolist()}, ""


def _ads(seen: _Seen, rival: str | None) -> dict[str, Any]:
    found = ads_seen(seen.rows, rival)
    return seen.columns([ad.sighting for ad in found]) | {"keywords": [ad.keywords for ad in found]}


def _totals(seen: _Seen, ours: set[str]) -> dict[str, Any]:
    found = rival_totals(seen.rows, ours)
    # a rival's every ad and page would say each text of the list once more
    columns = seen.columns([total.sighting for total in found])
    return columns | {
        "ads": [[] for _ in found],
        "pages": [[] for _ in found],
        "keywords": [total.keywords for total in found],
        "shared": [total.shared for total in found],
        "alone": [total.alone for total in found],
        "running_keywords": [total.running for total in found],
    }


def _shared(rows: Sequence[RivalRow], ours: set[str]) -> dict[str, Any]:
    found = shared_keywords(rows, ours)
    return {"rivals": found.rivals, "counts": found.counts.tolist()}
