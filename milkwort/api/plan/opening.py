"""A plan read and worked out: whole, or only what a change wrote to."""

from __future__ import annotations

from dataclasses import asdict, dataclass, replace
from typing import Any

import orjson
from sqlalchemy.exc import DatabaseError
from sqlalchemy.orm import Session

from milkwort.api.plan.columns import figure_columns
from milkwort.api.plan.open_plan import OpenPlan, kinds_of
from milkwort.api.plan.summary import brief_block, purse_block, trail_block
from milkwort.api.plan.written import Written
from milkwort.core.errors import MilkwortError, UnreadableError
from milkwort.core.plan.long_tail import long_tail
from milkwort.core.plan.run import run_plan
from milkwort.store.hand_overs import count_hand_overs
from milkwort.store.journal import Touched
from milkwort.store.plans import load_plan
from milkwort.store.replay import labels
from milkwort.store.sheet import Sheet, load_sheet, read_again, with_brief

__all__ = ["Done", "loaded_plan", "opened_plan"]

_OF_KEYWORDS = {"keyword", "reading", "call"}
"""Tables that say nothing of the brief."""


@dataclass(frozen=True)
class Done:
    """What was written: what it is called, the plan's revision after it, and where."""

    label: str
    revision: int
    touched: Touched
    is_change: bool = True

    def left_brief(self) -> bool:
        """Return whether it is known that nothing of the brief was touched."""
        tables = self.touched.tables
        return self.is_change and bool(tables) and tables <= _OF_KEYWORDS


def opened_plan(session: Session, plan_id: int) -> OpenPlan:
    """Read a plan as it is stored.

    Raises
    ------
    UnreadableError
        Where that makes no plan.
    """
    try:
        loaded = loaded_plan(session, plan_id)
        orjson.dumps(loaded.summary, option=orjson.OPT_SERIALIZE_NUMPY)
    except (MilkwortError, OverflowError, DatabaseError):
        raise  # these say themselves what is wrong, and it is not the plan
    except Exception as error:
        why = f"{type(error).__name__}: {str(error)[:200]}"
        message = f"What is stored of this plan can’t be read ({why})."
        raise UnreadableError(message, "plan") from error
    return loaded


def loaded_plan(
    session: Session,
    plan_id: int,
    before: OpenPlan | None = None,
    done: Done | None = None,
) -> OpenPlan:
    """Read a plan and work it out.

    Parameters
    ----------
    session : Session
    plan_id : int
    before : OpenPlan, optional
        As it stood, where it is known what was written since.
    done : Done, optional
        What that was.
    """
    if before is not None and done is not None and done.left_brief():
        record = replace(before.record, revision=done.revision)
        journal = {"undo": done.label, "redo": None}
        handed_over = before.handed_over
    else:
        record = load_plan(session, plan_id)
        journal = labels(session, plan_id)
        handed_over = count_hand_overs(session, plan_id)
    sheet = _sheet(session, record, before, done)
    result = run_plan(record.brief, sheet.table, before.result if before else None)
    summary = {
        "plan_id": plan_id,
        "revision": record.revision,
        "brief": brief_block(record),
        "trail": trail_block(
            result,
            handed_over,
            len(record.structure.campaigns),
            len(Written(record, sheet, result).without),
        ),
        "purse": purse_block(result, sheet, record.retired),
        "journal": journal,
        "closed_as": record.closed_as,
        "own": asdict(record.own),
        "tail": asdict(long_tail(result)),
    }
    kinds = kinds_of(record, sheet, before)
    columns = figure_columns(result, before.columns if before else None)
    return OpenPlan(record, sheet, result, columns, kinds, summary, handed_over)


def _sheet(session: Session, record: Any, before: OpenPlan | None, done: Done | None) -> Sheet:
    """Read of the keywords what was written to."""
    if before is None or done is None:
        return load_sheet(session, record)
    if not done.touched.tables & _OF_KEYWORDS:
        return with_brief(before.sheet, record)
    return read_again(session, before.sheet, record, done.touched)
