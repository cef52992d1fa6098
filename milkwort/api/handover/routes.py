"""The Hand over stage: the upload sheet, last checks, and frozen copies."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from fastapi import APIRouter, Response
from sqlalchemy.orm import Session

from milkwort.api.handover.schemas import HandOverMade, HandOverRequest, HandOverView
from milkwort.api.http.shared import Window, Work, attached, download_of, sent
from milkwort.api.plan.columns import plain
from milkwort.api.plan.files import plan_file
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import shape_of
from milkwort.api.plan.workspace import Workspace
from milkwort.core.handover.checks import Check, last_checks
from milkwort.core.words.texts import normalise
from milkwort.formats.upload_sheet import UploadRow, upload_csv, upload_xlsx
from milkwort.store.hand_overs import freeze, list_hand_overs, thaw
from milkwort.store.models import HandOver

router = APIRouter(tags=["hand over"])

_TYPES = {
    "csv": "text/csv; charset=utf-8",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "json": "application/json",
}


@router.get("/plans/{plan_id}/hand-over", responses=shape_of(HandOverView))
def view(plan_id: int, work: Work) -> Response:
    """Return the upload sheet as it stands, what to look at, and what was sent before."""
    loaded = work.plan(plan_id)
    with work.database.read() as session:
        sent_before = [_item(h) for h in list_hand_overs(session, plan_id)]
    return sent(
        {
            "revision": loaded.record.revision,
            "rows": [vars(row) for row in upload_rows(loaded)],
            "checks": [vars(check) for check in _checks(loaded)],
            "sent": sent_before,
        }
    )


@router.post(
    "/plans/{plan_id}/hand-over", status_code=201, responses={201: {"model": HandOverMade}}
)
def make(plan_id: int, body: HandOverRequest, work: Work, window: Window = "") -> Response:
    """Make a file and keep a frozen copy of it."""

    def decide(plan: OpenPlan) -> Callable[[Session], HandOver]:
        content, rows = _content(work, plan, body.kind)
        stem = normalise(plan.record.name).replace(" ", "-")[:60] or "plan"
        what = "plan" if body.kind == "json" else "upload"
        revision = plan.record.revision
        name = f"{stem}-{what}-r{revision}.{body.kind}"
        return lambda session: freeze(
            session, plan_id, kind=body.kind, filename=name, revision=revision, rows=rows,
            content=content,
        )  # fmt: skip

    made, plan = work.record(plan_id, decide)
    work.events.tell(plan_id, {"revision": plan.record.revision, "window": window})
    answer = sent({"made": _item(made), "summary": plan.summary})
    answer.status_code = 201
    return answer


@router.get(
    "/plans/{plan_id}/hand-over/{hand_over_id}/file",
    response_class=Response,
    responses=download_of(*_TYPES.values()),
)
def download(plan_id: int, hand_over_id: int, work: Work) -> Response:
    """Return the very bytes of a hand-over."""
    with work.database.read() as session:
        copy = thaw(session, plan_id, hand_over_id)
        return attached(copy.content, _TYPES[copy.kind], copy.filename)


def upload_rows(loaded: OpenPlan) -> list[UploadRow]:
    """Return the kept keywords by campaign and ad group, each with its bid or none."""
    structure = loaded.sheet.structure
    groups = {g.id: g for g in structure.groups}
    campaigns = {c.id: c.name for c in structure.campaigns}
    rows = []
    for row, entry in enumerate(loaded.sheet.entries):
        if entry.call == "keep":
            group = groups.get(entry.group_id or 0)
            campaign = campaigns[group.campaign_id] if group else ""
            rows.append(UploadRow(
                campaign=f"{loaded.record.name} – {campaign}",
                group=group.name if group else "",
                keyword=entry.text,
                match=entry.match,
                bid=plain(float(loaded.result.bid[row])),
                ref=entry.key,
            ))  # fmt: skip
    return sorted(rows, key=lambda r: (r.campaign, r.group, r.keyword, r.match))


def _content(work: Workspace, loaded: OpenPlan, kind: str) -> tuple[bytes, int]:
    if kind == "json":
        with work.database.read() as session:
            return plan_file(session, loaded.record.id), len(loaded.sheet.ids)
    rows = upload_rows(loaded)
    if kind == "csv":
        return upload_csv(rows), len(rows)
    return upload_xlsx(rows, loaded.record.brief.currency), len(rows)


def _checks(loaded: OpenPlan) -> list[Check]:
    notices = loaded.summary["purse"]["notices"]
    return last_checks(loaded.result, loaded.record.not_entered, notices)


def _item(copy: HandOver) -> dict[str, Any]:
    fields = ("id", "kind", "filename", "at", "revision", "rows", "sha256")
    return {name: getattr(copy, name) for name in fields}
