"""The Gather stage: files into the tray, the tray into the sheet."""

from __future__ import annotations

from dataclasses import replace
from functools import partial
from typing import Annotated, Any

from fastapi import APIRouter, File, Response, UploadFile

from milkwort.api.gather.file_shapes import columns_like, remember_columns
from milkwort.api.gather.schemas import JobStopped, TakeChoice
from milkwort.api.gather.taking import taking_of
from milkwort.api.gather.tray_rows import tray_view
from milkwort.api.gather.tray_schemas import ColumnChoice, PastedText, TrayView
from milkwort.api.gather.trays import Tray, TrayFile, Units
from milkwort.api.http.described import shape_of
from milkwort.api.http.jobs import Progress
from milkwort.api.http.shared import Job, Window, Work, attached, download_of, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.core.brief.platform import profile_of
from milkwort.core.errors import BadValueError, NothingUsableError
from milkwort.formats.cleaning import cleaned
from milkwort.formats.guess_columns import guess_columns
from milkwort.formats.keyword_rows import FIELDS, SUMS, read_keyword_rows
from milkwort.formats.refused_rows import refused_csv
from milkwort.formats.text_table import MAX_BYTES, TextTable

router = APIRouter(tags=["gather"])

_HEAD = 60
"""Rows of a file that are held to be shown."""


@router.post("/plans/{plan_id}/gather/file", responses=shape_of(TrayView))
def read_file(
    plan_id: int, file: Annotated[UploadFile, File()], work: Work, job: Job = ""
) -> Response:
    """Read a file into the tray."""
    name = (file.filename or "file")[:200]
    return sent(_put(work, plan_id, name, file.file.read(MAX_BYTES + 1), job))


@router.post("/plans/{plan_id}/gather/text", responses=shape_of(TrayView))
def read_text(plan_id: int, body: PastedText, work: Work, job: Job = "") -> Response:
    """Read pasted rows into the tray."""
    return sent(_put(work, plan_id, body.name, body.text, job))


@router.put("/plans/{plan_id}/gather/{key}/columns", responses=shape_of(TrayView))
def assign(plan_id: int, key: str, body: ColumnChoice, work: Work) -> Response:
    """Say which column holds what and what volumes count, and read the file again by that."""
    tray = work.trays.get(key, plan_id)
    file = _file_of(tray)
    unknown = sorted(set(body.columns) - {*FIELDS, *SUMS})
    if unknown:
        raise BadValueError("columns", "fields of a keyword", ", ".join(unknown))
    if "keyword" not in body.columns:
        raise BadValueError("columns", "a column that holds the keyword", "none")
    units = Units(body.period, body.basis, body.area, body.price, body.shown_at_bid,
                  body.price_rate)  # fmt: skip
    table = work.reader.table(file.data, tray.name, body.sheet or file.head.sheet)
    if table.sheet != file.head.sheet:
        file = TrayFile(file.data, _head(table), guess_columns(table), units)
    else:
        guess = replace(file.guess, columns=body.columns, first_row=body.first_row)
        file = replace(file, guess=guess, units=units)
        remember_columns(work, file.guess, units)
    return sent(tray_view(work, _tray(work, plan_id, tray.name, file, table), key))


@router.post("/plans/{plan_id}/gather/{key}/take", responses=shape_of(ChangeAnswer))
def take(
    plan_id: int,
    key: str,
    work: Work,
    body: TakeChoice | None = None,
    window: Window = "",
    job: Job = "",
) -> Response:
    """Take what the tray holds into the sheet: new keywords, and new figures of known ones."""
    tray = work.trays.get(key, plan_id)
    choice = body or TakeChoice()
    with work.jobs.under_way(plan_id, job) as progress:

        def decide(plan: OpenPlan) -> Decision:
            taking = taking_of(plan, work.trays.get(key, plan_id), choice)
            if taking.nothing:
                raise NothingUsableError("The tray holds nothing new to take in.", tray.name)
            new = taking.prepared(plan, work.reserve, progress)
            return Decision(
                f"take in {taking.said} from {tray.name}",
                lambda c: taking.do(c, new, progress),
                new.in_order,
                partial(progress, "writing keywords"),
            )

        answer = work.change(plan_id, decide, window=window)
    work.trays.drop(key)
    return sent(answer)


@router.post("/jobs/{name}/stop")
def stop(name: str, work: Work) -> JobStopped:
    """Ask long work to stop; nothing of it is kept."""
    return JobStopped(stopped=work.jobs.stop(name))


@router.get(
    "/plans/{plan_id}/gather/{key}/refused.csv",
    response_class=Response,
    responses=download_of("text/csv"),
)
def refused(plan_id: int, key: str, work: Work) -> Response:
    """Return the refused rows as a CSV, to be mended and brought back."""
    tray = work.trays.get(key, plan_id)
    file = _file_of(tray)
    table = work.reader.table(file.data, tray.name, file.head.sheet)
    content = refused_csv(table, tray.rows.refused)
    return attached(content.encode("utf-8-sig"), "text/csv", "refused-rows.csv")


@router.delete("/plans/{plan_id}/gather/{key}", status_code=204)
def leave(plan_id: int, key: str, work: Work) -> None:
    """Leave what the tray holds."""
    work.trays.get(key, plan_id)
    work.trays.drop(key)


def _put(work: Work, plan_id: int, name: str, data: bytes | str, job: str) -> dict[str, Any]:
    work.plan(plan_id)
    with work.jobs.under_way(plan_id, job) as progress:
        progress("opening the file", 0, 1)
        table = work.reader.table(data, name)
        guess = guess_columns(table)
        known = columns_like(work, guess)
        guess, units = known or (guess, Units())
        file = TrayFile(data, _head(table), guess, units)
        tray = _tray(work, plan_id, name, file, table, progress)
        progress("holding the rows against the sheet", 0, 1)
        return tray_view(work, tray, None)


def _tray(
    work: Work,
    plan_id: int,
    name: str,
    file: TrayFile,
    table: TextTable,
    progress: Progress | None = None,
) -> Tray:
    record = work.plan(plan_id).record
    refused = profile_of(record.values["profile"]).refused_characters
    rows = read_keyword_rows(
        table, file.guess.columns, first_row=file.guess.first_row, call_if_absent="none",
        offers=("", *(offer.name for offer in record.brief.offers)),
        price_is_sum=file.units.price == "sum",
        price_rate=file.units.rate_of(file.guess.currency, record.brief.currency),
        clean=lambda text: cleaned(text, refused),
        progress=progress and partial(progress, "reading rows"),
    )  # fmt: skip
    return Tray(plan_id, name, rows, file)


def _head(table: TextTable) -> TextTable:
    return replace(table, rows=table.rows[:_HEAD])


def _file_of(tray: Tray) -> TrayFile:
    if tray.file is None:
        raise BadValueError("tray", "what was read from a file", tray.name)
    return tray.file
