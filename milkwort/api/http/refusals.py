"""Every error as an answer: a code, a message and where it lies."""

from __future__ import annotations

from starlette.exceptions import HTTPException
from starlette.requests import Request
from starlette.responses import JSONResponse

__all__ = ["refused", "refused_by_http"]

_CODES = {404: "not_found", 405: "not_allowed"}


def refused(status: int, code: str, message: str, where: str = "") -> JSONResponse:
    """Return an error as it is answered.

    Parameters
    ----------
    status : int
        Of HTTP.
    code : str
    message, where : str
        A sentence, and what it is about.
    """
    body = {"error": {"code": code, "message": message, "where": where}}
    return JSONResponse(body, status_code=status)


def refused_by_http(_request: Request, error: Exception) -> JSONResponse:
    """Answer an address or a method that there isn't."""
    assert isinstance(error, HTTPException)
    code = _CODES.get(error.status_code, "cannot_do")
    answer = refused(error.status_code, code, str(error.detail))
    answer.headers.update(error.headers or {})
    return answer
