"""The web client's files: its page for every address that is none of the API's, its assets."""

from __future__ import annotations

from pathlib import Path

from starlette.exceptions import HTTPException
from starlette.requests import Request
from starlette.responses import FileResponse, Response
from starlette.routing import BaseRoute, Mount, Route
from starlette.staticfiles import StaticFiles

__all__ = ["client_is_built", "client_routes"]

_STATIC = Path(__file__).parents[2] / "static"
_PAGE = _STATIC / "index.html"
_ICON = _STATIC / "petal.svg"
_PAGE_HEADERS = {
    "Cache-Control": "no-cache",
    "Content-Security-Policy": (
        "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
        "object-src 'none'; base-uri 'none'; frame-ancestors 'none'"
    ),
    "Referrer-Policy": "no-referrer",
}


def client_is_built() -> bool:
    """Return whether there is a page to serve."""
    return _PAGE.exists()


def client_routes() -> list[BaseRoute]:
    """Return the routes of the client's files, to stand after all others."""
    if not client_is_built():
        return [Route("/", _not_built)]
    return [
        Mount("/assets", StaticFiles(directory=_STATIC / "assets"), name="assets"),
        Route("/{path:path}", _page),
    ]


def _not_built(_request: Request) -> Response:
    return Response("The web client isn’t built: run make web.\n", media_type="text/plain")


def _page(request: Request) -> Response:
    path = request.path_params["path"]
    if path.startswith("api/"):
        raise HTTPException(404, "There is no such address.")
    if path == _ICON.name and _ICON.exists():
        return FileResponse(_ICON)
    return FileResponse(_PAGE, headers=_PAGE_HEADERS)
