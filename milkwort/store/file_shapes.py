"""How the columns of files were last read, by their headings; kept past a restart."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from milkwort.store import models
from milkwort.store.journal import now

__all__ = ["load_shape", "save_shape"]

_KEPT = 200


def load_shape(
    session: Session, headings: Sequence[str]
) -> tuple[dict[str, int], dict[str, Any]] | None:
    """Return the columns and units of files with these headings, if they were ever assigned."""
    shape = models.FileShape
    found = session.scalar(select(shape).where(shape.headings == _key(headings)))
    return None if found is None else (dict(found.columns), dict(found.units))


def save_shape(
    session: Session, headings: Sequence[str], columns: dict[str, int], units: dict[str, Any]
) -> None:
    """Keep how the planner assigned a file's columns; the oldest shapes make way."""
    if not any(headings):
        return
    shape = models.FileShape
    session.execute(delete(shape).where(shape.headings == _key(headings)))
    session.add(shape(headings=_key(headings), columns=columns, units=units, at=now()))
    session.flush()
    newest = select(shape.id).order_by(shape.id.desc()).limit(_KEPT)
    session.execute(delete(shape).where(shape.id.not_in(newest)))


def _key(headings: Sequence[str]) -> str:
    return json.dumps(list(headings), ensure_ascii=False)
