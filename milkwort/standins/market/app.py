"""The practice market over HTTP: an app of its own, spoken to as a real platform would be."""

from __future__ import annotations

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager

from fastapi import FastAPI
from fastapi.exceptions import RequestValidationError
from sqlalchemy import func, select
from sqlalchemy.exc import DatabaseError
from starlette.exceptions import HTTPException

from milkwort.standins.market.accounts import faults_of
from milkwort.standins.market.errors import MarketError
from milkwort.standins.market.fault_layer import FaultLayer
from milkwort.standins.market.faults import Faults
from milkwort.standins.market.http import accounts, days, envelope, sheets
from milkwort.standins.market.http.errors import (
    bad_request,
    database_error,
    http_error,
    market_error,
    no_such_number,
)
from milkwort.standins.market.storage import Account, Clock, Database, Upload
from milkwort.standins.market.worker import Inline, Spawned, Worker

__all__ = ["make_market"]


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
    for part in (accounts, sheets, days, envelope):
        app.include_router(part.router, prefix="/v1", tags=["practice market"])
    app.add_exception_handler(MarketError, market_error)
    app.add_exception_handler(RequestValidationError, bad_request)
    app.add_exception_handler(HTTPException, http_error)
    app.add_exception_handler(DatabaseError, database_error)
    app.add_exception_handler(OverflowError, no_such_number)

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
