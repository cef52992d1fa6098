"""Results in: out of files or from the practice market, in force or not."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from typing import Annotated, Any

from fastapi import APIRouter, File, Query, Response, UploadFile

from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Job, Window, Work, sent
from milkwort.api.learn.arriving import arriving_of
from milkwort.api.learn.columns import assigned, known_columns, remember
from milkwort.api.learn.counting import check_days
from milkwort.api.learn.in_force import results_in_force
from milkwort.api.learn.noticed import said_of_arriving
from milkwort.api.learn.schemas import ImportForce, ResultHeadings, ResultsTaken
from milkwort.api.learn.sheets import SaidBeside, read_sheets, table_of_results
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer, IsoDay
from milkwort.api.plan.workspace import Workspace
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.formats.report_window import window_above
from milkwort.formats.result_columns import RESULT_COLUMNS, days_of
from milkwort.formats.result_rows import ResultFile, read_result_rows
from milkwort.formats.text_table import MAX_BYTES, read_text_table
from milkwort.platforms.platform import OpenAccount
from milkwort.store.journal import Change
from milkwort.store.practice import practice_of
from milkwort.store.results import (
    Arriving,
    add_imports,
    check_room,
    imports_of,
    put_in_force,
    result_import,
    same_import,
)

router = APIRouter(tags=["learn"])

_LEVELS_TAKEN = ("keyword", "term")
Columns = Annotated[
    list[str],
    Query(max_length=40, description="columns by field, where headings don’t tell: clicks:3"),
]
FirstDay = Annotated[
    IsoDay | None, Query(description="first day of rows that say none; with the last")
]
LastDay = Annotated[IsoDay | None, Query(description="last day of rows that say none")]
Spent = Annotated[
    float | None,
    Query(ge=0, le=1e12, allow_inf_nan=False,
          description="money of all rows together, where no column says what was spent"),
]  # fmt: skip


@router.post("/plans/{plan_id}/results", responses=shape_of(ResultsTaken))
def bring_in(
    plan_id: int, file: Annotated[UploadFile, File()], work: Work, window: Window = "",
    job: Job = "", columns: Columns = [],  # noqa: B006 # FastAPI copies it
    since: FirstDay = None, until: LastDay = None, spent: Spent = None,
) -> Response:  # fmt: skip
    """Bring results in, out of a file; they are in force from then on."""
    name = file.filename or "results"
    days = _days(since, until)
    currency = work.plan(plan_id).record.brief.currency
    data = file.file.read(MAX_BYTES + 1)
    said = assigned(columns)
    beside = SaidBeside(said, days, spent, currency)
    with work.jobs.under_way(plan_id, job) as progress:
        read = read_sheets(work, data, name, beside, lambda n, rows: progress("reading", n, rows))
    if said:
        remember(work, read.first, said)
    files = [(file, called, None) for file, called in read.files]
    return sent(_taken(work, plan_id, files, name, window, read.said))


@router.post("/plans/{plan_id}/results/headings", responses=shape_of(ResultHeadings))
def headings(plan_id: int, file: Annotated[UploadFile, File()], work: Work) -> Response:
    """Return the headings of a file of results, and which column holds what; nothing is kept."""
    work.plan(plan_id)
    name = file.filename or "results"
    table = table_of_results(work, file.file.read(MAX_BYTES + 1), name)
    window = window_above(table.above, days_of(table))
    since, until = map(date.fromordinal, window) if window else (None, None)
    return sent({
        "headings": list(table.rows[0]) if table.rows else [],
        "columns": known_columns(work, table), "fields": dict(RESULT_COLUMNS),
        "since": since, "until": until,
    })  # fmt: skip


@router.post("/plans/{plan_id}/results/practice", responses=shape_of(ResultsTaken))
def from_practice(plan_id: int, work: Work, window: Window = "") -> Response:
    """Take the results of the practice market over, by keyword and by term."""
    with work.database.read() as session:
        practice = practice_of(session, plan_id)
    if practice is None:
        raise NotFoundError("No practice account is open for this plan.", "practice")
    with work.practice.platform() as platform:
        account = OpenAccount(practice.account, practice.key)
        today = platform.clock(account).today
        files: list[tuple[ResultFile, str, date | None]] = []
        for level in _LEVELS_TAKEN:
            table = platform.results(account, level, None, None)
            if not table.rows:
                raise BadValueError("results", "days that have passed", "none")
            text = "\n".join(_line(row) for row in (table.heads, *table.rows))
            name = f"practice market {account.id}, by {level}"
            files.append((read_result_rows(read_text_table(text, name), name), name, today))
    return sent(_taken(work, plan_id, files, f"practice market {account.id}", window))


@router.post("/plans/{plan_id}/results/{import_id}/force", responses=shape_of(ChangeAnswer))
def force(
    plan_id: int, import_id: int, body: ImportForce, work: Work, window: Window = ""
) -> Response:
    """Say whether an import counts."""

    def decide(plan: OpenPlan) -> Decision:
        with work.database.read() as session:
            found = result_import(session, plan.record.client_id, import_id)
            label = f"{'count' if body.in_force else 'leave out'} {found.source}"
            if body.in_force and not found.in_force:
                check_room(session, plan.record.client_id, found.rows)
                check_days(session, found)
        return Decision(label, lambda change: put_in_force(change, [import_id], body.in_force))

    return sent(work.change(plan_id, decide, window=window, of_client=True))


def _days(since: date | None, until: date | None) -> tuple[int, int] | None:
    if since is None and until is None:
        return None
    if since is None or until is None or until < since:
        said = f"{since or 'none'} to {until or 'none'}"
        raise BadValueError("since, until", "a first and a last day, in order", said)
    return since.toordinal(), until.toordinal()


def _taken(
    work: Workspace, plan_id: int, files: Sequence[tuple[ResultFile, str, date | None]],
    name: str, window: str, said: Sequence[str] = (),
) -> dict[str, Any]:  # fmt: skip
    """Keep results, and put them in force as one change that can be undone."""
    arriving: list[Arriving] = [arriving_of(*one) for one in files]
    # what is taken over from an account holds all its days, and so all that was taken before
    whole = {name for _, name, as_of in files if as_of is not None}

    def decide(plan: OpenPlan) -> Decision:
        client = plan.record.client_id
        with work.database.begin() as session:
            before = [one.id for one in imports_of(session, client)
                      if one.in_force and one.source in whole]  # fmt: skip
            freed = [result_import(session, client, one).rows for one in before]
            coming = [one for one in arriving if same_import(session, client, one) is None]
            new = add_imports(session, client, plan_id, coming, freed=sum(freed))

        def do(change: Change) -> None:
            put_in_force(change, before, False)
            put_in_force(change, new, True)

        return Decision(f"take in {name}", do)

    client = work.plan(plan_id).record.client_id
    _, before_all = results_in_force(work, client)
    with work.database.read() as session:
        same = all(same_import(session, client, one) is not None for one in arriving)
    summary = work.plan(plan_id).summary
    plan = work.plan(plan_id)
    noticed = [one for file, _, _ in files for one in said_of_arriving(plan, file, before_all)]
    notices = list(dict.fromkeys((*said, *noticed)))
    if not same:
        work.change(plan_id, decide, window=window, of_client=True)
        summary = work.plan(plan_id).summary
    refused = [one.as_dict() for file, _, _ in files for one in file.refused]
    return {
        "taken": 0 if same else sum(len(file) for file, _, _ in files), "same": same,
        "level": _named(list(dict.fromkeys(file.level for file, _, _ in files))),
        "refused": refused[:200], "notices": [] if same else notices, "summary": summary,
    }  # fmt: skip


def _named(levels: Sequence[str]) -> str:
    *some, last = levels
    return f"{', '.join(some)} and {last}" if some else last


def _line(cells: Any) -> str:
    return ",".join('"' + str(cell).replace('"', '""') + '"' for cell in cells)
