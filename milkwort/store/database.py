"""The database: opened with its guards on, brought up to date by Alembic."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from sqlalchemy import Connection, Engine, create_engine, event, inspect
from sqlalchemy.orm import Session, sessionmaker

from milkwort.store.models import Base

__all__ = ["Database"]


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
        path.parent.mkdir(parents=True, exist_ok=True)
        self.path = path
        self.engine: Engine = create_engine(f"sqlite:///{path}", connect_args={"timeout": 15})
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
        config = Config()
        config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
        with self.engine.connect() as connection:
            # tables that are made anew would take what points at them along
            _say(connection, "PRAGMA foreign_keys=OFF")
            with connection.begin():
                config.attributes["connection"] = connection
                if step_by_step or inspect(connection).get_table_names():
                    command.upgrade(config, "head")
                else:
                    Base.metadata.create_all(connection)
                    command.stamp(config, "head")
            _say(connection, "PRAGMA foreign_keys=ON")

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


def _guards(connection: Any, _record: Any) -> None:
    connection.isolation_level = None  # the driver begins nothing by itself
    cursor = connection.cursor()
    cursor.execute("PRAGMA journal_mode=WAL")
    cursor.execute("PRAGMA foreign_keys=ON")
    cursor.execute("PRAGMA synchronous=NORMAL")
    cursor.close()


def _begin(connection: Connection) -> None:
    # a transaction that reads first and writes later could find another writer in between
    writes = connection.get_execution_options().get("writes")
    connection.exec_driver_sql("BEGIN IMMEDIATE" if writes else "BEGIN")


def _say(connection: Connection, pragma: str) -> None:
    """Set what can't be set inside a transaction."""
    assert connection.connection.dbapi_connection is not None
    connection.connection.dbapi_connection.cursor().execute(pragma)
