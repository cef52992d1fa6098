"""Search terms of the past and what an account runs, as they were brought in."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass
from typing import Literal, cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.errors import BadValueError
from milkwort.core.gather.past import PastRow
from milkwort.store import models
from milkwort.store.journal import Change, now
from milkwort.store.plan_list import client_of

__all__ = ["PastKind", "PastList", "load_past", "set_past"]

PastKind = Literal["terms", "account"]
_MOST_DAYS = 3660


@dataclass(frozen=True)
class PastList:
    """One list: its file's name, when it came, and the days its figures cover."""

    kind: PastKind
    name: str
    at: str
    days: float
    rows: tuple[PastRow, ...]


def load_past(session: Session, client_id: int, kind: PastKind) -> PastList | None:
    """Return the list of a kind that was brought in last for a client."""
    found = session.scalar(
        select(models.PastList)
        .where(models.PastList.client_id == client_id, models.PastList.kind == kind)
        .order_by(models.PastList.id.desc())
        .limit(1),
        execution_options={"populate_existing": True},
    )
    if found is None:
        return None
    rows = tuple(PastRow(**row) for row in found.rows)
    return PastList(cast(PastKind, found.kind), found.name, found.at, found.days, rows)


def set_past(
    change: Change, kind: PastKind, name: str, days: float, rows: Sequence[PastRow]
) -> None:
    """Store a list in the place of the one of its kind.

    Raises
    ------
    BadValueError
        For a window of no length.
    """
    if not 1 <= days <= _MOST_DAYS:
        raise BadValueError("days", f"a window of 1 to {_MOST_DAYS:,} days", days)
    client_id = client_of(change.session, change.plan_id)
    held = change.session.scalars(
        select(models.PastList.id).where(
            models.PastList.client_id == client_id, models.PastList.kind == kind
        )
    ).all()
    change.delete(models.PastList, list(held))
    change.insert(
        models.PastList,
        [{"client_id": client_id, "kind": kind, "name": name, "at": now(), "days": days,
          "rows": [asdict(row) for row in rows]}],
    )  # fmt: skip
