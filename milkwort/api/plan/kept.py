"""Answers kept in memory, the oldest let go of where there are too many."""

from __future__ import annotations

import threading
from collections.abc import Hashable
from typing import Generic, TypeVar

__all__ = ["Kept"]

Value = TypeVar("Value")


class Kept(Generic[Value]):
    """What was worked out last, by what it is of.

    Parameters
    ----------
    most : int
        How many are kept.
    """

    def __init__(self, most: int) -> None:
        self._most, self._lock = most, threading.Lock()
        self._held: dict[Hashable, Value] = {}

    def get(self, key: Hashable) -> Value | None:
        """Return what is kept of something, or None."""
        return self._held.get(key)

    def keep(self, key: Hashable, made: Value) -> None:
        """Keep it, in the place of what was kept of the same."""
        with self._lock:
            self._held.pop(key, None)
            self._held[key] = made
            while len(self._held) > self._most:
                self._held.pop(next(iter(self._held)))

    def drop(self, key: Hashable) -> None:
        """Let go of what is kept of something."""
        with self._lock:
            self._held.pop(key, None)
