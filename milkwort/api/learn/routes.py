"""What the results in force teach about a plan: the view, our word so far, the months."""

from __future__ import annotations

from fastapi import APIRouter, Response

from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Work, sent
from milkwort.api.learn.around import around_of
from milkwort.api.learn.history import history_of
from milkwort.api.learn.in_force import results_in_force
from milkwort.api.learn.known import known_of
from milkwort.api.learn.month_schemas import History, OurWord
from milkwort.api.learn.noticed import said_of_all
from milkwort.api.learn.schemas import LearnView
from milkwort.api.learn.view import learn_view
from milkwort.api.learn.word import so_far_item, word_item, words_of_plan

router = APIRouter(tags=["learn"])


@router.get("/plans/{plan_id}/learn", responses=shape_of(LearnView))
def view(plan_id: int, work: Work) -> Response:
    """Return what the results in force teach about a plan."""
    plan = work.plan(plan_id)
    known = known_of(work, plan)
    with work.database.read() as session:
        around = around_of(session, plan)
    _, in_force = results_in_force(work, plan.record.client_id)
    return sent(learn_view(plan, known, around) | {"notices": said_of_all(in_force)})


@router.get("/plans/{plan_id}/learn/word", responses=shape_of(OurWord))
def our_word(plan_id: int, work: Work) -> Response:
    """Return what was promised of each month that is seen, and whether it held."""
    found = words_of_plan(work, plan_id)
    return sent({
        "revision": work.plan(plan_id).record.revision,
        "months": [word_item(one) for one in found.months],
        "so_far": so_far_item(found.so_far), "purse": found.purse,
    })  # fmt: skip


@router.get("/plans/{plan_id}/learn/history", responses=shape_of(History))
def history(plan_id: int, work: Work) -> Response:
    """Return the months so far: what each brought, what was changed for it, what that did."""
    plan = work.plan(plan_id)
    return sent({"revision": plan.record.revision, "months": history_of(work, plan)})
