"""Faults between the market and whoever speaks to it."""

from __future__ import annotations

import asyncio
import time
from collections import deque
from collections.abc import Callable

import orjson
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from milkwort.standins.market.faults import Faults, chance_of

__all__ = ["FaultLayer"]

_RETRY_AFTER = 1
_MINUTE = 60.0


class FaultLayer:
    """Answers late, not at all, or with a refusal, as an account's faults say.

    Parameters
    ----------
    app : ASGIApp
    faults_at : callable
        Says by an account's id which faults are on, and its seed; None for no such account.
    """

    def __init__(self, app: ASGIApp, faults_at: Callable[[str], tuple[Faults, int] | None]) -> None:
        self._app, self._faults_at = app, faults_at
        self._calls: dict[str, deque[float]] = {}
        self._count = 0

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Serve one call, or spoil it."""
        found = None
        if scope["type"] == "http":
            account = _account_in(scope["path"])
            if account and not scope["path"].endswith("/faults"):
                found = await asyncio.to_thread(self._faults_at, account)
        if found is None or found[0] == Faults():
            await self._app(scope, receive, send)
            return
        faults, seed = found
        self._count += 1
        await asyncio.sleep(faults.slow_ms / 1000)
        if chance_of(seed, "unavailable", self._count) < faults.unavailable:
            await _refuse(send, 503, "unavailable", "Not available just now: try again.")
            return
        if faults.throttle_per_minute and self._too_often(account, faults.throttle_per_minute):
            await _refuse(send, 429, "too_often", "Too many calls a minute: try again later.")
            return
        cut = chance_of(seed, "cut", self._count) < faults.cut_after
        await self._app(scope, receive, _cut(send) if cut else send)

    def _too_often(self, account: str, most: int) -> bool:
        now, calls = time.monotonic(), self._calls.setdefault(account, deque())
        while calls and now - calls[0] > _MINUTE:
            calls.popleft()
        if len(calls) >= most:
            return True
        calls.append(now)
        return False


def _account_in(path: str) -> str:
    parts = path.split("/accounts/")
    return parts[1].split("/")[0] if len(parts) > 1 else ""


def _cut(send: Send) -> Send:
    """Let the work be done, and the answer end before it has begun."""

    async def cut(message: Message) -> None:
        if message["type"] == "http.response.start":
            # an answer that promises more than comes: the connection is cut in its midst
            headers = [(b"content-type", b"application/json"), (b"content-length", b"1000000")]
            await send({"type": "http.response.start", "status": 200, "headers": headers})
        elif not message.get("more_body"):
            raise ConnectionError("cut on purpose")

    return cut


async def _refuse(send: Send, status: int, code: str, message: str) -> None:
    body = orjson.dumps({"error": {"code": code, "message": message, "where": ""}})
    headers = [(b"content-type", b"application/json"), (b"content-length", b"%d" % len(body)),
               (b"retry-after", b"%d" % _RETRY_AFTER)]  # fmt: skip
    await send({"type": "http.response.start", "status": status, "headers": headers})
    await send({"type": "http.response.body", "body": body})
