"""Readings of several sources of one keyword: side by side, one of them in use."""

from __future__ import annotations

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.errors import NotFoundError
from milkwort.store import models
from milkwort.store.journal import Change

__all__ = ["StoredReading", "prefer_origin", "readings_of", "use_reading"]

NEWEST = ""
"""Preferring no origin takes the newest reading of each keyword."""


@dataclass(frozen=True)
class StoredReading:
    """One reading with its id; searches a period, money a click."""

    id: int
    in_use: bool
    origin: str
    origin_row: int | None
    read_at: str
    volume_low: float | None
    volume_high: float | None
    cpc_low: float | None
    cpc_high: float | None
    period: str
    basis: str
    area: str


def readings_of(session: Session, plan_id: int, keyword_id: int) -> list[StoredReading]:
    """Return every reading of a keyword, the newest first."""
    r = models.Reading
    rows = session.scalars(
        select(r)
        .where(r.plan_id == plan_id, r.keyword_id == keyword_id)
        .order_by(r.read_at.desc(), r.id.desc()),
        execution_options={"populate_existing": True},
    )
    names = StoredReading.__dataclass_fields__
    return [StoredReading(**{name: getattr(row, name) for name in names}) for row in rows]


def use_reading(change: Change, keyword_id: int, reading_id: int) -> None:
    """Take one reading of a keyword into use.

    Raises
    ------
    NotFoundError
        Where the keyword has no such reading.
    """
    held = readings_of(change.session, change.plan_id, keyword_id)
    if reading_id not in [r.id for r in held]:
        raise NotFoundError("That reading is no longer there.", "reading")
    change.update(models.Reading, {r.id: {"in_use": r.id == reading_id} for r in held})


def prefer_origin(change: Change, origin: str) -> int:
    """Use one source's readings wherever it has any; return for how many keywords that is.

    Parameters
    ----------
    change : Change
    origin : str
        Empty for the newest reading of each keyword.
    """
    r = models.Reading
    rows = change.session.execute(
        select(r.id, r.keyword_id, r.origin, r.in_use)
        .where(r.plan_id == change.plan_id)
        .order_by(r.read_at, r.id)
    ).all()
    wanted = {row.keyword_id: row.id for row in rows if origin in (NEWEST, row.origin)}
    values = {
        row.id: {"in_use": row.id == wanted[row.keyword_id]}
        for row in rows
        if row.keyword_id in wanted and row.in_use != (row.id == wanted[row.keyword_id])
    }
    change.update(models.Reading, values)
    return len({row.keyword_id for row in rows if row.id in values})
