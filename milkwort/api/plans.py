"""The list of plans, and what belongs to a plan as a whole."""

from __future__ import annotations

from dataclasses import asdict
from typing import Annotated

from fastapi import APIRouter, File, Response, UploadFile
from fastapi.responses import StreamingResponse

from milkwort.api.frame_schemas import Ranges
from milkwort.api.schemas import (
    ChangeAnswer,
    FigureName,
    NewPlan,
    PlanAnswer,
    PlanId,
    PlanItem,
    PlanName,
    shape_of,
)
from milkwort.api.shared import Window, Work, sent
from milkwort.api.transfer import add_document, add_sample
from milkwort.api.workings_schemas import Workings
from milkwort.core.purse_workings import purse_workings
from milkwort.core.workings import Section
from milkwort.formats.plan_json import read_plan_json
from milkwort.formats.text_table import MAX_BYTES
from milkwort.store.journal import Change, redo, undo
from milkwort.store.keywords import copy_keywords
from milkwort.store.negatives import add_negatives
from milkwort.store.plans import (
    BRIEF_FIELDS,
    add_plan,
    copy_plan,
    list_plans,
    load_plan,
    remove_plan,
    rename_plan,
)
from milkwort.store.sheet import load_sheet
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
    """List the plans."""
    with work.database.begin() as session:
        return [PlanItem(**asdict(line)) for line in list_plans(session)]


@router.post("/plans", status_code=201)
def new_plan(body: NewPlan, work: Work) -> PlanId:
    """Make a plan, blank or from the sample."""
    with work.database.begin() as session:
        if body.start in _SAMPLES:
            return PlanId(id=add_sample(session, body.name, _SAMPLES[body.start]))
        if body.start in TEMPLATES:  # a template's figures are assumed until somebody enters them
            values = TEMPLATES[body.start]
            return PlanId(id=add_plan(session, body.name, values, unsaid=BRIEF_FIELDS))
        return PlanId(id=add_plan(session, body.name))


@router.post("/plans/load", status_code=201)
def load(file: Annotated[UploadFile, File()], work: Work) -> PlanId:
    """Make a plan from a plan's JSON."""
    document = read_plan_json(file.file.read(MAX_BYTES + 1))
    with work.database.begin() as session:
        return PlanId(id=add_document(session, document))


@router.post("/plans/{plan_id}/copy", status_code=201)
def copy(plan_id: int, body: PlanName, work: Work) -> PlanId:
    """Copy a plan with its sheet."""
    with work.database.begin() as session:
        source = load_plan(session, plan_id)
        sheet = load_sheet(session, plan_id, source.brief)
        made = copy_plan(session, plan_id, body.name)
        change = Change(session, made, "copy")
        copy_keywords(change, sheet)
        add_negatives(change, source.brief.negatives, "file")
        return PlanId(id=made)


@router.get("/plans/{plan_id}", responses=shape_of(PlanAnswer))
def plan(plan_id: int, work: Work) -> Response:
    """Open a plan."""
    return sent(work.sheet(plan_id))


@router.patch("/plans/{plan_id}", responses=shape_of(ChangeAnswer))
def rename(plan_id: int, body: PlanName, work: Work, window: Window = "") -> Response:
    """Rename a plan."""
    return sent(
        work.change(
            plan_id,
            "rename the plan",
            lambda change: rename_plan(change, body.name),
            window=window,
            sheet_after=lambda sheet: sheet,
        )
    )


@router.delete("/plans/{plan_id}", status_code=204)
def delete(plan_id: int, work: Work) -> None:
    """Delete a plan; undo brings it back."""
    with work.database.begin() as session:
        load_plan(session, plan_id)
        change = Change(session, plan_id, "delete the plan")
        remove_plan(change)
        change.finish()
    work.forget(plan_id)


@router.post("/plans/{plan_id}/restore", status_code=204)
def restore(plan_id: int, work: Work) -> None:
    """Take the deletion of a plan back."""
    with work.database.begin() as session:
        undo(session, plan_id)
    work.forget(plan_id)


@router.post("/plans/{plan_id}/undo", responses=shape_of(ChangeAnswer))
def undo_last(plan_id: int, work: Work, window: Window = "") -> Response:
    """Take the last change back."""
    return sent(work.transact(plan_id, lambda s: "undid: " + undo(s, plan_id), window=window))


@router.post("/plans/{plan_id}/redo", responses=shape_of(ChangeAnswer))
def redo_next(plan_id: int, work: Work, window: Window = "") -> Response:
    """Do the last undone change again."""
    return sent(work.transact(plan_id, lambda s: "redid: " + redo(s, plan_id), window=window))


@router.get("/plans/{plan_id}/workings/{figure}", responses=shape_of(Workings))
def workings(plan_id: int, figure: FigureName, work: Work) -> Response:
    """Return the arithmetic of one figure of the purse."""
    loaded = work.plan(plan_id)
    sections = purse_workings(loaded.result, figure)
    return sent(workings_answer(loaded.record.revision, _TITLES[figure], "", [], sections))


@router.get("/plans/{plan_id}/ranges", responses=shape_of(Ranges))
def ranges(plan_id: int, work: Work) -> Response:
    """Draw the month and return how wide its forecast is."""
    return sent(work.ranges(plan_id))


@router.get("/plans/{plan_id}/events")
async def events(plan_id: int, work: Work) -> StreamingResponse:
    """Stream what happens to a plan, as server-sent events."""
    return StreamingResponse(
        work.events.listen(plan_id),
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
