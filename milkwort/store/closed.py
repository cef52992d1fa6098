"""Months that are closed: the plan stays as it was, and its next month goes on from it."""

from __future__ import annotations

from sqlalchemy import func, or_, select, update
from sqlalchemy.orm import Session

from milkwort.core.errors import BadValueError, ClosedError
from milkwort.store.hand_overs import count_hand_overs
from milkwort.store.journal import Change
from milkwort.store.models import Journal, Plan
from milkwort.store.plans import remove_plan
from milkwort.store.versions import root_of

__all__ = ["close_plan", "closed_as", "closed_before", "label_of", "reopen_plan"]


def closed_as(session: Session, plan_id: int) -> int | None:
    """Return the version that goes on from a closed plan; None for one that isn't closed."""
    return session.scalar(select(Plan.closed_as).where(Plan.id == plan_id))


def closed_before(session: Session, plan_id: int, day: str) -> list[int]:
    """Return the closed months of a plan's family that began before a day, the last first."""
    root = root_of(session, plan_id)
    start = Plan.__table__.columns.start_date
    of_family = or_(Plan.id == root, Plan.version_of == root)
    mine = select(Plan.id).where(of_family, Plan.id != plan_id, Plan.closed_as.is_not(None),
                                 Plan.deleted_at.is_(None), start < day)  # fmt: skip
    return list(session.scalars(mine.order_by(start.desc(), Plan.id.desc())))


def close_plan(session: Session, plan_id: int, made: int) -> None:
    """Close a plan's month; `made` goes on from it, and is the plan from now on.

    Raises
    ------
    ClosedError
        Where it is closed already.
    """
    if closed_as(session, plan_id) is not None:
        raise ClosedError("This month is closed already: its next month stands beside it.", "plan")
    session.execute(update(Plan).where(Plan.id == plan_id).values(closed_as=made))
    _choose(session, made)


def reopen_plan(session: Session, plan_id: int, made: int) -> bool:
    """Open a closed month again, and say whether its next month went away.

    It goes while nothing was done in it since; else it stays as a version. Either way this one
    is the plan again.

    Raises
    ------
    BadValueError
        Where the plan is not closed as that.
    """
    if closed_as(session, plan_id) != made:
        raise BadValueError("plan", "a month that is closed", "one that is open, or closed anew")
    session.execute(update(Plan).where(Plan.id == plan_id).values(closed_as=None))
    if not _untouched(session, made):
        _choose(session, plan_id)
        return False
    change = Change(session, made, "take the closing of the month before back")
    remove_plan(change)
    change.finish()
    return True


def _choose(session: Session, plan_id: int) -> None:
    """Make a version the plan of its family."""
    root = root_of(session, plan_id)
    last = session.scalar(
        select(func.max(Plan.chosen)).where(or_(Plan.id == root, Plan.version_of == root))
    )
    session.execute(update(Plan).where(Plan.id == plan_id).values(chosen=(last or 0) + 1))


def _untouched(session: Session, plan_id: int) -> bool:
    """Say whether nothing was done in a plan since a month was closed as it."""
    plan = session.get(Plan, plan_id)
    if plan is None or plan.deleted_at is not None or plan.closed_as is not None:
        return False
    mine = Journal.plan_id == plan_id
    steps = session.scalar(select(func.count()).select_from(Journal).where(mine)) or 0
    undone = session.scalar(select(func.count()).select_from(Journal).where(mine, Journal.undone))
    return steps <= 1 and not undone and not count_hand_overs(session, plan_id)


def label_of(session: Session, plan_id: int | None) -> str | None:
    """Return what a version is called; None where there is none, or it is deleted."""
    plan = None if plan_id is None else session.get(Plan, plan_id)
    return None if plan is None or plan.deleted_at is not None else plan.label
