"""What every call of the market needs: its database, the key, and that it is done once."""

from __future__ import annotations

import hashlib
from collections.abc import Callable
from typing import Annotated, Any, cast

import orjson
from fastapi import Depends, Header, Request, Response
from sqlalchemy.orm import Session

from milkwort.standins.market.accounts import account_of
from milkwort.standins.market.errors import MarketError
from milkwort.standins.market.schemas import (
    ErrorAnswer,
)
from milkwort.standins.market.storage import Answered, Database

__all__ = ["ERRORS", "Db", "Key", "Once", "database_of", "wrote"]

_LONGEST_KEY = 200

ERRORS: dict[int | str, dict[str, Any]] = {
    code: {"model": ErrorAnswer} for code in (401, 403, 404, 409, 422, 429, 503)
}
"""What any call may be answered with in place of what was asked."""


def database_of(request: Request) -> Database:
    """Return the database of the market that is asked."""
    return cast(Database, request.app.state.database)


Db = Annotated[Database, Depends(database_of)]


def _bearer(authorization: Annotated[str, Header()] = "") -> str:
    scheme, _, key = authorization.partition(" ")
    if scheme.casefold() != "bearer" or not key:
        raise MarketError(401, "key_missing", "Expected Authorization: Bearer and the account’s "
                          "key.", "Authorization")  # fmt: skip
    return key


Key = Annotated[str, Depends(_bearer)]


def _once_key(idempotency_key: Annotated[str, Header()] = "") -> str:
    if not 1 <= len(idempotency_key) <= _LONGEST_KEY:
        raise MarketError(422, "once_key_missing", f"Expected an Idempotency-Key of 1 to "
                          f"{_LONGEST_KEY} characters.", "Idempotency-Key")  # fmt: skip
    return idempotency_key


Once = Annotated[str, Depends(_once_key)]


def wrote(
    request: Request, account_id: str, key: str, once: str, body: bytes, status: int,
    do: Callable[[Session], Any],
) -> Response:  # fmt: skip
    """Do a write once: the same key with the same body gets the first answer."""
    asked = hashlib.sha256(
        request.method.encode() + str(request.url.path).encode() + request.url.query.encode() + body
    ).hexdigest()
    with database_of(request).begin() as session:
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
