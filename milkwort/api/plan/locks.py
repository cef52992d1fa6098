"""Whose turn it is: one change at a time in a plan, and in all plans of a client at once."""

from __future__ import annotations

import threading
from collections.abc import Iterable, Iterator
from contextlib import ExitStack, contextmanager

__all__ = ["Locks"]


class Locks:
    """Locks of plans and clients, made as they are asked for.

    A client's lock is taken before those of its plans, and plans' locks by rising id: so
    no two changes ever wait for each other.
    """

    def __init__(self) -> None:
        self._making = threading.Lock()
        self._held: dict[tuple[str, int], threading.RLock] = {}

    @contextmanager
    def plan(self, plan_id: int) -> Iterator[None]:
        """Hold one plan."""
        with self._of("plan", plan_id):
            yield

    @contextmanager
    def client(self, client_id: int) -> Iterator[None]:
        """Hold a client; its plans are to be held with `plans`."""
        with self._of("client", client_id):
            yield

    @contextmanager
    def plans(self, plan_ids: Iterable[int]) -> Iterator[None]:
        """Hold several plans, none of them held before."""
        with ExitStack() as stack:
            for plan_id in sorted(set(plan_ids)):
                stack.enter_context(self._of("plan", plan_id))
            yield

    def _of(self, kind: str, owner: int) -> threading.RLock:
        with self._making:
            return self._held.setdefault((kind, owner), threading.RLock())
