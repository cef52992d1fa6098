"""Telling every open window that a plan has changed."""

from __future__ import annotations

import asyncio
from collections import defaultdict
from collections.abc import AsyncIterator, Callable
from typing import Any

import orjson

__all__ = ["Events"]

_BEAT_SECONDS = 15.0
_WAITING = 64


class Events:
    """Passes messages from changes, made in any thread, to the windows that listen."""

    def __init__(self) -> None:
        self._queues: dict[int, set[asyncio.Queue[bytes | None]]] = defaultdict(set)
        self._loop: asyncio.AbstractEventLoop | None = None

    def bind(self) -> None:
        """Remember the running loop; called once, as the server starts."""
        self._loop = asyncio.get_running_loop()

    def tell(self, plan_id: int, message: dict[str, Any]) -> None:
        """Send a message to the windows of one plan."""
        if self._loop is not None and not self._loop.is_closed():
            self._loop.call_soon_threadsafe(self._put, plan_id, orjson.dumps(message))

    async def listen(
        self, plan_id: int, first: Callable[[], dict[str, Any]]
    ) -> AsyncIterator[bytes]:
        """Yield server-sent events until the listener goes away.

        Parameters
        ----------
        plan_id : int
        first : callable
            Says how things stand, once nothing that happens afterwards can be missed.
        """
        queue: asyncio.Queue[bytes | None] = asyncio.Queue(_WAITING)
        self._queues[plan_id].add(queue)
        try:
            yield b"data: " + orjson.dumps(first()) + b"\n\n"
            while True:
                try:
                    message = await asyncio.wait_for(queue.get(), _BEAT_SECONDS)
                except TimeoutError:
                    yield b": beat\n\n"
                    continue
                if message is None:
                    return
                yield b"data: " + message + b"\n\n"
        finally:
            self._queues[plan_id].discard(queue)

    def end(self) -> None:
        """End every stream, from any thread, so that the server can stop."""
        if self._loop is not None and not self._loop.is_closed():
            self._loop.call_soon_threadsafe(self.close)

    def close(self) -> None:
        """End every stream."""
        for queues in self._queues.values():
            for queue in queues:
                if not queue.full():
                    queue.put_nowait(None)

    def _put(self, plan_id: int, message: bytes) -> None:
        for queue in self._queues[plan_id]:
            if not queue.full():  # a window that reads nothing catches up by the revision
                queue.put_nowait(message)
