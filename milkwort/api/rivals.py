"""Rivals' keyword lists: held against the plan, and what only they buy into the tray."""

from __future__ import annotations

from importlib.resources import files
from typing import Annotated, Any

import numpy as np
from fastapi import APIRouter, File, Response, UploadFile

from milkwort.api.gather_schemas import KeywordTexts, RivalsView
from milkwort.api.schemas import shape_of
from milkwort.api.shared import Window, Work, sent
from milkwort.api.sources import row_of_idea
from milkwort.api.tray_rows import tray_view
from milkwort.api.tray_schemas import TrayView
from milkwort.api.trays import Tray
from milkwort.api.workspace import Decision, Workspace
from milkwort.core.errors import Refusal
from milkwort.core.rivals import (
    RivalAd,
    RivalRow,
    ads_seen,
    changes_between,
    overlap_with,
    rank_gaps,
    staying_power,
)
from milkwort.formats.keyword_rows import KeywordRows, table_of
from milkwort.formats.rival_rows import read_rival_rows
from milkwort.formats.tables import read_table
from milkwort.formats.text_table import MAX_BYTES
from milkwort.store.rival_lists import RivalList, add_rival_list, load_rival_lists

router = APIRouter(tags=["gather"])


@router.get("/plans/{plan_id}/gather/rivals", responses=shape_of(RivalsView))
def view(plan_id: int, work: Work) -> Response:
    """Return the newest list against the plan; null where none was brought in yet."""
    client_id = work.plan(plan_id).record.client_id
    with work.database.read() as session:
        held = load_rival_lists(session, client_id)
    return sent(_view(work, plan_id, ()) if held else None)


@router.post("/plans/{plan_id}/gather/rivals", responses=shape_of(RivalsView))
def read_list(
    plan_id: int, file: Annotated[UploadFile, File()], work: Work, window: Window = ""
) -> Response:
    """Read a list of rivals' paid keywords."""
    name = (file.filename or "rivals")[:200]
    return sent(_put(work, plan_id, name, file.file.read(MAX_BYTES + 1), window))


@router.post("/plans/{plan_id}/gather/rivals/sample", responses=shape_of(RivalsView))
def read_sample(plan_id: int, work: Work, window: Window = "") -> Response:
    """Read the made-up list of three invented rivals."""
    data = files("milkwort.samples").joinpath("rivals.csv").read_bytes()
    return sent(_put(work, plan_id, "rivals.csv (made up)", data, window))


@router.post("/plans/{plan_id}/gather/rivals/tray", responses=shape_of(TrayView))
def to_tray(plan_id: int, body: KeywordTexts, work: Work) -> Response:
    """Put keywords that rivals buy into the tray, with the almanac's figures."""
    ideas = work.almanac.figures(body.texts).ideas
    rows = tuple(row_of_idea(number, idea) for number, idea in enumerate(ideas, start=1))
    return sent(tray_view(work, Tray(plan_id, "rivals", KeywordRows(rows)), None))


def _put(work: Workspace, plan_id: int, name: str, data: bytes, window: str) -> dict[str, Any]:
    read = read_rival_rows(read_table(data, name), name)
    made = Decision(f"bring in the rivals of {name}", lambda c: add_rival_list(c, name, read.rows))
    work.change(plan_id, lambda _: made, window=window, of_client=True)
    return _view(work, plan_id, read.refused)


def _view(work: Workspace, plan_id: int, refused: tuple[Refusal, ...]) -> dict[str, Any]:
    loaded = work.plan(plan_id)
    with work.database.read() as session:
        lists = load_rival_lists(session, loaded.record.client_id)
    now = lists[-1]
    before: tuple[RivalRow, ...] = lists[-2].rows if len(lists) > 1 else ()
    overlap = overlap_with(loaded.sheet.table, now.rows)
    changes = changes_between(before, now.rows) if before else []
    return {
        "name": now.name,
        "at": now.at,
        "rivals": sorted({row.rival for row in now.rows}),
        "both": len(overlap.both),
        "only_they": len(overlap.only_they),
        "only_we": len(overlap.only_we),
        "rows": _rows(work, plan_id, now, overlap.both, overlap.only_they, overlap.rivals_of),
        "ads": [_ad(ad) for ad in ads_seen(now.rows)],
        "changes": [
            {"rival": c.rival, "new": list(c.new), "given_up": list(c.given_up)} for c in changes
        ],
        "refused": [r.as_dict() for r in refused],
    }


def _ad(ad: RivalAd) -> dict[str, Any]:
    seen = ad.sighting
    return {
        "text": ad.text,
        "rivals": list(ad.rivals),
        "keywords": list(ad.keywords),
        "days": seen.days if seen else None,
        "running": seen is not None and seen.running,
        "monthly_cost": seen.monthly_cost if seen else None,
    }


def _rows(
    work: Workspace,
    plan_id: int,
    listed: RivalList,
    both: tuple[str, ...],
    only_they: tuple[str, ...],
    rivals_of: dict[str, tuple[str, ...]],
) -> list[dict[str, Any]]:
    """Return what only they buy by what it would bring, then what both buy."""
    seen = {s.name: s for s in staying_power(listed.rows)}
    ads: dict[str, dict[str, None]] = {}
    for row in listed.rows:
        if row.ad:
            ads.setdefault(row.normalised, {})[row.ad] = None
    brings: dict[str, float] = {}
    order: list[str] = []
    if only_they:
        result = work.plan(plan_id).result
        ideas = work.almanac.figures(only_they).ideas
        rows = [row_of_idea(n, idea) for n, idea in enumerate(ideas, start=1)]
        candidates, _ = table_of(rows, result.brief.volume_basis)
        candidates = candidates.with_calls(np.arange(len(rows)), "none")
        places, customers = rank_gaps(result, candidates, candidates.texts)
        order = [candidates.texts[i] for i in places.tolist()]
        brings = dict(zip(candidates.texts, customers.tolist(), strict=True))
    return [
        {
            "text": text,
            "rivals": list(rivals_of[text]),
            "ours": text in both,
            "days": seen[text].days if text in seen else None,
            "running": text in seen and seen[text].running,
            "monthly_cost": seen[text].monthly_cost if text in seen else None,
            "would_bring": brings.get(text),
            "ads": list(ads.get(text, ())),
        }
        for text in (*order, *both)
    ]
