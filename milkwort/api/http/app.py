"""The application: routers, guards, one handler for errors, the web client's files."""

from __future__ import annotations

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import FileResponse, JSONResponse, Response
from fastapi.staticfiles import StaticFiles
from sqlalchemy.exc import DatabaseError, OperationalError
from starlette.exceptions import HTTPException
from starlette.types import Receive, Scope, Send

from milkwort import __version__
from milkwort.api.arrange import ads, negatives, pages, shaping, spots, structures, things
from milkwort.api.arrange import lists as negative_lists
from milkwort.api.arrange import routes as arrange
from milkwort.api.arrange import traced as arranged_traced
from milkwort.api.brief import routes as brief
from milkwort.api.clients import routes as clients
from milkwort.api.fit import choices, how_sure, traced, versions, year
from milkwort.api.fit import routes as fit
from milkwort.api.gather import past, rivals, sources
from milkwort.api.gather import routes as gather
from milkwort.api.handover import account as account_file
from milkwort.api.handover import back as sheets_back
from milkwort.api.handover import practice, report, shapes
from milkwort.api.handover import routes as handover
from milkwort.api.http import lists
from milkwort.api.http.described import describe, shape_of
from milkwort.api.http.guard import BodyTooLargeError, Guard
from milkwort.api.http.practice import PRACTICE
from milkwort.api.learn import account as account_looked_over
from milkwort.api.learn import bringing, counting, items, month_over, monthly
from milkwort.api.learn import routes as learn
from milkwort.api.plan import routes as plans
from milkwort.api.plan.schemas import ErrorAnswer
from milkwort.api.plan.workspace import Workspace
from milkwort.api.sift import editing, own_ways, themes, what_if
from milkwort.api.sift import routes as sift
from milkwort.api.sift import words as sift_words
from milkwort.core.errors import (
    NotFoundError,
    PlannerError,
    ReplayError,
    StoppedError,
    TooLargeError,
)
from milkwort.formats.text_table import MAX_BYTES
from milkwort.settings import Settings
from milkwort.store.database import said_of_database
from milkwort.store.long_writes import take_back_unfinished

__all__ = ["STATIC", "make_app", "opened"]

STATIC = Path(__file__).parents[2] / "static"
_PAGE_HEADERS = {
    "Cache-Control": "no-cache",
    "Content-Security-Policy": (
        "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
        "object-src 'none'; base-uri 'none'; frame-ancestors 'none'"
    ),
    "Referrer-Policy": "no-referrer",
}
_FORM_ROOM = 2**20
"""What a form needs beside the file it carries, bytes."""


def opened(settings: Settings) -> Workspace:
    """Return what the application works on: the settings' database, brought up to date."""
    workspace = Workspace(settings)
    workspace.database.migrate()
    take_back_unfinished(workspace.database)
    return workspace


def make_app(settings: Settings | None = None) -> FastAPI:
    """Return the application over the database of the settings, brought up to date."""
    settings = settings or Settings()
    workspace = opened(settings)
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
    for stage in (
        plans,
        brief,
        sources,
        rivals,
        past,
        gather,
        sift,
        sift_words,
        own_ways,
        editing,
        what_if,
        themes,
        arrange,
        structures,
        shaping,
        things,
        spots,
        negative_lists,
        negatives,
        ads,
        pages,
        arranged_traced,
        fit,
        choices,
        how_sure,
        year,
        versions,
        traced,
        handover,
        sheets_back,
        report,
        shapes,
        practice,
        learn,
        bringing,
        counting,
        month_over,
        items,
        account_looked_over,
        monthly,
        clients,
        account_file,
        lists,
    ):
        app.include_router(stage.router, prefix="/api", responses=errors)
    app.mount(f"/{PRACTICE}", _practice)
    app.add_exception_handler(PlannerError, _planner_error)
    app.add_exception_handler(RequestValidationError, _bad_request)
    app.add_exception_handler(HTTPException, _http_error)
    app.add_exception_handler(BodyTooLargeError, _too_large)
    app.add_exception_handler(OverflowError, _no_such_id)
    app.add_exception_handler(OperationalError, _database_error)
    app.add_exception_handler(DatabaseError, _database_error)
    app.add_middleware(Guard, hosts=settings.served_hosts, most_bytes=MAX_BYTES + _FORM_ROOM)
    _serve_client(app)
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


def _serve_client(app: FastAPI) -> None:
    if not (STATIC / "index.html").exists():

        @app.get("/", include_in_schema=False)
        def not_built() -> Response:
            return Response("The web client isn't built: run make web.\n", media_type="text/plain")

        return
    app.mount("/assets", StaticFiles(directory=STATIC / "assets"), name="assets")

    @app.get("/{path:path}", include_in_schema=False)
    def client(path: str) -> Response:
        if path.startswith("api/"):
            raise HTTPException(404, "There is no such address.")
        icon = STATIC / "petal.svg"
        if path == "petal.svg" and icon.exists():
            return FileResponse(icon)
        return FileResponse(STATIC / "index.html", headers=_PAGE_HEADERS)


_STATUS = {NotFoundError: 404, TooLargeError: 413, StoppedError: 409, ReplayError: 409}
"""What each error of the planner's is to HTTP; 422 for any other."""


def _error(status: int, code: str, message: str, where: str = "") -> JSONResponse:
    body = {"error": {"code": code, "message": message, "where": where}}
    return JSONResponse(body, status_code=status)


def _planner_error(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, PlannerError)
    status = _STATUS.get(type(error), 422)
    return _error(status, error.code, error.message, error.where)


def _bad_request(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, RequestValidationError)
    first = error.errors()[0]
    where = ".".join(str(part) for part in first["loc"][1:]) or "request"
    got = repr(first.get("input"))[:80]
    return _error(422, "bad_value", f"{where}: {first['msg']}, got {got}", where)


def _http_error(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, HTTPException)
    code = {404: "not_found", 405: "not_allowed"}.get(error.status_code, "cannot_do")
    answer = _error(error.status_code, code, str(error.detail))
    answer.headers.update(error.headers or {})
    return answer


def _no_such_id(_request: Request, _error_: Exception) -> JSONResponse:
    return _error(404, "not_found", "There is nothing with such an id.")


def _database_error(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, DatabaseError)
    return _error(507, "cannot_keep", said_of_database(error), "database")


def _too_large(_request: Request, _error_: Exception) -> JSONResponse:
    return _error(413, "too_large", "Expected at most 21 MB.")
