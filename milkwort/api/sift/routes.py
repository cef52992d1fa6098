"""The Sift stage: calls, and the workings of one keyword."""

from __future__ import annotations

from dataclasses import asdict

from fastapi import APIRouter, Response

from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.routes import workings_answer
from milkwort.api.plan.schemas import CallChange, ChangeAnswer, KeywordIds
from milkwort.api.sift.calling import call_rows
from milkwort.api.sift.schemas import NeighboursView
from milkwort.api.sift.workings_schemas import ReadingChoice, ReadingRule, Workings
from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.counted import counted
from milkwort.core.market.readings import disagreement
from milkwort.core.plan.notes import NOTES, notes_of
from milkwort.core.sift.neighbours import neighbours_of
from milkwort.core.workings.keyword import keyword_workings
from milkwort.store.entries import KeywordEntry
from milkwort.store.keywords import remove_keywords
from milkwort.store.readings import figures_of, readings_of, set_rule, use_reading

router = APIRouter(tags=["sift"])

_NEIGHBOURS = 7
"""Of each kind beside a card."""


@router.post("/plans/{plan_id}/calls", responses=shape_of(ChangeAnswer))
def call(plan_id: int, body: CallChange, work: Work, window: Window = "") -> Response:
    """Call keywords: keep, hold, drop, block, or not yet called."""

    def decide(plan: OpenPlan) -> Decision:
        rows = plan.sheet.rows_of(body.ids)
        many = counted(len(rows), "keyword")
        verb = "take back the call of" if body.call == "none" else body.call
        return Decision(
            f"{verb} {many}",
            lambda c: call_rows(c, plan, rows, body.call, body.reason, body.by),
        )

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/keywords/remove", responses=shape_of(ChangeAnswer))
def remove(plan_id: int, body: KeywordIds, work: Work, window: Window = "") -> Response:
    """Take keywords out of the plan altogether; undo brings them back."""

    def decide(plan: OpenPlan) -> Decision:
        plan.sheet.rows_of(body.ids)
        many = counted(len(body.ids), "keyword")
        return Decision(f"remove {many}", lambda c: remove_keywords(c, body.ids))

    return sent(work.change(plan_id, decide, window=window))


@router.get("/plans/{plan_id}/keywords/{keyword_id}/neighbours", responses=shape_of(NeighboursView))
def neighbours(plan_id: int, keyword_id: int, work: Work) -> Response:
    """Return the keywords nearest to one in meaning and in price."""
    loaded = work.plan(plan_id)
    (row,) = loaded.sheet.rows_of([keyword_id])
    found = neighbours_of(loaded.sheet.table, loaded.result.prices, row, _NEIGHBOURS)
    ids = loaded.sheet.ids
    return sent({name: [ids[r] for r in rows] for name, rows in vars(found).items()})


@router.get("/plans/{plan_id}/keywords/{keyword_id}/workings", responses=shape_of(Workings))
def workings(plan_id: int, keyword_id: int, work: Work) -> Response:
    """Return the arithmetic of one keyword."""
    loaded = work.plan(plan_id)
    (row,) = loaded.sheet.rows_of([keyword_id])
    entry = loaded.sheet.entries[row]
    about = ", ".join(
        part
        for part in (
            f"{entry.match} match",
            entry.source,
            _called(entry),
            _intent(loaded, entry),
            entry.note and f"note: {entry.note}",
        )
        if part
    )
    notes = [NOTES[code] for code in notes_of(loaded.result)[row]]
    sections = keyword_workings(loaded.result, row)
    with work.database.read() as session:
        held = readings_of(session, plan_id, keyword_id)
    brief = loaded.record.brief
    own = [figures_of(r, brief) for r in held if not r.made]
    apart = disagreement(own, len(entry.normalised.split()), brief.assumed)
    answer = workings_answer(loaded.record.revision, entry.text, about, notes, sections)
    return sent(
        {**answer, "readings": [asdict(r) | {"made": r.made} for r in held], "apart": asdict(apart)}
    )


def _called(entry: KeywordEntry) -> str:
    if entry.call == "none":
        return "not yet called"
    said = [part for part in (entry.reason, f"by {entry.call_by}", entry.call_at[:10]) if part]
    return f"called {entry.call} ({', '.join(said)})"


def _intent(loaded: OpenPlan, entry: KeywordEntry) -> str:
    """Say which words decided the intent, or that it was set otherwise."""
    read = lexicon_of(loaded.record.brief).intent(entry.normalised)
    if read.intent != entry.intent:
        return f"intent {entry.intent}, as it was set"
    words = ", ".join(read.words)
    return f"intent {entry.intent}, read from: {words}" if words else "no word tells the intent"


@router.post("/plans/{plan_id}/keywords/{keyword_id}/reading", responses=shape_of(ChangeAnswer))
def use(
    plan_id: int, keyword_id: int, body: ReadingChoice, work: Work, window: Window = ""
) -> Response:
    """Take another reading of a keyword into use."""

    def decide(plan: OpenPlan) -> Decision:
        plan.sheet.rows_of([keyword_id])
        return Decision(
            "use another reading", lambda c: use_reading(c, keyword_id, body.id, body.parts)
        )

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/readings/rule", responses=shape_of(ChangeAnswer))
def rule(plan_id: int, body: ReadingRule, work: Work, window: Window = "") -> Response:
    """Say which readings are in use: the newest, the mean, or one source's wherever it has any."""

    def decide(plan: OpenPlan) -> Decision:
        brief = plan.record.brief
        return Decision(f"use the {body.rule} readings", lambda c: set_rule(c, body.rule, brief))

    return sent(work.change(plan_id, decide, window=window))
