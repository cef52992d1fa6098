"""The Gather stage: files into the tray, the tray into the sheet."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Any

from fastapi import APIRouter, File, Response, UploadFile

from milkwort.api.gather_schemas import TakeChoice
from milkwort.api.schemas import ChangeAnswer, ColumnChoice, PastedText, TrayView, shape_of
from milkwort.api.shared import Window, Work, sent
from milkwort.api.transfer import entry_of_row
from milkwort.api.tray_rows import SortedRows, sort_rows, tray_view
from milkwort.api.trays import Tray, TrayFile, Units
from milkwort.core.errors import BadValueError, NothingUsableError
from milkwort.core.lexicon import Lexicon
from milkwort.core.structures import lexicon_of
from milkwort.formats.guess_columns import ColumnGuess, guess_columns
from milkwort.formats.keyword_rows import FIELDS, KeywordRow, KeywordRows, read_keyword_rows
from milkwort.formats.refused_rows import refused_csv
from milkwort.formats.tables import read_table
from milkwort.formats.text_table import MAX_BYTES, TextTable
from milkwort.store.journal import Change
from milkwort.store.keywords import KeywordEntry, add_keywords, add_readings, set_ranks

router = APIRouter(tags=["gather"])


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
    """Say which column holds what and what volumes count, and read the file again by that."""
    tray = work.trays.get(key, plan_id)
    file = _file_of(tray)
    unknown = sorted(set(body.columns) - set(FIELDS))
    if unknown:
        raise BadValueError("columns", "fields of a keyword", ", ".join(unknown))
    if "keyword" not in body.columns:
        raise BadValueError("columns", "a column that holds the keyword", "none")
    units = Units(body.period, body.basis, body.area)
    if body.sheet and body.sheet != file.table.sheet:
        table = read_table(file.data, tray.name, body.sheet)
        file = TrayFile(file.data, table, guess_columns(table), units)
    else:
        guess = ColumnGuess(body.columns, file.guess.headings, body.first_row)
        file = replace(file, guess=guess, units=units)
        work.remember_columns(file.guess, units)
    return sent(tray_view(work, _tray(work, plan_id, tray.name, file), key))


@router.post("/plans/{plan_id}/gather/{key}/take", responses=shape_of(ChangeAnswer))
def take(
    plan_id: int, key: str, work: Work, body: TakeChoice | None = None, window: Window = ""
) -> Response:
    """Take what the tray holds into the sheet: new keywords, and new figures of known ones."""
    tray = work.trays.get(key, plan_id)
    choice = body or TakeChoice()
    rows = sort_rows(work.plan(plan_id), tray)
    new = [*rows.new, *(rows.near if choice.near else []), *(rows.caught if choice.caught else [])]
    if not new and not rows.changed and not rows.ranked:
        raise NothingUsableError("The tray holds nothing new to take in.", tray.name)
    stopped = {row.identity for row in rows.caught}
    lexicon = lexicon_of(work.plan(plan_id).record.brief)

    def do(change: Change) -> None:
        add_keywords(change, [_entry(tray, row, lexicon, row.identity in stopped) for row in new])
        add_readings(change, [(i, _entry(tray, row, lexicon).reading) for i, row in rows.changed])
        set_ranks(change, {i: row.unpaid_rank for i, row in rows.ranked})

    label = f"take in {_many(new, rows)} from {tray.name}"
    answer = work.change(plan_id, label, do, window=window)
    work.trays.drop(key)
    return sent(answer)


@router.get("/plans/{plan_id}/gather/{key}/refused.csv")
def refused(plan_id: int, key: str, work: Work) -> Response:
    """Return the refused rows as a CSV, to be mended and brought back."""
    tray = work.trays.get(key, plan_id)
    content = refused_csv(_file_of(tray).table, tray.rows.refused)
    return Response(
        content.encode("utf-8-sig"),
        media_type="text/csv",
        headers={"Content-Disposition": 'attachment; filename="refused-rows.csv"'},
    )


@router.delete("/plans/{plan_id}/gather/{key}", status_code=204)
def leave(plan_id: int, key: str, work: Work) -> None:
    """Leave what the tray holds."""
    work.trays.get(key, plan_id)
    work.trays.drop(key)


def _put(work: Work, plan_id: int, name: str, data: bytes | str) -> dict[str, Any]:
    work.plan(plan_id)
    table = read_table(data, name)
    guess = guess_columns(table)
    known = work.columns_like(guess)
    file = TrayFile(data, table, known[0] if known else guess, known[1] if known else Units())
    return tray_view(work, _tray(work, plan_id, name, file), None)


def _tray(work: Work, plan_id: int, name: str, file: TrayFile) -> Tray:
    return Tray(plan_id, name, _rows(work, plan_id, file.table, file.guess), file)


def _rows(work: Work, plan_id: int, table: TextTable, guess: ColumnGuess) -> KeywordRows:
    offers = [offer.name for offer in work.plan(plan_id).record.brief.offers]
    return read_keyword_rows(
        table, guess.columns, first_row=guess.first_row, call_if_absent="none",
        offers=("", *offers),
    )  # fmt: skip


def _entry(tray: Tray, row: KeywordRow, lexicon: Lexicon, stopped: bool = False) -> KeywordEntry:
    units = tray.file.units if tray.file else None
    numbered = tray.file is not None
    entry = entry_of_row(row, tray.name, units, numbered=numbered, lexicon=lexicon)
    if stopped and entry.call == "none":
        return replace(entry, call="drop", reason="a word never wanted")
    return entry


def _many(new: list[KeywordRow], rows: SortedRows) -> str:
    known = len({i for i, _ in (*rows.changed, *rows.ranked)})
    if new or not known:
        return f"{len(new):,} keywords" if len(new) != 1 else "1 keyword"
    return f"new figures of {known:,} keywords" if known != 1 else "new figures of 1 keyword"


def _file_of(tray: Tray) -> TrayFile:
    if tray.file is None:
        raise BadValueError("tray", "what was read from a file", tray.name)
    return tray.file
