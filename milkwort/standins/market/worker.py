"""The one process that takes sheets in and lets days pass, so that answers never wait for it."""

from __future__ import annotations

import subprocess
import sys
import threading
from pathlib import Path
from typing import Protocol

from sqlalchemy import select

from milkwort.standins.market.clock import DayMaker, pass_day
from milkwort.standins.market.storage import Account, Clock, Database, Upload
from milkwort.standins.market.taking import take_part

__all__ = ["Inline", "Spawned", "Worker", "work_once"]

_LOOK_AGAIN_SECONDS = 2.0


class Worker(Protocol):
    """Does what waits in the database."""

    def wake(self) -> None:
        """Say that something waits."""

    def close(self) -> None:
        """Stop; what is left goes on with the next start."""


class Inline:
    """Works in the caller's own thread; for tests, and where nobody else waits."""

    def __init__(self, database: Database) -> None:
        self._database, self._maker = database, DayMaker()

    def wake(self) -> None:
        """Do all that waits."""
        while work_once(self._database, self._maker):
            pass

    def close(self) -> None:
        """Nothing is under way between two calls."""


class Spawned:
    """A process of its own; started when first woken, and again where it died."""

    def __init__(self, path: Path) -> None:
        self._path, self._lock = path, threading.Lock()
        self._process: subprocess.Popen[bytes] | None = None

    def wake(self) -> None:
        """Say that something waits."""
        with self._lock:
            if self._process is None or self._process.poll() is not None:
                self._process = subprocess.Popen(
                    [sys.executable, "-m", "milkwort.standins.market.worker", str(self._path)],
                    stdin=subprocess.PIPE,
                )
            assert self._process.stdin is not None
            try:
                self._process.stdin.write(b"\n")
                self._process.stdin.flush()
            except BrokenPipeError:  # it dies just now: the next call starts another
                self._process = None

    @property
    def pid(self) -> int | None:
        """Its process; None where none runs."""
        return None if self._process is None else self._process.pid

    def close(self) -> None:
        """End the process once the step it is at is done."""
        with self._lock:
            if self._process is not None and self._process.stdin is not None:
                try:
                    self._process.stdin.close()
                    self._process.wait(timeout=10)
                except (BrokenPipeError, subprocess.TimeoutExpired):
                    self._process.kill()
                    self._process.wait()
                self._process = None


def work_once(database: Database, maker: DayMaker) -> bool:
    """Do one step of what waits: a part of a sheet, or a day; False where nothing waits."""
    with database.read() as session:
        upload = session.execute(
            select(Upload.account, Upload.number).where(Upload.state != "done")
            .order_by(Upload.account, Upload.number).limit(1)
        ).first()  # fmt: skip
        running = session.scalars(
            select(Clock.account).where(Clock.state == "running").order_by(Clock.done)
        ).first()
    if upload is not None:
        with database.begin() as session:
            found = session.get(Upload, tuple(upload))
            if found is not None and found.state != "done":
                take_part(session, found)
        return True
    if running is not None:
        with database.begin() as session:
            account = session.get(Account, running)
            assert account is not None
            pass_day(session, account, maker)
        return True
    return False


def _main(path: str) -> None:
    database, maker = Database(Path(path)), DayMaker()
    woken, over = threading.Event(), threading.Event()

    def listen() -> None:
        while sys.stdin.buffer.read(1):
            woken.set()
        over.set()  # who started it is gone
        woken.set()

    threading.Thread(target=listen, daemon=True).start()
    while not over.is_set():
        if not work_once(database, maker):
            woken.wait(_LOOK_AGAIN_SECONDS)
            woken.clear()
    database.close()


if __name__ == "__main__":
    _main(sys.argv[1])
