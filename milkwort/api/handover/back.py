"""Upload sheets that come back: held against the plan, and their bids taken over."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from contextlib import suppress
from typing import Annotated, Any

from fastapi import APIRouter, File, Response, UploadFile

from milkwort.api.handover.files import shape_of_sheet
from milkwort.api.handover.schemas import BidsBack, ReadBack
from milkwort.api.handover.sheets import SHEETS, sheets_of_plan
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.core.counted import counted
from milkwort.core.errors import NothingUsableError
from milkwort.core.handover.changed_rows import ChangedRow, Row, changed_rows
from milkwort.formats.apart import Reader
from milkwort.formats.sheets_back import SheetBack, read_sheet_back
from milkwort.formats.text_table import MAX_BYTES, TextTable
from milkwort.store.keywords import lock_bids

router = APIRouter(tags=["hand over"])

_SHOWN = 500
_REFUSED = 20


@router.post("/plans/{plan_id}/hand-over/back", responses=shape_of(ReadBack))
def read_back(plan_id: int, file: Annotated[UploadFile, File()], work: Work) -> Response:
    """Hold an upload sheet, or a book of them, against the plan; nothing is kept."""
    plan = work.plan(plan_id)
    name = (file.filename or "sheet")[:200]
    content = file.file.read(MAX_BYTES + 1)
    now = sheets_of_plan(plan)
    shapes = {one: shape_of_sheet(plan, one, rows) for one, rows in now.items()}
    pages = _pages(work.reader, content, name)
    found = [read_sheet_back(page, name, shapes, now) for page in pages]
    lines = [(one.sheet, change) for one in found for change in _changes(one, now[one.sheet])]
    return sent({
        "revision": plan.record.revision, "name": name,
        "sheets": [_said(one, now[one.sheet], lines) for one in found],
        "changes": [{"sheet": sheet, **vars(change)} for sheet, change in lines[:_SHOWN]],
        "more": max(len(lines) - _SHOWN, 0),
        "bids": {
            change.ref: bid for sheet, change in lines
            if sheet == "keywords" and change.turn != "new" and "bid" in change.was
            and isinstance(bid := change.row["bid"], float)
        },
    })  # fmt: skip


@router.post("/plans/{plan_id}/hand-over/back/bids", responses=shape_of(ChangeAnswer))
def take_bids(plan_id: int, body: BidsBack, work: Work, window: Window = "") -> Response:
    """Set the bids of a sheet that came back, and lock them there."""

    def decide(plan: OpenPlan) -> Decision:
        held = zip(plan.sheet.entries, plan.sheet.ids, strict=True)
        ids = {entry.key: keyword for entry, keyword in held if entry.call == "keep"}
        locked: dict[int, float | None] = {
            ids[ref]: bid for ref, bid in body.bids.items() if ref in ids
        }
        if not locked:
            raise NothingUsableError("None of these keywords is kept any more.", "bids")
        label = f"take over {counted(len(locked), 'bid')} of a sheet that came back"
        return Decision(label, lambda change: lock_bids(change, locked))

    return sent(work.change(plan_id, decide, window=window))


def _pages(reader: Reader, content: bytes, name: str) -> list[TextTable]:
    """Return the one table of a file, or the pages of a book that bear a sheet's name."""
    pages = [reader.table(content, name)]
    for page in pages[0].sheets:
        if page in SHEETS and page != pages[0].sheet:
            with suppress(NothingUsableError):  # a page without rows
                pages.append(reader.table(content, name, page))
    return pages


def _changes(found: SheetBack, now: Sequence[Row]) -> list[ChangedRow]:
    """Return the rows that are not as the plan says; a column the file lacks says nothing."""
    plan = {str(row["ref"]): row for row in now}
    before: list[Row] = []
    for row in found.rows:
        of_plan = plan.get(str(row["ref"]))
        if of_plan is not None:
            before.append({key: _bare(of_plan.get(key)) for key in row})
    return changed_rows(before, [{k: _bare(v) for k, v in row.items()} for row in found.rows])


def _bare(value: Any) -> Any:
    """An empty cell of a file is an empty text and no figure alike."""
    return None if value == "" else value


def _said(
    found: SheetBack, now: Sequence[Row], lines: Sequence[tuple[str, ChangedRow]]
) -> Mapping[str, Any]:
    refs = {str(row["ref"]) for row in found.rows}
    changed = sum(1 for sheet, _ in lines if sheet == found.sheet)
    return {
        "sheet": found.sheet, "rows": len(found.rows), "same": len(found.rows) - changed,
        "absent": sum(1 for row in now if str(row["ref"]) not in refs),
        "refused": [str(one) for one in found.refused[:_REFUSED]],
    }  # fmt: skip
