"""Opening the database as a program that starts does."""

from __future__ import annotations

from pathlib import Path

from milkwort.store.database import Database
from milkwort.store.long_writes import take_back_unfinished

__all__ = ["opened_database"]


def opened_database(path: Path) -> Database:
    """Open a database, bring it up to date and take back what was never finished.

    Raises
    ------
    NewerDatabaseError
        Where a newer Milkwort made it.
    sqlalchemy.exc.DatabaseError
        Where it is none, or damaged.
    """
    database = Database(path)
    database.migrate()
    take_back_unfinished(database)
    return database
