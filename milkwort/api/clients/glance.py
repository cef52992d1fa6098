"""A plan at a glance: its month's money and customers, and how much waits."""

from __future__ import annotations

from datetime import date
from typing import Any

from milkwort.api.learn.around import around_of
from milkwort.api.learn.known import known_of
from milkwort.api.learn.view import learn_view
from milkwort.api.learn.word import range_of_customers
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.workspace import Workspace
from milkwort.core.handover.rhythm import reviews_of
from milkwort.core.learn.urgency import Waits, urgency_of

__all__ = ["glance_of"]

_NOTHING: dict[str, Any] = {
    "first": None, "last": None, "spent": 0.0, "out": None, "left": 0.0, "customers": 0.0,
    "low": None, "high": None, "month_over": False, "money": 0.0,
}  # fmt: skip


def glance_of(work: Workspace, plan_id: int) -> dict[str, Any]:
    """Return a plan at a glance, as it now stands."""
    plan = work.plan(plan_id)
    known = known_of(work, plan)
    with work.database.read() as session:
        around = around_of(session, plan)
    view = learn_view(plan, known, around)
    many = dict.fromkeys(("refused", "stop", "review", "block", "own_keyword", "close"), 0)
    for one in view["waiting"]:
        if one["kind"] in many:
            many[one["kind"]] += 1
    found = _NOTHING | {"purse": plan.record.brief.monthly_spend}
    month = view["month"]
    if month is not None:
        pace, given = month["pace"], range_of_customers(work, plan, known)
        found |= {
            "first": month["first"], "last": month["last"], "spent": pace["spent"],
            "purse": pace["purse"], "left": pace["left"],
            "out": None if pace["out"] is None else pace["out"].isoformat(),
            "customers": given[0], "low": given[1], "high": given[2],
        }  # fmt: skip
    waits = Waits(
        money_out=found["out"] is not None and found["out"] < (month or {}).get("end", ""),
        refused=many["refused"], stops=many["stop"], reviews=many["review"],
        terms=many["block"] + many["own_keyword"],
    )  # fmt: skip
    return found | {
        "plan_id": plan_id, "revision": plan.record.revision, "refused": waits.refused,
        "stops": waits.stops, "reviews": waits.reviews, "terms": waits.terms,
        "month_over": bool(many["close"]), "money": sum(one["money"] for one in view["waiting"]),
        "next_review": _next_review(plan), "urgency": int(urgency_of(waits)),
    }  # fmt: skip


def _next_review(plan: OpenPlan) -> str | None:
    """Return the day of the next look; None where nothing was handed over, or none is left."""
    if not plan.handed_over:
        return None
    first = date.fromisoformat(str(plan.record.values["start_date"]))
    last = plan.record.values["last_day"]
    reviews = reviews_of(first, date.fromisoformat(last) if last else None)
    days = [one.at.date() for one in reviews if one.at.date() >= date.today()]
    return min(days).isoformat() if days else None
