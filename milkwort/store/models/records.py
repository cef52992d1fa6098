"""What was done, sent, lived and reported."""

from __future__ import annotations

from typing import Any

from sqlalchemy import ForeignKey, LargeBinary
from sqlalchemy.orm import Mapped, mapped_column

from milkwort.store.models.base import Base

__all__ = [
    "AccountSheet",
    "HandOver",
    "HandOverFile",
    "Journal",
    "PracticeAccount",
    "PracticeSending",
    "ResultImport",
]


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
    runs_from: Mapped[str | None]
    """Day from which it ran; none where it was only written."""
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
