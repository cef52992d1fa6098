"""What is asked of every request before anything else: where it is from, and how large."""

from __future__ import annotations

from collections.abc import Sequence
from urllib.parse import urlsplit

import orjson
from starlette.datastructures import Headers
from starlette.types import ASGIApp, Message, Receive, Scope, Send

__all__ = ["Guard"]

_SAFE = frozenset({"GET", "HEAD", "OPTIONS"})


class Guard:
    """Turns away requests for other hosts, from other sites' pages, or past the size bound.

    A page of another site can make a browser send requests to a server on this machine;
    the Host and Origin headers give it away.

    Parameters
    ----------
    app : ASGIApp
    hosts : sequence of str
        Host names a request may name, without ports.
    most_bytes : int
        Bound on a request's body.
    """

    def __init__(self, app: ASGIApp, hosts: Sequence[str], most_bytes: int) -> None:
        self.app = app
        self.hosts = frozenset(h.casefold() for h in hosts)
        self.most_bytes = most_bytes

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Serve one request, or refuse it."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        headers = Headers(scope=scope)
        refusal = self._refusal(scope["method"], headers)
        if refusal is not None:
            await _refuse(send, *refusal)
            return
        await self.app(scope, _bounded(receive, self.most_bytes), send)

    def _refusal(self, method: str, headers: Headers) -> tuple[int, str, str] | None:
        host = headers.get("host", "")
        if _hostname(host) not in self.hosts:
            return 403, "wrong_host", "This address is not one that Milkwort serves."
        origin = headers.get("origin")
        if method not in _SAFE and origin is not None and urlsplit(origin).netloc != host:
            return 403, "wrong_origin", "Changes are taken from Milkwort's own pages only."
        length = headers.get("content-length", "0")
        if not length.isdigit() or int(length) > self.most_bytes:
            return 413, "too_large", f"Expected at most {self.most_bytes // 2**20} MB."
        return None


class BodyTooLargeError(Exception):
    """A body without a declared length passed the bound."""


def _bounded(receive: Receive, most: int) -> Receive:
    seen = 0

    async def counted() -> Message:
        nonlocal seen
        message = await receive()
        seen += len(message.get("body", b""))
        if seen > most:
            raise BodyTooLargeError
        return message

    return counted


def _hostname(host: str) -> str:
    if host.startswith("["):
        return host.partition("]")[0].casefold() + "]"
    return host.partition(":")[0].casefold()


async def _refuse(send: Send, status: int, code: str, message: str) -> None:
    body = orjson.dumps({"error": {"code": code, "message": message, "where": ""}})
    headers = [(b"content-type", b"application/json"), (b"content-length", b"%d" % len(body))]
    await send({"type": "http.response.start", "status": status, "headers": headers})
    await send({"type": "http.response.body", "body": body})
