"""Arrange: groups split, named by a rule; a scouting campaign in one step."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Any

import numpy as np
from fastapi import APIRouter, Response
from pydantic import Field

from milkwort.api.http.described import Given, shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer, Taken
from milkwort.core.arrange.naming import NamedGroup, NamePart, names_by_rule
from milkwort.core.arrange.scouting import Scouting, scouting_of
from milkwort.core.arrange.splitting import SplitBy, split_of
from milkwort.core.counted import counted
from milkwort.core.errors import BadValueError, NothingUsableError
from milkwort.core.words.negatives import Negative
from milkwort.core.words.texts import normalise
from milkwort.store.entries import Arrival, KeywordEntry, ReadingEntry
from milkwort.store.groups import (
    edit_campaign,
    edit_group,
    make_campaigns,
    make_places,
    place_keywords,
    rename_groups,
)
from milkwort.store.journal import Change
from milkwort.store.keywords import add_keywords, set_calls
from milkwort.store.negatives import Owner, add_negatives
from milkwort.store.structure import Place

router = APIRouter(tags=["arrange"])

_SCOUTING = "Scouting"
_Ids = Annotated[list[int], Field(max_length=100_000)]


class GroupSplit(Taken):
    """By what a group is split; the word where it is by one."""

    by: SplitBy
    word: str = Field(default="", max_length=200)


class NameRule(Taken):
    """Parts of a name in their order, what stands between them, and a note of the planner's.

    Without groups it is for all.
    """

    parts: Annotated[list[NamePart], Field(min_length=1, max_length=10)]
    separator: str = Field(default=" · ", max_length=10)
    note: str = Field(default="", max_length=80)
    group_ids: _Ids = Field(default=[])


class NamedItem(Given):
    """What a group would be called, and why it can't be: `refused`."""

    group_id: int
    before: str
    after: str
    refused: str


class NamesView(Given):
    """Names under a rule, those that would change or can't be."""

    revision: int
    names: list[NamedItem]
    changes: int


class ScoutingAsked(Taken):
    """A share of the purse for scouting, and the bid of every keyword of it."""

    share: float = Field(default=0.05, gt=0, le=1)
    bid: float | None = Field(default=None, gt=0, le=1e12)


class ScoutingLook(Given):
    """What a scouting campaign would be made of: money a month and a click."""

    revision: int
    cost: float
    bid: float
    low_price: float | None
    keywords: list[str]
    blocked: int
    there: bool = Field(description="whether a campaign of this name is there already")


@router.post("/plans/{plan_id}/arrange/groups/{group_id}/split", responses=shape_of(ChangeAnswer))
def split(
    plan_id: int, group_id: int, body: GroupSplit, work: Work, window: Window = ""
) -> Response:
    """Split a group: some of its keywords go to new groups beside it."""

    def decide(plan: OpenPlan) -> Decision:
        number, group = plan.group_number(group_id), plan.sheet.structure.group(group_id)
        rows = np.flatnonzero(plan.sheet.table.group == number).tolist()
        offers = [offer.name for offer in plan.record.brief.offers]
        parts = split_of(plan.sheet.table, rows, body.by, word=body.word, offers=offers)
        campaign = plan.sheet.structure.campaign(group.campaign_id).name
        places = {Place(campaign, f"{group.name} {name}"): some for name, some in parts.items()}

        def do(change: Change) -> None:
            ids = make_places(change, places)
            place_keywords(change, {plan.sheet.ids[row]: ids[place]
                                    for place, some in places.items() for row in some})  # fmt: skip

        return Decision(f"split {group.name} by {body.by}", do)

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/arrange/names/look", responses=shape_of(NamesView))
def look_at_names(plan_id: int, body: NameRule, work: Work) -> Response:
    """Say what groups would be called by a rule; nothing is changed."""
    plan = work.plan(plan_id)
    named = _named(plan, body)
    ids = [group.id for group in plan.sheet.structure.groups]
    items = [
        {"group_id": i, "before": one.before, "after": one.after, "refused": _refused(one)}
        for i, one in zip(ids, named, strict=True)
        if one.after != one.before
    ]
    changes = sum(not item["refused"] for item in items)
    return sent({"revision": plan.record.revision, "names": items, "changes": changes})


@router.post("/plans/{plan_id}/arrange/names", responses=shape_of(ChangeAnswer))
def name_by_rule(plan_id: int, body: NameRule, work: Work, window: Window = "") -> Response:
    """Call groups by a rule; one whose name would clash or not fit keeps its own."""

    def decide(plan: OpenPlan) -> Decision:
        pairs = zip(plan.sheet.structure.groups, _named(plan, body), strict=True)
        new = {g.id: one.after for g, one in pairs if one.fits and one.after != one.before}
        if not new:
            raise NothingUsableError("No group would be called anything else by this rule.")
        label = f"name {counted(len(new), 'group')} by a rule"
        return Decision(label, lambda c: rename_groups(c, new))

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/arrange/scouting/look", responses=shape_of(ScoutingLook))
def look_at_scouting(plan_id: int, body: ScoutingAsked, work: Work) -> Response:
    """Say what a scouting campaign would be made of and cost; nothing is changed."""
    plan = work.plan(plan_id)
    found = _scouting(plan, body)
    return sent(
        {
            "revision": plan.record.revision, "cost": found.cost, "bid": found.bid,
            "low_price": found.low_price, "blocked": len(found.blocked),
            "keywords": [text for texts in found.texts.values() for text in texts],
            "there": _there(plan),
        }
    )  # fmt: skip


@router.post("/plans/{plan_id}/arrange/scouting", responses=shape_of(ChangeAnswer))
def add_scouting(plan_id: int, body: ScoutingAsked, work: Work, window: Window = "") -> Response:
    """Make a scouting campaign: wide keywords at a low bid, all that is known blocked in it."""

    def decide(plan: OpenPlan) -> Decision:
        if _there(plan):
            raise BadValueError("campaign", f"no campaign called {_SCOUTING} yet", _SCOUTING)
        found = _scouting(plan, body)
        offers = plan.record.brief.offers

        def do(change: Change) -> None:
            names = {at: f"Wide {offers[at].name}".strip() for at in found.texts}
            places = {at: Place(_SCOUTING, name) for at, name in names.items()}
            ids = make_places(change, places.values())
            campaign = make_campaigns(change, [_SCOUTING])[_SCOUTING]
            edit_campaign(change, campaign, {"scouting_share": body.share})
            for at, texts in found.texts.items():
                edit_group(change, ids[places[at]], {"bid": found.bid})
                made = add_keywords(change, [_wide(plan, text, at) for text in texts])
                set_calls(change, made, "keep", "", "scouting")
                place_keywords(change, dict.fromkeys(made, ids[places[at]]))
            blocked = [Negative(text, "exact") for text in found.blocked]
            owner = Owner(campaign_id=campaign)
            add_negatives(change, blocked, "scouting", [owner] * len(blocked))

        return Decision("add a scouting campaign", do)

    return sent(work.change(plan_id, decide, window=window))


def _scouting(plan: OpenPlan, body: ScoutingAsked) -> Scouting:
    return scouting_of(plan.result, plan.written.lexicon, body.share, body.bid)


def _there(plan: OpenPlan) -> bool:
    return any(campaign.name == _SCOUTING for campaign in plan.sheet.structure.campaigns)


def _wide(plan: OpenPlan, text: str, offer: int) -> Arrival:
    """Return a wide keyword with the figures of the same text, where the sheet has it."""
    there = next((e for e in plan.sheet.entries if e.normalised == text), None)
    reading = ReadingEntry() if there is None else there.reading
    entry = KeywordEntry(text, text, "broad", reading)
    name = plan.record.brief.offers[offer].name if offer else ""
    return Arrival(entry, offer=name)


def _named(plan: OpenPlan, rule: NameRule) -> list[NamedGroup]:
    structure = plan.sheet.structure
    groups = [
        (group.campaign_id, group.name, _says(plan, at, rule.note))
        for at, group in enumerate(structure.groups)
    ]
    wanted = set(rule.group_ids)
    chosen = [not wanted or group.id in wanted for group in structure.groups]
    return names_by_rule(groups, rule.parts, rule.separator, chosen)


def _says(plan: OpenPlan, number: int, note: str) -> dict[str, str]:
    """Return what each part of a rule says of a group."""
    facts = plan.written.facts[number]
    group, table = plan.sheet.structure.groups[number], plan.sheet.table
    rows = np.flatnonzero((table.group == number) & table.kept)
    matches = {table.match_name(row) for row in rows.tolist()}
    place = facts.fillings.first("place") or ""
    return {
        "name": group.name,
        "theme": " ".join(word.word for word in facts.words[:2]),
        "offer": facts.fillings.first("offer") or "",
        "match": matches.pop() if len(matches) == 1 else "mixed" if matches else "",
        "place": place if _names(place, facts.keywords) else "",
        "month": str(plan.record.values["start_date"])[:7],
        "note": note,
    }


def _names(place: str, keywords: Sequence[str]) -> bool:
    bare = normalise(place)
    return bool(bare) and any(f" {bare} " in f" {normalise(text)} " for text in keywords)


def _refused(one: NamedGroup) -> str:
    reasons: dict[str, Any] = {
        "no part says anything of it": one.empty,
        "another group of its campaign would be called so": one.clash,
        f"{len(one.after)} characters are too many": one.too_long,
    }
    return "; ".join(reason for reason, holds in reasons.items() if holds)
