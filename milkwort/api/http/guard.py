"""What is asked of every request before anything else: where it is from, and how large."""

from __future__ import annotations

import re
from collections.abc import Sequence
from urllib.parse import urlsplit

import orjson
from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

__all__ = ["Guard"]

_HOST = re.compile(r"(?P<name>\[[0-9A-Fa-f:.]+\]|[A-Za-z0-9._-]+)(?::[0-9]{1,5})?")
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
        body = _Body(receive, self.most_bytes)
        answer = _Answer(send, scope["path"], body)
        await self.app(scope, body.receive, answer.send)

    def _refusal(self, method: str, headers: Headers) -> tuple[int, str, str] | None:
        host = headers.get("host", "")
        if _hostname(host) not in self.hosts:
            return 403, "wrong_host", "This address is not one that Milkwort serves."
        origin = headers.get("origin")
        if method not in _SAFE and origin is not None and _address(origin) != host:
            return 403, "wrong_origin", "Changes are taken from Milkwort’s own pages only."
        length = headers.get("content-length", "0")
        if not length.isdigit() or int(length) > self.most_bytes:
            return 413, "too_large", _too_large(self.most_bytes)
        return None


class _Body:
    """A request's body, counted as it comes: its declared length may be missing or wrong."""

    def __init__(self, receive: Receive, most: int) -> None:
        self._receive, self.most = receive, most
        self._seen = 0
        self.over = False

    async def receive(self) -> Message:
        message = await self._receive()
        self._seen += len(message.get("body", b""))
        if self._seen > self.most:
            self.over = True
            raise BodyTooLargeError
        return message


class _Answer:
    """An answer on its way out: with the headers every answer has, or 413 in its place."""

    def __init__(self, send: Send, path: str, body: _Body) -> None:
        self._send, self._path, self._body = send, path, body
        self._refused = False

    async def send(self, message: Message) -> None:
        if self._refused:
            return
        if message["type"] == "http.response.start":
            if self._body.over:
                self._refused = True
                await _refuse(self._send, 413, "too_large", _too_large(self._body.most))
                return
            headers = MutableHeaders(scope=message)
            headers.setdefault("X-Content-Type-Options", "nosniff")
            headers.setdefault("Cache-Control", _kept(self._path))
        await self._send(message)


def _kept(path: str) -> str:
    """Say how long a browser may keep an answer: a built file carries its content's name."""
    if path.startswith("/assets/"):
        return "public, max-age=31536000, immutable"
    return "no-store" if path.startswith("/api/") else "no-cache"


class BodyTooLargeError(Exception):
    """A body without a declared length passed the bound."""


def _hostname(host: str) -> str:
    """Return the name of a Host header without its port; empty for what is none."""
    found = _HOST.fullmatch(host)
    return found["name"].casefold() if found else ""


def _address(origin: str) -> str:
    """Return host and port of an Origin header; empty for what is none."""
    try:
        return urlsplit(origin).netloc
    except ValueError:
        return ""


def _too_large(most: int) -> str:
    return f"Expected at most {most // 2**20} MB."


async def _refuse(send: Send, status: int, code: str, message: str) -> None:
    body = orjson.dumps({"error": {"code": code, "message": message, "where": ""}})
    headers = [
        (b"content-type", b"application/json"), (b"content-length", b"%d" % len(body)),
        (b"x-content-type-options", b"nosniff"), (b"cache-control", b"no-store"),
    ]  # fmt: skip
    await send({"type": "http.response.start", "status": status, "headers": headers})
    await send({"type": "http.response.body", "body": body})
