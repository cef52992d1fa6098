from collections.abc import Iterator
from pathlib import Path

import pytest

from milkwort.store.database import Database
from milkwort.store.plans import add_plan


@pytest.fixture
def database(tmp_path: Path) -> Iterator[Database]:
    database = Database(tmp_path / "test.db")
    database.migrate()
    yield database
    database.close()


@pytest.fixture
def plan_id(database: Database) -> int:
    with database.begin() as session:
        return add_plan(session, "A plan")
