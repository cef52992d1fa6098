"""Sift: several keywords changed at once, and their arithmetic."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np
from fastapi import APIRouter, Response

from milkwort.api.arrange.places import place_of
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.routes import workings_answer
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.api.sift.schemas import KeywordEdit, Selection
from milkwort.api.sift.workings_schemas import Workings
from milkwort.core.counted import counted
from milkwort.core.errors import BadValueError
from milkwort.core.words.match_types import Match
from milkwort.core.workings.selection import selection_workings
from milkwort.store.edits import duplicate_as, edit_keywords, set_figures
from milkwort.store.groups import make_places, place_keywords
from milkwort.store.journal import Change

router = APIRouter(tags=["sift"])


@router.post("/plans/{plan_id}/keywords/edit", responses=shape_of(ChangeAnswer))
def edit(plan_id: int, body: KeywordEdit, work: Work, window: Window = "") -> Response:
    """Set something for some keywords, or repeat them with another match type."""
    return sent(work.change(plan_id, lambda plan: _edited(plan, body), window=window))


@router.post("/plans/{plan_id}/keywords/workings", responses=shape_of(Workings))
def selection(plan_id: int, body: Selection, work: Work) -> Response:
    """Return the sums and means of several keywords."""
    loaded = work.plan(plan_id)
    rows = np.array(loaded.sheet.rows_of(body.ids), dtype=np.int64)
    title = f"{len(rows):,} keywords"
    sections = selection_workings(loaded.result, rows)
    return sent(workings_answer(loaded.record.revision, title, "selected", [], sections))


def _edited(plan: OpenPlan, body: KeywordEdit) -> Decision:
    rows = plan.sheet.rows_of(body.ids)
    _check(plan, body)
    moved = _free(plan, rows, body.match) if body.match else []
    twins = _free(plan, rows, body.duplicate_as) if body.duplicate_as else []
    columns = _columns(plan, body)
    place = None if body.group is None else place_of(plan, body.group, rows)
    figures = (body.volume, body.cpc_low, body.cpc_high)

    def do(change: Change) -> None:
        entries = plan.sheet.entries
        if columns:
            edit_keywords(change, body.ids, columns)
        if body.match:
            edit_keywords(change, [plan.sheet.ids[r] for r in moved], {"match": body.match})
        if place is not None:
            place_keywords(change, dict.fromkeys(body.ids, make_places(change, [place])[place]))
        if any(figure is not None for figure in figures):
            held = [(i, entries[r]) for i, r in zip(body.ids, rows, strict=True)]
            set_figures(change, held, *figures)
        if body.duplicate_as:
            duplicate_as(change, [entries[r] for r in twins], body.duplicate_as)

    return Decision(_label(body, len(rows), len(moved), len(twins)), do)


def _columns(plan: OpenPlan, body: KeywordEdit) -> dict[str, Any]:
    said = {name: getattr(body, name) for name in ("intent", "note")}
    columns = {name: value for name, value in said.items() if value is not None}
    if body.offer is not None:
        ids = {name: i for i, name in plan.offer_names.items()}
        columns["offer_id"] = ids.get(body.offer) if body.offer else None
    return columns


def _check(loaded: OpenPlan, body: KeywordEdit) -> None:
    names = {offer.name for offer in loaded.record.brief.offers} | {""}
    if body.offer is not None and body.offer not in names:
        raise BadValueError("offer", "one of " + ", ".join(sorted(names - {""})), body.offer)
    low, high = body.cpc_low, body.cpc_high
    if low is not None and high is not None and low > high:
        raise BadValueError("price", "a low price up to the high one", f"{low:g} to {high:g}")


def _free(loaded: OpenPlan, rows: Sequence[int], match: Match) -> list[int]:
    """Return the rows whose text doesn't stand with that match type already.

    Raises
    ------
    BadValueError
        Where that is none of them.
    """
    entries = loaded.sheet.entries
    taken = {(e.normalised, e.match) for e in entries}
    free = []
    for row in rows:
        identity = (entries[row].normalised, match)
        if identity not in taken:
            taken.add(identity)
            free.append(row)
    if not free:
        raise BadValueError("match type", f"keywords that aren’t {match} already", "none")
    return free


def _label(body: KeywordEdit, rows: int, moved: int, twins: int) -> str:
    many = counted(rows, "keyword")
    if body.duplicate_as:
        left = f", {rows - twins:,} there already" if twins < rows else ""
        return f"repeat {twins:,} as {body.duplicate_as} match{left}"
    if body.match:
        left = f", {rows - moved:,} there already" if moved < rows else ""
        return f"set the match type of {moved:,} keywords{left}"
    named = [n for n in ("offer", "intent", "group", "note") if getattr(body, n) is not None]
    return f"set the {named[0] if named else 'figures'} of {many}"
