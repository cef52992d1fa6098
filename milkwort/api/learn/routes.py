"""The Learn stage: results in, what they teach, decisions, and a month closed."""

from __future__ import annotations

from fastapi import APIRouter, Response

from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.learn.around import around_of
from milkwort.api.learn.closing import (
    term_work,
)
from milkwort.api.learn.history import history_of
from milkwort.api.learn.known import (
    Known,
    known_of,
    results_in_force,
)
from milkwort.api.learn.month_schemas import History, OurWord
from milkwort.api.learn.noticed import said_of_all
from milkwort.api.learn.schemas import (
    AsideRequest,
    BidActs,
    KeywordActs,
    LearnView,
    TermActs,
)
from milkwort.api.learn.view import learn_view
from milkwort.api.learn.waiting import about_of
from milkwort.api.learn.word import so_far_item, word_item, words_of_plan
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.api.plan.workspace import Decision
from milkwort.core.counted import counted
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store.keywords import lock_bids, set_calls
from milkwort.store.set_aside import bring_back, set_aside

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


@router.post("/plans/{plan_id}/learn/aside", responses=shape_of(ChangeAnswer))
def leave(plan_id: int, body: AsideRequest, work: Work, window: Window = "") -> Response:
    """Set suggestions aside: for good, until later results, or back into the queue."""

    def decide(plan: OpenPlan) -> Decision:
        known = known_of(work, plan)
        some = {about_of(plan, one.kind, one.key): one.suggestion for one in body.items}
        many = counted(len(some), "suggestion")
        if body.until == "now":
            return Decision(f"ask about {many} again", lambda change: bring_back(change, some))
        as_of = None if known.learned is None else known.learned.as_of.isoformat()
        until = as_of if body.until == "later" else None
        return Decision(f"set {many} aside", lambda change: set_aside(change, some, until))

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/learn/bids", responses=shape_of(ChangeAnswer))
def bid_to_be_shown(plan_id: int, body: BidActs, work: Work, window: Window = "") -> Response:
    """Bid what hardly shown keywords need to be shown, and lock it."""

    def decide(plan: OpenPlan) -> Decision:
        known = known_of(work, plan)
        rows = plan.sheet.rows_of(body.ids)
        needed = {} if known.learned is None else dict(
            zip(known.learned.hardly.row.tolist(), known.learned.hardly.next_bid.tolist(),
                strict=True))  # fmt: skip
        missing = [row for row in rows if row not in needed]
        if missing:
            raise BadValueError("keywords", "keywords that are hardly shown",
                                plan.sheet.entries[missing[0]].text)  # fmt: skip
        bids = {i: needed[row] for i, row in zip(body.ids, rows, strict=True)}
        return Decision(f"bid for {counted(len(bids), 'keyword')} what is shown",
                        lambda change: lock_bids(change, bids))  # fmt: skip

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/learn/terms", responses=shape_of(ChangeAnswer))
def decide_terms(plan_id: int, body: TermActs, work: Work, window: Window = "") -> Response:
    """Block terms, or make them keywords: as suggested, or as said."""

    def decide(plan: OpenPlan) -> Decision:
        known = known_of(work, plan)
        places = _places_of(known, body.terms)
        done = term_work(plan, known, places, body.act)
        if not done.blocks and not done.added:
            raise BadValueError("terms", "something to be done that is not done yet", "nothing")
        parts = [counted(len(done.blocks), "negative")] if done.blocks else []
        parts += [counted(done.added, "keyword")] if done.added else []
        return Decision(f"add {' and '.join(parts)} from terms", done.do)

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/learn/keywords", responses=shape_of(ChangeAnswer))
def stop_keywords(plan_id: int, body: KeywordActs, work: Work, window: Window = "") -> Response:
    """Stop keywords: they are dropped, and the results are the reason."""

    def decide(plan: OpenPlan) -> Decision:
        plan.sheet.rows_of(body.ids)
        label = f"stop {counted(len(body.ids), 'keyword')}"
        return Decision(
            label, lambda change: set_calls(change, body.ids, "drop", "results", "results")
        )

    return sent(work.change(plan_id, decide, window=window))


def _places_of(known: Known, terms: list[str]) -> list[int]:
    if known.terms is None:
        raise BadValueError("terms", "results by term", "none")
    place: dict[str, list[int]] = {}
    for at, text in enumerate(known.terms.texts):
        place.setdefault(text, []).append(at)
    unknown = next((text for text in terms if text not in place), None)
    if unknown is not None:
        raise NotFoundError(f'There is no term "{unknown[:80]}" in the results.', "terms")
    return [at for text in dict.fromkeys(terms) for at in place[text]]
