"""Sift by words: every word of the sheet, what a block of it would do, and what kind it is."""

from __future__ import annotations

import numpy as np
from fastapi import APIRouter, Query, Response

from milkwort.api.gather.sold import sold_terms
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.columns import tidy
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.api.plan.where_negatives import negative_at, owner_of
from milkwort.api.sift.schemas import Blocking, BlockingWorth, WordKindChange, WordsView
from milkwort.core.arrange.conflicts import negative_worth
from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.counted import counted
from milkwort.core.sift.blocking import stands_in_kept
from milkwort.core.sift.reading_anew import intents_read_anew
from milkwort.core.sift.sheet_words import words_of_sheet
from milkwort.core.words.matching import text_matches
from milkwort.core.words.texts import normalise, singular
from milkwort.store.brief_changes import change_brief
from milkwort.store.briefs import brief_of
from milkwort.store.edits import edit_keywords
from milkwort.store.journal import Change
from milkwort.store.keywords import set_calls
from milkwort.store.negatives import add_negatives
from milkwort.store.own_ways import set_own

router = APIRouter(tags=["sift"])

_NAMED = 8
"""So many keywords are named in a warning."""


@router.get("/plans/{plan_id}/sift/words", responses=shape_of(WordsView))
def words(plan_id: int, work: Work) -> Response:
    """Return every word and two-word run of the sheet."""
    loaded = work.plan(plan_id)
    found = words_of_sheet(loaded.result, lexicon_of(loaded.record.brief))
    ids = np.array(loaded.sheet.ids, dtype=np.int64)
    return sent(
        {
            "revision": loaded.record.revision,
            "word": found.runs, "kind": found.kind, "keywords": found.keywords,
            "kept": found.kept, "called": found.called, "searches": tidy(found.searches),
            "price_low": found.price_low, "price_high": found.price_high,
            "customers": tidy(found.customers), "starts": found.starts,
            "ids": ids[found.rows] if len(ids) else ids,
        }
    )  # fmt: skip


@router.get("/sift/forms")
def forms(words: str = Query(max_length=400)) -> dict[str, str]:
    """Return the singular of each word that has another one; a filter finds both by it."""
    alike = {word: singular(word) for word in words.casefold().split()}
    return {word: one for word, one in alike.items() if one != word}


@router.post("/plans/{plan_id}/sift/blocking", responses=shape_of(BlockingWorth))
def worth(plan_id: int, body: Blocking, work: Work) -> Response:
    """Say what a negative would stop and save, and whom it would hurt, before it is made."""
    loaded = work.plan(plan_id)
    negative = negative_at(loaded, body.text, body.match, owner_of(body.campaign_id, body.group_id))
    found = negative_worth(loaded.result, negative)
    entries = loaded.sheet.entries
    called = [r for r in found.stops if entries[r].call != "none"]
    close = loaded.record.brief.negative_close_forms
    sold = [
        text
        for text in sold_terms(work, loaded)
        if text_matches(negative.match, negative.text, text, close_forms=close)
    ]
    return sent(
        {
            "stops": len(found.stops),
            "uncalled": len(found.stops) - len(called),
            "called": len(called),
            "hurts": [entries[r].text for r in found.hurts[:_NAMED]],
            "sold": sold[:_NAMED],
            "everyday": stands_in_kept(loaded.result, negative.text),
            "spill_saved": found.spill_saved, "spend_freed": found.spend_freed,
            "customers_gained": found.customers_gained, "profit_gained": found.profit_gained,
        }
    )  # fmt: skip


@router.post("/plans/{plan_id}/sift/block", responses=shape_of(ChangeAnswer))
def block(plan_id: int, body: Blocking, work: Work, window: Window = "") -> Response:
    """Make a negative, and call block what it stops: the uncalled, or all of it."""

    def decide(plan: OpenPlan) -> Decision:
        owner = owner_of(body.campaign_id, body.group_id)
        negative = negative_at(plan, body.text, body.match, owner)
        stops = negative_worth(plan.result, negative).stops
        entries, ids = plan.sheet.entries, plan.sheet.ids
        called = [ids[r] for r in stops if body.over or entries[r].call == "none"]

        def do(change: Change) -> None:
            add_negatives(change, [negative], "word", [owner])
            set_calls(change, called, "block", body.reason or f"holds {negative.text}", "word")

        return Decision(f"block {negative.text}: {counted(len(called), 'keyword')}", do)

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/sift/word-kind", responses=shape_of(ChangeAnswer))
def kind(plan_id: int, body: WordKindChange, work: Work, window: Window = "") -> Response:
    """Say what kind a word is; intents that were read from the words are read anew."""

    def decide(plan: OpenPlan) -> Decision:
        record, word = plan.record, normalise(body.word)
        kinds = {w: k for w, k in record.own.word_kinds.items() if w != word}
        places = [p for p in record.values["places"] if normalise(p) != word]
        if body.kind == "place":
            places.append(body.word)
        elif body.kind is not None:
            kinds[word] = body.kind
        values = record.values | {"places": places}
        brief = brief_of(
            record.name, values, record.assumptions, record.negatives, kinds, record.structure,
            record.offer_ids,
        )  # fmt: skip
        anew = intents_read_anew(
            [e.normalised for e in plan.sheet.entries],
            [e.intent for e in plan.sheet.entries],
            lexicon_of(record.brief),
            lexicon_of(brief),
        )

        def do(change: Change) -> None:
            set_own(change, {"word_kinds": kinds})
            if places != record.values["places"]:
                change_brief(change, {"places": places})
            for intent, rows in anew.items():
                edit_keywords(change, [plan.sheet.ids[r] for r in rows], {"intent": intent})

        return Decision(f"say what {body.word} is", do)

    return sent(work.change(plan_id, decide, window=window))
