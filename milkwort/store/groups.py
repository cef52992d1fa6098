"""Campaigns and ad groups: what there is, what they are called, who is in them."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from datetime import date
from typing import Any

from sqlalchemy import select

from milkwort.core.brief.fields import MOST_MONEY
from milkwort.core.errors import BadValueError
from milkwort.store import models
from milkwort.store.journal import Change, Prepared, Reserve, prepare
from milkwort.store.structure import (
    Place,
    Structure,
    bare_name,
    load_structure,
    own_terms_of,
)
from milkwort.store.things import show_things

__all__ = [
    "add_campaign",
    "add_group",
    "edit_campaign",
    "edit_group",
    "make_campaigns",
    "make_places",
    "merge_groups",
    "move_groups",
    "new_campaign",
    "place_keywords",
    "plan_places",
    "remove_campaign",
    "remove_groups",
    "rename_groups",
]

_LONGEST_PAGE = 2048


def edit_group(change: Change, group_id: int, values: Mapping[str, Any]) -> None:
    """Set columns of a group: its name, where its ads lead, its bid, whether it is locked.

    Raises
    ------
    NotFoundError
        Where the plan has no such group.
    BadValueError
        For a name that is empty, too long or taken in its campaign; for a page that is too
        long; for a bid that is no price.
    """
    structure = load_structure(change.session, change.plan_id)
    group = structure.group(group_id)
    new = dict(values)
    if "landing_page" in new:
        new["landing_page"] = _address(new["landing_page"])
    bid = new.get("bid")
    if bid is not None and not 0 < bid <= MOST_MONEY:
        raise BadValueError("bid", f"a price above 0, at most {MOST_MONEY:g}", bid)
    if "name" in new:
        new["name"] = bare_name(new["name"])
        beside = [g.name for g in structure.groups
                  if g.campaign_id == group.campaign_id and g.id != group_id]  # fmt: skip
        if new["name"] in beside:
            raise BadValueError("name", "one that no other group of the campaign has", new["name"])
    change.update(models.AdGroup, {group_id: new})


def rename_groups(change: Change, names: Mapping[int, str]) -> None:
    """Call several groups something else at once; names may go from one to another.

    Raises
    ------
    NotFoundError
        For a group that is not in the plan.
    BadValueError
        For a name that is empty or too long; where two groups of a campaign would have one name.
    """
    structure = load_structure(change.session, change.plan_id)
    new = {group_id: bare_name(name) for group_id, name in names.items()}
    groups = {structure.group(group_id).id: structure.group(group_id) for group_id in new}
    after = [(g.campaign_id, new.get(g.id, g.name)) for g in structure.groups]
    twice = sorted({name for place, often in Counter(after).items() if often > 1
                    for name in place[1:]})  # fmt: skip
    if twice:
        raise BadValueError("name", "one that no other group of the campaign has", twice[0])
    held = {(g.campaign_id, g.name): g.id for g in structure.groups}
    moves = [i for i, g in groups.items() if held.get((g.campaign_id, new[i]), i) != i]
    # the table holds names apart after each row: what is still taken is waited for
    waiting = {i: {"name": f"\x00{structure.group(i).key}"} for i in moves}
    change.update(models.AdGroup, waiting)
    change.update(models.AdGroup, {i: {"name": new[i]} for i in new if i not in waiting})
    change.update(models.AdGroup, {i: {"name": new[i]} for i in waiting})


def edit_campaign(change: Change, campaign_id: int, values: Mapping[str, Any]) -> None:
    """Set columns of a campaign: its name, its money, its share for scouting.

    Raises
    ------
    NotFoundError
        Where the plan has no such campaign.
    BadValueError
        For a name that is empty, too long or taken; for money or a share out of range.
    """
    structure = load_structure(change.session, change.plan_id)
    held = structure.campaign(campaign_id)
    new = dict(values)
    if "name" in new:
        new["name"] = bare_name(new["name"])
        if new["name"] in [c.name for c in structure.campaigns if c.id != campaign_id]:
            raise BadValueError("name", "one that no other campaign has", new["name"])
    least = new.get("least_spend", held.least_spend)
    most = new.get("most_spend", held.most_spend)
    if least < 0 or (most is not None and most < least):
        raise BadValueError("campaign", "least money from 0 to its most", f"{least} to {most}")
    own_terms_of(new.get("area_share"), new.get("showing"))
    if "landing_page" in new:
        new["landing_page"] = _address(new["landing_page"])
    _check_days(new.get("first_day", held.first_day), new.get("last_day", held.last_day))
    share = new.get("scouting_share")
    if share is not None and not 0 <= share <= 1:
        raise BadValueError("scouting_share", "a share from 0 to 1", share)
    change.update(models.Campaign, {campaign_id: new})
    if share is not None:  # one campaign scouts
        others = {c.id: {"scouting_share": None} for c in structure.campaigns
                  if c.id != campaign_id and c.scouting_share is not None}  # fmt: skip
        change.update(models.Campaign, others)


def _check_days(first: str, last: str) -> None:
    for name, day in (("first_day", first), ("last_day", last)):
        if day:
            try:
                date.fromisoformat(day)
            except ValueError:
                raise BadValueError(name, "a day such as 2027-03-01, or none", day) from None
    if first and last and last < first:
        raise BadValueError("last_day", f"a day not before {first}", last)


def _address(page: str) -> str:
    bare = page.strip()
    if len(bare) > _LONGEST_PAGE:
        raise BadValueError("page", f"an address of at most {_LONGEST_PAGE} characters", page)
    return bare


def plan_places(
    reserve: Reserve, plan_id: int, structure: Structure, places: Iterable[Place]
) -> tuple[dict[Place, int], list[Prepared]]:
    """Return the id of the group at each place, and the rows of those that are missing."""
    wanted = list(dict.fromkeys(places))
    campaigns = {c.name: c.id for c in structure.campaigns}
    names = [n for n in dict.fromkeys(p.campaign for p in wanted) if n not in campaigns]
    rows = [new_campaign(plan_id, name) for name in names]
    new_campaigns = prepare(reserve, models.Campaign, rows)
    campaigns |= dict(zip(names, new_campaigns.ids, strict=True))
    groups = {(g.campaign_id, g.name): g.id for g in structure.groups}
    first: dict[tuple[int, str], Place] = {}
    for place in wanted:
        first.setdefault((campaigns[place.campaign], place.group), place)
    missing = [at for at in first if at not in groups]
    rows = [new_group(plan_id, *at, first[at].page) for at in missing]
    new_groups = prepare(reserve, models.AdGroup, rows)
    groups |= dict(zip(missing, new_groups.ids, strict=True))
    ids = {place: groups[campaigns[place.campaign], place.group] for place in wanted}
    return ids, [new_campaigns, new_groups]


def make_campaigns(change: Change, names: Iterable[str]) -> dict[str, int]:
    """Return the id of each campaign named, made where it is missing."""
    structure = load_structure(change.session, change.plan_id)
    ids = {c.name: c.id for c in structure.campaigns}
    missing = [name for name in dict.fromkeys(names) if name not in ids]
    made = change.insert(models.Campaign, [new_campaign(change.plan_id, n) for n in missing])
    return ids | dict(zip(missing, made, strict=True))


def add_campaign(change: Change, name: str) -> int:
    """Make a campaign that nothing is in yet, and return its id.

    Raises
    ------
    BadValueError
        For a name that is empty, too long or taken.
    """
    bare = bare_name(name)
    if bare in [c.name for c in load_structure(change.session, change.plan_id).campaigns]:
        raise BadValueError("name", "one that no other campaign has", bare)
    (made,) = change.insert(models.Campaign, [new_campaign(change.plan_id, bare)])
    return made


def add_group(change: Change, campaign_id: int, name: str) -> int:
    """Make a group that nothing is in yet, and return its id.

    Raises
    ------
    NotFoundError
        Where the plan has no such campaign.
    BadValueError
        For a name that is empty, too long or taken in the campaign.
    """
    structure, bare = load_structure(change.session, change.plan_id), bare_name(name)
    structure.campaign(campaign_id)
    _check_free(structure, campaign_id, [bare])
    (made,) = change.insert(models.AdGroup, [new_group(change.plan_id, campaign_id, bare)])
    return made


def move_groups(change: Change, ids: Sequence[int], campaign_id: int) -> None:
    """Put groups, with all that is in them, into a campaign.

    Raises
    ------
    NotFoundError
        For a group or a campaign that is not in the plan.
    BadValueError
        Where two groups of one campaign would have one name.
    """
    structure = load_structure(change.session, change.plan_id)
    structure.campaign(campaign_id)
    moved = [g for g in map(structure.group, ids) if g.campaign_id != campaign_id]
    _check_free(structure, campaign_id, [g.name for g in moved])
    change.update(models.AdGroup, {g.id: {"campaign_id": campaign_id} for g in moved})


def merge_groups(change: Change, ids: Sequence[int], into: int) -> None:
    """Put all that some groups hold and show into another; those go, negatives with them.

    Raises
    ------
    NotFoundError
        For a group that is not in the plan.
    """
    structure = load_structure(change.session, change.plan_id)
    structure.group(into)
    others = [structure.group(i).id for i in dict.fromkeys(ids) if i != into]
    k = models.Keyword
    mine = select(k.id).where(k.plan_id == change.plan_id, k.ad_group_id.in_(others))
    place_keywords(change, dict.fromkeys(change.session.scalars(mine), into))
    a = models.Ad
    ads = select(a.id).where(a.plan_id == change.plan_id, a.ad_group_id.in_(others))
    change.update(a, {i: {"ad_group_id": into} for i in change.session.scalars(ads)})
    gone = set(others)
    things = [thing for group, thing in structure.shown if group == into or group in gone]
    show_things(change, into, things)
    remove_groups(change, others)


def _check_free(structure: Structure, campaign_id: int, names: Sequence[str]) -> None:
    """Refuse names that would stand twice in a campaign."""
    held = Counter([*names, *(g.name for g in structure.groups if g.campaign_id == campaign_id)])
    twice = sorted(name for name in names if held[name] > 1)
    if twice:
        expected = "one that no other group of the campaign has"
        raise BadValueError("name", expected, ", ".join(dict.fromkeys(twice)))


def make_places(change: Change, places: Iterable[Place]) -> dict[Place, int]:
    """Return the id of the group at each place, made with its campaign where it is missing."""
    structure = load_structure(change.session, change.plan_id)
    ids, new = plan_places(change.reserve, change.plan_id, structure, places)
    for made in new:
        change.put(made)
    return ids


def place_keywords(change: Change, group_of: Mapping[int, int]) -> None:
    """Put keywords into groups, by the keyword's id; groups they leave stay, also when empty.

    All of them at once: a change that takes a step for each group takes as many to undo.
    """
    change.update(models.Keyword, {i: {"ad_group_id": g} for i, g in group_of.items()})


def remove_groups(change: Change, ids: Sequence[int]) -> None:
    """Remove groups that no keyword is in, with their ads and the negatives that act in them.

    Raises
    ------
    NotFoundError
        For a group that is not in the plan.
    BadValueError
        For a group that still holds keywords.
    """
    structure = load_structure(change.session, change.plan_id)
    k, n = models.Keyword, models.Negative
    for group_id in ids:
        group = structure.group(group_id)
        held = change.session.scalars(select(k.id).where(k.ad_group_id == group_id)).all()
        if held:
            raise BadValueError(group.name, "a group without keywords", f"{len(held):,} keywords")
        for inside in (n, models.Ad, models.ShownThing):
            mine = change.session.scalars(select(inside.id).where(inside.ad_group_id == group_id))
            change.delete(inside, list(mine))
    change.delete(models.AdGroup, list(ids))


def remove_campaign(change: Change, campaign_id: int) -> None:
    """Remove a campaign that no group is in, with its spots and the negatives that act in it.

    Raises
    ------
    NotFoundError
        Where the plan has no such campaign.
    BadValueError
        Where it still holds groups.
    """
    structure = load_structure(change.session, change.plan_id)
    campaign = structure.campaign(campaign_id)
    held = [g for g in structure.groups if g.campaign_id == campaign_id]
    if held:
        raise BadValueError(campaign.name, "a campaign without groups", f"{len(held):,} groups")
    for inside in (models.Negative, models.Spot):
        mine = change.session.scalars(select(inside.id).where(inside.campaign_id == campaign_id))
        change.delete(inside, list(mine))
    change.delete(models.Campaign, [campaign_id])


def new_campaign(plan_id: int, name: str) -> dict[str, Any]:
    """Return the row of a campaign that nothing is said of yet."""
    return {"plan_id": plan_id, "name": name, "least_spend": 0.0, "most_spend": None,
            "scouting_share": None, "area_share": None, "showing": None, "note": "",
            "landing_page": "", "first_day": "", "last_day": "", "bid_moves": "",
            "partner_sites": False, "audience": None, "policy": None}  # fmt: skip


def new_group(plan_id: int, campaign_id: int, name: str, page: str = "") -> dict[str, Any]:
    """Return the row of an ad group."""
    return {
        "plan_id": plan_id,
        "campaign_id": campaign_id,
        "name": name,
        "landing_page": page,
        "bid": None,
        "locked": False,
        "blocks_twins": False,
        "policy": None,
    }
