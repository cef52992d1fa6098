"""Frozen copies of what was sent."""

from __future__ import annotations

import hashlib

from sqlalchemy import func, select
from sqlalchemy.orm import Session, defer

from milkwort.core.errors import NotFoundError
from milkwort.store.journal import now
from milkwort.store.models import HandOver

__all__ = ["count_hand_overs", "freeze", "list_hand_overs", "thaw"]


def freeze(
    session: Session,
    plan_id: int,
    *,
    kind: str,
    filename: str,
    revision: int,
    rows: int,
    content: bytes,
) -> HandOver:
    """Keep a copy of a file that is handed over; it is never changed or undone."""
    copy = HandOver(
        plan_id=plan_id,
        kind=kind,
        filename=filename,
        at=now(),
        revision=revision,
        rows=rows,
        sha256=hashlib.sha256(content).hexdigest(),
        content=content,
    )
    session.add(copy)
    session.flush()
    return copy


def list_hand_overs(session: Session, plan_id: int) -> list[HandOver]:
    """Return a plan's hand-overs, the newest first."""
    return list(
        session.scalars(
            select(HandOver)
            .options(defer(HandOver.content))
            .where(HandOver.plan_id == plan_id)
            .order_by(HandOver.id.desc())
        )
    )


def count_hand_overs(session: Session, plan_id: int) -> int:
    """Return how many hand-overs a plan has."""
    count = select(func.count(HandOver.id)).where(HandOver.plan_id == plan_id)
    return session.scalar(count) or 0


def thaw(session: Session, plan_id: int, hand_over_id: int) -> HandOver:
    """Return one hand-over.

    Raises
    ------
    NotFoundError
        Where the plan has no such hand-over.
    """
    copy = session.get(HandOver, hand_over_id)
    if copy is None or copy.plan_id != plan_id:
        raise NotFoundError(f"There is no hand-over {hand_over_id} in this plan.", "hand-over")
    return copy
