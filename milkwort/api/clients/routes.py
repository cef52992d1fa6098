"""All clients: every plan that counts in a line, and a glance at each."""

from __future__ import annotations

from datetime import date
from typing import Any

from fastapi import APIRouter, Response

from milkwort.api.clients.glance import glance_of
from milkwort.api.clients.schemas import ClientLine, Glance
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Work, sent
from milkwort.store.hand_overs import hand_over_counts
from milkwort.store.plan_list import list_plans, revisions_of
from milkwort.store.practice import sendings_stand
from milkwort.store.results import imports_in_force

router = APIRouter(tags=["clients"])


@router.get("/clients")
def clients(work: Work) -> list[ClientLine]:
    """Return every plan that counts, with a glance at it where that is known already."""
    with work.database.read() as session:
        plans = [plan for plan in list_plans(session) if plan.is_plan]
        handed = hand_over_counts(session)
        keys = _keys(session, [(plan.id, plan.client_id) for plan in plans])
    lines = []
    for plan in plans:
        key, known = work.memory.glances.get(plan.id) or (None, {})
        lines.append(ClientLine(
            plan_id=plan.id, client=plan.client, name=plan.name, label=plan.label,
            currency=plan.currency, monthly_spend=plan.monthly_spend, keywords=plan.keywords,
            handed_over=handed.get(plan.id, 0),
            glance=Glance(**known) if key == keys[plan.id] else None,
        ))  # fmt: skip
    return lines


@router.get("/plans/{plan_id}/glance", responses=shape_of(Glance))
def glance(plan_id: int, work: Work) -> Response:
    """Return a plan at a glance."""
    plan = work.plan(plan_id)
    with work.database.read() as session:
        key = _keys(session, [(plan_id, plan.record.client_id)])[plan_id]
    held = work.memory.glances.get(plan_id)
    if held is not None and held[0] == key:
        return sent(held[1])
    made = glance_of(work, plan_id)
    if made["revision"] == key[0]:
        work.memory.glances.keep(plan_id, (key, made))
    return sent(made)


def _keys(session: Any, plans: list[tuple[int, int]]) -> dict[int, tuple[Any, ...]]:
    """Return what a glance at each plan hangs on: its revision, its results, the day …"""
    revisions = revisions_of(session, [plan for plan, _ in plans])
    results, sendings = imports_in_force(session), sendings_stand(session)
    handed = hand_over_counts(session)
    return {plan: (revisions[plan], results.get(client, ()), date.today(), sendings,
                   handed.get(plan, 0)) for plan, client in plans}  # fmt: skip
