"""The draws of plans, made one plan at a time, behind everything else."""

from __future__ import annotations

import os
import sys
import threading
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor, wait
from typing import Any

from milkwort.api.plan.kept import Kept
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.summary import ranges_block
from milkwort.core.errors import StoppedError
from milkwort.core.plan.draws import Draws, draw_month

__all__ = ["Drawing", "Drawn"]

_KEPT = 8
_LOOKS = 0.2
"""Seconds between looks whether the program is being ended."""


class Drawn:
    """The draws of a plan at one revision."""

    def __init__(self, loaded: OpenPlan, draws: Draws) -> None:
        self.loaded, self.draws = loaded, draws

    @property
    def revision(self) -> int:
        """The revision of the plan that was drawn."""
        return self.loaded.record.revision


class Drawing:
    """Draws in a thread that gives way to the screen and to the planner's calls.

    Parameters
    ----------
    plan : callable
        Returns a plan as it stands, by id.
    held : callable
        Returns the plan that is now in memory, without reading it anew.
    count : int
        How often a month is drawn.
    """

    def __init__(
        self,
        plan: Callable[[int], OpenPlan],
        held: Callable[[int], OpenPlan | None],
        count: int,
    ) -> None:
        self._plan, self._held, self._count = plan, held, count
        self._drawer = ThreadPoolExecutor(1, "drawing", initializer=_give_way)
        self._kept: Kept[Drawn] = Kept(_KEPT)
        self._ended = False

    def drawn(
        self, plan_id: int, progress: Callable[[int, int], None] = lambda done, of: None
    ) -> Drawn | None:
        """Return the draws of a plan; made where they aren't known for this revision.

        Parameters
        ----------
        plan_id : int
        progress : callable
            Told how many draws of how many are done; what it raises ends the work.

        Returns
        -------
        Drawn or None
            None where the plan changed before they were done, or the program is being ended:
            nobody wants them any more.
        """
        try:
            found: Drawn | None = self.aside(lambda: self._draw(plan_id, progress))
        except StoppedError:
            if self._ended:
                return None
            raise
        return found

    def aside(self, work: Callable[[], Any]) -> Any:
        """Do other slow work where draws are made: one at a time, behind everything else.

        Raises
        ------
        StoppedError
            Where the program is being ended: whoever asked is let go of at once, for what gives
            way to everything else may be long in noticing.
        """
        done = self._drawer.submit(work)
        while not wait([done], timeout=_LOOKS).done:
            if self._ended:
                raise StoppedError("The program is being ended.", "draws")
        return done.result()

    def ranges(self, plan_id: int) -> dict[str, Any] | None:
        """Return how wide a plan's forecast is, or None as `drawn` does."""
        found = self.drawn(plan_id)
        return None if found is None else ranges_block(found.draws, found.revision)

    def end(self) -> None:
        """Let what is being drawn be; from any thread."""
        self._ended = True

    @property
    def ended(self) -> bool:
        """Whether nothing is to be drawn any more."""
        return self._ended

    def close(self) -> None:
        """End, and let go of the thread."""
        self.end()
        self._drawer.shutdown(cancel_futures=True)

    def _draw(self, plan_id: int, progress: Callable[[int, int], None]) -> Drawn | None:
        loaded = self._plan(plan_id)
        known: Drawn | None = self._kept.get(plan_id)
        if known is not None and known.revision == loaded.record.revision:
            return known
        asked, count = 0, self._count

        def still_wanted() -> bool:
            nonlocal asked
            progress(min(asked, count), count)
            asked += count // 50
            return not self._ended and self._held(plan_id) is loaded

        draws = draw_month(loaded.result, count, still_wanted=still_wanted)
        if draws is None:
            return None
        made = Drawn(loaded, draws)
        self._kept.keep(plan_id, made)
        return made


def _give_way() -> None:
    """Let every other thread of the machine go before this one."""
    if sys.platform == "linux":
        os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), 10)
