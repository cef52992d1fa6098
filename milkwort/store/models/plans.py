"""A plan and what its brief is made of."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import is_dataclass
from typing import Any, get_origin

from sqlalchemy import JSON, Boolean, Double, ForeignKey, Integer, String, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from milkwort.core.brief.fields import OF_OFFER, OF_PLAN, BriefField
from milkwort.store.models.base import Base

__all__ = ["Assumption", "Client", "Offer", "Plan"]


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
