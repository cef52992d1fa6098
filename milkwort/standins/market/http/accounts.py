"""Accounts: opened, as they stand, and the faults of the line to them."""

from __future__ import annotations

from datetime import date
from typing import Any

from fastapi import APIRouter, Request, Response
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from milkwort.standins.market.accounts import account_of, open_account
from milkwort.standins.market.http.asked import ERRORS, Db, Key, Once, wrote
from milkwort.standins.market.limits import Limits
from milkwort.standins.market.schemas import (
    AccountOpened,
    AccountState,
    FaultsAsked,
    Opening,
)
from milkwort.standins.market.standing import KINDS
from milkwort.standins.market.storage import Account, Thing
from milkwort.standins.market.told import known_of

__all__ = ["router", "state_of"]

router = APIRouter(responses=ERRORS)


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
        return {"account": state_of(session, account), "key": key}

    return wrote(request, "", "", once, body.model_dump_json().encode(), 201, do)


@router.get("/accounts/{account_id}", response_model=AccountState)
def account(account_id: str, db: Db, key: Key) -> Any:
    """Return how an account stands."""
    with db.read() as session:
        return state_of(session, account_of(session, account_id, key))


def state_of(session: Session, account: Account) -> dict[str, Any]:
    """Return an account as it is answered: what stands in it, and how far its days are."""
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


@router.put("/accounts/{account_id}/faults", response_model=FaultsAsked)
def faults(account_id: str, body: FaultsAsked, db: Db, key: Key) -> Any:
    """Switch faults on or off; what is left out is off."""
    with db.begin() as session:
        account_of(session, account_id, key).faults = body.model_dump()
    return body
