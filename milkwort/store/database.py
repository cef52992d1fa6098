"""The database: opened with its guards on, brought up to date by Alembic."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine, create_engine, event
from sqlalchemy.orm import Session, sessionmaker

__all__ = ["Database"]


class Database:
    """One SQLite file.

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
        self._session = sessionmaker(self.engine, expire_on_commit=False)

    def migrate(self) -> None:
        """Bring the tables up to date."""
        config = Config()
        config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
        with self.engine.begin() as connection:
            config.attributes["connection"] = connection
            command.upgrade(config, "head")

    @contextmanager
    def begin(self) -> Iterator[Session]:
        """Open one transaction: all of it is kept, or none."""
        with self._session.begin() as session:
            yield session

    def close(self) -> None:
        """Let go of the file."""
        self.engine.dispose()


def _guards(connection: Any, _record: Any) -> None:
    cursor = connection.cursor()
    cursor.execute("PRAGMA journal_mode=WAL")
    cursor.execute("PRAGMA foreign_keys=ON")
    cursor.execute("PRAGMA synchronous=NORMAL")
    cursor.close()
