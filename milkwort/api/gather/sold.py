"""What a client's past lists say of search terms: what has sold, and what never did."""

from __future__ import annotations

from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.workspace import Workspace
from milkwort.store.past_lists import PastList, load_past

__all__ = ["past_terms", "sold_terms", "unsold_terms"]


def past_terms(work: Workspace, plan: OpenPlan) -> list[str]:
    """Return all search terms of the past."""
    past = _past(work, plan)
    return [row.text for row in (past.rows if past else ())]


def sold_terms(work: Workspace, plan: OpenPlan) -> list[str]:
    """Return the search terms of the past that brought customers."""
    past = _past(work, plan)
    return [row.text for row in (past.rows if past else ()) if row.customers]


def unsold_terms(work: Workspace, plan: OpenPlan) -> dict[str, float]:
    """Return the terms that never sold and do not stand in the sheet, with money a month."""
    past = _past(work, plan)
    if past is None:
        return {}
    month = plan.record.brief.assumed["month_days"] / past.days
    there = set(plan.sheet.table.texts)
    return {
        row.text: (row.cost or 0.0) * month
        for row in past.rows
        if not row.customers and row.normalised not in there
    }


def _past(work: Workspace, plan: OpenPlan) -> PastList | None:
    with work.database.read() as session:
        return load_past(session, plan.record.client_id, "terms")
