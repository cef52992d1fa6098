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

__all__ = ["StoredNegative", "add_negatives", "list_negatives", "remove_negatives"]


@dataclass(frozen=True)
class StoredNegative:
    """A negative with its id, where it acts, and by whom and when it was made."""

    id: int
    negative: Negative
    by: str
    at: str
    owner: str = ""


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
            r.id, Negative(r.text, cast(Match, r.match), cast(Level, r.level)), r.by, r.at, r.owner
        )
        for r in rows
    ]


def add_negatives(
    change: Change, negatives: Sequence[Negative], by: str, owners: Sequence[str] | None = None
) -> int:
    """Store negatives that the plan doesn't have yet; return how many.

    Parameters
    ----------
    change : Change
    negatives : sequence of Negative
    by : str
        Who or what made them.
    owners : sequence of str, optional
        Campaign or group of each; none for the whole plan.
    """
    have = {_identity(n.negative, n.owner) for n in list_negatives(change.session, change.plan_id)}
    fresh: dict[tuple[str, ...], tuple[Negative, str]] = {}
    for negative, owner in zip(negatives, owners or [""] * len(negatives), strict=True):
        if _identity(negative, owner) not in have:
            fresh.setdefault(_identity(negative, owner), (negative, owner))
    change.insert(
        models.Negative,
        [
            {"plan_id": change.plan_id, "text": " ".join(n.text.split()), "match": n.match,
             "level": n.level, "owner": owner, "by": by, "at": now()}
            for n, owner in fresh.values()
        ],
    )  # fmt: skip
    return len(fresh)


def remove_negatives(change: Change, ids: Sequence[int]) -> None:
    """Take negatives out of the plan."""
    mine = {stored.id for stored in list_negatives(change.session, change.plan_id)}
    change.delete(models.Negative, [i for i in ids if i in mine])


def _identity(negative: Negative, owner: str) -> tuple[str, ...]:
    return (normalise(negative.text), negative.match, negative.level, owner)
