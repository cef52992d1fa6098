"""What the practice market keeps: accounts, what stands in them, uploads, days."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from sqlalchemy import JSON, Connection, Engine, ForeignKey, LargeBinary, create_engine, event
from sqlalchemy.orm import DeclarativeBase, Mapped, Session, mapped_column, sessionmaker

__all__ = [
    "Account", "Answered", "Base", "Clock", "Database", "PassedDay", "ReplyPart", "Thing", "Upload",
]  # fmt: skip

_BUSY_SECONDS = 30


class Base(DeclarativeBase):
    """All tables of the market."""

    type_annotation_map = {dict[str, Any]: JSON, list[Any]: JSON}  # noqa: RUF012


class Account(Base):
    """One account with a world of its own."""

    __tablename__ = "account"

    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    key_hash: Mapped[str]
    currency: Mapped[str]
    zone: Mapped[str]
    level: Mapped[str]
    seed: Mapped[int]
    start: Mapped[int]
    """Ordinal of its first day."""
    today: Mapped[int]
    """Ordinal of the day that is lived next."""
    limits: Mapped[dict[str, Any]]
    known: Mapped[bytes] = mapped_column(LargeBinary)
    world: Mapped[bytes] = mapped_column(LargeBinary)
    faults: Mapped[dict[str, Any]]
    envelope: Mapped[str | None]
    """When the envelope was opened."""
    uploads: Mapped[int]
    made: Mapped[int]
    """Counters of numbers given out: none is given twice."""
    version: Mapped[int]
    """Raised by every change of what is live."""


class Thing(Base):
    """One campaign, group, keyword, negative, ad or spot that stands in an account."""

    __tablename__ = "thing"

    account: Mapped[str] = mapped_column(ForeignKey("account.id"), primary_key=True)
    kind: Mapped[str] = mapped_column(primary_key=True)
    ref: Mapped[str] = mapped_column(primary_key=True)
    number: Mapped[int] = mapped_column(unique=True)
    """Never used again: what results are kept by."""
    data: Mapped[dict[str, Any]]
    gone: Mapped[bool] = mapped_column(default=False)


class Upload(Base):
    """One sheet that came, and how far it is taken in."""

    __tablename__ = "upload"

    account: Mapped[str] = mapped_column(ForeignKey("account.id"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[str]
    content: Mapped[bytes] = mapped_column(LargeBinary)
    state: Mapped[str]
    message: Mapped[str]
    rows: Mapped[int]
    read: Mapped[int]
    taken: Mapped[int]
    warned: Mapped[int]
    refused: Mapped[int]
    asked: Mapped[int]
    """How often its reply was asked for."""


class ReplyPart(Base):
    """A part of the reply to an upload, as packed rows."""

    __tablename__ = "reply_part"

    account: Mapped[str] = mapped_column(primary_key=True)
    upload: Mapped[int] = mapped_column(primary_key=True)
    part: Mapped[int] = mapped_column(primary_key=True)
    content: Mapped[bytes] = mapped_column(LargeBinary)


class Clock(Base):
    """The clock of an account: how many days are to pass, and how many have."""

    __tablename__ = "clock"

    account: Mapped[str] = mapped_column(ForeignKey("account.id"), primary_key=True)
    wanted: Mapped[int]
    done: Mapped[int]
    state: Mapped[str]
    message: Mapped[str]


class PassedDay(Base):
    """What one day brought, as packed columns; keywords and spots by number."""

    __tablename__ = "passed_day"

    account: Mapped[str] = mapped_column(ForeignKey("account.id"), primary_key=True)
    day: Mapped[int] = mapped_column(primary_key=True)
    content: Mapped[bytes] = mapped_column(LargeBinary)


class Answered(Base):
    """A write that was answered: the same key gets the same answer."""

    __tablename__ = "answered"

    account: Mapped[str] = mapped_column(primary_key=True)
    key: Mapped[str] = mapped_column(primary_key=True)
    asked: Mapped[str]
    """Digest of what was asked."""
    status: Mapped[int]
    body: Mapped[bytes] = mapped_column(LargeBinary)


class Database:
    """The market's file; one writer at a time, readers never wait.

    Parameters
    ----------
    path : Path
        Made, with its folder, where it isn't there.
    """

    def __init__(self, path: Path) -> None:
        path.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
        path.touch(mode=0o600)
        self.path = path
        self._engine: Engine = create_engine(
            f"sqlite:///{path}", connect_args={"timeout": _BUSY_SECONDS}
        )
        event.listen(self._engine, "connect", _prepared)
        event.listen(self._engine, "begin", _begun)
        self._reading = sessionmaker(self._engine, expire_on_commit=False)
        self._writing = sessionmaker(
            self._engine.execution_options(writes=True), expire_on_commit=False
        )
        with self._engine.execution_options(writes=True).begin() as connection:
            Base.metadata.create_all(connection)

    @contextmanager
    def read(self) -> Iterator[Session]:
        """Look at the file as it now stands, unhindered by who writes."""
        with self._reading() as session:
            yield session

    @contextmanager
    def begin(self) -> Iterator[Session]:
        """Write: all of it is kept, or none."""
        with self._writing.begin() as session:
            yield session

    def close(self) -> None:
        """Let go of the file."""
        self._engine.dispose()


def _prepared(connection: Any, _record: Any) -> None:
    connection.isolation_level = None  # the driver begins nothing by itself
    cursor = connection.cursor()
    cursor.execute("PRAGMA journal_mode=WAL")
    cursor.execute("PRAGMA foreign_keys=ON")
    cursor.execute("PRAGMA synchronous=FULL")
    cursor.close()


def _begun(connection: Connection) -> None:
    # app and worker both write: who reads first and writes later must have its turn already
    writes = connection.get_execution_options().get("writes")
    connection.exec_driver_sql("BEGIN IMMEDIATE" if writes else "BEGIN")
