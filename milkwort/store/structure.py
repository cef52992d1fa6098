"""Campaigns and ad groups as they stand: what there is, what it is called, how it is read."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.brief.campaigns import OwnTerms
from milkwort.core.brief.showing import showing_of_values
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store import models
from milkwort.store.negative_lists import Pinned, pinned_lists
from milkwort.store.spots import StoredSpot, list_spots
from milkwort.store.things import StoredThing, list_things, shown_things

__all__ = [
    "FIRST_CAMPAIGN",
    "GENERAL_GROUP",
    "Campaign",
    "Group",
    "Place",
    "Structure",
    "bare_name",
    "load_structure",
    "own_terms_of",
]

GENERAL_GROUP = "General"
"""Where a keyword goes that no group was named for."""


FIRST_CAMPAIGN = "Search"
"""Where a group goes that no campaign was named for."""


_LONGEST_NAME = 120


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
    return Structure(
        _campaigns(session, plan_id),
        _groups(session, plan_id),
        tuple(list_spots(session, plan_id)),
        tuple(pinned_lists(session, plan_id)),
        tuple(list_things(session, plan_id)),
        tuple(shown_things(session, plan_id)),
    )


def _campaigns(session: Session, plan_id: int) -> tuple[Campaign, ...]:
    c = models.Campaign
    rows = session.execute(
        select(c.id, c.key, c.name, c.least_spend, c.most_spend, c.scouting_share, c.area_share,
               c.showing, c.note, c.landing_page, c.first_day, c.last_day, c.bid_moves,
               c.partner_sites, c.audience, c.policy)
        .where(c.plan_id == plan_id)
        .order_by(c.id)
    )  # fmt: skip
    return tuple(
        Campaign(
            row.id, row.key, row.name, row.least_spend, row.most_spend, row.scouting_share,
            own_terms_of(row.area_share, row.showing), row.note, row.landing_page, row.first_day,
            row.last_day, row.bid_moves, row.partner_sites, tuple(row.audience or ()), row.policy,
        )
        for row in rows
    )  # fmt: skip


def _groups(session: Session, plan_id: int) -> tuple[Group, ...]:
    g = models.AdGroup
    rows = session.execute(
        select(g.id, g.key, g.campaign_id, g.name, g.landing_page, g.bid, g.locked,
               g.blocks_twins, g.policy)
        .where(g.plan_id == plan_id)
        .order_by(g.campaign_id, g.id)
    )  # fmt: skip
    return tuple(Group(*row) for row in rows)


def own_terms_of(area_share: float | None, showing: Mapping[str, Any] | None) -> OwnTerms:
    """Return a campaign's own area and hours, checked.

    Raises
    ------
    BadValueError
    """
    return OwnTerms(area_share, None if showing is None else showing_of_values(showing))


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
