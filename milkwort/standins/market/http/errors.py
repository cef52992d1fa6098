"""Every error as the market answers it."""

from __future__ import annotations

from fastapi import Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from milkwort.standins.market.errors import MarketError

__all__ = ["bad_request", "database_error", "http_error", "market_error", "no_such_number"]


def _error(status: int, code: str, message: str, where: str) -> JSONResponse:
    body = {"error": {"code": code, "message": message, "where": where}}
    return JSONResponse(body, status)


def market_error(_request: Request, error: Exception) -> JSONResponse:
    """Answer what the market itself refuses."""
    assert isinstance(error, MarketError)
    return _error(error.status, error.code, error.message, error.where)


def bad_request(_request: Request, error: Exception) -> JSONResponse:
    """Answer a body, a part of an address or a query that is not as described."""
    assert isinstance(error, RequestValidationError)
    first = error.errors()[0]
    where = ".".join(str(part) for part in first["loc"][1:]) or "request"
    return _error(422, "bad_value", f"{where}: {first['msg']}", where)


def http_error(_request: Request, error: Exception) -> JSONResponse:
    """Answer an address or a method that there isn't."""
    assert isinstance(error, HTTPException)
    code = {404: "not_found", 405: "not_allowed"}.get(error.status_code, "cannot_do")
    return _error(error.status_code, code, str(error.detail), "")


def no_such_number(_request: Request, _error_: Exception) -> JSONResponse:
    """Answer a number too large for the database to know."""
    return _error(404, "not_found", "There is nothing of such a number.", "")


def database_error(_request: Request, _error_: Exception) -> JSONResponse:
    """Answer where the database can't be used."""
    return _error(507, "cannot_keep", "The market’s database could not be used.", "database")
