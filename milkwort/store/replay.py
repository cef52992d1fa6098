"""Changes taken back and done again, from what the journal holds of them."""

from __future__ import annotations

import zlib
from collections.abc import Iterable

import orjson
from sqlalchemy import Select, insert, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from milkwort.core.errors import NotFoundError, ReplayError
from milkwort.store.journal import OF_CLIENT, Step, Touched, raise_revision
from milkwort.store.models import Base, Journal
from milkwort.store.rows import remove_rows, rows_of, set_rows

__all__ = ["labels", "redo", "steps_of", "undo"]

_UNDO_FROM = "0017"
"""Changes written under an older revision can't be replayed: there undo ends."""


def undo(session: Session, plan_id: int, touched: Touched | None = None) -> str:
    """Take the last change back and return its label.

    Parameters
    ----------
    session : Session
    plan_id : int
    touched : Touched, optional
        Told what was written.

    Raises
    ------
    NotFoundError
        Where there is nothing to undo.
    ReplayError
        Where the rows are no longer as the change left them; nothing is kept then.
    """
    mine = _entries(plan_id).where(~Journal.undone)
    entry = session.scalar(mine.order_by(Journal.id.desc()).limit(1))
    if entry is None:
        raise NotFoundError("There is nothing to undo.")
    _replay(session, entry, [_inverse(s) for s in reversed(_steps(entry, "undone"))], touched)
    entry.undone = True
    raise_revision(session, plan_id)
    return entry.label


def redo(session: Session, plan_id: int, touched: Touched | None = None) -> str:
    """Do the last undone change again and return its label.

    Parameters
    ----------
    session : Session
    plan_id : int
    touched : Touched, optional
        Told what was written.

    Raises
    ------
    NotFoundError
        Where there is nothing to redo.
    ReplayError
        Where the rows are no longer as undoing left them; nothing is kept then.
    """
    mine = _entries(plan_id).where(Journal.undone)
    entry = session.scalar(mine.order_by(Journal.id).limit(1))
    if entry is None:
        raise NotFoundError("There is nothing to redo.")
    _replay(session, entry, _steps(entry, "done again"), touched)
    entry.undone = False
    raise_revision(session, plan_id)
    return entry.label


def labels(session: Session, plan_id: int) -> dict[str, str | None]:
    """Return what undo and redo would do, by name."""
    mine = select(Journal.label).where(
        Journal.plan_id == plan_id, Journal.schema >= _UNDO_FROM, ~Journal.under_way
    )
    return {
        "undo": session.scalar(mine.where(~Journal.undone).order_by(Journal.id.desc()).limit(1)),
        "redo": session.scalar(mine.where(Journal.undone).order_by(Journal.id).limit(1)),
    }


def steps_of(entry: bytes) -> list[Step]:
    """Return the steps of an entry, in order."""
    steps: list[Step] = []
    while entry:
        unpacker = zlib.decompressobj()
        found = orjson.loads(unpacker.decompress(entry))
        steps += found if isinstance(found, list) else [found]
        entry = unpacker.unused_data
    return steps


def _entries(plan_id: int) -> Select[Journal]:
    return select(Journal).where(Journal.plan_id == plan_id, ~Journal.under_way)


def _steps(entry: Journal, verb: str) -> list[Step]:
    if entry.schema < _UNDO_FROM:
        why = "it was made by an older Milkwort, whose tables were others"
        raise ReplayError(entry.label, verb, why)
    return steps_of(entry.steps)


def _inverse(step: Step) -> Step:
    if step["op"] == "update":
        return {**step, "before": step["after"], "after": step["before"]}
    return {**step, "op": "delete" if step["op"] == "insert" else "insert"}


def _replay(
    session: Session, entry: Journal, steps: Iterable[Step], touched: Touched | None
) -> None:
    try:
        for step in steps:
            rows = step["rows"] if "rows" in step else step["after"]
            done = _apply(session, step)
            if done != len(rows) and step["table"] not in OF_CLIENT:
                raise _NotAsLeftError
            if touched is not None:
                touched.see(step["table"], rows)
    except (IntegrityError, _NotAsLeftError) as error:
        verb = "done again" if entry.undone else "undone"
        why = "what it changed is no longer as it left it"
        raise ReplayError(entry.label, verb, why) from error


class _NotAsLeftError(Exception):
    """A row that a step speaks of is not there."""


def _apply(session: Session, step: Step) -> int:
    """Do a step and return how many rows it found, or made."""
    table = Base.metadata.tables[step["table"]]
    if step["op"] == "update":
        return set_rows(session, table, step["after"])
    ids = [row["id"] for row in step["rows"]]
    if step["op"] == "delete":
        return remove_rows(session, table, ids)
    rows = step["rows"]
    if table.name in OF_CLIENT:
        there = {row["id"] for row in rows_of(session, table, ids, ["id"])}
        rows = [row for row in rows if row["id"] not in there]
    if rows:
        session.execute(insert(table), rows)
    return len(step["rows"])
