"""The practice view: an account in the practice market, what was sent there, what came of it."""

from __future__ import annotations

import csv
import io
import secrets
from collections.abc import Mapping, Sequence
from datetime import date
from typing import TYPE_CHECKING, Any

from fastapi import APIRouter, Response

from milkwort.api.handover.envelope import envelope_view
from milkwort.api.handover.practice_schemas import (
    EnvelopeView,
    OpenRequest,
    PassRequest,
    PracticeView,
    SendRequest,
)
from milkwort.api.handover.routes import handed_over
from milkwort.api.handover.schemas import HandOverRequest
from milkwort.api.handover.sheets import sheets_of_plan
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Job, Window, Work, attached, download_of, sent
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.workspace import Workspace
from milkwort.core.brief.upload_shape import SHEET_NAMES
from milkwort.core.errors import BadValueError, NotFoundError, PlannerError, StoppedError
from milkwort.core.handover.changed_rows import Row
from milkwort.core.handover.took import name_of_row, rows_to_send
from milkwort.formats.cells import safe_cell
from milkwort.formats.upload_sheets import sheet_csv, sheet_table
from milkwort.platforms.handing_over import Outcome, hand_over, live_of, parcels_of
from milkwort.platforms.opening import opening_of
from milkwort.platforms.platform import OpenAccount, ResultTable, table_rows
from milkwort.store.hand_overs import set_status, sheets_of, thawed
from milkwort.store.models import HandOver, PracticeAccount, PracticeSending
from milkwort.store.practice import (
    add_practice,
    add_sending,
    finish_sending,
    last_sending,
    practice_of,
    replies_of,
    sheets_to_send,
)

if TYPE_CHECKING:
    from milkwort.platforms.http import HttpPlatform

router = APIRouter(tags=["practice"])

_MOST_SHOWN = 2000
_STATES = ("refused", "warned", "taken")


@router.get("/plans/{plan_id}/practice", responses=shape_of(PracticeView))
def view(plan_id: int, work: Work) -> Response:
    """Return the practice account of a plan, what was sent to it, and its results by day."""
    return sent(_view(work, plan_id))


@router.post("/plans/{plan_id}/practice", status_code=201, responses=shape_of(PracticeView, 201))
def opened(plan_id: int, body: OpenRequest, work: Work) -> Response:
    """Open a practice account; the one before is left as it is."""
    plan = work.plan(plan_id)
    if not len(plan.sheet.ids):
        raise BadValueError("practice", "a plan with keywords", "none")
    start = date.fromisoformat(str(plan.record.values["start_date"]))
    opening = opening_of(plan.result, plan.written.profile, plan.record.name, body.level,
                         body.seed, start)  # fmt: skip
    with work.practice.platform() as platform:
        account = platform.open_account(opening, secrets.token_hex(8))
    with work.database.begin() as session:
        add_practice(session, plan_id, name=plan.record.name, account=account.id, key=account.key,
                     level=body.level, seed=body.seed, start=start.isoformat())  # fmt: skip
    answer = sent(_view(work, plan_id))
    answer.status_code = 201
    return answer


@router.post("/plans/{plan_id}/practice/send", responses=shape_of(PracticeView))
def send(
    plan_id: int, body: SendRequest, work: Work, window: Window = "", job: Job = ""
) -> Response:
    """Hand the plan over to its practice account, and look whether it took."""
    practice = _practice(work, plan_id)
    asked = HandOverRequest(kind="csv", sheets=list(SHEET_NAMES), note="practice market")
    with work.practice.platform() as platform:
        account = OpenAccount(practice.account, practice.key)
        live = live_of(platform, account)
        made, _ = handed_over(work, plan_id, asked, window)
        sheets = sheets_of(made) or {}
        parcels = parcels_of(sheets, live, whole=body.only == "all")
        with work.database.begin() as session:
            sending = add_sending(session, practice.id, made.id, secrets.token_hex(8), parcels)
        _deliver(work, plan_id, platform, account, sending, sheets, job)
    return sent(_view(work, plan_id) | {"summary": work.plan(plan_id).summary})


@router.post("/plans/{plan_id}/practice/go-on", responses=shape_of(PracticeView))
def go_on(plan_id: int, work: Work, job: Job = "") -> Response:
    """Go on with a sending that was cut short: what was taken in is not taken in again."""
    practice = _practice(work, plan_id)
    with work.database.read() as session:
        sending = last_sending(session, practice.id)
        if sending is None or sending.state == "done":
            raise NotFoundError("No sending was cut short.", "practice")
        made = thawed(session, _plan_of(session, sending), sending.hand_over_id)
        sheets = sheets_of(made) or {}
    with work.practice.platform() as platform:
        account = OpenAccount(practice.account, practice.key)
        _deliver(work, plan_id, platform, account, sending, sheets, job)
    return sent(_view(work, plan_id))


@router.post("/plans/{plan_id}/practice/clock", responses=shape_of(PracticeView))
def pass_days(plan_id: int, body: PassRequest, work: Work) -> Response:
    """Let days pass in the practice market."""
    practice = _practice(work, plan_id)
    with work.practice.platform() as platform:
        account = OpenAccount(practice.account, practice.key)
        platform.pass_days(account, body.days, secrets.token_hex(8))
    return sent(_view(work, plan_id))


@router.delete("/plans/{plan_id}/practice/clock", responses=shape_of(PracticeView))
def stop_days(plan_id: int, work: Work) -> Response:
    """Let no further day pass."""
    practice = _practice(work, plan_id)
    with work.practice.platform() as platform:
        platform.stop_clock(OpenAccount(practice.account, practice.key))
    return sent(_view(work, plan_id))


@router.get(
    "/plans/{plan_id}/practice/results", response_class=Response, responses=download_of("text/csv")
)
def results(plan_id: int, work: Work, level: str = "keyword") -> Response:
    """Return what came of it by day, as CSV; nothing where no account is open."""
    if level not in ("day", "campaign", "group", "keyword", "term"):
        raise BadValueError("level", "day, campaign, group, keyword or term", level)
    with work.database.read() as session:
        practice = practice_of(session, plan_id)
    table = ResultTable(())
    if practice is not None:
        with work.practice.platform() as platform:
            table = platform.results(OpenAccount(practice.account, practice.key), level)
    return attached(_csv(table), "text/csv; charset=utf-8", f"practice-{level}.csv")


@router.post("/plans/{plan_id}/practice/envelope", responses=shape_of(EnvelopeView))
def envelope(plan_id: int, work: Work) -> Response:
    """Open the envelope: the hidden truth beside the plan; it is written down, for good."""
    practice = _practice(work, plan_id)
    with work.practice.platform() as platform:
        account = OpenAccount(practice.account, practice.key)
        platform.open_envelope(account)
        return sent(envelope_view(work.plan(plan_id), platform, account))


def _deliver(
    work: Workspace,
    plan_id: int,
    platform: HttpPlatform,
    account: OpenAccount,
    sending: PracticeSending,
    sheets: Mapping[str, Sequence[Row]],
    job: str,
) -> None:
    """Send, and write down how it ended; what the platform would not do is said, not raised."""
    state, message, outcome, day = "done", "", Outcome(), None
    read_back = True
    with work.jobs.under_way(plan_id, job) as progress:
        try:
            # what is taken in is what the market lives by from its next day on
            day = platform.clock(account).today
            outcome = hand_over(platform, account, sheets_to_send(sending), sheets, sending.once,
                                _written, progress)  # fmt: skip
        except StoppedError:
            state, read_back = "cut short", False
            message = "You stopped it: what had been sent by then stands in the account."
        except PlannerError as error:
            state, message, read_back = "cut short", str(error), False
    differs = [vars(one) for one in outcome.differs] if read_back else None
    with work.database.begin() as session:
        finish_sending(session, sending.id, state, message, outcome.as_rows(), differs)
        if state == "done":
            owner = _plan_of(session, sending)
            set_status(session, owner, sending.hand_over_id, "running", None, day)


def _plan_of(session: Any, sending: PracticeSending) -> int:
    found = session.get(HandOver, sending.hand_over_id)
    return int(found.plan_id)


def _written(rows: Sequence[Row]) -> bytes:
    return sheet_csv(sheet_table(rows))


def _practice(work: Workspace, plan_id: int) -> PracticeAccount:
    with work.database.read() as session:
        found = practice_of(session, plan_id)
    if found is None:
        raise NotFoundError("No practice account is open for this plan.", "practice")
    return found


def _view(work: Workspace, plan_id: int) -> dict[str, Any]:
    plan = work.plan(plan_id)
    with work.database.read() as session:
        practice = practice_of(session, plan_id)
        sending = None if practice is None else last_sending(session, practice.id)
    if practice is None:
        return {"account": None, "sending": None, "days": [], "waits": 0}
    with work.practice.platform() as platform:
        account = OpenAccount(practice.account, practice.key)
        state, clock = platform.state(account), platform.clock(account)
        running = clock.state == "running"
        days = [] if running else table_rows(platform.results(account, "day"))
        waits = 0 if running else _waits(plan, live_of(platform, account))
    return {
        "account": {
            "name": practice.name, "level": practice.level, "seed": practice.seed,
            "start": practice.start, "today": clock.today.isoformat(),
            "envelope": state["envelope"], "live": state["live"], "clock": clock.state,
            "wanted": clock.wanted, "done": clock.done,
        },
        "sending": None if sending is None else _sending(sending),
        "days": days, "waits": waits,
    }  # fmt: skip


def _waits(plan: OpenPlan, live: Mapping[str, Sequence[Row]]) -> int:
    count = 0
    for kind, rows in sheets_of_plan(plan).items():
        kept, gone = rows_to_send(kind, rows, live[kind], whole=False)
        count += len(kept) + len(gone)
    return count


def _sending(sending: PracticeSending) -> dict[str, Any]:
    sent_rows = sheets_to_send(sending)
    rows = [
        {"sheet": sheet, "name": _name_of(sheet, sent_rows[sheet], row["row"]), **row}
        for sheet, some in replies_of(sending).items()
        for row in some
    ]
    counts = {state: sum(row["state"] == state for row in rows) for state in _STATES}
    rows.sort(key=lambda row: _STATES.index(row["state"]))
    return {
        "id": sending.id, "at": sending.at, "state": sending.state, "message": sending.message,
        **counts, "replies": rows[:_MOST_SHOWN], "more": max(len(rows) - _MOST_SHOWN, 0),
        "differs": sending.differs,
    }  # fmt: skip


def _name_of(sheet: str, rows: Sequence[Row], number: int) -> str:
    return name_of_row(sheet.split(" ", maxsplit=1)[0], rows[number - 2])


def _csv(table: ResultTable) -> bytes:
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(table.heads)
    writer.writerows([safe_cell(cell) for cell in row] for row in table.rows)
    return out.getvalue().encode("utf-8-sig")
