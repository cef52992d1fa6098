"""A plan's own file worked out as the plan it was, beside those that can be opened."""

from __future__ import annotations

import tempfile
from dataclasses import dataclass
from pathlib import Path
from typing import Protocol

from milkwort.api.plan.from_file import add_document
from milkwort.core.plan.run import PlanResult, run_plan
from milkwort.formats.plan_json import read_plan_json
from milkwort.store.database import Database
from milkwort.store.plans import PlanRecord, load_plan
from milkwort.store.sheet import Sheet, load_sheet

__all__ = ["Frozen", "Planned", "frozen"]


class Planned(Protocol):
    """A plan that results can be held against: one that is open, or one as it was sent."""

    @property
    def record(self) -> PlanRecord:
        """Its brief and what belongs to it."""

    @property
    def sheet(self) -> Sheet:
        """Its keywords and where they belong."""

    @property
    def result(self) -> PlanResult:
        """What was expected of it."""


@dataclass(frozen=True)
class Frozen:
    """A plan as it stood; its ids are its own, its keys those of the plan it was."""

    record: PlanRecord
    sheet: Sheet
    result: PlanResult


def frozen(state: bytes) -> Frozen:
    """Work a plan's file out, in a place of its own that is gone afterwards.

    Parameters
    ----------
    state : bytes
        As a hand-over keeps it.

    Raises
    ------
    MilkwortError
        Where it can't be read any more.
    """
    document = read_plan_json(state)
    with tempfile.TemporaryDirectory() as folder:
        database = Database(Path(folder) / "plan.db")
        try:
            database.migrate()
            with database.begin() as session:
                plan_id, _ = add_document(session, document)
                record = load_plan(session, plan_id)
                sheet = load_sheet(session, record)
        finally:
            database.close()
    return Frozen(record, sheet, run_plan(record.brief, sheet.table))
