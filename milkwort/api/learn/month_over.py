"""A month that is over: closed, with the next one as a version, and opened again."""

from __future__ import annotations

from fastapi import APIRouter, Response
from sqlalchemy.orm import Session

from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Work, sent
from milkwort.api.learn.closing import (
    corrected_figures,
    next_month,
    stops_of,
    teach,
    term_work,
)
from milkwort.api.learn.known import known_of
from milkwort.api.learn.schemas import (
    Closed,
    CloseRequest,
    Reopened,
)
from milkwort.api.learn.view import undecided
from milkwort.core.errors import BadValueError
from milkwort.store.brief_changes import change_brief
from milkwort.store.closed import close_plan, closed_as, label_of, reopen_plan
from milkwort.store.journal import Change
from milkwort.store.keywords import set_calls
from milkwort.store.versions import add_version, family_of

router = APIRouter(tags=["learn"])


@router.post("/plans/{plan_id}/learn/close", status_code=201, responses=shape_of(Closed, 201))
def close(plan_id: int, body: CloseRequest, work: Work) -> Response:
    """Close the month: the next one as a version, with what was learnt; this one stays."""
    known_of(work, work.plan(plan_id))  # worked out before anything is held
    label = ""
    counts = {"corrected": 0, "stopped": 0, "blocked": 0, "added": 0}

    def write(session: Session) -> int:
        nonlocal label
        # the plan's own: a version has its rows in the same order, and counts other days
        known = known_of(work, work.plan(plan_id))
        learned = known.learned
        if learned is None:
            raise BadValueError("results", "results by keyword", "none")
        start = next_month(learned.last)
        label = _free(session, plan_id, body.label.strip() or f"{start:%B %Y}")
        reason = f"what {learned.first} to {learned.last} taught"
        made = add_version(session, plan_id, label, reason)
        version = work.try_to_open(session, made)
        change = Change(session, made, f"close {learned.last:%B %Y}")
        if body.terms:
            done = term_work(version, known, undecided(version, known), "suggested")
            done.do(change)
            counts["blocked"], counts["added"] = len(done.blocks), done.added
        if body.figures:
            counts["corrected"] = corrected_figures(version, known, change)
        if body.figures or body.ranges:
            teach(change, version, known, figures=body.figures, ranges=body.ranges)
        if body.stops:
            stops = stops_of(version, known)
            set_calls(change, stops, "drop", "results", "results")
            counts["stopped"] = len(stops)
        change_brief(change, {"start_date": start.isoformat()})
        change.finish()
        close_plan(session, plan_id, made)
        return made

    made = work.settle([plan_id], write)
    work.plan(made)
    answer = sent({"id": made, "label": label, **counts})
    answer.status_code = 201
    return answer


@router.post("/plans/{plan_id}/learn/reopen", responses=shape_of(Reopened))
def reopen(plan_id: int, work: Work) -> Response:
    """Open a closed month again; its next month goes while nothing was done in it."""
    with work.database.read() as session:
        made = closed_as(session, plan_id)
        label = label_of(session, made)
    if made is None:
        raise BadValueError("plan", "a month that is closed", "one that is open")
    removed = work.settle([plan_id, made], lambda session: reopen_plan(session, plan_id, made))
    work.memory.learnt.drop(made)  # the month before ran at other bids from now on
    return sent({"removed": removed, "id": made, "label": label or ""})


def _free(session: Session, plan_id: int, label: str) -> str:
    """Return a name that no version has, with a number where it is taken."""
    taken = {one.label.casefold() for one in family_of(session, plan_id)}
    free, number = label, 2
    while free.casefold() in taken:
        free, number = f"{label}, {number}", number + 1
    return free
