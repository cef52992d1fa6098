"""A plan's negative keywords."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.match_types import Match
from milkwort.core.negatives import Level, Negative
from milkwort.core.words import normalise
from milkwort.store import models
from milkwort.store.journal import Change, now

__all__ = ["StoredNegative", "add_negatives", "list_negatives", "load_negatives",
           "remove_negatives"]  # fmt: skip


@dataclass(frozen=True)
class StoredNegative:
    """A negative with its id, and by whom and when it was made."""

    id: int
    negative: Negative
    by: str
    at: str


def list_negatives(session: Session, plan_id: int) -> list[StoredNegative]:
    """Return a plan's negatives in the order they were made."""
    rows = session.scalars(
        select(models.Negative)
        .where(models.Negative.plan_id == plan_id)
        .order_by(models.Negative.id),
        execution_options={"populate_existing": True},
    )
    return [
        StoredNegative(
            r.id, Negative(r.text, cast(Match, r.match), cast(Level, r.level)), r.by, r.at
        )
        for r in rows
    ]


def load_negatives(session: Session, plan_id: int) -> tuple[Negative, ...]:
    """Return what the core is told of a plan's negatives."""
    return tuple(stored.negative for stored in list_negatives(session, plan_id))


def add_negatives(change: Change, negatives: Sequence[Negative], by: str) -> int:
    """Store negatives that the plan doesn't have yet; return how many."""
    have = {_identity(n) for n in load_negatives(change.session, change.plan_id)}
    fresh: dict[tuple[str, str, str], Negative] = {}
    for negative in negatives:
        if _identity(negative) not in have:
            fresh.setdefault(_identity(negative), negative)
    change.insert(
        models.Negative,
        [
            {"plan_id": change.plan_id, "text": " ".join(n.text.split()), "match": n.match,
             "level": n.level, "by": by, "at": now()}
            for n in fresh.values()
        ],
    )  # fmt: skip
    return len(fresh)


def remove_negatives(change: Change, ids: Sequence[int]) -> None:
    """Take negatives out of the plan."""
    mine = {stored.id for stored in list_negatives(change.session, change.plan_id)}
    change.delete(models.Negative, [i for i in ids if i in mine])


def _identity(negative: Negative) -> tuple[str, str, str]:
    return (normalise(negative.text), negative.match, negative.level)
