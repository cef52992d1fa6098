"""What is served first: the client's page at once, the API as soon as it is made.

The API takes a second and a half to import. The page, which a browser needs some time to read,
needn't wait for that; what it then asks for waits here until it can be answered.
"""

from __future__ import annotations

import asyncio
from collections.abc import AsyncIterator, Callable, Sequence
from contextlib import AsyncExitStack, asynccontextmanager
from typing import TYPE_CHECKING

from starlette.applications import Starlette
from starlette.exceptions import HTTPException
from starlette.types import Receive, Scope, Send

from milkwort.api.http.client import client_routes
from milkwort.api.http.guard import Guard
from milkwort.api.http.refusals import refused, refused_by_http

if TYPE_CHECKING:
    from fastapi import FastAPI

__all__ = ["Front"]


class Front:
    """Serves the client's files itself and hands everything else to the application.

    Parameters
    ----------
    make : callable
        Makes the application, in a thread of its own, once the server has begun.
    hosts : sequence of str
        Host names a request may name.
    behind : sequence of str
        First parts of the addresses that are the application's.
    ended : callable
        Called where the application can't be made: there is nothing left to serve.

    Attributes
    ----------
    app : FastAPI or None
        The application, once it is made.
    failed : Exception or None
        Why it could not be.
    """

    def __init__(
        self,
        make: Callable[[], FastAPI],
        hosts: Sequence[str],
        behind: Sequence[str],
        ended: Callable[[], None],
    ) -> None:
        self.app: FastAPI | None = None
        self.failed: Exception | None = None
        self._make, self._ended = make, ended
        self._behind = frozenset(behind)
        self._settled = asyncio.Event()
        files = Starlette(
            routes=client_routes(),
            lifespan=self._lifespan,
            exception_handlers={HTTPException: refused_by_http},
        )
        self._files = Guard(files, hosts=hosts, most_bytes=0)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Serve one request."""
        if scope["type"] == "lifespan" or _first_part(scope["path"]) not in self._behind:
            await self._files(scope, receive, send)
            return
        await self._settled.wait()
        answering = self.app or refused(503, "cannot_start", "Milkwort could not start.")
        await answering(scope, receive, send)

    @asynccontextmanager
    async def _lifespan(self, _files: Starlette) -> AsyncIterator[None]:
        async with AsyncExitStack() as living:
            making = asyncio.create_task(self._begin(living))
            yield
            await making

    async def _begin(self, living: AsyncExitStack) -> None:
        try:
            app = await asyncio.to_thread(self._make)
            await living.enter_async_context(app.router.lifespan_context(app))
            self.app = app
        except Exception as error:
            # whoever started the server says it, as every other reason not to start
            self.failed = error
            self._ended()
        finally:
            self._settled.set()


def _first_part(path: str) -> str:
    return path.split("/", 2)[1]
