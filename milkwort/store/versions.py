"""Versions of a plan: copies with a name and a reason, one of which is the plan."""

from __future__ import annotations

from dataclasses import dataclass, replace

from sqlalchemy import func, or_, select
from sqlalchemy.orm import Session

from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store import models
from milkwort.store.journal import Change
from milkwort.store.plan_state import read_plan_state, write_plan_state

__all__ = [
    "Version", "add_version", "as_version", "choose_version", "family_of", "name_version",
    "root_of",
]  # fmt: skip

_LONGEST_LABEL = 120
_LONGEST_REASON = 4000


@dataclass(frozen=True)
class Version:
    """One version as it stands beside the others.

    Attributes
    ----------
    id : int
        Of the plan that it is.
    label, reason : str
        What it is called and why it was made; empty for the one all others come from.
    is_first : bool
        Whether it is the one all others come from.
    is_plan : bool
        Whether it is the one that counts.
    closed : bool
        Whether its month is over and another goes on from it.
    created_at, start_date : str
    revision : int
    """

    id: int
    label: str
    reason: str
    is_first: bool
    is_plan: bool
    closed: bool
    created_at: str
    start_date: str
    revision: int


def family_of(session: Session, plan_id: int) -> list[Version]:
    """Return all versions that a plan stands among, the first one first; deleted ones are not.

    Raises
    ------
    NotFoundError
        Where there is no such plan.
    """
    p = models.Plan
    root = root_of(session, plan_id)
    columns = p.__table__.columns
    rows = session.execute(
        select(
            p.id,
            p.label,
            p.reason,
            p.created_at,
            columns.start_date,
            p.revision,
            p.chosen,
            p.closed_as,
        )
        .where(or_(p.id == root, p.version_of == root), p.deleted_at.is_(None))
        .order_by(p.id)
    ).all()
    # the one chosen last is the plan; before anything was chosen, the first
    chosen = max(rows, key=lambda row: (row.chosen, -row.id)).id if rows else None
    return [
        Version(row.id, row.label, row.reason, row.id == root, row.id == chosen,
                row.closed_as is not None,
                row.created_at, row.start_date, row.revision)
        for row in rows
    ]  # fmt: skip


def add_version(session: Session, plan_id: int, label: str = "", reason: str = "") -> int:
    """Copy a plan as a version of it, with all that belongs to it, and return its id.

    Parameters
    ----------
    session : Session
    plan_id : int
        The plan, or the version, that is copied.
    label : str
        Empty for the next number.
    reason : str

    Raises
    ------
    NotFoundError
        Where there is no such plan.
    BadValueError
        For a name that is too long or that another version has.
    """
    family = family_of(session, plan_id)
    if not any(one.id == plan_id for one in family):
        raise NotFoundError(f"Plan {plan_id} is deleted.", "plan")
    root = root_of(session, plan_id)
    said = {"label": _label(label, family) if label.strip() else _next_label(family),
            "reason": _reason(reason)}  # fmt: skip
    client_id = session.scalar(select(models.Plan.client_id).where(models.Plan.id == plan_id))
    assert client_id is not None
    state = read_plan_state(session, plan_id)
    state = replace(state, plan={**state.plan, **said})
    return write_plan_state(session, state, client_id=client_id, version_of=root)


def as_version(session: Session, made: int, of: int, label: str, reason: str) -> None:
    """Make a plan a version of another; its name gets a number where it is taken."""
    family = family_of(session, of)
    taken = {one.label.casefold() for one in family}
    free, number = label, 2
    while free.casefold() in taken:
        free, number = f"{label}, {number}", number + 1
    plan = session.get(models.Plan, made)
    assert plan is not None
    plan.version_of, plan.label, plan.reason = root_of(session, of), free, reason
    session.flush()


def name_version(change: Change, label: str | None, reason: str | None) -> None:
    """Call a version something else, or say another reason; None leaves one as it is.

    Raises
    ------
    BadValueError
        For a name that is empty, too long, or that another version has.
    """
    family = [v for v in family_of(change.session, change.plan_id) if v.id != change.plan_id]
    new = {}
    if label is not None:
        new["label"] = _label(label, family)
    if reason is not None:
        new["reason"] = _reason(reason)
    change.update(models.Plan, {change.plan_id: new})


def choose_version(change: Change) -> None:
    """Make a version the plan; taking that back gives the place to whichever had it before."""
    p = models.Plan
    root = root_of(change.session, change.plan_id)
    # deleted ones count: one that is brought back has the place it had
    last = change.session.scalar(
        select(func.max(p.chosen)).where(or_(p.id == root, p.version_of == root))
    )
    change.update(p, {change.plan_id: {"chosen": (last or 0) + 1}})


def root_of(session: Session, plan_id: int) -> int:
    """Return the plan that all versions of a plan come from; NotFoundError where none is."""
    row = session.execute(
        select(models.Plan.id, models.Plan.version_of).where(models.Plan.id == plan_id)
    ).one_or_none()
    if row is None:
        raise NotFoundError(f"There is no plan {plan_id}.", "plan")
    return int(row.version_of or row.id)


def _label(label: str, others: list[Version]) -> str:
    bare = " ".join(label.split())
    if not 1 <= len(bare) <= _LONGEST_LABEL:
        raise BadValueError("version", f"a name of 1 to {_LONGEST_LABEL} characters", label)
    if bare.casefold() in {one.label.casefold() for one in others}:
        raise BadValueError("version", "a name that no other version has", bare)
    return bare


def _next_label(family: list[Version]) -> str:
    taken = {one.label.casefold() for one in family}
    number = 2
    while f"version {number}" in taken:
        number += 1
    return f"Version {number}"


def _reason(reason: str) -> str:
    if len(reason) > _LONGEST_REASON:
        raise BadValueError("reason", f"at most {_LONGEST_REASON} characters", len(reason))
    return reason.strip()
