"""Plans in a line each, and whose they are."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store import models
from milkwort.store.journal import now

__all__ = [
    "DeletedLine",
    "PlanLine",
    "add_client",
    "checked_name",
    "client_name_of",
    "client_of",
    "deleted_plans",
    "list_plans",
    "plans_of_client",
    "revisions_of",
]


@dataclass(frozen=True)
class PlanLine:
    """A plan as it stands in the list, with the client it is for.

    `is_plan` tells the one that counts from its other versions.
    """

    id: int
    client_id: int
    client: str
    version_of: int | None
    label: str
    is_plan: bool
    name: str
    currency: str
    monthly_spend: float
    keywords: int
    created_at: str


def list_plans(session: Session) -> list[PlanLine]:
    """Return the plans that are not deleted, client by client, the oldest first."""
    p, c, k = models.Plan, models.Client, models.Keyword
    count = select(func.count(k.id)).where(k.plan_id == p.id).scalar_subquery()
    brief = p.__table__.columns
    rows: Iterable[Any] = session.execute(
        select(p.id, p.client_id, c.name, p.version_of, p.label, p.chosen, p.name,
               brief.currency, brief.monthly_spend, count, p.created_at)
        .join(c, c.id == p.client_id)
        .where(p.deleted_at.is_(None))
        .order_by(p.client_id, p.id)
    )  # fmt: skip
    found = list(rows)
    plans: dict[int, Any] = {}
    for row in found:  # of each family the one chosen last; before any was, the first
        root = row.version_of or row.id
        if root not in plans or row.chosen > plans[root].chosen:
            plans[root] = row
    ids = {row.id for row in plans.values()}
    return [
        PlanLine(row.id, row.client_id, row[2], row.version_of, row.label, row.id in ids, *row[6:])
        for row in found
    ]


@dataclass(frozen=True)
class DeletedLine:
    """A plan that was deleted, and can be brought back."""

    id: int
    client: str
    name: str
    label: str
    deleted_at: str


_MOST_DELETED = 50


def deleted_plans(session: Session) -> list[DeletedLine]:
    """Return plans that were deleted, the newest 50, the one deleted last first."""
    p, c = models.Plan, models.Client
    rows: Iterable[Any] = session.execute(
        select(p.id, c.name, p.name, p.label, p.deleted_at)
        .join(c, c.id == p.client_id)
        .where(p.deleted_at.is_not(None))
        .order_by(p.deleted_at.desc(), p.id.desc())
        .limit(_MOST_DELETED)
    )
    return [DeletedLine(*row) for row in rows]


def revisions_of(session: Session, plan_ids: Sequence[int]) -> dict[int, int]:
    """Return the revision of each of some plans, by id."""
    p = models.Plan
    rows = session.execute(select(p.id, p.revision).where(p.id.in_(plan_ids)))
    return {row.id: row.revision for row in rows}


def client_of(session: Session, plan_id: int) -> int:
    """Return the id of a plan's client.

    Raises
    ------
    NotFoundError
        Where there is no such plan.
    """
    found = session.scalar(select(models.Plan.client_id).where(models.Plan.id == plan_id))
    if found is None:
        raise NotFoundError(f"There is no plan {plan_id}.", "plan")
    return found


def client_name_of(session: Session, plan_id: int) -> str:
    """Return the name of a plan's client; errors as `client_of`."""
    c = models.Client
    named = select(c.name).where(c.id == client_of(session, plan_id))
    return session.scalars(named).one()


def plans_of_client(session: Session, client_id: int) -> list[int]:
    """Return the ids of a client's plans that are not deleted, rising."""
    p = models.Plan
    mine = select(p.id).where(p.client_id == client_id, p.deleted_at.is_(None))
    return list(session.scalars(mine.order_by(p.id)))


def add_client(session: Session, name: str) -> int:
    """Make a client and return its id."""
    client = models.Client(name=checked_name(name), created_at=now())
    session.add(client)
    session.flush()
    return client.id


def checked_name(name: str) -> str:
    """Return a plan's or client's name without needless spaces.

    Raises
    ------
    BadValueError
        Where it is empty or too long.
    """
    bare = " ".join(name.split())
    if not 1 <= len(bare) <= 120:
        raise BadValueError("name", "a name of 1 to 120 characters", name)
    return bare
