"""What has sold before, as far as a client's past lists say."""

from __future__ import annotations

from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.workspace import Workspace
from milkwort.store.past_lists import load_past

__all__ = ["sold_terms"]


def sold_terms(work: Workspace, plan: OpenPlan) -> list[str]:
    """Return the search terms of the past that brought customers."""
    with work.database.read() as session:
        past = load_past(session, plan.record.client_id, "terms")
    return [row.text for row in (past.rows if past else ()) if row.customers]
