"""Sheets sent in, the replies to them, and what stands."""

from __future__ import annotations

import asyncio
from typing import Annotated, Any

import orjson
from fastapi import APIRouter, Header, Request, Response
from sqlalchemy.orm import Session

from milkwort.standins.market.accounts import account_of
from milkwort.standins.market.clock import clock_of
from milkwort.standins.market.errors import MarketError
from milkwort.standins.market.http.asked import ERRORS, Db, Key, Once, wrote
from milkwort.standins.market.http.tables import answered_table
from milkwort.standins.market.schemas import (
    LivePage,
    Reply,
    UploadState,
)
from milkwort.standins.market.standing import KINDS
from milkwort.standins.market.standing_rows import live_rows
from milkwort.standins.market.storage import Upload
from milkwort.standins.market.taking import REPLY_HEADS, put_upload, reply_of, upload_of

__all__ = ["MOST_BYTES", "router"]

MOST_BYTES = 32 * 2**20
"""Bound on a sheet."""
_PAGE = 2000

router = APIRouter(responses=ERRORS)


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

    answer = await asyncio.to_thread(wrote, request, account_id, key, once, body, 202, do)
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
    return answered_table(REPLY_HEADS, rows, format, {})


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
