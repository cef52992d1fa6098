"""The truth, once it is asked for."""

from __future__ import annotations

from datetime import UTC, date, datetime
from typing import Annotated, Any

import numpy as np
import orjson
from fastapi import APIRouter, Query, Response

from milkwort.standins.market.accounts import account_of
from milkwort.standins.market.envelope import options_of, truth_of
from milkwort.standins.market.errors import MarketError
from milkwort.standins.market.http.accounts import state_of
from milkwort.standins.market.http.asked import ERRORS, Db, Key
from milkwort.standins.market.schemas import (
    AccountState,
    Options,
    Truth,
)

__all__ = ["router"]

router = APIRouter(responses=ERRORS)


@router.post("/accounts/{account_id}/envelope", response_model=AccountState)
def envelope_opened(account_id: str, db: Db, key: Key) -> Any:
    """Open the envelope: it is written down, and can't be closed again."""
    with db.begin() as session:
        account = account_of(session, account_id, key)
        if account.envelope is None:
            account.envelope = datetime.now(UTC).isoformat(timespec="seconds")
        return state_of(session, account)


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
