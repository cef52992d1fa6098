"""Further sources of keywords: crossing, the almanac, a page, other places, a set to start with."""

from __future__ import annotations

from collections.abc import Sequence

from fastapi import APIRouter, Response

from milkwort.api.gather.schemas import (
    AlmanacQuestion,
    Category,
    Completions,
    CrossingAnswer,
    CrossingQuestion,
    NegativeIds,
    NegativeItem,
    NegativesTaken,
    PageQuestion,
    PageWordItem,
    PlaceItem,
    PlaceSwap,
    RecipeItem,
    RecipeTaken,
    StarterAnswer,
    StarterQuestion,
)
from milkwort.api.gather.tray_rows import tray_view
from milkwort.api.gather.tray_schemas import TrayView
from milkwort.api.gather.trays import Tray
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.counted import counted
from milkwort.core.errors import NothingUsableError
from milkwort.core.gather.crossing import Crossing, Part, cross
from milkwort.core.gather.places import other_places, swapped
from milkwort.core.gather.starter import starter_set
from milkwort.core.words.negatives import Negative
from milkwort.formats.keyword_row import KeywordRow
from milkwort.formats.keyword_rows import KeywordRows
from milkwort.formats.page import page_words
from milkwort.standins.source import Idea
from milkwort.store.journal import Change
from milkwort.store.keywords import set_calls
from milkwort.store.negatives import add_negatives, remove_negatives
from milkwort.store.recipes import add_recipe, list_recipes, remove_recipe

router = APIRouter(tags=["gather"])

_PREVIEW = 60


@router.post("/plans/{plan_id}/gather/crossing")
def preview_crossing(plan_id: int, body: CrossingQuestion, work: Work) -> CrossingAnswer:
    """Count what a crossing would make, and show the first of it."""
    made = _crossed(plan_id, body, work)
    return CrossingAnswer(
        count=len(made.texts), doubles=made.doubles, known=made.known,
        preview=list(made.texts[:_PREVIEW]),
    )  # fmt: skip


@router.post("/plans/{plan_id}/gather/crossing/tray", responses=shape_of(TrayView))
def take_crossing(plan_id: int, body: CrossingQuestion, work: Work) -> Response:
    """Put what a crossing makes into the tray."""
    return sent(_texts_to_tray(work, plan_id, "crossing", _crossed(plan_id, body, work).texts))


@router.get("/plans/{plan_id}/recipes")
def recipes(plan_id: int, work: Work) -> list[RecipeItem]:
    """List the crossings that were saved."""
    client_id = work.plan(plan_id).record.client_id
    with work.database.read() as session:
        held = list_recipes(session, client_id)
        return [RecipeItem(id=r.id, name=r.name, parts=r.parts) for r in held]


@router.post("/plans/{plan_id}/recipes", responses=shape_of(ChangeAnswer))
def save_recipe(plan_id: int, body: RecipeTaken, work: Work, window: Window = "") -> Response:
    """Save a crossing, to be run again when a word is added."""
    parts = [part.model_dump() for part in body.parts]
    made = Decision(f"save the crossing {body.name}", lambda c: add_recipe(c, body.name, parts))
    return sent(work.change(plan_id, lambda _: made, window=window, of_client=True))


@router.delete("/plans/{plan_id}/recipes/{recipe_id}", responses=shape_of(ChangeAnswer))
def drop_recipe(plan_id: int, recipe_id: int, work: Work, window: Window = "") -> Response:
    """Forget a saved crossing."""
    made = Decision("forget a crossing", lambda c: remove_recipe(c, recipe_id))
    return sent(work.change(plan_id, lambda _: made, window=window, of_client=True))


@router.post("/plans/{plan_id}/gather/almanac", responses=shape_of(TrayView))
def ask_almanac(plan_id: int, body: AlmanacQuestion, work: Work) -> Response:
    """Put what the simulated keyword source says into the tray."""
    work.plan(plan_id)
    page = (
        work.almanac.figures(body.roots) if body.only_these
        else work.almanac.ideas(body.roots, body.page)
    )  # fmt: skip
    ideas = [idea for idea in page.ideas if idea.near or not body.near_only]
    rows = [row_of_idea(number, idea) for number, idea in enumerate(ideas, start=1)]
    name = f"almanac: {', '.join(body.roots[:3])}"[:120]
    view = tray_view(work, Tray(plan_id, name, KeywordRows(tuple(rows))), None)
    return sent({**view, "more": page.more, "quota_left": page.quota_left})


@router.get("/plans/{plan_id}/gather/completions")
def completions(plan_id: int, stem: str, work: Work) -> Completions:
    """Say what people type after some words; simulated."""
    work.plan(plan_id)
    return Completions(texts=list(work.almanac.completions(stem[:200])))


@router.get("/gather/categories")
def categories(work: Work) -> list[Category]:
    """List the trades the almanac knows; simulated."""
    known = work.almanac.categories()
    return [Category(name=name, roots=list(roots)) for name, roots in known.items()]


@router.post("/plans/{plan_id}/gather/page")
def weigh_page(plan_id: int, body: PageQuestion, work: Work) -> list[PageWordItem]:
    """Rank the words of a page by where they stand on it."""
    lexicon = lexicon_of(work.plan(plan_id).record.brief)
    return [
        PageWordItem(text=w.text, count=w.count, weight=w.weight)
        for w in page_words(body.content, lexicon=lexicon)
    ]


@router.get("/plans/{plan_id}/gather/places")
def places(plan_id: int, work: Work) -> list[PlaceItem]:
    """List places that keywords name beside the plan's own."""
    loaded = work.plan(plan_id)
    brief, table = loaded.record.brief, loaded.sheet.table
    named = loaded.record.values["other_places"]
    found = other_places(table.texts, brief.places, named, lexicon_of(brief))
    return [PlaceItem(name=p.name, keywords=len(p.rows)) for p in found]


@router.post("/plans/{plan_id}/gather/places/swap", responses=shape_of(TrayView))
def swap_places(plan_id: int, body: PlaceSwap, work: Work) -> Response:
    """Put keywords of other places into the tray with one's own place instead."""
    loaded = work.plan(plan_id)
    known = set(loaded.sheet.table.texts)
    made = dict.fromkeys(
        swapped(text, other, body.own)
        for other in body.others
        for text in loaded.sheet.table.texts
        if f" {other} " in f" {text} "
    )
    return sent(
        _texts_to_tray(work, plan_id, f"swapped to {body.own}", [t for t in made if t not in known])
    )


@router.post("/plans/{plan_id}/gather/places/block", responses=shape_of(ChangeAnswer))
def block_places(plan_id: int, body: PlaceSwap, work: Work, window: Window = "") -> Response:
    """Drop the keywords of other places and make each place a negative."""

    def decide(plan: OpenPlan) -> Decision:
        ids = [
            i
            for i, text in zip(plan.sheet.ids, plan.sheet.table.texts, strict=True)
            if any(f" {other} " in f" {text} " for other in body.others)
        ]

        def do(change: Change) -> None:
            add_negatives(change, [Negative(other, "phrase") for other in body.others], "place")
            set_calls(change, ids, "drop", "names another place", "place")

        return Decision(f"block {', '.join(body.others)}", do)

    return sent(work.change(plan_id, decide, window=window))


@router.get("/plans/{plan_id}/negatives")
def negatives(plan_id: int, work: Work) -> list[NegativeItem]:
    """List the plan's negative keywords."""
    return [
        NegativeItem(
            id=n.id, text=n.text, match=n.match, level=n.owner.level,
            campaign_id=n.owner.campaign_id, group_id=n.owner.group_id, by=n.by, at=n.at,
        )
        for n in work.plan(plan_id).record.negatives
    ]  # fmt: skip


@router.post("/plans/{plan_id}/negatives", responses=shape_of(ChangeAnswer))
def new_negatives(plan_id: int, body: NegativesTaken, work: Work, window: Window = "") -> Response:
    """Add words that are never wanted."""
    made = [Negative(" ".join(t.split()), body.match) for t in body.texts if t.strip()]
    if not made:
        raise NothingUsableError("negatives: expected at least one word, got none", "negatives")
    said = made[0].text if len(made) == 1 else counted(len(made), "word")
    wanted = Decision(f"never want {said}", lambda c: add_negatives(c, made, "hand"))
    return sent(work.change(plan_id, lambda _: wanted, window=window))


@router.post("/plans/{plan_id}/negatives/remove", responses=shape_of(ChangeAnswer))
def drop_negatives(plan_id: int, body: NegativeIds, work: Work, window: Window = "") -> Response:
    """Take negatives out of the plan."""
    made = Decision("take negatives out", lambda c: remove_negatives(c, body.ids))
    return sent(work.change(plan_id, lambda _: made, window=window))


@router.post("/plans/{plan_id}/gather/starter", responses=shape_of(StarterAnswer))
def starter(plan_id: int, body: StarterQuestion, work: Work) -> Response:
    """Pick a few keywords to start with, by what they bring together."""
    loaded = work.plan(plan_id)
    found = starter_set(loaded.record.brief, loaded.sheet.table, body.most)
    rows = found.rows.tolist()
    return sent(
        {
            "ids": [loaded.sheet.ids[row] for row in rows],
            "texts": [loaded.sheet.entries[row].text for row in rows],
            "customers": found.customers,
            "spend": found.spend,
            "total_customers": found.total_customers,
            "total_spend": found.total_spend,
            "bound": found.bound,
        }
    )


def _crossed(plan_id: int, body: CrossingQuestion, work: Work) -> Crossing:
    loaded = work.plan(plan_id)
    brief = loaded.record.brief
    parts = [Part(tuple(p.words), p.on, p.optional) for p in body.parts]
    known = frozenset(loaded.sheet.table.texts)
    return cross(parts, any_order=body.any_order, known=known, lexicon=lexicon_of(brief))


def _texts_to_tray(work: Work, plan_id: int, name: str, texts: Sequence[str]) -> dict[str, object]:
    if not texts:
        raise NothingUsableError(f"{name}: nothing new would come of it.", name)
    rows = tuple(KeywordRow(n, t, t) for n, t in enumerate(texts, start=1))
    return tray_view(work, Tray(plan_id, name, KeywordRows(rows)), None)


def row_of_idea(number: int, idea: Idea) -> KeywordRow:
    """Return a source's idea as a row of the tray."""
    return KeywordRow(
        row=number, text=idea.text, normalised=idea.text, volume=idea.volume,
        cpc_low=idea.cpc_low, cpc_high=idea.cpc_high, competition=idea.competition,
        months=idea.months, basis="exact",
    )  # fmt: skip
