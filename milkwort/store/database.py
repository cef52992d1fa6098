"""The database: opened with its guards on, brought up to date by Alembic."""

from __future__ import annotations

import os
import sqlite3
import threading
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any

from sqlalchemy import Connection, Dialect, Engine, create_engine, event, inspect, text
from sqlalchemy.exc import DatabaseError
from sqlalchemy.orm import Session, sessionmaker
from sqlalchemy.util import LRUCache

from milkwort.store.models import Base
from milkwort.store.schema import SCHEMA

__all__ = ["Database", "NewerDatabaseError", "said_of_database"]


_STATEMENTS = 500
"""Statements that are kept compiled."""


class NewerDatabaseError(Exception):
    """A file that a newer Milkwort made."""


class Database:
    """One SQLite file.

    Readers see the file as it stood when they began and wait for nobody; there is one
    writer at a time, and writers of this process queue in front of the file, not in it.

    Parameters
    ----------
    path : Path
        Made, with its folder, where it isn't there.
    """

    def __init__(self, path: Path) -> None:
        _make_private(path)
        self.path = path
        self.engine: Engine = create_engine(f"sqlite:///{path}", connect_args={"timeout": 15})
        self.engine.dialect = _compiler().dialect
        self.engine.update_execution_options(compiled_cache=_compiler().compiled)
        event.listen(self.engine, "connect", _guards)
        event.listen(self.engine, "begin", _begin)
        self._reading = sessionmaker(self.engine, expire_on_commit=False)
        writer = self.engine.execution_options(writes=True)
        self._writing = sessionmaker(writer, expire_on_commit=False)
        self._turn = threading.Lock()

    def migrate(self, *, step_by_step: bool = False) -> None:
        """Bring the tables up to date.

        Parameters
        ----------
        step_by_step : bool
            Whether a new file goes through every migration too; it is made as it is now
            where left out.
        """
        with self.engine.connect() as connection:
            tables = inspect(connection).get_table_names()
            now = _version(connection) if "alembic_version" in tables else None
        if now == SCHEMA:
            return
        if now is not None and now > SCHEMA:
            raise NewerDatabaseError(now)
        if not tables and not step_by_step:
            with self.begin() as session:
                Base.metadata.create_all(session.connection())
                session.execute(text("create table alembic_version (version_num varchar(32) "
                                     "not null primary key)"))  # fmt: skip
                session.execute(text("insert into alembic_version values (:v)"), {"v": SCHEMA})
            return
        if now is not None:
            self._keep_copy()
        self._upgrade()

    def _upgrade(self) -> None:
        # needed once a version, and it takes a third of a second to import
        from alembic import command
        from alembic.config import Config

        config = Config()
        config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
        with self.engine.connect() as connection:
            # tables that are made anew would take what points at them along
            _say(connection, "PRAGMA foreign_keys=OFF")
            with connection.begin():
                config.attributes["connection"] = connection
                command.upgrade(config, "head")
            _say(connection, "PRAGMA foreign_keys=ON")

    def _keep_copy(self) -> None:
        """Keep a copy of a file that is about to be changed by a migration."""
        copy = self.path.with_name(f"{self.path.stem}-before-{SCHEMA}.db")
        if not copy.exists():
            _make_private(copy)
            with (
                closing(sqlite3.connect(self.path)) as source,
                closing(sqlite3.connect(copy)) as target,
            ):
                source.backup(target)

    @contextmanager
    def begin(self) -> Iterator[Session]:
        """Open one transaction that may write: all of it is kept, or none."""
        with self._turn, self._writing.begin() as session:
            yield session

    @contextmanager
    def read(self) -> Iterator[Session]:
        """Look at the file as it now stands; what is written meanwhile is not seen."""
        with self._reading() as session:
            yield session

    def close(self) -> None:
        """Let go of the file."""
        self.engine.dispose()


@dataclass(frozen=True)
class _Compiler:
    """What statements are compiled by, and those that were, by what they are."""

    dialect: Dialect
    compiled: LRUCache[Any, Any]


@cache
def _compiler() -> _Compiler:
    """Return the one compiler of this process.

    A plan as it was sent is read in a database of its own: compiling every statement for each
    anew would take longer than reading it.
    """
    engine = create_engine("sqlite://")
    with engine.connect():
        pass  # the dialect asks the library what it can
    engine.dispose()
    return _Compiler(engine.dialect, LRUCache(_STATEMENTS))


def said_of_database(error: DatabaseError) -> str:
    """Return what is wrong with the file, in a sentence."""
    said = str(error.orig)
    for sign, sentence in _SAID.items():
        if sign in said:
            return sentence
    return f"The database could not be used: {said}."


_SAID = {
    "disk is full": "The disk is full: nothing was kept of this. Make room and try again.",
    "readonly": "The database may only be read here: check who may write to its folder.",
    "not a database": "The file is no database, or is damaged. It was left as it is.",
    "malformed": "The database is damaged. It was left as it is; a copy may lie beside it.",
    "unable to open": "The database could not be opened: check its folder, and who may use it.",
    "locked": "The database is in use by another program.",
    "disk I/O error": "The disk could not be read or written.",
}


def _make_private(path: Path) -> None:
    """Make a file, with its folder, that only its owner may read."""
    path.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
    if not path.exists():
        os.close(os.open(path, os.O_CREAT | os.O_WRONLY, 0o600))


def _guards(connection: Any, _record: Any) -> None:
    connection.isolation_level = None  # the driver begins nothing by itself
    cursor = connection.cursor()
    cursor.execute("PRAGMA journal_mode=WAL")
    cursor.execute("PRAGMA foreign_keys=ON")
    cursor.execute("PRAGMA synchronous=FULL")
    cursor.close()


def _begin(connection: Connection) -> None:
    # a transaction that reads first and writes later could find another writer in between
    writes = connection.get_execution_options().get("writes")
    connection.exec_driver_sql("BEGIN IMMEDIATE" if writes else "BEGIN")


def _say(connection: Connection, pragma: str) -> None:
    """Set what can't be set inside a transaction."""
    assert connection.connection.dbapi_connection is not None
    connection.connection.dbapi_connection.cursor().execute(pragma)


def _version(connection: Connection) -> str | None:
    found = connection.execute(text("select version_num from alembic_version")).scalar()
    return None if found is None else str(found)
