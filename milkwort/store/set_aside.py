"""Suggestions of the results that nobody wants to follow: kept, so that none is asked twice."""

from __future__ import annotations

from collections.abc import Collection, Mapping

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.store.journal import Change
from milkwort.store.models import SetAside

__all__ = ["Aside", "aside_of", "bring_back", "set_aside"]

Aside = tuple[str, str]
"""What a suggestion is about: ``term`` and its normalised text, or ``keyword`` and its key."""


def aside_of(session: Session, plan_id: int) -> dict[Aside, tuple[str, str | None]]:
    """Return what was set aside: the suggestion, and until results of after which day."""
    rows = session.execute(
        select(SetAside.kind, SetAside.key, SetAside.suggestion, SetAside.as_of)
        .where(SetAside.plan_id == plan_id)
        .order_by(SetAside.id)
    )
    return {(row.kind, row.key): (row.suggestion, row.as_of) for row in rows}


def set_aside(change: Change, some: Mapping[Aside, str], as_of: str | None) -> None:
    """Set suggestions aside: for good, or until results come of after a day.

    Parameters
    ----------
    change : Change
    some : mapping of (str, str) to str
        The suggestion, by what it is about.
    as_of : str or None
    """
    bring_back(change, some)
    change.insert(SetAside, [
        {"plan_id": change.plan_id, "kind": kind, "key": key, "suggestion": said, "as_of": as_of}
        for (kind, key), said in some.items()
    ])  # fmt: skip


def bring_back(change: Change, some: Collection[Aside]) -> None:
    """Let suggestions be asked about again."""
    wanted = set(some)
    rows = change.session.execute(
        select(SetAside.id, SetAside.kind, SetAside.key).where(SetAside.plan_id == change.plan_id)
    )
    found = [row.id for row in rows if (row.kind, row.key) in wanted]
    if found:
        change.delete(SetAside, found)
