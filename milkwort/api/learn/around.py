"""What Learn shows beside results: refused rows, looks that are due, what was set aside."""

from __future__ import annotations

from datetime import date

from sqlalchemy.orm import Session

from milkwort.api.learn.view import Around
from milkwort.api.learn.waiting import refused_asked, reviews_asked
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.gather.rivals import rivals_moved
from milkwort.store.closed import label_of
from milkwort.store.practice import last_sending, practice_of, replies_of
from milkwort.store.rival_lists import load_rival_lists
from milkwort.store.set_aside import aside_of

__all__ = ["around_of"]


def around_of(session: Session, plan: OpenPlan) -> Around:
    """Return what stands around a plan's results."""
    practice = practice_of(session, plan.record.id)
    last = None if practice is None else last_sending(session, practice.id)
    refused = [] if last is None else refused_asked(last.id, replies_of(last))
    return Around(
        has_practice=practice is not None,
        aside=aside_of(session, plan.record.id),
        next_label=label_of(session, plan.record.closed_as),
        also=[*refused, *reviews_asked(plan, date.today())],
        rivals=_rivals(session, plan.record.client_id),
    )


def _rivals(session: Session, client_id: int) -> dict[str, tuple[tuple[str, ...], tuple[str, ...]]]:
    """Return who came and who is gone by keyword, between the two newest lists of rivals."""
    lists = load_rival_lists(session, client_id)
    return rivals_moved(lists[-2].rows, lists[-1].rows) if len(lists) > 1 else {}
