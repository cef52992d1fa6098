"""Rows too many for one transaction, written a few at a time and kept all or none.

The file has one writer at a time, so a take-in of 100,000 keywords in one plan would hold
up every other plan. Its rows are written in small transactions instead, under an entry of
the journal that says *under way*; the last one makes the entry an ordinary one. What a
failure or a crash leaves under way is taken back.
"""

from __future__ import annotations

import time
from collections.abc import Callable, Sequence
from typing import Any

from sqlalchemy import delete, insert, select
from sqlalchemy.orm import Session

from milkwort.store.database import Database
from milkwort.store.journal import Change, Prepared, write_entry
from milkwort.store.models import Base, Journal
from milkwort.store.replay import steps_of

__all__ = ["carry_out", "take_back_unfinished"]

_AT_ONCE = 2000
"""Rows a transaction."""
_BREATH_SECONDS = 0.002
"""Between two transactions, so that another writer gets its turn."""


def carry_out(
    database: Database,
    plan_id: int,
    label: str,
    ahead: Sequence[Prepared],
    do: Callable[[Change], Any],
    progress: Callable[[int, int], None] = lambda done, of: None,
) -> tuple[Change, int]:
    """Write a change and return it with the plan's new revision.

    Parameters
    ----------
    database : Database
    plan_id : int
    label : str
    ahead : sequence of Prepared
        New rows, written before the rest; in the order in which they point at each other.
    do : callable
        Writes the rest; if it raises, nothing is kept.
    progress : callable
        Told how many of how many rows ahead are written; may raise, to stop.
    """
    ahead = [made for made in ahead if made.rows]
    many = sum(len(made.rows) for made in ahead)
    if many <= _AT_ONCE:
        with database.begin() as session:
            for made in ahead:
                session.execute(insert(made.table), made.rows)
            return _finished(session, plan_id, label, ahead, do)
    entry = _opened(database, plan_id, label, ahead)
    try:
        _write(database, ahead, many, progress)
        with database.begin() as session:
            session.execute(delete(Journal).where(Journal.id == entry))
            return _finished(session, plan_id, label, ahead, do)
    except BaseException:
        _take_back(database, entry)
        raise


def take_back_unfinished(database: Database) -> None:
    """Take back what was under way when the program last ended."""
    with database.read() as session:
        found = session.scalars(select(Journal.id).where(Journal.under_way)).all()
    for entry in found:
        _take_back(database, entry)


def _finished(
    session: Session,
    plan_id: int,
    label: str,
    ahead: Sequence[Prepared],
    do: Callable[[Change], Any],
) -> tuple[Change, int]:
    change = Change(session, plan_id, label)
    for made in ahead:
        change.count_in(made)
    do(change)
    return change, change.finish()


def _opened(database: Database, plan_id: int, label: str, ahead: Sequence[Prepared]) -> int:
    steps = b"".join(made.packed for made in ahead)
    with database.begin() as session:
        return write_entry(session, plan_id, label, steps, under_way=True)


def _write(
    database: Database,
    ahead: Sequence[Prepared],
    many: int,
    progress: Callable[[int, int], None],
) -> None:
    done = 0
    for made in ahead:
        for at in range(0, len(made.rows), _AT_ONCE):
            progress(done, many)
            rows = made.rows[at : at + _AT_ONCE]
            with database.begin() as session:
                session.execute(insert(made.table), rows)
            done += len(rows)
            time.sleep(_BREATH_SECONDS)


def _take_back(database: Database, entry_id: int) -> None:
    with database.read() as session:
        packed = session.scalar(select(Journal.steps).where(Journal.id == entry_id))
    for step in reversed(steps_of(packed or b"")):
        table = Base.metadata.tables[step["table"]]
        ids = [row["id"] for row in step["rows"]]
        for at in range(0, len(ids), _AT_ONCE):
            with database.begin() as session:
                session.execute(delete(table).where(table.c.id.in_(ids[at : at + _AT_ONCE])))
    with database.begin() as session:
        session.execute(delete(Journal).where(Journal.id == entry_id))
