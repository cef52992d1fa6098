"""A plan and those beside it: the plans of its client, which share what is the client's."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import contextmanager

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.api.plan.locks import Locks
from milkwort.store.database import Database
from milkwort.store.journal import OF_CLIENT, Touched, raise_revision
from milkwort.store.models import Plan
from milkwort.store.plan_list import client_of, plans_of_client

__all__ = ["held", "raise_others", "revisions", "shares"]


@contextmanager
def held(
    database: Database, locks: Locks, plan_id: int, *, of_client: bool
) -> Iterator[Sequence[int]]:
    """Hold a plan, or all plans of its client; yield those that are held beside it."""
    if not of_client:
        with locks.plan(plan_id):
            yield ()
        return
    with database.read() as session:
        client = client_of(session, plan_id)
    with locks.client(client):
        with database.read() as session:
            family = plans_of_client(session, client)
        with locks.plans({*family, plan_id}):
            yield [other for other in family if other != plan_id]


def shares(touched: Touched) -> bool:
    """Return whether a change wrote to what all plans of a client share."""
    return bool(touched.tables & OF_CLIENT)


def raise_others(session: Session, touched: Touched, others: Sequence[int]) -> None:
    """Give the other plans of a client a new revision where what they share was written."""
    if shares(touched):
        for other in others:
            raise_revision(session, other)


def revisions(database: Database, plan_ids: Sequence[int]) -> list[tuple[int, int]]:
    """Return each plan with the revision it stands at."""
    if not plan_ids:
        return []
    with database.read() as session:
        mine = select(Plan.id, Plan.revision).where(Plan.id.in_(plan_ids))
        return [(row.id, row.revision) for row in session.execute(mine)]
