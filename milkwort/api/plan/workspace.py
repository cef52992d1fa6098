"""Plans in memory, one answer for each change.

A change is decided from the plan as it stands while the plan is held, written down in one
transaction, and the plan is worked out again. The answer holds only what is different from
before: the rows that were touched, the columns that moved, and the summary. Nobody who only
looks waits for anything.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import replace
from functools import lru_cache
from typing import Any, TypeVar

from sqlalchemy import delete
from sqlalchemy.orm import Session

from milkwort.api.gather.trays import Trays
from milkwort.api.http.events import Events
from milkwort.api.http.jobs import Jobs
from milkwort.api.http.practice import PRACTICE, PracticeMarket
from milkwort.api.plan.beside import held, raise_others, revisions, shares
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.drawing import Drawing
from milkwort.api.plan.kept import Kept
from milkwort.api.plan.locks import Locks
from milkwort.api.plan.memory import PLANS, Memory
from milkwort.api.plan.open_plan import OpenPlan, difference, whole
from milkwort.api.plan.opening import Done, loaded_plan, opened_plan
from milkwort.core.errors import ClosedError
from milkwort.formats.apart import Reader
from milkwort.settings import Settings
from milkwort.standins.almanac import Almanac
from milkwort.store.database import Database
from milkwort.store.hand_overs import count_hand_overs
from milkwort.store.journal import Change, Touched, raise_revision, reserve_ids
from milkwort.store.long_writes import carry_out
from milkwort.store.models import Journal
from milkwort.store.plan_list import client_of
from milkwort.store.plans import remove_plan, restore_plan
from milkwort.store.replay import redo, undo

__all__ = ["Workspace"]


Made = TypeVar("Made")


class Workspace:
    """What the routers share.

    Parameters
    ----------
    settings : Settings
    database : Database
        Brought up to date.
    """

    def __init__(self, settings: Settings, database: Database) -> None:
        self.settings = settings
        self.database = database
        self.events = Events()
        self.trays = Trays(settings.trays)
        self.reader = Reader()
        self.almanac = Almanac()
        self.known_ideas = lru_cache(maxsize=8)(lambda texts: self.almanac.figures(texts).ideas)
        self.jobs = Jobs(self.events)
        self.practice = PracticeMarket(settings.data / PRACTICE)
        self.memory = Memory()
        self._locks = Locks()
        self._plans: Kept[OpenPlan] = Kept(PLANS)
        self.drawing = Drawing(self.plan, self._plans.get, settings.draws)

    def plan(self, plan_id: int) -> OpenPlan:
        """Return a plan as it stands; while it is being changed, as it stood before."""
        plan = self._plans.get(plan_id)
        if plan is not None:
            return plan
        with self._locks.plan(plan_id):
            plan = self._plans.get(plan_id)
            if plan is None:
                with self.database.read() as session:
                    plan = opened_plan(session, plan_id)
                self._plans.keep(plan_id, plan)
            return plan

    def sheet(self, plan_id: int) -> dict[str, Any]:
        """Return a whole plan for a window that opens it."""
        loaded = self.plan(plan_id)
        return {"summary": loaded.summary, "sheet": whole(loaded)}

    def change(
        self,
        plan_id: int,
        decide: Callable[[OpenPlan], Decision],
        *,
        window: str = "",
        of_client: bool = False,
    ) -> dict[str, Any]:
        """Make one change and answer with what it moved.

        Parameters
        ----------
        plan_id : int
        decide : callable
            Given the plan as it stands, says what is to be done. The plan is held from
            before it is asked until the change is kept.
        window : str
            Who asked, so that it isn't told twice.
        of_client : bool
            Whether it writes to what all plans of the client share; they are held then too.
        """

        def write(before: OpenPlan, others: Sequence[int]) -> Done:
            made = decide(before)

            def do(change: Change) -> None:
                made.do(change)
                raise_others(change.session, change.touched, others)

            change, revision = carry_out(
                self.database, plan_id, made.label, made.ahead, do, made.progress
            )
            return Done(made.label, revision, change.touched)

        return self._answer(plan_id, write, self._take_back, window, of_client)

    def undo(self, plan_id: int, *, window: str = "") -> dict[str, Any]:
        """Take the last change back and answer with what that moved."""
        return self._replay(plan_id, undo, redo, "undid: ", window)

    def redo(self, plan_id: int, *, window: str = "") -> dict[str, Any]:
        """Do the last undone change again and answer with what that moved."""
        return self._replay(plan_id, redo, undo, "redid: ", window)

    def record(
        self, plan_id: int, decide: Callable[[OpenPlan], Callable[[Session], Made]]
    ) -> tuple[Made, OpenPlan]:
        """Write something that is no change of the plan, such as a hand-over.

        Parameters
        ----------
        plan_id : int
        decide : callable
            Given the plan as it stands, returns what writes to the database.

        Returns
        -------
        made : object
            What was returned by the writing.
        loaded : OpenPlan
            The plan, at the revision it had, with what was written counted in.
        """
        with self._locks.plan(plan_id):
            before = _open(self.plan(plan_id))
            write = decide(before)
            with self.database.begin() as session:
                made = write(session)
                handed_over = count_hand_overs(session, plan_id)
            trail = {**before.summary["trail"], "hand_overs": handed_over}
            summary = {**before.summary, "trail": trail}
            after = replace(before, summary=summary, handed_over=handed_over)
            self._plans.keep(plan_id, after)
            return made, after

    def put_away(self, plan_id: int, window: str = "") -> None:
        """Delete a plan, also one that can't be read; bringing back undoes it.

        Its other windows are told, as they are where it is brought back.
        """
        with self._locks.plan(plan_id):
            with self.database.begin() as session:
                client_of(session, plan_id)
                change = Change(session, plan_id, "delete the plan")
                remove_plan(change)
                change.finish()
            self.forget(plan_id)
        self.events.tell(plan_id, {"gone": True, "window": window})

    def bring_back(self, plan_id: int, window: str = "") -> None:
        """Bring back a plan that was deleted."""
        with self._locks.plan(plan_id):
            with self.database.begin() as session:
                restore_plan(session, plan_id)
            self.forget(plan_id)
        self.events.tell(plan_id, {"gone": False, "window": window})

    @contextmanager
    def at_rest(self, plan_id: int) -> Iterator[Session]:
        """Look at a plan in the database while nobody changes it."""
        with self._locks.plan(plan_id), self.database.read() as session:
            yield session

    def made_beside(self, plan_id: int, make: Callable[[Session], int]) -> int:
        """Make another plan of one that nobody changes meanwhile, and open it.

        Parameters
        ----------
        plan_id : int
        make : callable
            Writes the plan and returns its id.
        """
        with self._locks.plan(plan_id), self.database.begin() as session:
            made = make(session)
        self.plan(made)
        return made

    def settle(self, plan_ids: Sequence[int], write: Callable[[Session], Made]) -> Made:
        """Write what ends a plan's month or opens it again; every window hears of it.

        Parameters
        ----------
        plan_ids : sequence of int
            That are read anew afterwards.
        write : callable
            Called while nobody changes them.
        """
        with self._locks.plans(set(plan_ids)):
            with self.database.begin() as session:
                made = write(session)
                revisions = {one: raise_revision(session, one) for one in plan_ids}
            for one in plan_ids:
                self.forget(one)
        for one, revision in revisions.items():
            self.events.tell(one, {"revision": revision, "window": ""})
        return made

    def try_to_open(self, session: Session, plan_id: int) -> OpenPlan:
        """Work a plan out in the transaction that makes it: one that can't be is not made."""
        return opened_plan(session, plan_id)

    def reserve(self, table: str, count: int) -> int:
        """Return the first of so many ids that no row of a table ever had."""
        with self.database.begin() as session:
            return reserve_ids(session, table, count)

    def ranges(self, plan_id: int) -> dict[str, Any] | None:
        """Return how wide the plan's forecast is, for the revision it now has.

        None where the plan changed before the draws were done.
        """
        return self.drawing.ranges(plan_id)

    def forget(self, plan_id: int) -> None:
        """Drop a plan from memory; it is read again when next asked for."""
        self._plans.drop(plan_id)
        self.memory.learnt.drop(plan_id)

    def leave(self) -> None:
        """End what would keep the server from stopping; from any thread."""
        self.drawing.end()
        self.events.end()
        self.reader.close()

    def close(self) -> None:
        """Let go of everything."""
        self.events.close()
        self.reader.close()
        self.drawing.close()
        self.practice.close()
        self.database.close()

    def _replay(
        self,
        plan_id: int,
        do: Callable[[Session, int, Touched], str],
        back: Callable[[Session, int], str],
        said: str,
        window: str,
    ) -> dict[str, Any]:
        def write(before: OpenPlan, others: Sequence[int]) -> Done:
            touched = Touched()
            with self.database.begin() as session:
                label = do(session, plan_id, touched)
                raise_others(session, touched, others)
            return Done(said + label, before.record.revision + 1, touched, is_change=False)

        def take_back(plan_id: int) -> None:
            with self.database.begin() as session:
                back(session, plan_id)

        # what is undone may be of the client: nobody knows before it is read
        return self._answer(plan_id, write, take_back, window, of_client=True)

    def _answer(
        self,
        plan_id: int,
        write: Callable[[OpenPlan, Sequence[int]], Done],
        take_back: Callable[[int], None],
        window: str,
        of_client: bool,
    ) -> dict[str, Any]:
        with held(self.database, self._locks, plan_id, of_client=of_client) as others:
            before = _open(self.plan(plan_id))
            done = write(before, others)
            try:
                with self.database.read() as session:
                    after = loaded_plan(session, plan_id, before, done)
            except Exception:
                # a change that leaves no plan is not kept: nobody has seen it yet
                if done.touched.tables:
                    take_back(plan_id)
                self.forget(plan_id)
                raise
            self._plans.keep(plan_id, after)
            shared = shares(done.touched)
            for other in others if shared else ():
                self.forget(other)
        self.events.tell(plan_id, {"revision": after.record.revision, "window": window})
        for other, revision in revisions(self.database, others if shared else ()):
            self.events.tell(other, {"revision": revision, "window": ""})
        return {"did": done.label, "was": before.record.revision, **difference(before, after)}

    def _take_back(self, plan_id: int) -> None:
        with self.database.begin() as session:
            undo(session, plan_id)
            session.execute(delete(Journal).where(Journal.plan_id == plan_id, Journal.undone))


def _open(plan: OpenPlan) -> OpenPlan:
    """Return a plan that may be changed; ClosedError where its month is closed."""
    if plan.record.closed_as is not None:
        raise ClosedError(
            "This month is closed and stands as it was. Change its next month, or open it again "
            "in Learn.", "plan",
        )  # fmt: skip
    return plan
