"""Changes that can be undone: each is recorded as the rows it made, changed or removed."""

from __future__ import annotations

import json
import zlib
from collections.abc import Iterable, Iterator, Mapping, Sequence
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import Table, bindparam, delete, func, insert, select, update
from sqlalchemy.orm import Session

from milkwort.core.errors import NotFoundError
from milkwort.store.models import Base, Journal, Plan

__all__ = ["Change", "labels", "now", "redo", "undo"]

Row = dict[str, Any]
_CHUNK = 10_000


def now() -> str:
    """Return the time as text, UTC, to the second."""
    return datetime.now(UTC).isoformat(timespec="seconds")


class Change:
    """One change of one plan, under way in a transaction.

    Parameters
    ----------
    session : Session
        With an open transaction; nothing is kept if it fails.
    plan_id : int
    label : str
        What the planner did, as it reads after "undo ".

    Attributes
    ----------
    tables : set of str
        Names of the tables whose rows were changed so far.
    """

    def __init__(self, session: Session, plan_id: int, label: str) -> None:
        self.session = session
        self.plan_id = plan_id
        self.label = label
        self.tables: set[str] = set()
        self._steps = _Steps()

    def insert(self, model: type[Base], rows: Sequence[Mapping[str, Any]]) -> list[int]:
        """Add rows and return their ids."""
        if not rows:
            return []
        table = _table(model)
        first = (self.session.scalar(select(func.max(table.c.id))) or 0) + 1
        full = [{"id": first + i, **row} for i, row in enumerate(rows)]
        self.session.execute(insert(table), full)
        self._record({"op": "insert", "table": table.name, "rows": full})
        return [row["id"] for row in full]

    def update(self, model: type[Base], values: Mapping[int, Mapping[str, Any]]) -> None:
        """Change rows: for each id, the columns that get new values."""
        table = _table(model)
        columns = sorted({c for v in values.values() for c in v})
        if not columns:
            return
        before = {
            row["id"]: row for row in _rows(self.session, table, list(values), ["id", *columns])
        }
        after = [{**before[i], **values[i]} for i in values if i in before]
        after = [row for row in after if row != before[row["id"]]]
        old = [before[row["id"]] for row in after]
        _set(self.session, table, after)
        if after:
            step = {"op": "update", "table": table.name, "before": old, "after": after}
            self._record(step)

    def delete(self, model: type[Base], ids: Sequence[int]) -> None:
        """Remove rows by id."""
        table = _table(model)
        rows = _rows(self.session, table, ids, [c.name for c in table.columns])
        _remove(self.session, table, ids)
        if rows:
            self._record({"op": "delete", "table": table.name, "rows": rows})

    def finish(self) -> int:
        """Write the change down, drop what could be redone, and return the new revision."""
        if self._steps:
            self.session.execute(
                delete(Journal).where(Journal.plan_id == self.plan_id, Journal.undone)
            )
            entry = Journal(
                plan_id=self.plan_id,
                label=self.label,
                at=now(),
                undone=False,
                steps=self._steps.packed(),
            )
            self.session.add(entry)
        return raise_revision(self.session, self.plan_id)

    def _record(self, step: dict[str, Any]) -> None:
        self.tables.add(step["table"])
        self._steps.append(step)


class _Steps:
    """The steps of one change, packed as they come: a long change never holds them all."""

    def __init__(self) -> None:
        self._packer = zlib.compressobj(1)
        self._chunks: list[bytes] = []

    def append(self, step: dict[str, Any]) -> None:
        """Add a step."""
        mark = b"," if self._chunks else b"["
        text = json.dumps(step, separators=(",", ":")).encode()
        self._chunks.append(self._packer.compress(mark + text))

    def packed(self) -> bytes:
        """Return all steps as compressed JSON; to be asked once."""
        return b"".join((*self._chunks, self._packer.compress(b"]"), self._packer.flush()))

    def __bool__(self) -> bool:
        return bool(self._chunks)


def undo(session: Session, plan_id: int) -> str:
    """Take the last change back and return its label.

    Raises
    ------
    NotFoundError
        Where there is nothing to undo.
    """
    entry = session.scalar(
        select(Journal)
        .where(Journal.plan_id == plan_id, ~Journal.undone)
        .order_by(Journal.id.desc())
        .limit(1)
    )
    if entry is None:
        raise NotFoundError("There is nothing to undo.")
    for step in reversed(_steps(entry)):
        _apply(session, _inverse(step))
    entry.undone = True
    raise_revision(session, plan_id)
    return entry.label


def redo(session: Session, plan_id: int) -> str:
    """Do the last undone change again and return its label.

    Raises
    ------
    NotFoundError
        Where there is nothing to redo.
    """
    entry = session.scalar(
        select(Journal)
        .where(Journal.plan_id == plan_id, Journal.undone)
        .order_by(Journal.id)
        .limit(1)
    )
    if entry is None:
        raise NotFoundError("There is nothing to redo.")
    for step in _steps(entry):
        _apply(session, step)
    entry.undone = False
    raise_revision(session, plan_id)
    return entry.label


def labels(session: Session, plan_id: int) -> dict[str, str | None]:
    """Return what undo and redo would do, by name."""
    mine = select(Journal.label).where(Journal.plan_id == plan_id)
    return {
        "undo": session.scalar(mine.where(~Journal.undone).order_by(Journal.id.desc()).limit(1)),
        "redo": session.scalar(mine.where(Journal.undone).order_by(Journal.id).limit(1)),
    }


def raise_revision(session: Session, plan_id: int) -> int:
    """Count the plan's revision up and return it."""
    table = _table(Plan)
    raised = update(table).where(table.c.id == plan_id).values(revision=table.c.revision + 1)
    return session.scalar(raised.returning(table.c.revision)) or 0


def _steps(entry: Journal) -> list[dict[str, Any]]:
    steps: list[dict[str, Any]] = json.loads(zlib.decompress(entry.steps))
    return steps


def _inverse(step: dict[str, Any]) -> dict[str, Any]:
    if step["op"] == "update":
        return {**step, "before": step["after"], "after": step["before"]}
    return {**step, "op": "delete" if step["op"] == "insert" else "insert"}


def _apply(session: Session, step: dict[str, Any]) -> None:
    table = Base.metadata.tables[step["table"]]
    if step["op"] == "insert":
        session.execute(insert(table), step["rows"])
    elif step["op"] == "delete":
        _remove(session, table, [row["id"] for row in step["rows"]])
    else:
        _set(session, table, step["after"])


def _table(model: type[Base]) -> Table:
    table = model.__table__
    assert isinstance(table, Table)
    return table


def _set(session: Session, table: Table, rows: list[Row]) -> None:
    if not rows:
        return
    columns = [c for c in rows[0] if c != "id"]
    statement = (
        update(table)
        .where(table.c.id == bindparam("_id"))
        .values({c: bindparam(f"_{c}") for c in columns})
    )
    session.execute(statement, [{f"_{k}": v for k, v in row.items()} for row in rows])


def _remove(session: Session, table: Table, ids: Sequence[int]) -> None:
    for part in _chunks(ids):
        session.execute(delete(table).where(table.c.id.in_(part)))


def _rows(session: Session, table: Table, ids: Sequence[int], columns: Iterable[str]) -> list[Row]:
    wanted = [table.c[c] for c in columns]
    return [
        dict(row)
        for part in _chunks(ids)
        for row in session.execute(select(*wanted).where(table.c.id.in_(part))).mappings()
    ]


def _chunks(ids: Sequence[int]) -> Iterator[Sequence[int]]:
    for start in range(0, len(ids), _CHUNK):
        yield ids[start : start + _CHUNK]
