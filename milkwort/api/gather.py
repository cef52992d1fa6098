"""The Gather stage: files into the tray, the tray into the sheet."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any

from fastapi import APIRouter, File, Response, UploadFile

from milkwort.api.schemas import ChangeAnswer, ColumnChoice, PastedText, TrayView, shape_of
from milkwort.api.shared import Window, Work, sent
from milkwort.api.transfer import entry_of_row
from milkwort.api.trays import Tray
from milkwort.api.workspace import Loaded
from milkwort.core.errors import BadValueError, NothingUsableError
from milkwort.formats.guess_columns import ColumnGuess, guess_columns
from milkwort.formats.keyword_rows import FIELDS, KeywordRow, read_keyword_rows
from milkwort.formats.text_table import MAX_BYTES, read_text_table
from milkwort.store.journal import Change
from milkwort.store.keywords import add_keywords, add_readings

router = APIRouter(tags=["gather"])

_SAMPLE_ROWS = 6
_SEPARATORS = {",": "comma", ";": "semicolon", "\t": "tab"}


@router.post("/plans/{plan_id}/gather/file", responses=shape_of(TrayView))
def read_file(plan_id: int, file: Annotated[UploadFile, File()], work: Work) -> Response:
    """Read a file into the tray."""
    name = (file.filename or "file")[:200]
    return sent(_put(work, plan_id, name, file.file.read(MAX_BYTES + 1)))


@router.post("/plans/{plan_id}/gather/text", responses=shape_of(TrayView))
def read_text(plan_id: int, body: PastedText, work: Work) -> Response:
    """Read pasted rows into the tray."""
    return sent(_put(work, plan_id, body.name, body.text))


@router.put("/plans/{plan_id}/gather/{key}/columns", responses=shape_of(TrayView))
def assign(plan_id: int, key: str, body: ColumnChoice, work: Work) -> Response:
    """Say which column holds what, and read the file again by that."""
    tray = work.trays.get(key, plan_id)
    unknown = sorted(set(body.columns) - set(FIELDS))
    if unknown:
        raise BadValueError("columns", "fields of a keyword", ", ".join(unknown))
    if "keyword" not in body.columns:
        raise BadValueError("columns", "a column that holds the keyword", "none")
    guess = ColumnGuess(body.columns, tray.guess.headings, body.first_row)
    return sent(_view(work, Tray(plan_id, tray.name, tray.table, guess, _rows(tray, guess)), key))


@router.post("/plans/{plan_id}/gather/{key}/take", responses=shape_of(ChangeAnswer))
def take(plan_id: int, key: str, work: Work, window: Window = "") -> Response:
    """Take what the tray holds into the sheet: new keywords, and new figures of known ones."""
    tray = work.trays.get(key, plan_id)
    sorted_rows = _sorted(work.plan(plan_id), tray)
    if not sorted_rows.new and not sorted_rows.changed:
        raise NothingUsableError("The tray holds nothing new to take in.", tray.name)

    def do(change: Change) -> None:
        add_keywords(change, [entry_of_row(row, tray.name) for row in sorted_rows.new])
        add_readings(
            change, [(i, entry_of_row(row, tray.name).reading) for i, row in sorted_rows.changed]
        )

    label = f"take in {len(sorted_rows.new):,} keywords from {tray.name}"
    answer = work.change(plan_id, label, do, window=window)
    work.trays.drop(key)
    return sent(answer)


@router.delete("/plans/{plan_id}/gather/{key}", status_code=204)
def leave(plan_id: int, key: str, work: Work) -> None:
    """Leave what the tray holds."""
    work.trays.get(key, plan_id)
    work.trays.drop(key)


@dataclass(frozen=True)
class _Sorted:
    """Rows of a tray against the plan."""

    new: list[KeywordRow]
    changed: list[tuple[int, KeywordRow]]
    status: list[str]


def _put(work: Work, plan_id: int, name: str, data: bytes | str) -> dict[str, Any]:
    work.plan(plan_id)
    table = read_text_table(data, name)
    guess = guess_columns(table)
    rows = read_keyword_rows(table, guess.columns, first_row=guess.first_row, call_if_absent="none")
    return _view(work, Tray(plan_id, name, table, guess, rows), None)


def _rows(tray: Tray, guess: ColumnGuess) -> Any:
    return read_keyword_rows(
        tray.table, guess.columns, first_row=guess.first_row, call_if_absent="none"
    )


def _sorted(loaded: Loaded, tray: Tray) -> _Sorted:
    known = {
        (e.normalised, e.match): (i, e)
        for i, e in zip(loaded.sheet.ids, loaded.sheet.entries, strict=True)
    }
    new: list[KeywordRow] = []
    changed: list[tuple[int, KeywordRow]] = []
    status: list[str] = []
    for row in tray.rows.taken:
        there = known.get(row.identity)
        if there is None:
            new.append(row)
            status.append("new")
            continue
        reading = entry_of_row(row, tray.name).reading
        says_more = reading.volume_low is not None or reading.cpc_low or reading.cpc_high
        if says_more and reading.figures != there[1].reading.figures:
            changed.append((there[0], row))
            status.append("changed")
        else:
            status.append("there")
    return _Sorted(new, changed, status)


def _view(work: Work, tray: Tray, key: str | None) -> dict[str, Any]:
    key = work.trays.put(tray, key)
    status = _sorted(work.plan(tray.plan_id), tray).status
    taken = tray.rows.taken
    first = tray.guess.first_row - 1
    return {
        "key": key,
        "name": tray.name,
        "separator": _SEPARATORS[tray.table.separator],
        "decimal": "point" if tray.table.decimal == "." else "comma",
        "encoding": tray.table.encoding,
        "headings": list(tray.guess.headings),
        "first_row": tray.guess.first_row,
        "columns": tray.guess.columns,
        "fields": list(FIELDS),
        "sample": [list(row) for row in tray.table.rows[first : first + _SAMPLE_ROWS]],
        "counts": {
            "new": status.count("new"), "changed": status.count("changed"),
            "there": status.count("there"), "refused": len(tray.rows.refused),
        },
        "rows": {
            "row": [r.row for r in taken],
            "text": [r.text for r in taken],
            "match": [r.match for r in taken],
            "status": status,
            "volume_low": [r.volume[0] if r.volume else None for r in taken],
            "volume_high": [r.volume[1] if r.volume else None for r in taken],
            "cpc_low": [r.cpc_low for r in taken],
            "cpc_high": [r.cpc_high for r in taken],
            "call": [r.call for r in taken],
            "group": [r.group for r in taken],
        },
        "refused": [r.as_dict() for r in tray.rows.refused],
    }  # fmt: skip
