"""Campaigns and ad groups: what there is, what they are called, who is in them."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.brief.campaigns import OwnTerms
from milkwort.core.brief.fields import MOST_MONEY
from milkwort.core.brief.showing import showing_of_values
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store import models
from milkwort.store.journal import Change, Prepared, Reserve, prepare
from milkwort.store.negative_lists import Pinned, pinned_lists
from milkwort.store.spots import StoredSpot, list_spots
from milkwort.store.things import StoredThing, list_things, show_things, shown_things

__all__ = [
    "FIRST_CAMPAIGN",
    "GENERAL_GROUP",
    "Campaign",
    "Group",
    "Place",
    "Structure",
    "add_campaign",
    "add_group",
    "bare_name",
    "edit_campaign",
    "edit_group",
    "load_structure",
    "make_campaigns",
    "make_places",
    "merge_groups",
    "move_groups",
    "new_campaign",
    "own_terms_of",
    "place_keywords",
    "plan_places",
    "remove_campaign",
    "remove_groups",
    "rename_groups",
]

GENERAL_GROUP = "General"
"""Where a keyword goes that no group was named for."""
FIRST_CAMPAIGN = "Search"
"""Where a group goes that no campaign was named for."""
_LONGEST_NAME = 120
_LONGEST_PAGE = 2048


@dataclass(frozen=True)
class Campaign:
    """One campaign as stored; money a month."""

    id: int
    key: str
    name: str
    least_spend: float = 0.0
    most_spend: float | None = None
    scouting_share: float | None = None
    own_terms: OwnTerms = field(default_factory=OwnTerms)
    note: str = ""
    page: str = ""
    first_day: str = ""
    last_day: str = ""
    bid_moves: str = ""
    partner_sites: bool = False
    audience: tuple[Mapping[str, Any], ...] = ()
    policy: Mapping[str, Any] | None = None


@dataclass(frozen=True)
class Group:
    """One ad group as stored."""

    id: int
    key: str
    campaign_id: int
    name: str
    page: str = ""
    bid: float | None = None
    locked: bool = False
    blocks_twins: bool = False
    policy: Mapping[str, Any] | None = None


@dataclass(frozen=True)
class Place:
    """Where keywords belong, by the names that make it one place: a campaign and a group."""

    campaign: str
    group: str
    page: str = ""


@dataclass(frozen=True)
class Structure:
    """All campaigns, groups, spots, pinned lists and things of a plan, as they were made.

    `shown` has the group's and the thing's id of each thing that a group shows.
    """

    campaigns: tuple[Campaign, ...] = ()
    groups: tuple[Group, ...] = ()
    spots: tuple[StoredSpot, ...] = ()
    lists: tuple[Pinned, ...] = ()
    things: tuple[StoredThing, ...] = ()
    shown: tuple[tuple[int, int], ...] = ()

    def group(self, group_id: int) -> Group:
        """Return a group.

        Raises
        ------
        NotFoundError
            Where the plan has no such group.
        """
        for group in self.groups:
            if group.id == group_id:
                return group
        raise NotFoundError(f"There is no ad group {group_id} in this plan.", "group")

    def campaign(self, campaign_id: int) -> Campaign:
        """Return a campaign.

        Raises
        ------
        NotFoundError
            Where the plan has no such campaign.
        """
        for campaign in self.campaigns:
            if campaign.id == campaign_id:
                return campaign
        raise NotFoundError(f"There is no campaign {campaign_id} in this plan.", "campaign")

    def labels(self) -> list[str]:
        """Return each group's name, with its campaign's before it where the name repeats."""
        often = Counter(group.name for group in self.groups)
        campaigns = {campaign.id: campaign.name for campaign in self.campaigns}
        return [
            g.name if often[g.name] == 1 else f"{campaigns[g.campaign_id]} · {g.name}"
            for g in self.groups
        ]

    def named(self, label: str) -> Group | None:
        """Return the group that a label, or a name only one group has, speaks of."""
        for group, own in zip(self.groups, self.labels(), strict=True):
            if own == label:
                return group
        return None


def load_structure(session: Session, plan_id: int) -> Structure:
    """Return a plan's campaigns and groups."""
    c, g = models.Campaign, models.AdGroup
    campaigns = session.execute(
        select(
            c.id,
            c.key,
            c.name,
            c.least_spend,
            c.most_spend,
            c.scouting_share,
            c.area_share,
            c.showing,
            c.landing_page,
            c.first_day,
            c.last_day,
            c.bid_moves,
            c.partner_sites,
            c.audience,
            c.policy,
            c.note,
        )
        .where(c.plan_id == plan_id)
        .order_by(c.id)
    )
    groups = session.execute(
        select(
            g.id,
            g.key,
            g.campaign_id,
            g.name,
            g.landing_page,
            g.bid,
            g.locked,
            g.blocks_twins,
            g.policy,
        )
        .where(g.plan_id == plan_id)
        .order_by(g.campaign_id, g.id)
    )
    return Structure(
        tuple(
            Campaign(
                row.id,
                row.key,
                row.name,
                row.least_spend,
                row.most_spend,
                row.scouting_share,
                own_terms_of(row.area_share, row.showing),
                row.note,
                row.landing_page,
                row.first_day,
                row.last_day,
                row.bid_moves,
                row.partner_sites,
                tuple(row.audience or ()),
                row.policy,
            )
            for row in campaigns
        ),
        tuple(Group(*row) for row in groups),
        tuple(list_spots(session, plan_id)),
        tuple(pinned_lists(session, plan_id)),
        tuple(list_things(session, plan_id)),
        tuple(shown_things(session, plan_id)),
    )


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


def own_terms_of(area_share: float | None, showing: Mapping[str, Any] | None) -> OwnTerms:
    """Return a campaign's own area and hours, checked.

    Raises
    ------
    BadValueError
    """
    return OwnTerms(area_share, None if showing is None else showing_of_values(showing))


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


def bare_name(name: str) -> str:
    """Return a name without needless spaces.

    Raises
    ------
    BadValueError
        Where it is empty or too long.
    """
    bare = " ".join(name.split())
    if not 1 <= len(bare) <= _LONGEST_NAME:
        raise BadValueError("name", f"a name of 1 to {_LONGEST_NAME} characters", name)
    return bare


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
