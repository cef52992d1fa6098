"""The picture in a plan's letter-head: its kind, a colon, base64."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.store.journal import Change
from milkwort.store.models import Plan

__all__ = ["put_logo", "report_logo"]


def put_logo(change: Change, said: str | None) -> None:
    """Set the picture; None takes it away."""
    change.update(Plan, {change.plan_id: {"report_logo": said}})


def report_logo(session: Session, plan_id: int) -> str | None:
    """Return the picture of a plan; None where there is none."""
    return session.scalar(select(Plan.report_logo).where(Plan.id == plan_id))
