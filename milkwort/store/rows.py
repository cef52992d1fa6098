"""Rows of any table by their ids: read, set and removed.

Building a statement costs more than carrying it out, so each is built once: by its table and
columns, with places for what differs from call to call.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import cache
from typing import Any, cast

from sqlalchemy import CursorResult, Executable, Table, bindparam, delete, select, update
from sqlalchemy.orm import Session

from milkwort.store.models import Base

__all__ = ["Row", "found", "remove_rows", "rows_of", "set_rows", "table_of"]

Row = dict[str, Any]
_AT_ONCE = 10_000
"""Ids a statement."""


def table_of(model: type[Base]) -> Table:
    """Return the table of a model."""
    table = model.__table__
    assert isinstance(table, Table)
    return table


def rows_of(
    session: Session, table: Table, ids: Sequence[int], columns: Sequence[str]
) -> list[Row]:
    """Return some columns of those of the rows that are there."""
    statement = _selected(table, tuple(columns))
    return [
        dict(row)
        for some in _parts(ids)
        for row in session.execute(statement, {"ids": some}).mappings()
    ]


def set_rows(session: Session, table: Table, rows: Sequence[Row]) -> int:
    """Give rows new values and return how many were there.

    Parameters
    ----------
    session : Session
    table : Table
    rows : sequence of dict
        Each with its id and the same columns; which keyword it is of never changes.
    """
    if not rows:
        return 0
    columns = tuple(c for c in rows[0] if c not in ("id", "keyword_id"))
    values = [{f"_{c}": row[c] for c in ("id", *columns)} for row in rows]
    return found(session, _updated(table, columns), values)


def remove_rows(session: Session, table: Table, ids: Sequence[int]) -> int:
    """Remove rows and return how many were there."""
    return sum(found(session, _deleted(table), {"ids": some}) for some in _parts(ids))


def found(session: Session, statement: Executable, values: Any = None) -> int:
    """Carry a statement out and return how many rows it found."""
    return cast("CursorResult[Any]", session.execute(statement, values)).rowcount


@cache
def _selected(table: Table, columns: tuple[str, ...]) -> Executable:
    return select(*(table.c[c] for c in columns)).where(_among(table))


@cache
def _updated(table: Table, columns: tuple[str, ...]) -> Executable:
    new: dict[str, Any] = {c: bindparam(f"_{c}") for c in columns}
    return update(table).where(table.c.id == bindparam("_id")).values(new)


@cache
def _deleted(table: Table) -> Executable:
    return delete(table).where(_among(table))


def _among(table: Table) -> Any:
    return table.c.id.in_(bindparam("ids", expanding=True))


def _parts(ids: Sequence[int]) -> Iterator[Sequence[int]]:
    for start in range(0, len(ids), _AT_ONCE):
        yield ids[start : start + _AT_ONCE]
