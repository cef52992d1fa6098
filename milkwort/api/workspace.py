"""Plans in memory, one answer for each change.

A change is written down in one transaction, the plan is worked out again, and the answer
holds only what is different from before: the rows that were touched, the columns that
moved, and the frame.
"""

from __future__ import annotations

import threading
from collections.abc import Callable, Set
from dataclasses import asdict, dataclass, replace
from typing import Any

from sqlalchemy.orm import Session

from milkwort.api.columns import figure_columns
from milkwort.api.drawing import Drawing
from milkwort.api.events import Events
from milkwort.api.frame import brief_block, purse_block, trail_block
from milkwort.api.jobs import Jobs
from milkwort.api.loaded import Loaded, difference, kinds_of, whole
from milkwort.api.trays import Trays, Units
from milkwort.core.long_tail import long_tail
from milkwort.core.plan import run_plan
from milkwort.formats.guess_columns import ColumnGuess
from milkwort.settings import Settings
from milkwort.standins.almanac import Almanac
from milkwort.store.database import Database
from milkwort.store.file_shapes import load_shape, save_shape
from milkwort.store.hand_overs import count_hand_overs
from milkwort.store.journal import Change, labels
from milkwort.store.plans import PlanRecord, load_plan
from milkwort.store.sheet import Sheet, load_sheet, with_brief

__all__ = ["Workspace"]

_PLANS_IN_MEMORY = 8


_OF_KEYWORDS = {"keyword", "reading", "call"}
"""Tables that say nothing of the brief."""


@dataclass(frozen=True)
class _Done:
    """What a transaction did: its label, and of a change its revision and tables."""

    label: str
    revision: int = 0
    tables: Set[str] = frozenset()

    def left_brief(self) -> bool:
        """Return whether it is known that nothing of the brief was touched."""
        return bool(self.tables) and self.tables <= _OF_KEYWORDS


class Workspace:
    """What the routers share.

    Parameters
    ----------
    settings : Settings
    """

    def __init__(self, settings: Settings) -> None:
        self.settings = settings
        self.database = Database(settings.database)
        self.events = Events()
        self.trays = Trays(settings.trays)
        self.almanac = Almanac()
        self.jobs = Jobs(self.events)
        self._lock = threading.RLock()
        self._plans: dict[int, Loaded] = {}
        self._drawing = Drawing(self.plan, self._plans.get)

    def plan(self, plan_id: int) -> Loaded:
        """Return a plan as it stands."""
        with self._lock:
            if plan_id not in self._plans:
                with self.database.begin() as session:
                    self._keep(plan_id, self._load(session, plan_id, None))
            return self._plans[plan_id]

    def sheet(self, plan_id: int) -> dict[str, Any]:
        """Return a whole plan for a window that opens it."""
        loaded = self.plan(plan_id)
        return {"frame": loaded.frame, "sheet": whole(loaded)}

    def change(
        self,
        plan_id: int,
        label: str,
        do: Callable[[Change], Any],
        *,
        window: str = "",
        sheet_after: Callable[[Sheet], Sheet] | None = None,
    ) -> dict[str, Any]:
        """Make one change and answer with what it moved.

        Parameters
        ----------
        plan_id : int
        label : str
            What the planner did, as it reads after "undo ".
        do : callable
            Writes the change; if it raises, nothing is kept.
        window : str
            Who asked, so that it isn't told twice.
        sheet_after : callable, optional
            Makes the new sheet from the old one; read from the database where left out.
        """

        def written(session: Session) -> _Done:
            change = Change(session, plan_id, label)
            do(change)
            revision = change.finish()
            return _Done(label, revision, change.tables)

        return self._answer(plan_id, written, window, sheet_after)

    def transact(
        self, plan_id: int, do: Callable[[Session], str], *, window: str = ""
    ) -> dict[str, Any]:
        """Run a transaction on a plan and answer with what it moved; `do` returns its label."""
        return self._answer(plan_id, lambda session: _Done(do(session)), window, None)

    def _answer(
        self,
        plan_id: int,
        do: Callable[[Session], _Done],
        window: str,
        sheet_after: Callable[[Sheet], Sheet] | None,
    ) -> dict[str, Any]:
        with self._lock:
            before = self.plan(plan_id)
            with self.database.begin() as session:
                done = do(session)
                known = sheet_after(before.sheet) if sheet_after else None
                after = self._load(session, plan_id, known, before, done)
            self._keep(plan_id, after)
        self.events.tell(plan_id, {"revision": after.record.revision, "window": window})
        return {"did": done.label, "was": before.record.revision, **difference(before, after)}

    def ranges(self, plan_id: int) -> dict[str, Any]:
        """Return how wide the plan's forecast is, for the revision it now has.

        Raises
        ------
        NotFoundError
            Where the plan changed before the draws were done.
        """
        return self._drawing.ranges(plan_id)

    def remember_columns(self, guess: ColumnGuess, units: Units) -> None:
        """Keep how the planner assigned a file's columns, for files with the same headings."""
        with self.database.begin() as session:
            save_shape(session, guess.headings, guess.columns, asdict(units))

    def columns_like(self, guess: ColumnGuess) -> tuple[ColumnGuess, Units] | None:
        """Return how a file with the same headings was last read, if there was one."""
        if not any(guess.headings):
            return None
        with self.database.begin() as session:
            known = load_shape(session, guess.headings)
        return known and (replace(guess, columns=known[0]), Units(**known[1]))

    def forget(self, plan_id: int) -> None:
        """Drop a plan from memory; it is read again when next asked for."""
        with self._lock:
            self._plans.pop(plan_id, None)

    def leave(self) -> None:
        """End what would keep the server from stopping; from any thread."""
        self._drawing.end()
        self.events.end()

    def close(self) -> None:
        """Let go of everything."""
        self.events.close()
        self._drawing.close()
        self.database.close()

    def _keep(self, plan_id: int, loaded: Loaded) -> None:
        self._plans.pop(plan_id, None)
        self._plans[plan_id] = loaded
        while len(self._plans) > _PLANS_IN_MEMORY:
            self._plans.pop(next(iter(self._plans)))

    def _load(
        self,
        session: Session,
        plan_id: int,
        sheet: Sheet | None,
        before: Loaded | None = None,
        done: _Done | None = None,
    ) -> Loaded:
        light = before is not None and done is not None and done.left_brief()
        if light:
            assert before is not None and done is not None
            record = replace(before.record, revision=done.revision)
            journal = {"undo": done.label, "redo": None}
            handed_over = before.handed_over
        else:
            record = load_plan(session, plan_id)
            journal = labels(session, plan_id)
            handed_over = count_hand_overs(session, plan_id)
        sheet = (
            load_sheet(session, plan_id, record.brief)
            if sheet is None
            else with_brief(sheet, record.brief)
        )
        record = _numbered(record, sheet)
        result = run_plan(record.brief, sheet.table, before.result if before else None)
        frame = {
            "plan_id": plan_id,
            "revision": record.revision,
            "brief": brief_block(record),
            "trail": trail_block(result, handed_over),
            "purse": purse_block(result, sheet),
            "journal": journal,
            "own": asdict(record.own),
            "tail": asdict(long_tail(result)),
        }
        kinds = kinds_of(record, sheet, self._plans.get(plan_id))
        columns = figure_columns(result, before.columns if before else None)
        return Loaded(record, sheet, result, columns, kinds, frame, handed_over)


def _numbered(record: PlanRecord, sheet: Sheet) -> PlanRecord:
    """Give the negatives of a campaign or group its number in the keyword table."""
    if not any(record.negative_owners):
        return record
    names = {"campaign": sheet.campaigns, "group": sheet.groups}
    places = {level: {name: at for at, name in enumerate(own)} for level, own in names.items()}
    # one whose campaign or group holds no keyword gets a number that none has
    negatives = tuple(
        replace(n, number=places[n.level].get(owner, len(places[n.level]))) if owner else n
        for n, owner in zip(record.brief.negatives, record.negative_owners, strict=True)
    )
    return replace(record, brief=replace(record.brief, negatives=negatives))
