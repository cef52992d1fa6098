"""Campaigns, groups, ads, negatives and what stands beside keywords."""

from __future__ import annotations

from typing import Any

from sqlalchemy import ForeignKey, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from milkwort.store.models.base import Base, keyed

__all__ = ["Ad", "AdGroup", "Campaign", "Negative", "PinnedList", "ShownThing", "Spot", "Thing"]


class Campaign(Base):
    """What holds money at the ad platform."""

    __tablename__ = "campaign"
    __table_args__ = (UniqueConstraint("plan_id", "name"), keyed("campaign"))

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"))
    key: Mapped[str]
    name: Mapped[str]
    least_spend: Mapped[float] = mapped_column(server_default="0")
    most_spend: Mapped[float | None]
    scouting_share: Mapped[float | None]
    """Share of the purse set aside for it; set in the one campaign that scouts, if any."""
    area_share: Mapped[float | None]
    """Share of the area that its volumes count; none for the plan's."""
    showing: Mapped[dict[str, Any] | None]
    """Days and hours of its own; none for the plan's."""
    note: Mapped[str] = mapped_column(server_default="")
    landing_page: Mapped[str] = mapped_column(server_default="")
    """Where the ads of its groups lead that have no page of their own."""
    first_day: Mapped[str] = mapped_column(server_default="")
    last_day: Mapped[str] = mapped_column(server_default="")
    """Days such as 2027-03-01; empty for the plan's first day, and for no last one."""
    bid_moves: Mapped[str] = mapped_column(server_default="")
    """How the platform may move its bids, in words."""
    partner_sites: Mapped[bool] = mapped_column(server_default="0")
    audience: Mapped[list[Any] | None]
    """Devices and audiences in words, each with its share of searches and how well it buys."""
    policy: Mapped[dict[str, Any] | None]
    """Where bids of its groups come from that say nothing themselves; none for the plan's way."""


class AdGroup(Base):
    """Close keywords together."""

    __tablename__ = "ad_group"
    __table_args__ = (UniqueConstraint("campaign_id", "name"), keyed("ad_group"))

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"))
    key: Mapped[str]
    campaign_id: Mapped[int] = mapped_column(ForeignKey("campaign.id"))
    name: Mapped[str]
    landing_page: Mapped[str] = mapped_column(server_default="")
    policy: Mapped[dict[str, Any] | None]
    """Where its bids come from; none for its campaign's way."""
    bid: Mapped[float | None]
    """What its keywords bid that have no bid of their own, money a click."""
    locked: Mapped[bool] = mapped_column(server_default="0")
    """Whether ready structures leave it alone."""
    blocks_twins: Mapped[bool] = mapped_column(server_default="0")
    """Whether texts that other groups hold as exact are blocked here exactly, at the platform."""


class Ad(Base):
    """A written ad of a group."""

    __tablename__ = "ad"
    __table_args__ = (keyed("ad"),)

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"))
    key: Mapped[str]
    ad_group_id: Mapped[int] = mapped_column(ForeignKey("ad_group.id"), index=True)
    headlines: Mapped[list[Any]]
    descriptions: Mapped[list[Any]]


class Negative(Base):
    """A negative keyword: searches that the plan is not to be shown for."""

    __tablename__ = "negative"
    __table_args__ = (keyed("negative"),)

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"))
    key: Mapped[str]
    campaign_id: Mapped[int | None] = mapped_column(ForeignKey("campaign.id"), index=True)
    ad_group_id: Mapped[int | None] = mapped_column(ForeignKey("ad_group.id"), index=True)
    """Where it acts: in one campaign, in one group, or with neither in the whole plan."""
    text: Mapped[str]
    match: Mapped[str]
    by: Mapped[str]
    at: Mapped[str]
    note: Mapped[str] = mapped_column(server_default="")
    """Why it stands though it stops something wanted."""


class PinnedList(Base):
    """A negative list as a plan uses it: the rows of the edition it was taken at."""

    __tablename__ = "pinned_list"
    __table_args__ = (UniqueConstraint("plan_id", "list_key"),)

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"))
    list_key: Mapped[str]
    """Of the list it came from, which may have changed since, or be gone."""
    name: Mapped[str]
    edition: Mapped[int]
    rows: Mapped[list[Any]]


class Thing(Base):
    """A thing that is sold, which groups may show."""

    __tablename__ = "thing"
    __table_args__ = (UniqueConstraint("plan_id", "code"),)

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"))
    code: Mapped[str]
    name: Mapped[str]
    price: Mapped[float | None]
    margin: Mapped[float | None]
    """Share of the price that is left."""
    page: Mapped[str] = mapped_column(server_default="")
    deliverable: Mapped[bool] = mapped_column(server_default="1")


class ShownThing(Base):
    """That a group shows a thing."""

    __tablename__ = "shown_thing"
    __table_args__ = (UniqueConstraint("ad_group_id", "thing_id"),)

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"))
    ad_group_id: Mapped[int] = mapped_column(ForeignKey("ad_group.id"))
    thing_id: Mapped[int] = mapped_column(ForeignKey("thing.id"), index=True)


class Spot(Base):
    """A place to be shown that has no keyword."""

    __tablename__ = "spot"
    __table_args__ = (keyed("spot"),)

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"))
    key: Mapped[str]
    campaign_id: Mapped[int] = mapped_column(ForeignKey("campaign.id"), index=True)
    offer_id: Mapped[int | None] = mapped_column(ForeignKey("offer.id"), index=True)
    """The offer it sells; none for the first."""
    name: Mapped[str]
    pays: Mapped[str]
    price: Mapped[float]
    """Money a thousand showings, or a click."""
    showings: Mapped[float] = mapped_column(server_default="0")
    clicks: Mapped[float] = mapped_column(server_default="0")
    """At most so many a month, as it pays."""
    click_rate: Mapped[float] = mapped_column(server_default="0")
    sells: Mapped[float | None]
    """How many times as well as a search click its clicks sell; none for what is usual."""
