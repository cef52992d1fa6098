"""A real account's file, there and back: in its own shape, and held against the plan."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, File, Response, UploadFile

from milkwort.api.handover.account_schemas import AccountColumns, AccountFileView
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Work, attached, download_of, sent
from milkwort.api.plan.columns import plain
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.errors import NotFoundError
from milkwort.core.handover.account import HeldAgainst, Planned, held_against
from milkwort.formats.account_file import (
    AccountFile,
    account_lines,
    changed_rows_of,
    read_account_file,
)
from milkwort.formats.text_table import MAX_BYTES
from milkwort.store.account_sheets import account_sheet, keep_account_sheet
from milkwort.store.file_shapes import load_shape, save_shape

router = APIRouter(tags=["hand over"])

_SHOWN = 300
_NAMED = 8
_Upload = Annotated[UploadFile, File()]


@router.get("/plans/{plan_id}/hand-over/account", responses=shape_of(AccountFileView, or_none=True))
def view(plan_id: int, work: Work) -> Response:
    """Return the account's file held against the plan; null where none was brought in."""
    plan = work.plan(plan_id)
    with work.database.read() as session:
        held = account_sheet(session, plan_id)
        if held is None:
            return sent(None)
        file = read_account_file(held.content, held.name, held.columns)
        name = held.name
    return sent(_view(plan, name, file))


@router.post("/plans/{plan_id}/hand-over/account", responses=shape_of(AccountFileView))
def bring_in(plan_id: int, file: _Upload, work: Work) -> Response:
    """Bring in an account's file as its platform wrote it; every column of it is kept."""
    plan, name = work.plan(plan_id), file.filename or "account.csv"
    content = file.file.read(MAX_BYTES + 1)
    found = read_account_file(content, name)
    with work.database.begin() as session:
        known = load_shape(session, ["account", *found.headings])
        if known is not None:
            found = read_account_file(content, name, known[0])
        keep_account_sheet(session, plan_id, name, content, found.columns)
    return sent(_view(plan, name, found))


@router.put("/plans/{plan_id}/hand-over/account/columns", responses=shape_of(AccountFileView))
def assign(plan_id: int, body: AccountColumns, work: Work) -> Response:
    """Say which column holds what; files with the same headings are read so from now on."""
    plan = work.plan(plan_id)
    with work.database.begin() as session:
        held = _needed(account_sheet(session, plan_id))
        columns = {str(role): at for role, at in body.columns.items()}
        found = read_account_file(held.content, held.name, columns)
        keep_account_sheet(session, plan_id, held.name, held.content, columns)
        save_shape(session, ["account", *found.headings], columns, {})
        name = held.name
    return sent(_view(plan, name, found))


@router.get(
    "/plans/{plan_id}/hand-over/account/changes",
    response_class=Response,
    responses=download_of("text/csv; charset=utf-8"),
)
def written_back(plan_id: int, work: Work) -> Response:
    """Return the rows that change, in the very shape of the file that was brought in."""
    plan = work.plan(plan_id)
    with work.database.read() as session:
        held = _needed(account_sheet(session, plan_id))
        file = read_account_file(held.content, held.name, held.columns)
        name = held.name
    content = changed_rows_of(file, _against(plan, file).changes)
    return attached(content, "text/csv", f"changes-{name}")


@router.post("/plans/{plan_id}/hand-over/account/reply", responses=shape_of(AccountFileView))
def took(plan_id: int, file: _Upload, work: Work) -> Response:
    """Hold a fresh account file against the plan: what took, and what did not."""
    plan, name = work.plan(plan_id), file.filename or "account.csv"
    content = file.file.read(MAX_BYTES + 1)
    with work.database.read() as session:
        held = account_sheet(session, plan_id)
        columns = None
        if held is not None:
            before = read_account_file(held.content, held.name, held.columns)
            fresh = read_account_file(content, name)
            columns = before.columns if before.headings == fresh.headings else None
    return sent(_view(plan, name, read_account_file(content, name, columns)))


def _needed(held: Any) -> Any:
    if held is None:
        raise NotFoundError("No account’s file was brought in yet.", "account")
    return held


def _against(plan: OpenPlan, file: AccountFile) -> HeldAgainst:
    planned = [
        Planned(entry.text, entry.match, plain(float(plan.result.bid[at]))
                if entry.call == "keep" else None)
        for at, entry in enumerate(plan.sheet.entries)
        if entry.call in ("keep", "drop", "block")
    ]  # fmt: skip
    return held_against(account_lines(file), planned)


def _view(plan: OpenPlan, name: str, file: AccountFile) -> dict[str, Any]:
    found = _against(plan, file)
    return {
        "name": name,
        "headings": list(file.headings),
        "columns": dict(file.columns),
        "rows": len(file.table.rows) - 1,
        "same": found.same,
        "changes": [
            {
                "row": file.table.number(c.row), "text": c.text, "match": c.match,
                "bid": c.bid[0] if c.bid else None, "planned_bid": c.bid[1] if c.bid else None,
                "runs": c.runs[0] if c.runs else None,
                "planned_runs": c.runs[1] if c.runs else c.bid is not None,
            }
            for c in found.changes[:_SHOWN]
        ],
        "changed": len(found.changes),
        "strangers": len(found.strangers),
        "stranger_names": [line.text for line in found.strangers[:_NAMED]],
        "missing": len(found.missing),
        "missing_names": [one.text for one in found.missing[:_NAMED]],
    }  # fmt: skip
