"""The tables."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import is_dataclass
from typing import Any, ClassVar, get_origin

from sqlalchemy import (
    JSON,
    Boolean,
    Double,
    ForeignKey,
    Index,
    Integer,
    LargeBinary,
    MetaData,
    String,
    UniqueConstraint,
)
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

from milkwort.core.brief.fields import OF_OFFER, OF_PLAN, BriefField

__all__ = [
    "AccountSheet",
    "Ad",
    "AdGroup",
    "Assumption",
    "Base",
    "Call",
    "Campaign",
    "Client",
    "FileShape",
    "HandOver",
    "HandOverFile",
    "Journal",
    "Keyword",
    "Negative",
    "NegativeList",
    "Offer",
    "Page",
    "PastList",
    "PinnedList",
    "Plan",
    "Reading",
    "Recipe",
    "RivalList",
    "ShownThing",
    "Spot",
    "Thing",
]


def _key(table: str) -> UniqueConstraint:
    """Return what holds the keys of a plan apart; see `milkwort.store.keys`."""
    return UniqueConstraint("plan_id", "key", name=f"uq_{table}_key")


class Base(DeclarativeBase):
    """The root of all tables; every one has an integer `id` that is never used twice."""

    metadata = MetaData(
        naming_convention={
            "ix": "ix_%(column_0_label)s",
            "uq": "uq_%(table_name)s_%(column_0_name)s",
            "fk": "fk_%(table_name)s_%(column_0_name)s",
            "pk": "pk_%(table_name)s",
        }
    )
    type_annotation_map: ClassVar[dict[Any, Any]] = {
        list[Any]: JSON(none_as_null=True),
        dict[str, Any]: JSON(none_as_null=True),
    }

    id: Mapped[int] = mapped_column(primary_key=True)


class Client(Base):
    """One business: what its plans share and what outlives them."""

    __tablename__ = "client"

    name: Mapped[str]
    created_at: Mapped[str]


class Plan(Base):
    """One piece of planning; money in its currency, spend a month.

    The brief's fields (`milkwort.core.brief.fields`) are columns beside those that stand here.
    """

    __tablename__ = "plan"

    client_id: Mapped[int] = mapped_column(ForeignKey("client.id"), index=True)
    version_of: Mapped[int | None] = mapped_column(ForeignKey("plan.id"))
    """The plan this is a version of; none for one that stands for itself."""
    label: Mapped[str] = mapped_column(server_default="")
    """What a version is called beside the plan it is of."""
    reason: Mapped[str] = mapped_column(server_default="")
    """Why the version was made, in words."""
    chosen: Mapped[int] = mapped_column(server_default="0")
    """Counts up within a plan's versions: the highest that is not deleted is the plan."""
    name: Mapped[str]
    reading_rule: Mapped[str] = mapped_column(server_default="newest")
    """Which reading is in use: `newest`, `mean`, or `of ` and a source's name."""
    quick_reasons: Mapped[list[Any] | None]
    saved_filters: Mapped[list[Any] | None]
    house_rules: Mapped[list[Any] | None]
    word_kinds: Mapped[dict[str, Any] | None]
    report_style: Mapped[dict[str, Any] | None]
    report_logo: Mapped[str | None] = mapped_column(deferred=True)
    """A picture for the client's sheet: its kind, a colon, base64."""
    """The planner's own ways; none for those every plan starts with."""
    not_entered: Mapped[list[Any]]
    """Fields of the brief that nobody has entered yet."""
    revision: Mapped[int]
    created_at: Mapped[str]
    deleted_at: Mapped[str | None]
    taught: Mapped[dict[str, Any] | None]
    """What results taught of all keywords together; none where none were taken over."""
    closed_as: Mapped[int | None]
    """The version that goes on from this one, whose month is over; it may have been deleted."""


class Offer(Base):
    """What a plan sells, its figures as the brief's fields have them."""

    __tablename__ = "offer"

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"), index=True)
    name: Mapped[str]


def _add_columns(table: type[Base], fields: Iterable[BriefField]) -> None:
    """Give a table a column for each field of the brief it holds."""
    for field in fields:
        setattr(table, field.name, mapped_column(_kind(field.holds), nullable=field.may_be_open))


def _kind(holds: Any) -> Any:
    """Return the type of a column: lists and parts of the brief are JSON, words are texts."""
    plain = {float: Double(), int: Integer(), bool: Boolean()}
    is_json = is_dataclass(holds) or get_origin(holds) is list
    return plain.get(holds) or (JSON(none_as_null=True) if is_json else String())


_add_columns(Plan, OF_PLAN)
_add_columns(Offer, OF_OFFER)


class Assumption(Base):
    """A default of the model that a plan changed."""

    __tablename__ = "assumption"
    __table_args__ = (UniqueConstraint("plan_id", "name"),)

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"))
    name: Mapped[str]
    value: Mapped[float]


class Campaign(Base):
    """What holds money at the ad platform."""

    __tablename__ = "campaign"
    __table_args__ = (UniqueConstraint("plan_id", "name"), _key("campaign"))

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
    __table_args__ = (UniqueConstraint("campaign_id", "name"), _key("ad_group"))

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
    __table_args__ = (_key("ad"),)

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"))
    key: Mapped[str]
    ad_group_id: Mapped[int] = mapped_column(ForeignKey("ad_group.id"), index=True)
    headlines: Mapped[list[Any]]
    descriptions: Mapped[list[Any]]


class Keyword(Base):
    """One candidate; its identity is normalised text and match type."""

    __tablename__ = "keyword"
    __table_args__ = (UniqueConstraint("plan_id", "normalised", "match"), _key("keyword"))

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


class Negative(Base):
    """A negative keyword: searches that the plan is not to be shown for."""

    __tablename__ = "negative"
    __table_args__ = (_key("negative"),)

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


class NegativeList(Base):
    """A named list of negatives, of a client or for all; a change of its rows is an edition."""

    __tablename__ = "negative_list"

    client_id: Mapped[int | None] = mapped_column(ForeignKey("client.id"), index=True)
    """Whose it is; none for all clients."""
    key: Mapped[str]
    name: Mapped[str]
    edition: Mapped[int]
    at: Mapped[str]
    rows: Mapped[list[Any]]
    """Text and match type of each."""


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
    __table_args__ = (_key("spot"),)

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


class Recipe(Base):
    """A crossing that was saved, to be run again when a word is added."""

    __tablename__ = "recipe"

    client_id: Mapped[int] = mapped_column(ForeignKey("client.id"), index=True)
    name: Mapped[str]
    parts: Mapped[list[Any]]


class RivalList(Base):
    """A list of rivals' paid keywords, as it was brought in."""

    __tablename__ = "rival_list"

    client_id: Mapped[int] = mapped_column(ForeignKey("client.id"), index=True)
    name: Mapped[str]
    at: Mapped[str]
    rows: Mapped[list[Any]]


class PastList(Base):
    """Search terms of the past, or what an account runs, as it was brought in."""

    __tablename__ = "past_list"

    client_id: Mapped[int] = mapped_column(ForeignKey("client.id"), index=True)
    kind: Mapped[str]
    """`terms` or `account`."""
    name: Mapped[str]
    at: Mapped[str]
    days: Mapped[float]
    rows: Mapped[list[Any]]


class Page(Base):
    """A page of the client's site with its text; groups lead to it by its address."""

    __tablename__ = "page"

    client_id: Mapped[int] = mapped_column(ForeignKey("client.id"), index=True)
    address: Mapped[str]
    title: Mapped[str]
    headings: Mapped[list[Any]]
    text: Mapped[str]
    at: Mapped[str]
    """When its text was read."""


class FileShape(Base):
    """How the columns of files with the same headings were last read."""

    __tablename__ = "file_shape"
    __table_args__ = (UniqueConstraint("headings"),)

    headings: Mapped[str]
    columns: Mapped[dict[str, Any]]
    units: Mapped[dict[str, Any]]
    at: Mapped[str]


class Journal(Base):
    """One change of a plan with what undoes it."""

    __tablename__ = "journal"

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"), index=True)
    label: Mapped[str]
    at: Mapped[str]
    undone: Mapped[bool]
    schema: Mapped[str]
    """Revision of the tables under which its steps were written."""
    under_way: Mapped[bool] = mapped_column(server_default="0")
    """Whether its rows are still being written, a few at a time; taken back after a crash."""
    steps: Mapped[bytes] = mapped_column(LargeBinary)


class HandOver(Base):
    """What was sent: its files, and the plan and its forecast as they stood."""

    __tablename__ = "hand_over"

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"), index=True)
    at: Mapped[str]
    revision: Mapped[int]
    label: Mapped[str] = mapped_column(server_default="")
    """Of the version it was sent from."""
    status: Mapped[str] = mapped_column(server_default="written")
    """Written, running or paused."""
    note: Mapped[str] = mapped_column(server_default="")
    points: Mapped[list[Any] | None]
    """What was still open when it was sent, in sentences."""
    sheets: Mapped[bytes | None] = mapped_column(LargeBinary)
    """Its rows by sheet, packed JSON; none for one of before sheets were kept."""
    state: Mapped[bytes | None] = mapped_column(LargeBinary)
    """The plan's file, packed."""
    forecast: Mapped[bytes | None] = mapped_column(LargeBinary)
    """What each keyword was expected to do, packed JSON by column."""


class AccountSheet(Base):
    """A running account's file as its platform wrote it, brought in to be written back."""

    __tablename__ = "account_sheet"

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"), index=True)
    name: Mapped[str]
    at: Mapped[str]
    columns: Mapped[dict[str, Any]]
    """Which of its columns holds what."""
    content: Mapped[bytes] = mapped_column(LargeBinary)


class HandOverFile(Base):
    """A file of a hand-over, byte for byte as it was sent."""

    __tablename__ = "hand_over_file"

    hand_over_id: Mapped[int] = mapped_column(ForeignKey("hand_over.id"), index=True)
    kind: Mapped[str]
    filename: Mapped[str]
    rows: Mapped[int]
    sha256: Mapped[str]
    content: Mapped[bytes] = mapped_column(LargeBinary)


class PracticeAccount(Base):
    """An account of a plan and its versions in a practice market."""

    __tablename__ = "practice_account"

    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"), index=True)
    """The root of the versions that share it."""
    name: Mapped[str]
    account: Mapped[str]
    """What the market knows it by."""
    key: Mapped[str]
    """What opens it there."""
    level: Mapped[str]
    seed: Mapped[int]
    start: Mapped[str]
    at: Mapped[str]


class PracticeSending(Base):
    """One sending to a practice account: what was to be sent, and what came back."""

    __tablename__ = "practice_sending"

    practice_id: Mapped[int] = mapped_column(ForeignKey("practice_account.id"), index=True)
    hand_over_id: Mapped[int] = mapped_column(ForeignKey("hand_over.id"))
    at: Mapped[str]
    once: Mapped[str]
    """By which the market knows that it had it already."""
    state: Mapped[str]
    """Under way, done, or stopped short."""
    message: Mapped[str] = mapped_column(server_default="")
    sheets: Mapped[bytes] = mapped_column(LargeBinary)
    """Rows by sheet as they go, packed JSON."""
    replies: Mapped[bytes | None] = mapped_column(LargeBinary)
    """The market's answers by sheet, packed JSON."""
    differs: Mapped[list[Any] | None]
    """What stood otherwise when it was read back; none until it was."""


class ResultImport(Base):
    """Results as they were brought in: never changed, but in force or not."""

    __tablename__ = "result_import"

    client_id: Mapped[int] = mapped_column(ForeignKey("client.id"), index=True)
    plan_id: Mapped[int] = mapped_column(ForeignKey("plan.id"))
    """The plan they were brought into; undone there."""
    at: Mapped[str]
    source: Mapped[str]
    """A file's name, or the practice market."""
    sha256: Mapped[str]
    level: Mapped[str]
    since: Mapped[str]
    until: Mapped[str]
    as_of: Mapped[str]
    """Up to which day is reported."""
    rows: Mapped[int]
    in_force: Mapped[bool]
    content: Mapped[bytes] = mapped_column(LargeBinary)
    """Rows by column, packed JSON."""


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


for _table in Base.metadata.tables.values():
    # SQLite would give the id of a removed newest row to the next one
    _table.dialect_options["sqlite"]["autoincrement"] = True
