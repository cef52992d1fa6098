"""Rivals' keyword lists: held against the plan, and what only they buy into the tray."""

from __future__ import annotations

from importlib.resources import files
from typing import Annotated, Any

from fastapi import APIRouter, File, Query, Response, UploadFile

from milkwort.api.gather.rivals_view import rivals_view
from milkwort.api.gather.schemas import KeywordTexts, RivalsView
from milkwort.api.gather.sources import row_of_idea
from milkwort.api.gather.tray_rows import tray_view
from milkwort.api.gather.tray_schemas import TrayView
from milkwort.api.gather.trays import Tray
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.workspace import Workspace
from milkwort.formats.keyword_rows import KeywordRows
from milkwort.formats.rival_rows import read_rival_rows
from milkwort.formats.text_table import MAX_BYTES
from milkwort.store.rival_lists import add_rival_list, load_rival_lists

router = APIRouter(tags=["gather"])

Rival = Annotated[str | None, Query(max_length=120)]


@router.get("/plans/{plan_id}/gather/rivals", responses=shape_of(RivalsView, or_none=True))
def view(plan_id: int, work: Work, rival: Rival = None) -> Response:
    """Return the newest list, or one rival's part of it, against the plan; null without a list."""
    client_id = work.plan(plan_id).record.client_id
    with work.database.read() as session:
        held = load_rival_lists(session, client_id)
    return sent(rivals_view(work, plan_id, (), rival) if held else None)


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
    read = read_rival_rows(work.reader.table(data, name), name)
    made = Decision(f"bring in the rivals of {name}", lambda c: add_rival_list(c, name, read.rows))
    work.change(plan_id, lambda _: made, window=window, of_client=True)
    return rivals_view(work, plan_id, read.refused)
