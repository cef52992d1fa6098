"""The account's file that a plan is written back into: the one brought in last."""

from __future__ import annotations

from collections.abc import Mapping

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from milkwort.store.journal import now
from milkwort.store.models import AccountSheet

__all__ = ["account_sheet", "keep_account_sheet"]


def keep_account_sheet(
    session: Session, plan_id: int, name: str, content: bytes, columns: Mapping[str, int]
) -> None:
    """Keep a file in place of the one of before."""
    session.execute(delete(AccountSheet).where(AccountSheet.plan_id == plan_id))
    session.add(AccountSheet(
        plan_id=plan_id, name=name, at=now(), columns=dict(columns), content=content
    ))  # fmt: skip
    session.flush()


def account_sheet(session: Session, plan_id: int) -> AccountSheet | None:
    """Return the file of a plan; None where none was brought in."""
    mine = select(AccountSheet).where(AccountSheet.plan_id == plan_id)
    return session.scalars(mine.order_by(AccountSheet.id.desc()).limit(1)).one_or_none()
