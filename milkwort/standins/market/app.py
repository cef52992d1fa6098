"""The practice market over HTTP: an app of its own, spoken to as a real platform would be."""

from __future__ import annotations

import asyncio
import csv
import hashlib
import io
from collections.abc import AsyncIterator, Callable, Sequence
from contextlib import asynccontextmanager
from datetime import UTC, date, datetime
from typing import Annotated, Any, cast

import numpy as np
import orjson
from fastapi import APIRouter, Depends, FastAPI, Header, Query, Request, Response
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse, StreamingResponse
from sqlalchemy import func, select
from sqlalchemy.exc import DatabaseError
from sqlalchemy.orm import Session
from starlette.exceptions import HTTPException

from milkwort.standins.market.accounts import account_of, faults_of, open_account
from milkwort.standins.market.clock import clock_of, start_clock, stop_clock
from milkwort.standins.market.envelope import options_of, truth_of
from milkwort.standins.market.errors import MarketError
from milkwort.standins.market.fault_layer import FaultLayer
from milkwort.standins.market.faults import Faults, chance_of
from milkwort.standins.market.limits import Limits
from milkwort.standins.market.reports import ResultLevel, heads_of, results_of
from milkwort.standins.market.rows import KINDS
from milkwort.standins.market.schemas import (
    AccountOpened,
    AccountState,
    ClockAsked,
    ClockState,
    ErrorAnswer,
    FaultsAsked,
    IsoDay,
    LivePage,
    Opening,
    Options,
    Reply,
    Results,
    Truth,
    UploadState,
)
from milkwort.standins.market.standing_rows import live_rows
from milkwort.standins.market.storage import Account, Answered, Clock, Database, Thing, Upload
from milkwort.standins.market.taking import REPLY_HEADS, put_upload, reply_of, upload_of
from milkwort.standins.market.told import known_of
from milkwort.standins.market.worker import Inline, Spawned, Worker

__all__ = ["MOST_BYTES", "make_market"]

MOST_BYTES = 32 * 2**20
_PAGE = 2000
_BEAT_SECONDS = 0.1
_LONGEST_KEY = 200

router = APIRouter(
    prefix="/v1", tags=["practice market"],
    responses={code: {"model": ErrorAnswer} for code in (401, 403, 404, 409, 422, 429, 503)},
)  # fmt: skip


def make_market(database: Database, *, inline: bool = False) -> FastAPI:
    """Make the market's app.

    Parameters
    ----------
    database : Database
    inline : bool
        Whether sheets are taken in and days pass in the caller's thread, not in a process
        of its own.
    """
    worker: Worker = Inline(database) if inline else Spawned(database.path)

    @asynccontextmanager
    async def lifespan(_app: FastAPI) -> AsyncIterator[None]:
        _resume(database, worker)
        yield
        worker.close()
        database.close()

    app = FastAPI(
        title="Practice market", version="1",
        description="A simulated ad platform. Everything it says is made up.",
        lifespan=lifespan, docs_url=None, redoc_url=None,
    )  # fmt: skip
    app.state.database, app.state.worker, app.state.asked = database, worker, {}
    app.include_router(router)
    app.add_exception_handler(MarketError, _market_error)
    app.add_exception_handler(RequestValidationError, _bad_request)
    app.add_exception_handler(HTTPException, _http_error)
    app.add_exception_handler(DatabaseError, _database_error)
    app.add_exception_handler(OverflowError, _no_such_number)

    def faults_at(account_id: str) -> tuple[Faults, int] | None:
        with database.read() as session:
            found = session.get(Account, account_id)
            return None if found is None else (faults_of(found), found.seed)

    app.add_middleware(FaultLayer, faults_at=faults_at)
    return app


def _resume(database: Database, worker: Worker) -> None:
    """Go on with what was under way when the market last ended."""
    with database.read() as session:
        waits = session.scalar(select(func.count()).where(Upload.state != "done"))
        runs = session.scalar(select(func.count()).where(Clock.state == "running"))
    if waits or runs:
        worker.wake()


def _database(request: Request) -> Database:
    return cast(Database, request.app.state.database)


Db = Annotated[Database, Depends(_database)]


def _bearer(authorization: Annotated[str, Header()] = "") -> str:
    scheme, _, key = authorization.partition(" ")
    if scheme.casefold() != "bearer" or not key:
        raise MarketError(401, "key_missing", "Expected Authorization: Bearer and the account's "
                          "key.", "Authorization")  # fmt: skip
    return key


Key = Annotated[str, Depends(_bearer)]


def _once_key(idempotency_key: Annotated[str, Header()] = "") -> str:
    if not 1 <= len(idempotency_key) <= _LONGEST_KEY:
        raise MarketError(422, "once_key_missing", f"Expected an Idempotency-Key of 1 to "
                          f"{_LONGEST_KEY} characters.", "Idempotency-Key")  # fmt: skip
    return idempotency_key


Once = Annotated[str, Depends(_once_key)]


def _wrote(
    request: Request, account_id: str, key: str, once: str, body: bytes, status: int,
    do: Callable[[Session], Any],
) -> Response:  # fmt: skip
    """Do a write once: the same key with the same body gets the first answer."""
    asked = hashlib.sha256(
        request.method.encode() + str(request.url.path).encode() + request.url.query.encode() + body
    ).hexdigest()
    with _database(request).begin() as session:
        if account_id:
            account_of(session, account_id, key)
        held = session.get(Answered, (account_id, once))
        if held is not None:
            if held.asked != asked:
                raise MarketError(409, "key_used", "This Idempotency-Key was used for something "
                                  "else.", "Idempotency-Key")  # fmt: skip
            return Response(held.body, held.status, media_type="application/json")
        content = orjson.dumps(do(session))
        session.add(Answered(account=account_id, key=once, asked=asked, status=status,
                             body=content))  # fmt: skip
    return Response(content, status, media_type="application/json")


@router.post("/accounts", status_code=201, response_model=AccountOpened)
def opened(request: Request, body: Opening, once: Once) -> Response:
    """Open an account in a world of its own."""
    known = known_of(body)

    def do(session: Session) -> Any:
        account, key = open_account(
            session, name=body.name, currency=body.currency, zone=body.zone, level=body.level,
            seed=body.seed, start=body.start,
            limits=Limits(**body.limits.model_dump() | {"matches": tuple(body.limits.matches),
                                                        "pricing": body.pricing}),
            known=known,
        )  # fmt: skip
        return {"account": _state(session, account), "key": key}

    return _wrote(request, "", "", once, body.model_dump_json().encode(), 201, do)


@router.get("/accounts/{account_id}", response_model=AccountState)
def account(account_id: str, db: Db, key: Key) -> Any:
    """Return how an account stands."""
    with db.read() as session:
        return _state(session, account_of(session, account_id, key))


def _state(session: Session, account: Account) -> dict[str, Any]:
    counts = dict(
        session.execute(
            select(Thing.kind, func.count()).where(
                Thing.account == account.id, Thing.gone.is_(False)
            ).group_by(Thing.kind)
        ).all()
    )  # fmt: skip
    return {
        "id": account.id, "name": account.name, "currency": account.currency,
        "level": account.level, "start": date.fromordinal(account.start).isoformat(),
        "today": date.fromordinal(account.today).isoformat(), "envelope": account.envelope,
        "live": {kind: counts.get(kind, 0) for kind in KINDS}, "simulated": True,
    }  # fmt: skip


@router.post("/accounts/{account_id}/uploads", status_code=202, response_model=UploadState)
async def upload(request: Request, account_id: str, kind: str, key: Key, once: Once) -> Response:
    """Take a CSV or XLSX sheet; it is taken in in the background."""
    body = await request.body()
    if len(body) > MOST_BYTES:
        raise MarketError(413, "too_large", f"Expected at most {MOST_BYTES // 2**20} MB.", "sheet")

    def do(session: Session) -> Any:
        account = account_of(session, account_id, key)
        clock = clock_of(session, account)
        if clock.state == "running":
            raise MarketError(409, "days_pass", "Days are passing: stop the clock first.", "clock")
        return _upload(put_upload(session, account, kind, body))

    answer = await asyncio.to_thread(_wrote, request, account_id, key, once, body, 202, do)
    await asyncio.to_thread(request.app.state.worker.wake)
    return answer


@router.get("/accounts/{account_id}/uploads/{number}", response_model=UploadState)
def upload_state(account_id: str, number: int, db: Db, key: Key) -> Any:
    """Return how far an upload is."""
    with db.read() as session:
        return _upload(upload_of(session, account_of(session, account_id, key), number))


def _upload(one: Upload) -> dict[str, Any]:
    names = ("number", "kind", "state", "rows", "read", "taken", "warned", "refused")
    return {name: getattr(one, name) for name in names}


@router.get("/accounts/{account_id}/uploads/{number}/reply", response_model=Reply)
def reply(account_id: str, number: int, db: Db, key: Key, format: str = "json") -> Response:
    """Return the reply sheet, row by row; 404 while it is not there yet."""
    with db.begin() as session:
        account = account_of(session, account_id, key)
        found = upload_of(session, account, number)
        found.asked += 1
        rows = reply_of(session, account, found)
    if rows is None:
        raise MarketError(404, "reply_late", "The reply is not there yet: ask again.", "reply")
    return _table(REPLY_HEADS, rows, format, {})


@router.get("/accounts/{account_id}/live", response_model=LivePage)
def live(
    account_id: str, kind: str, db: Db, key: Key, cursor: str = "",
    if_none_match: Annotated[str, Header()] = "",
) -> Response:  # fmt: skip
    """Return what is live now, a page at a time."""
    if kind not in KINDS:
        raise MarketError(422, "kind_unknown", f"Expected one of {', '.join(KINDS)}.", "kind")
    if cursor and not (cursor.isascii() and cursor.isdecimal() and len(cursor) < 19):
        raise MarketError(422, "bad_value", "Expected a cursor that was told.", "cursor")
    with db.read() as session:
        account = account_of(session, account_id, key)
        tag = f'"{account.version}-{kind}-{cursor}"'
        if if_none_match == tag:
            return Response(status_code=304, headers={"ETag": tag})
        rows, following = live_rows(session, account, kind, int(cursor or 0), _PAGE)
    content = orjson.dumps({"rows": rows, "next": None if following is None else str(following)})
    return Response(content, media_type="application/json", headers={"ETag": tag})


@router.post("/accounts/{account_id}/clock", status_code=202, response_model=ClockState)
def clock(request: Request, account_id: str, body: ClockAsked, key: Key, once: Once) -> Response:
    """Let days pass."""

    def do(session: Session) -> Any:
        account = account_of(session, account_id, key)
        return _clock(start_clock(session, account, body.days), account)

    answer = _wrote(request, account_id, key, once, body.model_dump_json().encode(), 202, do)
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
    return _table(heads_of(level), rows, format, about)


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


def _table(
    heads: Sequence[str], rows: list[list[Any]], format: str, about: dict[str, Any]
) -> Response:
    if format == "csv":
        out = io.StringIO()
        writer = csv.writer(out, lineterminator="\r\n")
        writer.writerow(heads)
        writer.writerows([_guarded(cell) for cell in row] for row in rows)
        return Response(out.getvalue().encode("utf-8-sig"), media_type="text/csv; charset=utf-8")
    if format != "json":
        raise MarketError(422, "bad_value", f"Expected json or csv, got {format}.", "format")
    return Response(orjson.dumps({**about, "heads": list(heads), "rows": rows}),
                    media_type="application/json")  # fmt: skip


def _guarded(cell: Any) -> Any:
    return "'" + cell if isinstance(cell, str) and cell[:1] in ("=", "+", "-", "@", "\t") else cell


@router.put("/accounts/{account_id}/faults", response_model=FaultsAsked)
def faults(account_id: str, body: FaultsAsked, db: Db, key: Key) -> Any:
    """Switch faults on or off; what is left out is off."""
    with db.begin() as session:
        account_of(session, account_id, key).faults = body.model_dump()
    return body


@router.post("/accounts/{account_id}/envelope", response_model=AccountState)
def envelope_opened(account_id: str, db: Db, key: Key) -> Any:
    """Open the envelope: it is written down, and can't be closed again."""
    with db.begin() as session:
        account = account_of(session, account_id, key)
        if account.envelope is None:
            account.envelope = datetime.now(UTC).isoformat(timespec="seconds")
        return _state(session, account)


@router.get("/accounts/{account_id}/envelope", response_model=Truth)
def envelope(account_id: str, db: Db, key: Key) -> Response:
    """Return the hidden truth, once the envelope is open."""
    with db.read() as session:
        found = truth_of(session, account_of(session, account_id, key))
    return Response(orjson.dumps(found), media_type="application/json")


@router.get("/accounts/{account_id}/envelope/options", response_model=Options)
def options(
    account_id: str, since: date, until: date, db: Db, key: Key,
    bid: Annotated[list[float], Query(max_length=200)],
) -> Response:  # fmt: skip
    """Return what each of some bids would bring under the truth, once the envelope is open."""
    with db.read() as session:
        account = account_of(session, account_id, key)
        if not 0 <= (until - since).days < 366:
            raise MarketError(422, "bad_value", "Expected 1 to 366 days.", "until")
        found = options_of(session, account, since.toordinal(), until.toordinal(), np.array(bid))
    return Response(orjson.dumps(found), media_type="application/json")


def _error(status: int, code: str, message: str, where: str) -> JSONResponse:
    body = {"error": {"code": code, "message": message, "where": where}}
    return JSONResponse(body, status)


def _market_error(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, MarketError)
    return _error(error.status, error.code, error.message, error.where)


def _bad_request(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, RequestValidationError)
    first = error.errors()[0]
    where = ".".join(str(part) for part in first["loc"][1:]) or "request"
    return _error(422, "bad_value", f"{where}: {first['msg']}", where)


def _http_error(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, HTTPException)
    code = {404: "not_found", 405: "not_allowed"}.get(error.status_code, "cannot_do")
    return _error(error.status_code, code, str(error.detail), "")


def _no_such_number(_request: Request, _error_: Exception) -> JSONResponse:
    return _error(404, "not_found", "There is nothing of such a number.", "")


def _database_error(_request: Request, _error_: Exception) -> JSONResponse:
    return _error(507, "cannot_keep", "The market's database could not be used.", "database")
