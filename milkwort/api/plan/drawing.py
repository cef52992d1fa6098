"""The ranges of plans, drawn one plan at a time, behind everything else."""

from __future__ import annotations

import os
import sys
import threading
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from typing import Any

from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.summary import ranges_block
from milkwort.core.plan.draws import draw_month

__all__ = ["Drawing"]


class Drawing:
    """Draws in a thread that gives way to the screen and to the planner's calls.

    Parameters
    ----------
    plan : callable
        Returns a plan as it stands, by id.
    held : callable
        Returns the plan that is now in memory, without reading it anew.
    """

    def __init__(
        self, plan: Callable[[int], OpenPlan], held: Callable[[int], OpenPlan | None]
    ) -> None:
        self._plan, self._held = plan, held
        self._drawer = ThreadPoolExecutor(1, "drawing", initializer=_give_way)
        self._ranges: dict[int, dict[str, Any]] = {}
        self._ended = False

    def ranges(self, plan_id: int) -> dict[str, Any] | None:
        """Return how wide a plan's forecast is; drawn where it isn't known for this revision.

        None where the plan changed before the draws were done: nobody wants them any more.
        """
        return self._drawer.submit(self._draw, plan_id).result()

    def end(self) -> None:
        """Let what is being drawn be; from any thread."""
        self._ended = True

    def close(self) -> None:
        """End, and let go of the thread."""
        self.end()
        self._drawer.shutdown(cancel_futures=True)

    def _draw(self, plan_id: int) -> dict[str, Any] | None:
        loaded = self._plan(plan_id)
        revision = loaded.record.revision
        known = self._ranges.get(plan_id)
        if known is not None and known["revision"] == revision:
            return known

        def still_wanted() -> bool:
            return not self._ended and self._held(plan_id) is loaded

        drawn = draw_month(loaded.result, still_wanted=still_wanted)
        if drawn is None:
            return None
        self._ranges[plan_id] = ranges_block(drawn, revision)
        return self._ranges[plan_id]


def _give_way() -> None:
    """Let every other thread of the machine go before this one."""
    if sys.platform == "linux":
        os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), 10)
