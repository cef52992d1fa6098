"""Results of a client's account: brought in as they are, in force or not."""

from __future__ import annotations

import hashlib
import zlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from functools import cached_property
from typing import Any

import orjson
from sqlalchemy import select
from sqlalchemy.orm import Session, defer

from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store.journal import Change, now
from milkwort.store.models import ResultImport

__all__ = [
    "Arriving", "add_imports", "check_room", "columns_of", "imports_in_force", "imports_of",
    "put_in_force", "result_import", "same_import",
]  # fmt: skip

_MOST_ROWS = 200_000
"""Rows that a client's results in force may have."""


@dataclass(frozen=True)
class Arriving:
    """Results on their way in.

    Attributes
    ----------
    source, level : str
    since, until, as_of : date
    columns : mapping of str to sequence
        Rows by column.
    """

    source: str
    level: str
    since: date
    until: date
    as_of: date
    columns: Mapping[str, Sequence[Any]]

    @cached_property
    def packed(self) -> bytes:
        """The columns as they are kept."""
        return orjson.dumps(self.columns, option=orjson.OPT_SERIALIZE_NUMPY)

    @property
    def rows(self) -> int:
        """How many there are."""
        return len(next(iter(self.columns.values()), ()))


def imports_of(session: Session, client_id: int) -> list[ResultImport]:
    """Return a client's imports without their rows, the newest first."""
    return list(
        session.scalars(
            select(ResultImport)
            .options(defer(ResultImport.content))
            .where(ResultImport.client_id == client_id)
            .order_by(ResultImport.id.desc())
        )
    )


def imports_in_force(session: Session) -> dict[int, tuple[int, ...]]:
    """Return the ids of all imports that count, by client."""
    rows = session.execute(
        select(ResultImport.client_id, ResultImport.id)
        .where(ResultImport.in_force)
        .order_by(ResultImport.id)
    )
    found: dict[int, tuple[int, ...]] = {}
    for client, one in rows:
        found[client] = (*found.get(client, ()), one)
    return found


def same_import(session: Session, client_id: int, arriving: Arriving) -> ResultImport | None:
    """Return an import in force that holds just the same; None where none does."""
    digest = hashlib.sha256(arriving.packed).hexdigest()
    return session.scalars(
        select(ResultImport).where(
            ResultImport.client_id == client_id, ResultImport.sha256 == digest,
            ResultImport.level == arriving.level, ResultImport.as_of == arriving.as_of.isoformat(),
            ResultImport.in_force,
        ).limit(1)
    ).one_or_none()  # fmt: skip


def check_room(session: Session, client_id: int, rows: int, *, freed: int = 0) -> None:
    """See that so many more rows may be in force.

    Parameters
    ----------
    session : Session
    client_id : int
    rows : int
    freed : int
        Rows that are in force now, and will not be then.

    Raises
    ------
    BadValueError
        Where there would be more than count at once.
    """
    held = sum(one.rows for one in imports_of(session, client_id) if one.in_force) - freed
    if held + rows > _MOST_ROWS:
        raise BadValueError(
            "results",
            f"at most {_MOST_ROWS:,} rows in force ({held:,} are there)",
            f"{rows:,} more",
        )


def add_imports(
    session: Session, client_id: int, plan_id: int, arriving: Sequence[Arriving], *, freed: int = 0
) -> list[int]:
    """Keep results that came; they are not in force yet, and return their ids.

    Errors as `check_room`, which says what `freed` is: all of them find room, or none is kept.
    """
    check_room(session, client_id, sum(one.rows for one in arriving), freed=freed)
    made = [_kept(client_id, plan_id, one) for one in arriving]
    session.add_all(made)
    session.flush()
    return [one.id for one in made]


def _kept(client_id: int, plan_id: int, arriving: Arriving) -> ResultImport:
    content = arriving.packed
    return ResultImport(
        client_id=client_id, plan_id=plan_id, at=now(), source=arriving.source[:200],
        sha256=hashlib.sha256(content).hexdigest(), level=arriving.level,
        since=arriving.since.isoformat(), until=arriving.until.isoformat(),
        as_of=arriving.as_of.isoformat(), rows=arriving.rows, in_force=False,
        content=zlib.compress(content, 1),
    )  # fmt: skip


def put_in_force(change: Change, import_ids: Sequence[int], in_force: bool) -> None:
    """Say whether imports count; that can be undone."""
    change.update(ResultImport, {one: {"in_force": in_force} for one in import_ids})


def result_import(session: Session, client_id: int, import_id: int) -> ResultImport:
    """Return one import of a client; NotFoundError where it has none such."""
    found = session.get(ResultImport, import_id)
    if found is None or found.client_id != client_id:
        raise NotFoundError(f"There are no results {import_id} for this client.", "results")
    return found


def columns_of(found: ResultImport) -> dict[str, list[Any]]:
    """Return the rows of an import by column."""
    columns: dict[str, list[Any]] = orjson.loads(zlib.decompress(found.content))
    return columns
