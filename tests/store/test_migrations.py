"""A filled database of an earlier version is brought up to date, and can still be undone."""

import sqlite3
from pathlib import Path

import pytest
from alembic.config import Config
from alembic.script import ScriptDirectory
from sqlalchemy import inspect, text

from milkwort.core.errors import NotFoundError
from milkwort.store import migrations
from milkwort.store.brief_changes import change_assumptions
from milkwort.store.database import Database
from milkwort.store.entries import Arrival, KeywordEntry, ReadingEntry
from milkwort.store.journal import Change
from milkwort.store.keywords import add_keywords
from milkwort.store.models import HandOver
from milkwort.store.plan_list import list_plans
from milkwort.store.plan_state import read_plan_state
from milkwort.store.plans import add_plan, load_plan
from milkwort.store.replay import redo, undo
from milkwort.store.schema import SCHEMA
from milkwort.store.sheet import load_sheet

OLD = Path(__file__).with_name("old_0005.sql")
"""Two plans as version 0005 kept them, with thirteen changes each that can be undone."""


@pytest.fixture
def old(tmp_path):
    path = tmp_path / "old.db"
    with sqlite3.connect(path) as connection:
        connection.executescript(OLD.read_text(encoding="utf-8"))
    connection.close()
    database = Database(path)
    database.migrate()
    yield database
    database.close()


def test_a_file_made_anew_is_of_the_newest_migration():
    folder = Path(migrations.__file__).parent
    config = Config()
    config.set_main_option("script_location", str(folder))
    assert ScriptDirectory.from_config(config).get_current_head() == SCHEMA


def shape_of(database):
    """Return columns, keys and indexes of every table, whatever their order."""
    with database.engine.connect() as connection:
        inspector = inspect(connection)
        return {
            table: (
                {c["name"]: (str(c["type"]), c["nullable"]) for c in inspector.get_columns(table)},
                sorted(
                    (k["constrained_columns"], k["referred_table"])
                    for k in inspector.get_foreign_keys(table)
                ),
                sorted(k["column_names"] for k in inspector.get_unique_constraints(table)),
                sorted(i["column_names"] for i in inspector.get_indexes(table)),
            )
            for table in inspector.get_table_names()
        }


def test_a_new_file_is_what_the_migrations_make_one_after_another(tmp_path):
    made, grown = Database(tmp_path / "made.db"), Database(tmp_path / "grown.db")
    made.migrate()
    grown.migrate(step_by_step=True)
    assert shape_of(made) == shape_of(grown)
    for database in (made, grown):
        with database.read() as session:
            every = session.scalars(text("select sql from sqlite_master where type = 'table'"))
            for sql in every:
                known = "alembic_version" in sql or "sqlite_sequence" in sql
                assert known or "AUTOINCREMENT" in sql, sql
        database.close()


def test_plans_get_clients_of_their_own_and_what_they_share(old):
    with old.read() as session:
        lines = list_plans(session)
        assert [(p.client, p.name) for p in lines] == [("One", "One"), ("Two", "Two")]
        rows = session.execute(text("select client_id, count(*) from recipe group by client_id"))
        assert rows.all() == [(p.client_id, 1) for p in lines]
        assert session.execute(text("pragma foreign_key_check")).all() == []


def test_names_become_ids_and_months_days(old):
    with old.read() as session:
        record = load_plan(session, 1)
        sheet = load_sheet(session, record)
    levels = {n.text: n.owner.level for n in record.negatives}
    assert levels == {"kit": "group", "cheap": "campaign", "jobs": "plan"}
    (kit,) = [n for n in record.negatives if n.text == "kit"]
    assert record.structure.group(kit.owner.group_id).name == "Mending"
    assert [o.name for o in record.brief.offers] == ["jobs", "kits"]
    assert dict(zip([e.text for e in sheet.entries], sheet.table.offer.tolist(), strict=True)) == {
        "sash window repair": 0, "sash cord replacement": 1,
    }  # fmt: skip
    assert record.values["start_date"][5:] == "03-01"


def test_retired_assumptions_are_dropped_and_told_until_another_is_changed(old):
    with old.begin() as session:
        record = load_plan(session, 1)
        assert record.retired == ("settle_days",) and record.assumptions == {"stretch": 0.3}
        change = Change(session, 1, "change an assumption")
        change_assumptions(change, {"stretch": 0.2})
        change.finish()
        assert load_plan(session, 1).retired == ()


def test_what_was_done_before_is_undone_to_the_start_and_done_again(old):
    with old.begin() as session:  # another plan takes in what the first one's ids were free for
        change = Change(session, 2, "take in")
        reading = ReadingEntry(volume_low=1, volume_high=1)
        add_keywords(change, [Arrival(KeywordEntry("new", "new", "exact", reading))])
        change.finish()
    with old.read() as session:
        last = read_plan_state(session, 1)
    done = []
    with pytest.raises(NotFoundError, match="nothing to undo"):
        while True:
            with old.begin() as session:
                done.append(undo(session, 1))
    assert len(done) == 13
    with old.read() as session:
        state = read_plan_state(session, 1)
        assert all(not rows for table, rows in state.tables.items() if table != "offer")
        assert load_plan(session, 1).name == "One"
    for _ in done:
        with old.begin() as session:
            redo(session, 1)
    with old.read() as session:
        assert read_plan_state(session, 1) == last


def test_a_reading_in_use_before_is_in_use_for_prices_after_and_after_undo(old):
    with old.begin() as session:
        readings = session.execute(text("select in_use, prices_in_use from reading")).all()
        assert readings and all(used == prices for used, prices in readings)
        for _ in range(13):
            undo(session, 1)
        for _ in range(13):
            redo(session, 1)
        readings = session.execute(text("select in_use, prices_in_use from reading")).all()
        assert readings and all(used == prices for used, prices in readings)


def test_what_was_told_to_run_ran_from_when_it_was_sent_but_not_before_its_plan_began(database):
    with database.begin() as session:
        begun, later = add_plan(session, "Begun"), add_plan(session, "Later")
        for plan_id, start in ((begun, "2020-03-01"), (later, "2099-03-01")):
            session.execute(text("update plan set start_date = :day where id = :id"),
                            {"day": start, "id": plan_id})  # fmt: skip
        for plan_id, status in ((begun, "running"), (later, "paused"), (begun, "written")):
            session.add(HandOver(plan_id=plan_id, at="2026-09-30T10:00:00+00:00", revision=1,
                                 status=status))  # fmt: skip
        session.flush()
        # as it was before
        session.execute(text("alter table hand_over drop column runs_from"))
        session.execute(text("update alembic_version set version_num = '0016'"))
    database.migrate()
    with database.read() as session:
        found = session.execute(text("select runs_from from hand_over order by id")).scalars().all()
    assert found == ["2026-09-30", "2099-03-01", None]
