"""The Fit stage."""

from __future__ import annotations

from fastapi import APIRouter, Response

from milkwort.api.fit.schemas import BidChange, FitView
from milkwort.api.fit.view import fit_view
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.core.counted import counted
from milkwort.store.keywords import lock_bids

router = APIRouter(tags=["fit"])


@router.get("/plans/{plan_id}/fit", responses=shape_of(FitView))
def view(plan_id: int, work: Work) -> Response:
    """Return the ladder of pounds and what stands beside it."""
    loaded = work.plan(plan_id)
    return sent(fit_view(loaded.result, loaded.sheet, loaded.record.revision))


@router.post("/plans/{plan_id}/bids", responses=shape_of(ChangeAnswer))
def lock(plan_id: int, body: BidChange, work: Work, window: Window = "") -> Response:
    """Set bids by hand, or give keywords back to the policy."""

    def decide(plan: OpenPlan) -> Decision:
        rows = plan.sheet.rows_of(body.ids)
        many = counted(len(rows), "keyword")
        label = f"lock the bid of {many}"
        if body.bid is None:
            label = f"give {many} back to the policy"
        return Decision(label, lambda c: lock_bids(c, dict.fromkeys(body.ids, body.bid)))

    return sent(work.change(plan_id, decide, window=window))
