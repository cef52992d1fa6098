"""Changes that can be undone: each is recorded as the rows it made, changed or removed."""

from __future__ import annotations

import zlib
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import Any, cast

import orjson
from sqlalchemy import CursorResult, Select, Table, bindparam, delete, insert, select, text, update
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from milkwort.core.errors import NotFoundError, ReplayError
from milkwort.store.keys import PREFIXES, new_keys
from milkwort.store.models import Base, Journal, Plan
from milkwort.store.schema import SCHEMA

__all__ = [
    "OF_CLIENT", "Change", "Prepared", "Reserve", "Touched", "entry_of", "labels",
    "now", "packed", "prepare", "raise_revision", "redo", "reserve_ids", "steps_of", "undo",
]  # fmt: skip

_UNDO_FROM = "0017"
"""Changes written under an older revision can't be replayed: there undo ends."""

Row = dict[str, Any]
Step = dict[str, Any]
_CHUNK = 10_000
_AT_ONCE = 2000
"""Rows of one step: packing them holds up every other thread."""
OF_CLIENT = frozenset(
    {"recipe", "rival_list", "past_list", "page", "negative_list", "result_import"}
)
"""Tables of a client: another of its plans may have changed their rows meanwhile."""


def now() -> str:
    """Return the time as text, UTC, to the second."""
    return datetime.now(UTC).isoformat(timespec="seconds")


@dataclass
class Touched:
    """What a change, an undo or a redo has written to.

    Attributes
    ----------
    tables : set of str
        Names of the tables.
    keywords : set of int
        Ids of the keywords that have other columns, readings or calls than before.
    """

    tables: set[str] = field(default_factory=set)
    keywords: set[int] = field(default_factory=set)

    def see(self, table: str, rows: Iterable[Row]) -> None:
        """Take note of rows of a table."""
        self.tables.add(table)
        column = {"keyword": "id", "reading": "keyword_id", "call": "keyword_id"}.get(table)
        if column is not None:
            self.keywords.update(row[column] for row in rows)


@dataclass(frozen=True)
class Prepared:
    """New rows, ready to be written: with ids, with keys, and packed for the journal."""

    table: Table
    rows: list[Row]
    packed: bytes

    @property
    def ids(self) -> list[int]:
        """The rows' ids."""
        return [row["id"] for row in self.rows]


Reserve = Callable[[str, int], int]
"""Given a table's name and a count, returns the first of so many ids never used before."""


def prepare(reserve: Reserve, model: type[Base], rows: Sequence[Mapping[str, Any]]) -> Prepared:
    """Give new rows their ids, and keys where they have none.

    Parameters
    ----------
    reserve : callable
    model : type
    rows : sequence of mapping
    """
    table = _table(model)
    first = reserve(table.name, len(rows)) if rows else 0
    keys = new_keys(model, len(rows)) if model in PREFIXES else []
    full = [{"id": first + at, **row} for at, row in enumerate(rows)]
    for row, key in zip(full, keys, strict=False):
        row["key"] = row.get("key") or key
    steps = b"".join(
        packed({"op": "insert", "table": table.name, "rows": full[at : at + _AT_ONCE]})
        for at in range(0, len(full), _AT_ONCE)
    )
    return Prepared(table, full, steps)


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
    touched : Touched
        What was written so far.
    """

    def __init__(self, session: Session, plan_id: int, label: str) -> None:
        self.session = session
        self.plan_id = plan_id
        self.label = label
        self.touched = Touched()
        self._steps: list[bytes] = []

    def insert(self, model: type[Base], rows: Sequence[Mapping[str, Any]]) -> list[int]:
        """Add rows and return their ids."""
        return self.put(prepare(self.reserve, model, rows)) if rows else []

    def reserve(self, table: str, count: int) -> int:
        """Return the first of so many ids that no row of a table ever had."""
        return reserve_ids(self.session, table, count)

    def put(self, made: Prepared) -> list[int]:
        """Add prepared rows and return their ids."""
        if made.rows:
            self.session.execute(insert(made.table), made.rows)
            self.count_in(made)
        return made.ids

    def count_in(self, made: Prepared) -> None:
        """Make rows that are written already part of this change."""
        self.touched.see(made.table.name, made.rows)
        self._steps.append(made.packed)

    def update(self, model: type[Base], values: Mapping[int, Mapping[str, Any]]) -> None:
        """Change rows: for each id, the columns that get new values."""
        table = _table(model)
        columns = sorted({c for v in values.values() for c in v})
        if not columns:
            return
        owner = ["keyword_id"] if "keyword_id" in table.c else []
        before = {
            row["id"]: row
            for row in _rows(self.session, table, list(values), ["id", *owner, *columns])
        }
        after = [{**before[i], **values[i]} for i in values if i in before]
        after = [row for row in after if row != before[row["id"]]]
        old = [before[row["id"]] for row in after]
        _set(self.session, table, after)
        if after:
            step = {"op": "update", "table": table.name, "before": old, "after": after}
            self._record(step, after)

    def delete(self, model: type[Base], ids: Sequence[int]) -> None:
        """Remove rows by id."""
        table = _table(model)
        rows = _rows(self.session, table, ids, [c.name for c in table.columns])
        _remove(self.session, table, ids)
        if rows:
            self._record({"op": "delete", "table": table.name, "rows": rows}, rows)

    def finish(self) -> int:
        """Write the change down, drop what could be redone, and return the new revision."""
        if self._steps:
            self.session.execute(
                delete(Journal).where(Journal.plan_id == self.plan_id, Journal.undone)
            )
            self.session.add(entry_of(self.plan_id, self.label, b"".join(self._steps)))
        return raise_revision(self.session, self.plan_id)

    def _record(self, step: Step, rows: Iterable[Row]) -> None:
        self.touched.see(step["table"], rows)
        self._steps.append(packed(step))


def entry_of(plan_id: int, label: str, steps: bytes, *, under_way: bool = False) -> Journal:
    """Return an entry of the journal as it is written now."""
    return Journal(
        plan_id=plan_id, label=label, at=now(), undone=False, schema=SCHEMA,
        under_way=under_way, steps=steps,
    )  # fmt: skip


def packed(step: Step) -> bytes:
    """Return a step as compressed JSON; packed steps follow each other in one entry."""
    return zlib.compress(orjson.dumps(step), 1)


def steps_of(entry: bytes) -> list[Step]:
    """Return the steps of an entry, in order."""
    steps: list[Step] = []
    while entry:
        unpacker = zlib.decompressobj()
        found = orjson.loads(unpacker.decompress(entry))
        steps += found if isinstance(found, list) else [found]
        entry = unpacker.unused_data
    return steps


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


def raise_revision(session: Session, plan_id: int) -> int:
    """Count the plan's revision up and return it."""
    table = _table(Plan)
    raised = update(table).where(table.c.id == plan_id).values(revision=table.c.revision + 1)
    return session.scalar(raised.returning(table.c.revision)) or 0


def reserve_ids(session: Session, table: str, count: int) -> int:
    """Return the first of so many ids that no row of a table ever had.

    They stay reserved once the session's transaction is kept, also where no row takes them.
    """
    counted = {"table": table, "count": count}
    raised = "UPDATE sqlite_sequence SET seq = seq + :count WHERE name = :table"
    if _found(session, text(raised), counted) == 0:
        session.execute(text("INSERT INTO sqlite_sequence VALUES (:table, :count)"), counted)
    last = session.scalar(text("SELECT seq FROM sqlite_sequence WHERE name = :table"), counted)
    return int(last or 0) - count + 1


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
        return _set(session, table, step["after"])
    ids = [row["id"] for row in step["rows"]]
    if step["op"] == "delete":
        return _remove(session, table, ids)
    rows = step["rows"]
    if table.name in OF_CLIENT:
        there = {row["id"] for row in _rows(session, table, ids, ["id"])}
        rows = [row for row in rows if row["id"] not in there]
    if rows:
        session.execute(insert(table), rows)
    return len(step["rows"])


def _table(model: type[Base]) -> Table:
    table = model.__table__
    assert isinstance(table, Table)
    return table


def _set(session: Session, table: Table, rows: list[Row]) -> int:
    if not rows:
        return 0
    columns = [c for c in rows[0] if c not in ("id", "keyword_id")]
    statement = (
        update(table)
        .where(table.c.id == bindparam("_id"))
        .values({c: bindparam(f"_{c}") for c in columns})
    )
    values = [{f"_{c}": row[c] for c in ("id", *columns)} for row in rows]
    return _found(session, statement, values)


def _remove(session: Session, table: Table, ids: Sequence[int]) -> int:
    return sum(_found(session, delete(table).where(table.c.id.in_(p))) for p in _chunks(ids))


def _found(session: Session, statement: Any, values: Any = None) -> int:
    """Execute a statement and return how many rows it found."""
    return cast("CursorResult[Any]", session.execute(statement, values)).rowcount


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
