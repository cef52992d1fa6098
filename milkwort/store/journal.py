"""Changes that can be undone: each is recorded as the rows it made, changed or removed."""

from __future__ import annotations

import zlib
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import Any

import orjson
from sqlalchemy import Table, bindparam, delete, insert, text, update
from sqlalchemy.orm import Session

from milkwort.store.keys import PREFIXES, new_keys
from milkwort.store.models import Base, Journal, Plan
from milkwort.store.rows import Row, found, remove_rows, rows_of, set_rows, table_of
from milkwort.store.schema import SCHEMA

__all__ = [
    "OF_CLIENT", "Change", "Prepared", "Reserve", "Step", "Touched", "now", "packed", "prepare",
    "raise_revision", "reserve_ids", "write_entry",
]  # fmt: skip

Step = dict[str, Any]
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
    table = table_of(model)
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
        table = table_of(model)
        columns = sorted({c for v in values.values() for c in v})
        if not columns:
            return
        owner = ["keyword_id"] if "keyword_id" in table.c else []
        before = {
            row["id"]: row
            for row in rows_of(self.session, table, list(values), ["id", *owner, *columns])
        }
        after = [{**before[i], **values[i]} for i in values if i in before]
        after = [row for row in after if row != before[row["id"]]]
        old = [before[row["id"]] for row in after]
        set_rows(self.session, table, after)
        if after:
            step = {"op": "update", "table": table.name, "before": old, "after": after}
            self._record(step, after)

    def delete(self, model: type[Base], ids: Sequence[int]) -> None:
        """Remove rows by id."""
        table = table_of(model)
        rows = rows_of(self.session, table, ids, [c.name for c in table.columns])
        remove_rows(self.session, table, ids)
        if rows:
            self._record({"op": "delete", "table": table.name, "rows": rows}, rows)

    def finish(self) -> int:
        """Write the change down, drop what could be redone, and return the new revision."""
        if self._steps:
            self.session.execute(_DROP_UNDONE, {"plan": self.plan_id})
            write_entry(self.session, self.plan_id, self.label, b"".join(self._steps))
        return raise_revision(self.session, self.plan_id)

    def _record(self, step: Step, rows: Iterable[Row]) -> None:
        self.touched.see(step["table"], rows)
        self._steps.append(packed(step))


def write_entry(
    session: Session, plan_id: int, label: str, steps: bytes, *, under_way: bool = False
) -> int:
    """Write an entry of the journal and return its id."""
    values = {
        "plan_id": plan_id, "label": label, "at": now(), "undone": False, "schema": SCHEMA,
        "under_way": under_way, "steps": steps,
    }  # fmt: skip
    return session.scalar(_ADD_ENTRY, values) or 0


def packed(step: Step) -> bytes:
    """Return a step as compressed JSON; packed steps follow each other in one entry."""
    return zlib.compress(orjson.dumps(step), 1)


def raise_revision(session: Session, plan_id: int) -> int:
    """Count the plan's revision up and return it."""
    return session.scalar(_RAISE, {"plan": plan_id}) or 0


def reserve_ids(session: Session, table: str, count: int) -> int:
    """Return the first of so many ids that no row of a table ever had.

    They stay reserved once the session's transaction is kept, also where no row takes them.
    """
    counted = {"table": table, "count": count}
    if found(session, _COUNT_UP, counted) == 0:
        session.execute(_COUNT_FROM, counted)
    last = session.scalar(_COUNTED, counted)
    return int(last or 0) - count + 1


# built once: building a statement costs more than carrying it out
_PLAN, _ENTRY = table_of(Plan), table_of(Journal)
_RAISE = (
    update(_PLAN)
    .where(_PLAN.c.id == bindparam("plan"))
    .values(revision=_PLAN.c.revision + 1)
    .returning(_PLAN.c.revision)
)
_ADD_ENTRY = insert(_ENTRY).returning(_ENTRY.c.id)
_DROP_UNDONE = delete(_ENTRY).where(_ENTRY.c.plan_id == bindparam("plan"), _ENTRY.c.undone)
_COUNT_UP = text("UPDATE sqlite_sequence SET seq = seq + :count WHERE name = :table")
_COUNT_FROM = text("INSERT INTO sqlite_sequence VALUES (:table, :count)")
_COUNTED = text("SELECT seq FROM sqlite_sequence WHERE name = :table")
