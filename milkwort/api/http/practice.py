"""The program's own practice market: mounted beside the client, made when first asked for."""

from __future__ import annotations

import threading
from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

from starlette.types import Receive, Scope, Send

from milkwort.core.errors import PlannerError
from milkwort.hold import held_alone

if TYPE_CHECKING:
    from fastapi import FastAPI

    from milkwort.platforms.http import HttpPlatform

__all__ = ["MARKET_FILE", "PRACTICE", "PracticeMarket"]

PRACTICE = "practice"
MARKET_FILE = "market.db"


class PracticeMarket:
    """A market that begins with the first call, or where it was at work when it last ended.

    Parameters
    ----------
    folder : Path
        Of its own data.

    Attributes
    ----------
    address : str
        Where it answers; set once the server listens. Empty until then.
    connect : callable or None
        Makes the client that speaks to it, in place of one for `address`; for tests.
    """

    def __init__(self, folder: Path) -> None:
        self.address = ""
        self.connect: Callable[[], HttpPlatform] | None = None
        self._folder = folder
        self._lock = threading.Lock()
        self._app: FastAPI | None = None
        self._hold = held_alone(folder)
        self._held = False

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Serve one call."""
        await self.app(scope, receive, send)

    @property
    def app(self) -> FastAPI:
        """The market's app; made where there is none yet."""
        # neither is needed where nobody practises, and each takes its time to import
        from milkwort.standins.market.app import make_market
        from milkwort.standins.market.storage import Database

        with self._lock:
            if self._app is None:
                self._hold.__enter__()
                self._held = True
                self._app = make_market(Database(self._folder / MARKET_FILE))
            return self._app

    def resume(self) -> None:
        """Go on with what was under way when the program last ended."""
        if (self._folder / MARKET_FILE).exists():
            self.app.state.worker.wake()

    def platform(self) -> HttpPlatform:
        """Return a client that speaks to the market, over HTTP as to any other.

        Raises
        ------
        PlannerError
            Where the server doesn't listen yet.
        """
        if self.connect is not None:
            return self.connect()
        if not self.address:
            raise PlannerError("The practice market is not served here.", "practice")
        from milkwort.platforms.http import HttpPlatform

        return HttpPlatform(self.address)

    def close(self) -> None:
        """End its worker and let go of its folder."""
        with self._lock:
            if self._app is not None:
                self._app.state.worker.close()
                self._app.state.database.close()
                self._app = None
            if self._held:
                self._hold.__exit__(None, None, None)
                self._held = False
