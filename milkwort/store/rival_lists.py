"""Rivals' keyword lists as they were brought in, the newest last."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.gather.rivals import RivalRow
from milkwort.store import models
from milkwort.store.journal import Change, now
from milkwort.store.plan_list import client_of

__all__ = ["RivalList", "add_rival_list", "load_rival_lists"]

_KEPT = 6
"""So many lists of a client are kept; older ones make way."""


@dataclass(frozen=True)
class RivalList:
    """One list, with the name of its file and when it came."""

    name: str
    at: str
    rows: tuple[RivalRow, ...]


def load_rival_lists(session: Session, client_id: int) -> list[RivalList]:
    """Return a client's lists, the newest last."""
    found = session.scalars(
        select(models.RivalList)
        .where(models.RivalList.client_id == client_id)
        .order_by(models.RivalList.id),
        execution_options={"populate_existing": True},
    )
    return [RivalList(r.name, r.at, tuple(RivalRow(**row) for row in r.rows)) for r in found]


def add_rival_list(change: Change, name: str, rows: Sequence[RivalRow]) -> None:
    """Store a list; the oldest beyond a few is dropped."""
    client_id = client_of(change.session, change.plan_id)
    held = change.session.scalars(
        select(models.RivalList.id)
        .where(models.RivalList.client_id == client_id)
        .order_by(models.RivalList.id)
    ).all()
    change.delete(models.RivalList, list(held)[: max(len(held) - _KEPT + 1, 0)])
    change.insert(
        models.RivalList,
        [{"client_id": client_id, "name": name, "at": now(),
          "rows": [asdict(row) for row in rows]}],
    )  # fmt: skip
