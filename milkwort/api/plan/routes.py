"""The list of plans, and what belongs to a plan as a whole."""

from __future__ import annotations

from dataclasses import asdict, replace
from typing import Annotated, Any

from fastapi import APIRouter, File, Response, UploadFile
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import StreamingResponse

from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, download_of, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.from_file import add_document
from milkwort.api.plan.samples import add_sample
from milkwort.api.plan.schemas import (
    ChangeAnswer,
    DeletedPlan,
    FigureName,
    NewPlan,
    PlanAnswer,
    PlanId,
    PlanItem,
    PlanLoaded,
    PlanName,
)
from milkwort.api.plan.summary_schemas import Ranges
from milkwort.api.plan.to_file import raw_plan
from milkwort.api.sift.workings_schemas import Workings
from milkwort.core.errors import NotFoundError
from milkwort.core.workings.keyword import Section
from milkwort.core.workings.purse import purse_workings
from milkwort.formats.plan_json import read_plan_json
from milkwort.formats.text_table import MAX_BYTES
from milkwort.store.briefs import BRIEF_FIELDS
from milkwort.store.models import Client
from milkwort.store.plan_list import checked_name, client_of, deleted_plans, list_plans
from milkwort.store.plan_state import read_plan_state, write_plan_state
from milkwort.store.plans import (
    add_plan,
    load_plan,
    rename_plan,
)
from milkwort.store.templates import TEMPLATES

router = APIRouter(tags=["plans"])

_SAMPLES = {"sample": "eastmere", "second_sample": "brackish"}
_TITLES = {
    "spend": "Spend a month", "clicks": "Clicks a month", "customers": "Customers a month",
    "cost_per_customer": "Cost per customer", "profit": "Profit a month",
    "next_unit": "The next unit of money",
}  # fmt: skip


@router.get("/plans")
def plans(work: Work) -> list[PlanItem]:
    """List the plans, client by client."""
    with work.database.read() as session:
        return [PlanItem(**asdict(line)) for line in list_plans(session)]


@router.get("/plans/deleted")
def deleted(work: Work) -> list[DeletedPlan]:
    """List plans that were deleted, the one deleted last first; each can be brought back."""
    with work.database.read() as session:
        return [DeletedPlan(**asdict(line)) for line in deleted_plans(session)]


@router.post("/plans", status_code=201)
def new_plan(body: NewPlan, work: Work) -> PlanId:
    """Make a plan, blank or from the sample, for a client or for a new one of its name."""
    with work.database.begin() as session:
        made: dict[str, Any] = {"client_id": body.client_id}
        if body.start in _SAMPLES:
            return PlanId(id=add_sample(session, body.name, _SAMPLES[body.start], **made))
        if body.start in TEMPLATES:  # a template's figures are assumed until somebody enters them
            values = TEMPLATES[body.start]
            return PlanId(id=add_plan(session, body.name, values, not_entered=BRIEF_FIELDS, **made))
        return PlanId(id=add_plan(session, body.name, **made))


@router.post("/plans/load", status_code=201)
def load(
    file: Annotated[UploadFile, File()], work: Work, client_id: int | None = None
) -> PlanLoaded:
    """Make a plan from a plan's JSON, for a client or for a new one as the file has it."""
    document = read_plan_json(file.file.read(MAX_BYTES + 1))
    with work.database.begin() as session:
        if client_id is not None and session.get(Client, client_id) is None:
            raise NotFoundError(f"There is no client {client_id}.", "client")
        made, notices = add_document(session, document, client_id)
        work.try_to_open(session, made)
        return PlanLoaded(id=made, notices=notices)


@router.post("/plans/{plan_id}/copy", status_code=201)
def copy(plan_id: int, body: PlanName, work: Work) -> PlanId:
    """Copy a plan with all that belongs to it, for the same client."""
    name = checked_name(body.name)
    with work.at_rest(plan_id) as session:
        load_plan(session, plan_id)
        client_id = client_of(session, plan_id)
        state = read_plan_state(session, plan_id)
    # a copy is a plan of its own, not a version
    named = replace(state, plan={**state.plan, "name": name, "label": "", "reason": ""})
    with work.database.begin() as session:
        return PlanId(id=write_plan_state(session, named, client_id=client_id))


@router.get("/plans/{plan_id}", responses=shape_of(PlanAnswer))
def plan(plan_id: int, work: Work) -> Response:
    """Open a plan."""
    return sent(work.sheet(plan_id))


@router.patch("/plans/{plan_id}", responses=shape_of(ChangeAnswer))
def rename(plan_id: int, body: PlanName, work: Work, window: Window = "") -> Response:
    """Rename a plan."""
    made = Decision("rename the plan", lambda change: rename_plan(change, body.name))
    return sent(work.change(plan_id, lambda _: made, window=window))


@router.delete("/plans/{plan_id}", status_code=204)
def delete(plan_id: int, work: Work, window: Window = "") -> None:
    """Delete a plan, also one that can't be read; restoring brings it back."""
    work.put_away(plan_id, window)


@router.post("/plans/{plan_id}/restore", status_code=204)
def restore(plan_id: int, work: Work, window: Window = "") -> None:
    """Bring back a plan that was deleted."""
    work.bring_back(plan_id, window)


@router.get(
    "/plans/{plan_id}/raw.json",
    response_class=Response,
    responses=download_of("application/json"),
)
def raw(plan_id: int, work: Work) -> Response:
    """Return a plan's rows as they are stored, also of one that can't be read."""
    with work.at_rest(plan_id) as session:
        content = raw_plan(session, plan_id)
    headers = {"Content-Disposition": f'attachment; filename="plan-{plan_id}-rows.json"'}
    return Response(content, media_type="application/json", headers=headers)


@router.post("/plans/{plan_id}/undo", responses=shape_of(ChangeAnswer))
def undo_last(plan_id: int, work: Work, window: Window = "") -> Response:
    """Take the last change back."""
    return sent(work.undo(plan_id, window=window))


@router.post("/plans/{plan_id}/redo", responses=shape_of(ChangeAnswer))
def redo_next(plan_id: int, work: Work, window: Window = "") -> Response:
    """Do the last undone change again."""
    return sent(work.redo(plan_id, window=window))


@router.get("/plans/{plan_id}/workings/{figure}", responses=shape_of(Workings))
def workings(plan_id: int, figure: FigureName, work: Work) -> Response:
    """Return the arithmetic of one figure of the purse."""
    loaded = work.plan(plan_id)
    sections = purse_workings(loaded.result, figure)
    return sent(workings_answer(loaded.record.revision, _TITLES[figure], "", [], sections))


@router.get("/plans/{plan_id}/ranges", responses=shape_of(Ranges, or_none=True))
def ranges(plan_id: int, work: Work) -> Response:
    """Draw the month and return how wide its forecast is; null where the plan changed meanwhile."""
    return sent(work.ranges(plan_id))


@router.get(
    "/plans/{plan_id}/events",
    response_class=StreamingResponse,
    responses={200: {"content": {"text/event-stream": {"schema": {"type": "string"}}}}},
)
async def events(plan_id: int, work: Work) -> StreamingResponse:
    """Stream what happens to a plan, as server-sent events."""
    await run_in_threadpool(work.plan, plan_id)
    return StreamingResponse(
        # a window that kept what it knew of the plan while it showed another learns what it missed
        work.events.listen(plan_id, lambda: {"stands": work.plan(plan_id).record.revision}),
        media_type="text/event-stream",
        headers={"Cache-Control": "no-store"},
    )


def workings_answer(
    revision: int, title: str, about: str, notes: list[str], sections: list[Section]
) -> dict[str, object]:
    """Return workings in the shape the client reads."""
    return {
        "revision": revision, "title": title, "about": about, "notes": notes,
        "sections": [asdict(section) for section in sections],
    }  # fmt: skip
