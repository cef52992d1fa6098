"""Starting the server: port, database, sample, one line that says where it is."""

from __future__ import annotations

import errno
import gc
import socket
import sys
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from types import FrameType
from typing import TYPE_CHECKING, Any

import uvicorn
from pydantic import ValidationError
from sqlalchemy.exc import DatabaseError

from milkwort.api.http.client import client_is_built
from milkwort.api.http.front import Front
from milkwort.api.http.guard import Guard
from milkwort.api.http.practice import MARKET_FILE, PRACTICE
from milkwort.core.errors import BadValueError, PlannerError
from milkwort.hold import Hold, held_alone
from milkwort.settings import Settings
from milkwort.store.database import NewerDatabaseError, said_of_database
from milkwort.store.opening import opened_database

if TYPE_CHECKING:
    from fastapi import FastAPI

__all__ = ["run", "run_market"]

_PORTS_TRIED = 50
_GRACE = 5
"""Seconds that answers under way get when the server is told to stop; on a busy machine one
that only has to be let go of takes more than one."""


def run(given: dict[str, Any], *, sample: bool, fresh: bool) -> None:
    """Serve until stopped.

    Parameters
    ----------
    given : dict
        Settings that were named on the command line.
    sample : bool
        Load the sample plan where there is no plan yet.
    fresh : bool
        Put the sample's plans away and load it anew; other plans stay.

    Raises
    ------
    BadValueError
        For a setting out of its range.
    PlannerError
        Where no port is free.
    """
    try:
        settings = Settings(**given)
    except ValidationError as error:
        first = error.errors()[0]
        where = str(first["loc"][0])
        raise BadValueError(where, first["msg"], first["input"]) from error
    # a full collection holds every thread still for half a second where plans of 100,000
    # keywords are in memory; next to nothing of what they are made of lies in cycles
    gc.set_threshold(50_000, 20, 1000)
    # an answer lets go of the interpreter some hundred times (a statement, a large array);
    # beside long work it waited five thousandths of a second each time to get it back
    sys.setswitchinterval(0.0005)
    with held_alone(settings.data) as hold:
        _serve(settings, hold, sample=sample, fresh=fresh)


def _serve(settings: Settings, hold: Hold, *, sample: bool, fresh: bool) -> None:
    with _told_of_database(settings):
        database = opened_database(settings.database)
        listener = _listener(settings)
        port = listener.getsockname()[1]
        address = f"http://{settings.host}:{port}"
        hold.tell(address)
        if port != settings.port:
            print(f"Port {settings.port} is taken; using {port}.")
        if not client_is_built():
            print("The web client isn’t built; only the API is served (make web builds it).")
        print(f"Milkwort is at {address}  (Ctrl C stops it)", flush=True)
        market = settings.market or f"{address}/{PRACTICE}"

        def made() -> FastAPI:
            from milkwort.application import application

            return application(settings, database, market, sample=sample, fresh=fresh)

        _Server(settings, made).serve_on(listener)


@contextmanager
def _told_of_database(settings: Settings) -> Iterator[None]:
    """Say in a sentence what is wrong with the database."""
    try:
        yield
    except DatabaseError as error:
        raise PlannerError(f"{settings.database}: {said_of_database(error)}", "data") from error
    except NewerDatabaseError as error:
        message = f"{settings.database} was made by a newer Milkwort. It was left as it is."
        raise PlannerError(message, "data") from error


def run_market(data: Path | None, host: str, port: int) -> None:
    """Serve the practice market by itself until stopped; errors as `run`."""
    from milkwort.standins.market.app import make_market
    from milkwort.standins.market.http.sheets import MOST_BYTES
    from milkwort.standins.market.storage import Database as Market

    settings = Settings(host=host, port=port)
    folder = data if data is not None else settings.data / PRACTICE
    with held_alone(folder) as hold:
        app = make_market(Market(folder / MARKET_FILE))
        app.add_middleware(Guard, hosts=settings.served_hosts, most_bytes=MOST_BYTES)
        listener = _listener(settings)
        address = f"http://{host}:{listener.getsockname()[1]}"
        hold.tell(address)
        print(f"The practice market, simulated, is at {address}  (Ctrl C stops it)", flush=True)
        config = uvicorn.Config(
            app, log_level="warning", access_log=False, timeout_graceful_shutdown=_GRACE
        )
        uvicorn.Server(config).run(sockets=[listener])


class _Server(uvicorn.Server):
    """Ends streams and long draws as soon as it is told to stop: they would keep it waiting."""

    def __init__(self, settings: Settings, make: Callable[[], FastAPI]) -> None:
        self._front = Front(make, settings.served_hosts, ("api", PRACTICE), self._nothing_left)
        super().__init__(
            uvicorn.Config(
                self._front, log_level="warning", access_log=False, timeout_graceful_shutdown=_GRACE
            )
        )

    def serve_on(self, listener: socket.socket) -> None:
        """Serve until stopped.

        Raises
        ------
        Exception
            Why the application could not be made.
        """
        self.run(sockets=[listener])
        if self._front.failed is not None:
            raise self._front.failed

    def handle_exit(self, sig: int, frame: FrameType | None) -> None:
        if self._front.app is not None:
            self._front.app.state.workspace.leave()
        super().handle_exit(sig, frame)

    def _nothing_left(self) -> None:
        self.should_exit = True


def _listener(settings: Settings) -> socket.socket:
    family = socket.AF_INET6 if ":" in settings.host else socket.AF_INET
    for port in range(settings.port, min(settings.port + _PORTS_TRIED, 65536)):
        # named as TCP, or answers wait forty thousandths of a second for company on their way
        listener = socket.socket(family, socket.SOCK_STREAM, socket.IPPROTO_TCP)
        if sys.platform != "win32":  # there it would share a port that is in use
            listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            listener.bind((settings.host, port))
            listener.listen(128)  # from here on the port is ours, and callers wait for us
        except OSError as error:
            listener.close()
            if error.errno == errno.EADDRINUSE:
                continue
            raise PlannerError(f"{settings.host}:{port}: {error.strerror}", "host") from error
        return listener
    raise PlannerError(f"No free port from {settings.port} on.", "port")
