"""The Arrange stage: campaigns and ad groups, ready structures, conflicts."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, get_args

import numpy as np
from fastapi import APIRouter, Response

from milkwort.api.arrange.places import place_of
from milkwort.api.arrange.schemas import (
    ArrangeView,
    CampaignEdit,
    GroupEdit,
    GroupIds,
    KeywordMove,
    StructureChoice,
    StructureItem,
)
from milkwort.api.gather.sold import sold_terms
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.columns import tidy
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer, shape_of
from milkwort.api.plan.workspace import Decision
from milkwort.core.arrange import conflicts as core_conflicts
from milkwort.core.arrange.group_figures import group_figures, shared_words
from milkwort.core.arrange.structures import (
    STRUCTURE_KINDS,
    StructureName,
    arrange,
    lexicon_of,
    named_so,
)
from milkwort.core.counted import counted
from milkwort.core.errors import NothingUsableError
from milkwort.store.edits import duplicate_as
from milkwort.store.groups import (
    Place,
    edit_campaign,
    edit_group,
    make_places,
    place_keywords,
    remove_campaign,
    remove_groups,
)
from milkwort.store.journal import Change
from milkwort.store.keywords import set_calls

router = APIRouter(tags=["arrange"])


@router.get("/plans/{plan_id}/arrange", responses=shape_of(ArrangeView))
def view(plan_id: int, work: Work) -> Response:
    """Return the plan's campaigns and ad groups with what they hold and do, and its conflicts."""
    plan = work.plan(plan_id)
    return sent(
        {
            "revision": plan.record.revision,
            "campaigns": [
                {"id": c.id, "name": c.name, "least_spend": c.least_spend,
                 "most_spend": c.most_spend, "scouting_share": c.scouting_share}
                for c in plan.sheet.structure.campaigns
            ],
            "groups": _columns(plan),
            "alone": int((plan.sheet.table.group < 0).sum()),
            "conflicts": _conflicts(plan, sold_terms(work, plan)),
        }
    )  # fmt: skip


@router.get("/plans/{plan_id}/arrange/structures")
def structures(plan_id: int, work: Work) -> list[StructureItem]:
    """Return what each ready structure would make of the kept keywords."""
    plan = work.plan(plan_id)
    items = []
    for kind in get_args(StructureName):
        made = _made(plan, kind)
        items.append(
            StructureItem(
                kind=kind, says=STRUCTURE_KINDS[kind],
                campaigns=sorted({p.campaign for p in made.places}),
                groups=len(made.places), moves=made.moves, adds=len(made.twins),
            )
        )  # fmt: skip
    return items


@router.post("/plans/{plan_id}/arrange/structure", responses=shape_of(ChangeAnswer))
def take_structure(
    plan_id: int, body: StructureChoice, work: Work, window: Window = ""
) -> Response:
    """Arrange the kept keywords by a ready structure; undo puts them back.

    Groups and campaigns that are left empty stay until they are removed.
    """

    def decide(plan: OpenPlan) -> Decision:
        made = _made(plan, body.kind)

        def do(change: Change) -> None:
            ids = make_places(change, made.places)
            for place, keywords in made.places.items():
                place_keywords(change, ids[place], keywords)
            added = duplicate_as(change, [plan.sheet.entries[row] for row in made.twins], "phrase")
            set_calls(change, added, "keep", "", "structure")
            for place, keyword in zip(made.twin_places, added, strict=True):
                place_keywords(change, ids[place], [keyword])

        return Decision(f"arrange by {body.kind}", do)

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/arrange/move", responses=shape_of(ChangeAnswer))
def move(plan_id: int, body: KeywordMove, work: Work, window: Window = "") -> Response:
    """Put keywords into a group: one that stands, or a new one of the name typed."""

    def decide(plan: OpenPlan) -> Decision:
        rows = plan.sheet.rows_of(body.ids)
        structure = plan.sheet.structure
        many = counted(len(body.ids), "keyword")
        if body.group_id is not None:
            group = structure.group(body.group_id)
            return Decision(
                f"move {many} to {group.name}",
                lambda c: place_keywords(c, group.id, body.ids),
            )
        place = place_of(plan, body.group, rows)
        if body.campaign_id is not None:
            place = Place(structure.campaign(body.campaign_id).name, place.group)
        return Decision(
            f"move {many} to {place.group}",
            lambda c: place_keywords(c, make_places(c, [place])[place], body.ids),
        )

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/arrange/groups/remove", responses=shape_of(ChangeAnswer))
def remove(plan_id: int, body: GroupIds, work: Work, window: Window = "") -> Response:
    """Remove groups that hold no keyword; without ids, every empty group and campaign."""

    def decide(plan: OpenPlan) -> Decision:
        structure = plan.sheet.structure
        filled = {e.group_id for e in plan.sheet.entries}
        ids = body.ids or [g.id for g in structure.groups if g.id not in filled]
        bare: list[int] = []
        if not body.ids:
            left = {g.campaign_id for g in structure.groups if g.id in filled}
            bare = [c.id for c in structure.campaigns if c.id not in left]
        if not ids and not bare:
            raise NothingUsableError("No group and no campaign is empty.", "groups")

        def do(change: Change) -> None:
            remove_groups(change, ids)
            for campaign in bare:
                remove_campaign(change, campaign)

        many = counted(len(ids), "empty group")
        return Decision(f"remove {many}", do)

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/arrange/groups/{group_id}", responses=shape_of(ChangeAnswer))
def edit(plan_id: int, group_id: int, body: GroupEdit, work: Work, window: Window = "") -> Response:
    """Name a group, or say which page its ads lead to."""
    made = Decision(
        "change an ad group", lambda c: edit_group(c, group_id, name=body.name, page=body.page)
    )
    return sent(work.change(plan_id, lambda _: made, window=window))


@router.post("/plans/{plan_id}/arrange/campaigns/{campaign_id}", responses=shape_of(ChangeAnswer))
def edit_one(
    plan_id: int, campaign_id: int, body: CampaignEdit, work: Work, window: Window = ""
) -> Response:
    """Name a campaign, or set its least and most money and its share for scouting."""
    values = body.given()
    made = Decision("change a campaign", lambda c: edit_campaign(c, campaign_id, values))
    return sent(work.change(plan_id, lambda _: made, window=window))


@dataclass(frozen=True)
class _Made:
    """A structure on its way to the store.

    Attributes
    ----------
    places : dict of Place to list of int
        Ids of the keywords that belong there.
    twins : list of int
        Exact rows to be repeated as phrase.
    twin_places : list of Place
    moves : int
        Keywords that are elsewhere now.
    """

    places: dict[Place, list[int]]
    twins: list[int]
    twin_places: list[Place]
    moves: int


def _made(plan: OpenPlan, kind: StructureName) -> _Made:
    sheet, brief = plan.sheet, plan.record.brief
    rows = np.flatnonzero(sheet.table.kept)
    made = arrange(
        kind, brief, sheet.table.at(rows), np.nan_to_num(plan.result.demand.own[rows]),
        lexicon=lexicon_of(brief), brands=named_so(brief, "own", brief.name),
        rivals=named_so(brief, "rival"),
    )  # fmt: skip
    at = [Place(made.campaigns[campaign], name) for campaign, name in made.groups]
    held = _places(plan)
    places: dict[Place, list[int]] = {}
    moves = 0
    for row, number in zip(rows.tolist(), made.of_row.tolist(), strict=True):
        places.setdefault(at[number], []).append(sheet.ids[row])
        moves += held.get(sheet.entries[row].group_id) != at[number]
    twin_places = [at[number] for number in made.twin_group.tolist()]
    for place in twin_places:
        places.setdefault(place, [])
    return _Made(places, rows[made.twins].tolist(), twin_places, moves)


def _places(plan: OpenPlan) -> dict[int | None, Place]:
    structure = plan.sheet.structure
    campaigns = {c.id: c.name for c in structure.campaigns}
    return {g.id: Place(campaigns[g.campaign_id], g.name) for g in structure.groups}


def _columns(plan: OpenPlan) -> dict[str, Any]:
    sheet = plan.sheet
    groups = sheet.structure.groups
    figures = group_figures(plan.result, len(groups))
    campaigns = {c.id: c.name for c in sheet.structure.campaigns}
    texts: list[list[str]] = [[] for _ in groups]
    for number, entry in zip(sheet.table.group.tolist(), sheet.entries, strict=True):
        if number >= 0:
            texts[number].append(entry.normalised)
    lexicon = lexicon_of(plan.record.brief)
    return {
        "id": [g.id for g in groups],
        "name": [g.name for g in groups],
        "label": list(sheet.labels),
        "campaign_id": [g.campaign_id for g in groups],
        "campaign": [campaigns[g.campaign_id] for g in groups],
        "page": [g.page for g in groups],
        "keywords": figures.keywords,
        "kept": figures.kept,
        "running": figures.running,
        "searches": tidy(figures.searches),
        "clicks": tidy(figures.clicks),
        "spend": tidy(figures.spend),
        "customers": tidy(figures.customers),
        "words": [
            [{"word": word, "keywords": held} for word, held in shared_words(own, lexicon)]
            for own in texts
        ],
    }


def _conflicts(plan: OpenPlan, sold: list[str]) -> list[dict[str, Any]]:
    sheet = plan.sheet
    stored = plan.record.negatives  # in the brief's order; what *block* makes comes after
    return [
        {
            "kind": c.kind,
            "says": core_conflicts.CONFLICT_KINDS[c.kind],
            "negative": c.negative,
            "negative_id": stored[c.place].id if 0 <= c.place < len(stored) else None,
            "count": c.count,
            "ids": [sheet.ids[row] for row in c.rows],
            "texts": [sheet.entries[row].text for row in c.rows],
            "searches": c.searches,
            "customers": c.customers,
            "spend": c.spend,
            "terms": list(c.terms),
        }
        for c in core_conflicts.conflicts_of(plan.result, sold)
    ]
