"""What a client owns beside its plans."""

from __future__ import annotations

from typing import Any

from sqlalchemy import ForeignKey, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from milkwort.store.models.base import Base

__all__ = ["FileShape", "NegativeList", "Page", "PastList", "Recipe", "RivalList"]


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
