"""Practice accounts of plans, and what was sent to them."""

from __future__ import annotations

import zlib
from collections.abc import Mapping, Sequence
from typing import Any

import orjson
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from milkwort.core.errors import NotFoundError
from milkwort.core.handover.changed_rows import Row
from milkwort.store.journal import now
from milkwort.store.models import PracticeAccount, PracticeSending
from milkwort.store.versions import root_of

__all__ = [
    "add_practice", "add_sending", "finish_sending", "last_sending", "practice_of", "replies_of",
    "sending_of", "sendings_stand", "sheets_to_send",
]  # fmt: skip


def practice_of(session: Session, plan_id: int) -> PracticeAccount | None:
    """Return the practice account of a plan and its versions, the last opened; None for none."""
    return session.scalars(
        select(PracticeAccount)
        .where(PracticeAccount.plan_id == root_of(session, plan_id))
        .order_by(PracticeAccount.id.desc())
        .limit(1)
    ).one_or_none()


def add_practice(session: Session, plan_id: int, **values: Any) -> PracticeAccount:
    """Write down an account that was opened."""
    made = PracticeAccount(plan_id=root_of(session, plan_id), at=now(), **values)
    session.add(made)
    session.flush()
    return made


def add_sending(
    session: Session,
    practice_id: int,
    hand_over_id: int,
    once: str,
    sheets: Mapping[str, Sequence[Row]],
) -> PracticeSending:
    """Write down what is about to be sent, before any of it is."""
    made = PracticeSending(
        practice_id=practice_id, hand_over_id=hand_over_id, at=now(), once=once,
        state="under way", sheets=_packed(sheets),
    )  # fmt: skip
    session.add(made)
    session.flush()
    return made


def finish_sending(
    session: Session,
    sending_id: int,
    state: str,
    message: str,
    replies: Mapping[str, Sequence[Any]],
    differs: Sequence[Any] | None,
) -> None:
    """Write down how a sending ended."""
    found = session.get(PracticeSending, sending_id)
    assert found is not None
    found.state, found.message = state, message
    found.replies = _packed(replies)
    found.differs = None if differs is None else list(differs)


def last_sending(session: Session, practice_id: int) -> PracticeSending | None:
    """Return the newest sending to an account; None where nothing was sent."""
    return session.scalars(
        select(PracticeSending)
        .where(PracticeSending.practice_id == practice_id)
        .order_by(PracticeSending.id.desc())
        .limit(1)
    ).one_or_none()


def sendings_stand(session: Session) -> tuple[tuple[str, int, int], ...]:
    """Return how many sendings there are in each state, and the newest: what differs is news."""
    s = PracticeSending
    rows = session.execute(
        select(s.state, func.count(s.id), func.max(s.id)).group_by(s.state).order_by(s.state)
    )
    return tuple((row[0], row[1], row[2]) for row in rows)


def sending_of(session: Session, practice_id: int, sending_id: int) -> PracticeSending:
    """Return one sending to an account; NotFoundError where there is none."""
    found = session.get(PracticeSending, sending_id)
    if found is None or found.practice_id != practice_id:
        raise NotFoundError(f"There is no sending {sending_id} to this account.", "sending")
    return found


def sheets_to_send(sending: PracticeSending) -> dict[str, list[Row]]:
    """Return the rows of a sending by sheet."""
    found: dict[str, list[Row]] = orjson.loads(zlib.decompress(sending.sheets))
    return found


def replies_of(sending: PracticeSending) -> dict[str, list[Any]]:
    """Return the answers to a sending by sheet; empty where none came."""
    if sending.replies is None:
        return {}
    found: dict[str, list[Any]] = orjson.loads(zlib.decompress(sending.replies))
    return found


def _packed(value: Any) -> bytes:
    return zlib.compress(orjson.dumps(value), 6)
