"""The Hand over stage: last checks, sheets whole or changed, and what was sent."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from datetime import date, timedelta
from typing import Any

import numpy as np
from fastapi import APIRouter, Response
from sqlalchemy.orm import Session

from milkwort.api.arrange.of_client import pages_of
from milkwort.api.gather.sold import sold_terms
from milkwort.api.handover.files import files_to_send, looked_at, shape_of_sheet
from milkwort.api.handover.leaving import leaving_of
from milkwort.api.handover.schemas import (
    ChangesView,
    HandOverItem,
    HandOverMade,
    HandOverRequest,
    HandOverState,
    HandOverView,
    HolidaysView,
    MendRequest,
    SheetView,
)
from milkwort.api.handover.sheets import SHEETS, forecast_of, sheets_of_plan
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, attached, download_of, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.from_file import add_document
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer, PlanId
from milkwort.api.plan.to_file import plan_file
from milkwort.api.plan.workspace import Workspace
from milkwort.core.brief.holidays import countries_with_holidays
from milkwort.core.brief.upload_shape import FILE_NAME_WORDS, SheetName
from milkwort.core.counted import counted
from milkwort.core.errors import BadValueError
from milkwort.core.handover.changed_rows import ChangedRow, Row, changed_rows
from milkwort.core.handover.checks import Check, last_checks
from milkwort.formats.plan_json import read_plan_json
from milkwort.formats.upload_sheets import in_shape, sheet_table
from milkwort.store.brief_changes import change_brief
from milkwort.store.groups import remove_campaign
from milkwort.store.hand_overs import (
    Sending,
    files_of,
    forecast_sent,
    last_sheets,
    list_hand_overs,
    send,
    set_status,
    sheets_of,
    state_of,
    thaw_file,
    thawed,
)
from milkwort.store.journal import Change
from milkwort.store.keywords import lock_bids
from milkwort.store.models import HandOver, HandOverFile
from milkwort.store.plan_list import client_name_of
from milkwort.store.readings import dates_of_readings
from milkwort.store.versions import as_version, family_of

router = APIRouter(tags=["hand over"])

_TYPES = {
    "csv": "text/csv; charset=utf-8",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "json": "application/json",
}
_SHOWN = 500
_LINE = {"group": "ad group"}


@router.get("/plans/{plan_id}/hand-over", responses=shape_of(HandOverView))
def view(plan_id: int, work: Work) -> Response:
    """Return the upload sheet as it stands, what to look at, and what was sent before."""
    loaded = work.plan(plan_id)
    with work.database.read() as session:
        hand_overs = list_hand_overs(session, plan_id)
        files = files_of(session, hand_overs)
        items = [_item(one, files[one.id]) for one in hand_overs]
        before = last_sheets(session, plan_id)
    sheets = sheets_of_plan(loaded)
    return sent({
        "revision": loaded.record.revision,
        "rows": [_line(row) for row in sheets["keywords"]],
        "shapes": {name: [vars(one) for one in shape_of_sheet(loaded, name, rows)]
                   for name, rows in sheets.items()},
        "file_name": loaded.written.profile.upload_name,
        "file_name_words": FILE_NAME_WORDS,
        "counts": {name: len(rows) for name, rows in sheets.items()},
        "changed": None if before is None else {
            name: len(changed_rows(before.get(name, []), rows)) for name, rows in sheets.items()
        },
        "checks": [vars(check) for check in checks_of(work, loaded)],
        "sent": items,
    })  # fmt: skip


def _line(row: Row) -> dict[str, Any]:
    names = ("campaign", "group", "keyword", "match", "bid", "ref")
    return {name: row[_LINE.get(name, name)] for name in names}


@router.get("/holidays", responses=shape_of(HolidaysView))
def holidays() -> Response:
    """Return the countries and parts of countries whose public holidays can be told."""
    return sent({"countries": countries_with_holidays()})


@router.get("/plans/{plan_id}/hand-over/sheets/{sheet}", responses=shape_of(SheetView))
def one_sheet(plan_id: int, sheet: SheetName, work: Work) -> Response:
    """Return one sheet by column, as it would leave."""
    plan = work.plan(plan_id)
    rows = SHEETS[sheet](plan)
    heads, columns = in_shape(sheet_table(rows), shape_of_sheet(plan, sheet, rows))
    return sent({"name": sheet, "heads": heads, "columns": columns})


@router.post("/plans/{plan_id}/hand-over", status_code=201, responses=shape_of(HandOverMade, 201))
def make(plan_id: int, body: HandOverRequest, work: Work, window: Window = "") -> Response:
    """Send the plan: make its files, and keep them with the plan as it stands."""
    made, plan = handed_over(work, plan_id, body, window)
    with work.database.read() as session:
        files = files_of(session, [made])[made.id]
        answer = sent({"made": _item(made, files), "summary": plan.summary})
    answer.status_code = 201
    return answer


def handed_over(
    work: Workspace, plan_id: int, body: HandOverRequest, window: str
) -> tuple[HandOver, OpenPlan]:
    """Make the files of a plan, and keep them with the plan as it stands."""

    def decide(plan: OpenPlan) -> Callable[[Session], HandOver]:
        checks = checks_of(work, plan)
        sheets = sheets_of_plan(plan)
        with work.database.read() as session:
            state = plan_file(session, plan_id)
            before = last_sheets(session, plan_id) if body.only == "changed" else None
            client = client_name_of(session, plan_id)
        if body.only == "changed" and before is None:
            raise BadValueError("only", "a plan that was sent before", "nothing was sent")
        files = files_to_send(plan, client, sheets, body.kind, body.sheets, before, state)
        sending = Sending(
            revision=plan.record.revision, label=plan.record.label, files=files, sheets=sheets,
            state=state, forecast=forecast_of(plan), points=[check.text for check in checks],
            note=body.note,
        )  # fmt: skip
        return lambda session: send(session, plan_id, sending)

    made, plan = work.record(plan_id, decide)
    work.events.tell(plan_id, {"revision": plan.record.revision, "window": window})
    return made, plan


@router.get(
    "/plans/{plan_id}/hand-over/look",
    response_class=Response,
    responses=download_of(*_TYPES.values()),
)
def look(
    plan_id: int, work: Work, kind: str = "csv", sheet: SheetName = "keywords", only: str = "all"
) -> Response:
    """Make a file to look at: nothing is sent by it, and nothing is kept."""
    plan = work.plan(plan_id)
    with work.database.read() as session:
        state = plan_file(session, plan_id) if kind == "json" else b""
        before = last_sheets(session, plan_id) if only == "changed" else None
        client = client_name_of(session, plan_id)
    file = looked_at(plan, client, sheets_of_plan(plan), kind, sheet, before, state)
    return attached(file.content, _TYPES[file.kind], file.filename)


@router.get(
    "/plans/{plan_id}/hand-over/{hand_over_id}/file",
    response_class=Response,
    responses=download_of(*_TYPES.values()),
)
def download(plan_id: int, hand_over_id: int, work: Work) -> Response:
    """Return the very bytes of a hand-over's first file."""
    with work.database.read() as session:
        found = thawed(session, plan_id, hand_over_id)
        first = files_of(session, [found])[found.id][0]
        return _as_sent(thaw_file(session, plan_id, hand_over_id, first.id))


@router.get(
    "/plans/{plan_id}/hand-over/{hand_over_id}/files/{file_id}",
    response_class=Response,
    responses=download_of(*_TYPES.values()),
)
def download_one(plan_id: int, hand_over_id: int, file_id: int, work: Work) -> Response:
    """Return the very bytes of one file of a hand-over."""
    with work.database.read() as session:
        return _as_sent(thaw_file(session, plan_id, hand_over_id, file_id))


def _as_sent(file: HandOverFile) -> Response:
    return attached(file.content, _TYPES[file.kind], file.filename)


@router.patch("/plans/{plan_id}/hand-over/{hand_over_id}", responses=shape_of(HandOverItem))
def tell(plan_id: int, hand_over_id: int, body: HandOverState, work: Work) -> Response:
    """Say that a hand-over runs or is paused, and since when, or write a note to it."""

    def write(session: Session) -> dict[str, Any]:
        found = set_status(session, plan_id, hand_over_id, body.status, body.note, body.runs_from)
        return _item(found, files_of(session, [found])[found.id])

    if body.status is None and body.runs_from is None:
        with work.database.begin() as session:
            return sent(write(session))
    with work.database.read() as session:
        family = [one.id for one in family_of(session, plan_id)]
    # results are held against what ran: every window of every version hears of it
    return sent(work.settle(family, write))


@router.get("/plans/{plan_id}/hand-over/changes", responses=shape_of(ChangesView))
def changes(plan_id: int, work: Work, since: int | None = None) -> Response:
    """Return what is not as it was sent last, or in one hand-over."""
    plan = work.plan(plan_id)
    with work.database.read() as session:
        hand_overs = list_hand_overs(session, plan_id)
        wanted = hand_overs[0].id if since is None and hand_overs else since
        found = None if wanted is None else thawed(session, plan_id, wanted)
        sheets = None if found is None else sheets_of(found)
        at = None if found is None else found.at
        figures = None if found is None or found.forecast is None else _figures(plan, found)
    lines = [] if sheets is None else _changes(sheets, sheets_of_plan(plan))
    return sent({
        "revision": plan.record.revision, "since": at,
        "changes": [{"sheet": name, **vars(change)} for name, change in lines[:_SHOWN]],
        "more": max(len(lines) - _SHOWN, 0), "figures": figures,
    })  # fmt: skip


def _changes(
    before: Mapping[str, Sequence[Row]], now: Mapping[str, Sequence[Row]]
) -> list[tuple[str, ChangedRow]]:
    return [(name, change) for name, rows in now.items()
            for change in changed_rows(before.get(name, []), rows)]  # fmt: skip


def _figures(plan: OpenPlan, found: HandOver) -> dict[str, Any]:
    return {"then": forecast_sent(found)["totals"], "now": forecast_of(plan)["totals"]}


@router.post("/plans/{plan_id}/hand-over/{hand_over_id}/version", status_code=201)
def back(plan_id: int, hand_over_id: int, work: Work) -> PlanId:
    """Make a version of the plan as it stood when it was sent."""
    with work.database.read() as session:
        found = thawed(session, plan_id, hand_over_id)
        document, at = read_plan_json(state_of(found)), found.at

    def write(session: Session) -> int:
        client_id = work.plan(plan_id).record.client_id
        made, _ = add_document(session, document, client_id)
        as_version(session, made, plan_id, f"As sent on {at[:10]}", "what was handed over then")
        return made

    return PlanId(id=work.made_beside(plan_id, write))


@router.post("/plans/{plan_id}/hand-over/mend", responses=shape_of(ChangeAnswer))
def mend(plan_id: int, body: MendRequest, work: Work, window: Window = "") -> Response:
    """Make the mend of one check."""

    def decide(plan: OpenPlan) -> Decision:
        check = next((c for c in checks_of(work, plan) if c.code == body.code and c.mend), None)
        if check is None:
            raise BadValueError("code", "a check that has a mend", body.code)
        return Decision(check.mend, _mends(plan, check))

    return sent(work.change(plan_id, decide, window=window))


def _mends(plan: OpenPlan, check: Check) -> Callable[[Change], None]:
    if check.code == "empty_campaign":
        filled = {g.campaign_id for g in plan.sheet.structure.groups}
        spots = {s.campaign_id for s in plan.sheet.structure.spots}
        bare = [c.id for c in plan.sheet.structure.campaigns if c.id not in filled | spots]
        if not bare:
            raise BadValueError("campaign", "one without groups", counted(len(filled), "campaign"))
        return lambda change: _remove(change, bare)
    if check.code == "in_the_past":
        tomorrow = (date.today() + timedelta(days=1)).isoformat()
        return lambda change: change_brief(change, {"start_date": tomorrow})
    result = plan.result
    held = np.flatnonzero(np.isfinite(result.table.locked_bid) & result.table.kept)
    over = held[result.bid[held] > result.standing.ceiling[held] * (1 + 1e-9)]
    rows = over if check.code == "over_ceiling" else held
    return lambda change: lock_bids(change, {plan.sheet.ids[row]: None for row in rows.tolist()})


def _remove(change: Change, campaigns: Sequence[int]) -> None:
    for one in campaigns:
        remove_campaign(change, one)


def checks_of(work: Workspace, plan: OpenPlan) -> list[Check]:
    """Return what to look at before a plan is handed over, the most harmful first."""
    with work.database.read() as session:
        read_at = dates_of_readings(session, plan.record.id)
    pages, sold = pages_of(work, plan), sold_terms(work, plan)
    return last_checks(leaving_of(plan, pages, sold, read_at, date.today()))


def _item(one: HandOver, files: Sequence[HandOverFile]) -> dict[str, Any]:
    fields = ("id", "kind", "filename", "rows", "sha256")
    return {
        "id": one.id, "at": one.at, "revision": one.revision, "label": one.label,
        "status": one.status, "runs_from": one.runs_from, "note": one.note,
        "points": one.points or [],
        "files": [{name: getattr(file, name) for name in fields} for file in files],
        "comparable": one.points is not None,
    }  # fmt: skip
