"""The Arrange stage: campaigns and ad groups, ready structures, conflicts."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from fastapi import APIRouter, Response

from milkwort.api.arrange.of_client import pages_of
from milkwort.api.arrange.outline import campaign_lines, group_columns
from milkwort.api.arrange.places import place_of
from milkwort.api.arrange.schemas import (
    ArrangeView,
    CampaignEdit,
    GroupEdit,
    GroupIds,
    GroupsMerge,
    GroupsMove,
    KeywordMove,
    NewPlace,
)
from milkwort.api.gather.sold import sold_terms
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.core.arrange import conflicts as core_conflicts
from milkwort.core.arrange.crossed import CROSSED_KINDS, crossed
from milkwort.core.counted import counted
from milkwort.core.errors import NothingUsableError
from milkwort.store.groups import (
    add_campaign,
    add_group,
    edit_campaign,
    edit_group,
    make_places,
    merge_groups,
    move_groups,
    place_keywords,
    remove_campaign,
    remove_groups,
)
from milkwort.store.journal import Change
from milkwort.store.negative_lists import Pinned
from milkwort.store.structure import FIRST_CAMPAIGN, Place

router = APIRouter(tags=["arrange"])

_NAMED = 20
"""So many texts of a conflict are named."""


@router.get("/plans/{plan_id}/arrange", responses=shape_of(ArrangeView))
def view(plan_id: int, work: Work) -> Response:
    """Return the plan's campaigns and ad groups with what they hold and do, and its conflicts."""
    plan = work.plan(plan_id)
    pages = pages_of(work, plan)
    return sent(
        {
            "revision": plan.record.revision,
            "campaigns": campaign_lines(plan),
            "groups": group_columns(plan, pages),
            "ads": len(plan.record.ads),
            "pages": len(pages),
            "alone": int((plan.sheet.table.group < 0).sum()),
            "conflicts": [*_conflicts(plan, sold_terms(work, plan)), *_crossed(plan)],
        }
    )  # fmt: skip


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
                lambda c: place_keywords(c, dict.fromkeys(body.ids, group.id)),
            )
        place = place_of(plan, body.group, rows)
        if body.campaign_id is not None:
            place = Place(structure.campaign(body.campaign_id).name, place.group)
        return Decision(
            f"move {many} to {place.group}",
            lambda c: place_keywords(c, dict.fromkeys(body.ids, make_places(c, [place])[place])),
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
            left |= {spot.campaign_id for spot in structure.spots}
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


@router.post("/plans/{plan_id}/arrange/campaigns", responses=shape_of(ChangeAnswer))
def new_campaign(plan_id: int, body: NewPlace, work: Work, window: Window = "") -> Response:
    """Make a campaign; it stays also while nothing is in it."""
    made = Decision(f"make the campaign {body.name}", lambda c: add_campaign(c, body.name))
    return sent(work.change(plan_id, lambda _: made, window=window))


@router.post("/plans/{plan_id}/arrange/groups", responses=shape_of(ChangeAnswer))
def new_group(plan_id: int, body: NewPlace, work: Work, window: Window = "") -> Response:
    """Make a group in a campaign, the first where none is said."""

    def decide(plan: OpenPlan) -> Decision:
        campaigns = plan.record.structure.campaigns

        def do(change: Change) -> None:
            home = body.campaign_id
            if home is None:
                home = campaigns[0].id if campaigns else add_campaign(change, FIRST_CAMPAIGN)
            add_group(change, home, body.name)

        return Decision(f"make the group {body.name}", do)

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/arrange/groups/move", responses=shape_of(ChangeAnswer))
def regroup(plan_id: int, body: GroupsMove, work: Work, window: Window = "") -> Response:
    """Put groups into a campaign, with their keywords and negatives."""

    def decide(plan: OpenPlan) -> Decision:
        campaign = plan.record.structure.campaign(body.campaign_id)
        label = f"move {counted(len(body.ids), 'group')} to {campaign.name}"
        return Decision(label, lambda c: move_groups(c, body.ids, campaign.id))

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/arrange/groups/merge", responses=shape_of(ChangeAnswer))
def merge(plan_id: int, body: GroupsMerge, work: Work, window: Window = "") -> Response:
    """Put the keywords of some groups into one; the groups left empty go."""

    def decide(plan: OpenPlan) -> Decision:
        group = plan.record.structure.group(body.into)
        others = [i for i in body.ids if i != group.id]
        label = f"merge {counted(len(others), 'group')} into {group.name}"
        return Decision(label, lambda c: merge_groups(c, others, group.id))

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/arrange/groups/{group_id}", responses=shape_of(ChangeAnswer))
def edit(plan_id: int, group_id: int, body: GroupEdit, work: Work, window: Window = "") -> Response:
    """Name a group, or set its page, its bid and whether ready structures leave it alone."""
    values = body.given()
    if "page" in values:
        values["landing_page"] = values.pop("page")
    made = Decision("change an ad group", lambda c: edit_group(c, group_id, values))
    return sent(work.change(plan_id, lambda _: made, window=window))


@router.post("/plans/{plan_id}/arrange/campaigns/{campaign_id}", responses=shape_of(ChangeAnswer))
def edit_one(
    plan_id: int, campaign_id: int, body: CampaignEdit, work: Work, window: Window = ""
) -> Response:
    """Name a campaign, or set its least and most money and its share for scouting."""
    values = body.given()
    if "page" in values:
        values["landing_page"] = values.pop("page")
    made = Decision("change a campaign", lambda c: edit_campaign(c, campaign_id, values))
    return sent(work.change(plan_id, lambda _: made, window=window))


def _crossed(plan: OpenPlan) -> list[dict[str, Any]]:
    """Return what groups take from each other, as further conflicts."""
    sheet, groups = plan.sheet, plan.sheet.structure.groups
    return [
        {
            "kind": c.kind, "says": f"{sheet.labels[c.group]}: {CROSSED_KINDS[c.kind]}",
            "negative": "", "negative_id": None, "pinned": "", "pinned_id": None,
            "count": len(c.texts),
            "ids": [sheet.ids[row] for row in c.rows], "texts": list(c.texts[:_NAMED]),
            "searches": c.searches, "customers": 0.0, "spend": 0.0, "terms": [],
            "group_id": groups[c.group].id,
            "campaign_id": groups[c.group].campaign_id if c.kind == "scouting_takes_kept" else None,
            "to_block": list(c.texts) if c.kind == "scouting_takes_kept" else [],
        }
        for c in crossed(plan.result, [group.blocks_twins for group in groups])
    ]  # fmt: skip


def _list_of(of_lists: Sequence[Pinned], place: int) -> dict[str, Any]:
    """Return the list that the negative at a place behind the plan's own is of."""
    if not 0 <= place < len(of_lists):
        return {"pinned": "", "pinned_id": None}
    return {"pinned": of_lists[place].name, "pinned_id": of_lists[place].id}


def _conflicts(plan: OpenPlan, sold: list[str]) -> list[dict[str, Any]]:
    sheet = plan.sheet
    # in the brief's order: the plan's own, those of its lists; what *block* makes comes after
    stored = plan.record.negatives
    of_lists = [pinned for pinned in sheet.structure.lists for _ in pinned.negatives]
    blocks_twins = [group.blocks_twins for group in sheet.structure.groups]
    return [
        {
            "kind": c.kind,
            "says": core_conflicts.CONFLICT_KINDS[c.kind],
            "negative": c.negative,
            "negative_id": stored[c.place].id if 0 <= c.place < len(stored) else None,
            **_list_of(of_lists, c.place - len(stored)),
            "count": c.count,
            "ids": [sheet.ids[row] for row in c.rows],
            "texts": [sheet.entries[row].text for row in c.rows],
            "searches": c.searches,
            "customers": c.customers,
            "spend": c.spend,
            "terms": list(c.terms),
            "group_id": None,
            "campaign_id": None,
            "to_block": [],
        }
        for c in core_conflicts.conflicts_of(plan.result, sold, blocks_twins)
    ]
