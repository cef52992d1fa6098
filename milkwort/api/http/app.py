"""The application: routers, guards, one handler for errors, the web client's files."""

from __future__ import annotations

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from sqlalchemy.exc import DatabaseError, OperationalError
from starlette.exceptions import HTTPException
from starlette.types import Receive, Scope, Send

from milkwort import __version__
from milkwort.api.http.client import client_routes
from milkwort.api.http.described import describe, shape_of
from milkwort.api.http.guard import BodyTooLargeError, Guard
from milkwort.api.http.practice import PRACTICE
from milkwort.api.http.refusals import refused, refused_by_http
from milkwort.api.http.routers import ROUTERS
from milkwort.api.plan.schemas import ErrorAnswer
from milkwort.api.plan.workspace import Workspace
from milkwort.core.errors import (
    NotFoundError,
    PlannerError,
    ReplayError,
    StoppedError,
    TooLargeError,
)
from milkwort.formats.text_table import MAX_BYTES
from milkwort.settings import Settings
from milkwort.store.database import Database, said_of_database
from milkwort.store.opening import opened_database

__all__ = ["MOST_BYTES", "make_app", "opened"]

MOST_BYTES = MAX_BYTES + 2**20
"""Bound on a request: a file, and what a form needs beside it, bytes."""


def opened(settings: Settings) -> Workspace:
    """Return what the application works on: the settings' database, brought up to date."""
    return Workspace(settings, opened_database(settings.database))


def make_app(settings: Settings | None = None, database: Database | None = None) -> FastAPI:
    """Return the application.

    Parameters
    ----------
    settings : Settings or None
    database : Database or None
        Brought up to date; that of the settings is, where left out.
    """
    settings = settings or Settings()
    workspace = opened(settings) if database is None else Workspace(settings, database)
    app = FastAPI(
        title="Milkwort",
        version=__version__,
        lifespan=_lifespan,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
    )
    app.state.workspace = workspace
    describe(app)
    errors = shape_of(ErrorAnswer, 400, 403, 404, 413, 422)
    for router in ROUTERS:
        app.include_router(router, prefix="/api", responses=errors)
    app.mount(f"/{PRACTICE}", _practice)
    app.add_exception_handler(PlannerError, _planner_error)
    app.add_exception_handler(RequestValidationError, _bad_request)
    app.add_exception_handler(HTTPException, refused_by_http)
    app.add_exception_handler(BodyTooLargeError, _too_large)
    app.add_exception_handler(OverflowError, _no_such_id)
    app.add_exception_handler(OperationalError, _database_error)
    app.add_exception_handler(DatabaseError, _database_error)
    app.add_middleware(Guard, hosts=settings.served_hosts, most_bytes=MOST_BYTES)
    app.router.routes.extend(client_routes())
    return app


async def _practice(scope: Scope, receive: Receive, send: Send) -> None:
    """Serve the practice market of the folder that is open."""
    await scope["app"].state.workspace.practice(scope, receive, send)


@asynccontextmanager
async def _lifespan(app: FastAPI) -> AsyncIterator[None]:
    workspace: Workspace = app.state.workspace
    workspace.events.bind()
    workspace.practice.resume()
    yield
    workspace.close()


_STATUS = {NotFoundError: 404, TooLargeError: 413, StoppedError: 409, ReplayError: 409}
"""What each error of the planner's is to HTTP; 422 for any other."""


def _planner_error(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, PlannerError)
    status = _STATUS.get(type(error), 422)
    return refused(status, error.code, error.message, error.where)


def _bad_request(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, RequestValidationError)
    first = error.errors()[0]
    where = ".".join(str(part) for part in first["loc"][1:]) or "request"
    if first["type"] == "extra_forbidden":
        said = "expected one of the fields described, got one of another name"
    elif first["type"] == "missing":
        said = "expected a value, got none"
    else:
        said = f"{first['msg']}, got {repr(first.get('input'))[:80]}"
    return refused(422, "bad_value", f"{where}: {said}", where)


def _no_such_id(_request: Request, _error_: Exception) -> JSONResponse:
    return refused(404, "not_found", "There is nothing with such an id.")


def _database_error(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, DatabaseError)
    return refused(507, "cannot_keep", said_of_database(error), "database")


def _too_large(_request: Request, _error_: Exception) -> JSONResponse:
    return refused(413, "too_large", "Expected at most 21 MB.")
