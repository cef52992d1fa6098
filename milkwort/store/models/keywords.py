"""Keywords with what is known and thought of them."""

from __future__ import annotations

from typing import Any

from sqlalchemy import ForeignKey, Index, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from milkwort.store.models.base import Base, keyed

__all__ = ["Call", "Keyword", "Reading", "SetAside"]


class Keyword(Base):
    """One candidate; its identity is normalised text and match type."""

    __tablename__ = "keyword"
    __table_args__ = (UniqueConstraint("plan_id", "normalised", "match"), keyed("keyword"))

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"))
    key: Mapped[str]
    text: Mapped[str]
    normalised: Mapped[str]
    match: Mapped[str]
    intent: Mapped[str]
    ad_group_id: Mapped[int | None] = mapped_column(ForeignKey("ad_group.id"), index=True)
    rate: Mapped[float | None]
    locked_bid: Mapped[float | None]
    unpaid_rank: Mapped[float | None]
    paid_rank: Mapped[float | None]
    popularity: Mapped[float | None]
    last_cpc: Mapped[float | None]
    """Average price last paid, money a click."""
    offer_id: Mapped[int | None] = mapped_column(ForeignKey("offer.id"), index=True)
    """The offer it points to; none for the first."""
    note: Mapped[str] = mapped_column(server_default="")
    taught: Mapped[dict[str, Any] | None]
    """What results made of its rate; none where they said nothing of it."""


class Reading(Base):
    """One source's figures for one keyword: searches a period, money a click."""

    __tablename__ = "reading"
    __table_args__ = (Index("ix_reading_plan_in_use", "plan_id", "in_use"),)

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"))
    keyword_id: Mapped[int] = mapped_column(ForeignKey("keyword.id"), index=True)
    in_use: Mapped[bool]
    """For searches and what belongs to them."""
    prices_in_use: Mapped[bool]
    """For prices and competition, which may be another's."""
    volume_low: Mapped[float | None]
    volume_high: Mapped[float | None]
    cpc_low: Mapped[float | None]
    cpc_high: Mapped[float | None]
    competition: Mapped[float | None]
    months: Mapped[list[Any] | None]
    basis: Mapped[str]
    """A match type, or empty for the plan's own."""
    area: Mapped[str]
    period: Mapped[str]
    shown_at_bid: Mapped[float | None]
    """The bid at which the volume counts showings; none where it counts searches."""
    read_at: Mapped[str]
    origin: Mapped[str]
    origin_row: Mapped[int | None]
    taught: Mapped[dict[str, Any] | None]
    """By what results corrected it, and what they left unsure; none for one that was read."""


class Call(Base):
    """The planner's judgement of one keyword; none where it is not yet called."""

    __tablename__ = "call"

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"), index=True)
    keyword_id: Mapped[int] = mapped_column(ForeignKey("keyword.id"), unique=True)
    call: Mapped[str]
    reason: Mapped[str]
    by: Mapped[str]
    at: Mapped[str]


class SetAside(Base):
    """A suggestion of the results that nobody wants to follow now."""

    __tablename__ = "set_aside"

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"), index=True)
    kind: Mapped[str]
    """Term or keyword."""
    key: Mapped[str]
    """The term's normalised text, or the keyword's key."""
    suggestion: Mapped[str]
    """Another one is asked about again."""
    as_of: Mapped[str | None]
    """Up to which day was reported then: later results ask again; none: they don't."""
