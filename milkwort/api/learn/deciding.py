"""What is decided about what the results teach: a line or many, of any kind, as one change."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from fastapi import APIRouter, Response

from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.learn.closing import term_work
from milkwort.api.learn.items import items_decision
from milkwort.api.learn.known import Known, known_of
from milkwort.api.learn.schemas import (
    AsideRequest,
    BidActs,
    Decisions,
    KeywordActs,
    TermActs,
)
from milkwort.api.learn.waiting import about_of
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.core.counted import counted
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store.journal import Change
from milkwort.store.keywords import lock_bids, set_calls
from milkwort.store.set_aside import bring_back, set_aside

router = APIRouter(tags=["learn"])


@router.post("/plans/{plan_id}/learn/decide", responses=shape_of(ChangeAnswer))
def decide(plan_id: int, body: Decisions, work: Work, window: Window = "") -> Response:
    """Do what was decided as one change: all of it, or nothing.

    Terms are blocked or become keywords; codes that sold get a spot, those that never sold bid
    less; keywords stop; hardly shown ones bid what is shown, locked; suggestions are set aside,
    for good or until later results, or come back into the queue.
    """

    def all_of_it(plan: OpenPlan) -> Decision:
        return _together(list(_decided(plan, known_of(work, plan), body)))

    return sent(work.change(plan_id, all_of_it, window=window))


def _decided(plan: OpenPlan, known: Known, body: Decisions) -> Iterator[Decision]:
    if body.terms is not None:
        yield _terms(plan, known, body.terms)
    if body.items is not None:
        yield items_decision(plan, known, body.items.terms)
    if body.keywords is not None:
        yield _stops(plan, body.keywords)
    if body.bids is not None:
        yield _bids(plan, known, body.bids)
    if body.aside is not None:
        yield _aside(plan, known, body.aside)


def _together(some: Sequence[Decision]) -> Decision:
    """Return several decisions as one, so that one undo takes all of it back."""
    if not some:
        raise BadValueError("decisions", "at least one", "none")

    def do(change: Change) -> None:
        for one in some:
            one.do(change)

    return Decision("; ".join(one.label for one in some), do)


def _aside(plan: OpenPlan, known: Known, body: AsideRequest) -> Decision:
    some = {about_of(plan, one.kind, one.key): one.suggestion for one in body.items}
    many = counted(len(some), "suggestion")
    if body.until == "now":
        return Decision(f"ask about {many} again", lambda change: bring_back(change, some))
    as_of = None if known.learned is None else known.learned.as_of.isoformat()
    until = as_of if body.until == "later" else None
    return Decision(f"set {many} aside", lambda change: set_aside(change, some, until))


def _bids(plan: OpenPlan, known: Known, body: BidActs) -> Decision:
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


def _terms(plan: OpenPlan, known: Known, body: TermActs) -> Decision:
    done = term_work(plan, known, _places_of(known, body.terms), body.act)
    if not done.blocks and not done.added:
        raise BadValueError("terms", "something to be done that is not done yet", "nothing")
    parts = [counted(len(done.blocks), "negative")] if done.blocks else []
    parts += [counted(done.added, "keyword")] if done.added else []
    return Decision(f"add {' and '.join(parts)} from terms", done.do)


def _stops(plan: OpenPlan, body: KeywordActs) -> Decision:
    plan.sheet.rows_of(body.ids)
    label = f"stop {counted(len(body.ids), 'keyword')}"
    return Decision(label, lambda change: set_calls(change, body.ids, "drop", "results", "results"))


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
