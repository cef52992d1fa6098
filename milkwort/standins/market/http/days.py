"""Days that pass, and what they brought."""

from __future__ import annotations

import asyncio
from collections.abc import AsyncIterator
from datetime import date
from typing import Any

import orjson
from fastapi import APIRouter, Request, Response
from fastapi.responses import StreamingResponse
from sqlalchemy.orm import Session

from milkwort.standins.market.accounts import account_of, faults_of
from milkwort.standins.market.clock import clock_of, start_clock, stop_clock
from milkwort.standins.market.faults import chance_of
from milkwort.standins.market.http.asked import ERRORS, Db, Key, Once, wrote
from milkwort.standins.market.http.tables import answered_table
from milkwort.standins.market.reports import ResultLevel, heads_of, results_of
from milkwort.standins.market.schemas import (
    ClockAsked,
    ClockState,
    IsoDay,
    Results,
)
from milkwort.standins.market.storage import Account, Clock

__all__ = ["router"]

_BEAT_SECONDS = 0.1

router = APIRouter(responses=ERRORS)


@router.post("/accounts/{account_id}/clock", status_code=202, response_model=ClockState)
def clock(request: Request, account_id: str, body: ClockAsked, key: Key, once: Once) -> Response:
    """Let days pass."""

    def do(session: Session) -> Any:
        account = account_of(session, account_id, key)
        return _clock(start_clock(session, account, body.days), account)

    answer = wrote(request, account_id, key, once, body.model_dump_json().encode(), 202, do)
    request.app.state.worker.wake()
    return answer


@router.get("/accounts/{account_id}/clock", response_model=ClockState)
def clock_state(account_id: str, db: Db, key: Key) -> Any:
    """Return how far the clock is."""
    with db.read() as session:
        account = account_of(session, account_id, key)
        return _clock(clock_of(session, account), account)


@router.delete("/accounts/{account_id}/clock", response_model=ClockState)
def clock_stopped(account_id: str, db: Db, key: Key) -> Any:
    """Let no further day pass; the day that is being lived is lived to its end."""
    with db.begin() as session:
        account = account_of(session, account_id, key)
        return _clock(stop_clock(session, account), account)


def _clock(clock: Clock, account: Account) -> dict[str, Any]:
    return {"state": clock.state, "wanted": clock.wanted, "done": clock.done,
            "today": date.fromordinal(account.today).isoformat()}  # fmt: skip


@router.get("/accounts/{account_id}/clock/events", response_class=StreamingResponse)
async def clock_events(account_id: str, db: Db, key: Key) -> StreamingResponse:
    """Tell each day that passes, until none does any more."""
    await asyncio.to_thread(clock_state, account_id, db, key)

    async def told() -> AsyncIterator[bytes]:
        before = None
        while True:
            state = await asyncio.to_thread(clock_state, account_id, db, key)
            if state != before:
                before = state
                yield b"data: " + orjson.dumps(state) + b"\n\n"
            if state["state"] != "running":
                return
            await asyncio.sleep(_BEAT_SECONDS)

    return StreamingResponse(told(), media_type="text/event-stream")


@router.get("/accounts/{account_id}/results", response_model=Results)
def results(
    request: Request, account_id: str, db: Db, key: Key, level: ResultLevel = "day",
    since: IsoDay | None = None, until: IsoDay | None = None, format: str = "json",
) -> Response:  # fmt: skip
    """Return rows by day of the click; customers reported late appear on their click's day."""
    with db.read() as session:
        account = account_of(session, account_id, key)
        first = max(since.toordinal() if since else account.start, account.start)
        last = min(until.toordinal() if until else account.today - 1, account.today - 1)
        rows = results_of(session, account, level, first, last)
        missing = _missing_days(request, account, level, range(first, last + 1))
    if missing:
        days = {date.fromordinal(day).isoformat() for day in missing}
        rows = [row for row in rows if row[0] not in days]
    about = {"level": level, "since": date.fromordinal(max(first, 1)).isoformat(),
             "until": date.fromordinal(max(last, 1)).isoformat()}  # fmt: skip
    return answered_table(heads_of(level), rows, format, about)


def _missing_days(request: Request, account: Account, level: str, days: range) -> set[int]:
    """Return days that are missing where the clock is made to jump: until asked for again."""
    share = faults_of(account).clock_jump
    missing = set()
    for day in days if share else ():
        if chance_of(account.seed, "jump", day) < share:
            asked = request.app.state.asked
            if (account.id, level, day) not in asked:
                asked[account.id, level, day] = True
                missing.add(day)
    return missing
