"""Long work: told of as it goes, and stopped where the planner asks."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager

from milkwort.api.http.events import Events
from milkwort.core.errors import StoppedError

__all__ = ["Jobs", "Progress"]

Progress = Callable[[str, int, int], None]
"""Told what is done, how much, and of how much; raises `StoppedError` once stopped."""

_TELL_EVERY_SECONDS = 0.15


class Jobs:
    """What is under way, by the name its window gave it.

    Parameters
    ----------
    events : Events
        Tells the windows.
    """

    def __init__(self, events: Events) -> None:
        self._events = events
        self._stopped: dict[str, threading.Event] = {}

    @contextmanager
    def under_way(self, plan_id: int, name: str) -> Iterator[Progress]:
        """Do long work; without a name nobody is told, and nobody can stop it."""
        stop = self._stopped.setdefault(name, threading.Event()) if name else threading.Event()
        told = 0.0

        def progress(what: str, done: int, of: int) -> None:
            nonlocal told
            if stop.is_set():
                raise StoppedError("Stopped: nothing of it was kept.", what)
            if name and time.monotonic() - told >= _TELL_EVERY_SECONDS:
                told = time.monotonic()
                self._events.tell(plan_id, {"job": name, "what": what, "done": done, "of": of})

        try:
            yield progress
        finally:
            self._stopped.pop(name, None)

    def stop(self, name: str) -> bool:
        """Ask long work to stop; False where none of that name is under way."""
        stop = self._stopped.get(name)
        if stop is not None:
            stop.set()
        return stop is not None
