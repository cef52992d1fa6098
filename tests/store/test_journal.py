"""Any run of changes is undone to the start and done again to the end."""

import itertools
import tempfile
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from sqlalchemy import text

from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store import models
from milkwort.store.database import Database
from milkwort.store.entries import KeywordEntry, ReadingEntry
from milkwort.store.journal import Change, labels, redo, undo
from milkwort.store.keywords import (
    add_keywords,
    add_readings,
    lock_bids,
    remove_keywords,
    set_calls,
)
from milkwort.store.plans import add_plan, change_assumptions, change_brief, load_plan, rename_plan
from milkwort.store.sheet import load_sheet

TABLES = [t.name for t in models.Base.metadata.sorted_tables if t.name not in ("journal", "plan")]


def entries(*texts, **fields):
    return [
        KeywordEntry(
            t, t, "exact", ReadingEntry(volume_low=10, volume_high=20, cpc_low=1), **fields
        )
        for t in texts
    ]


def everything(database):
    """Return every row of every table, and the plan without its revision."""
    with database.begin() as session:
        rows = {t: session.execute(text(f"select * from {t} order by id")).all() for t in TABLES}
        plan = session.execute(text("select * from plan")).mappings().one()
        return rows, {k: v for k, v in plan.items() if k != "revision"}


def some_ids(session, plan_id, share):
    sheet = load_sheet(session, plan_id, load_plan(session, plan_id).brief)
    return list(sheet.ids)[:: max(1, share)]


def add(change, n):
    texts = [f"keyword {next(_NUMBERS)}" for _ in range(n)]
    add_keywords(change, entries(*texts, group=f"g{n}"))


_NUMBERS = itertools.count()


ACTIONS = {
    "add": add,
    "call": lambda c, n: set_calls(c, some_ids(c.session, c.plan_id, n), "keep", "why", "hand"),
    "drop": lambda c, n: set_calls(c, some_ids(c.session, c.plan_id, n), "drop", "", "rule"),
    "uncall": lambda c, n: set_calls(c, some_ids(c.session, c.plan_id, n), "none", "", "hand"),
    "lock": lambda c, n: lock_bids(
        c, dict.fromkeys(some_ids(c.session, c.plan_id, n), n / 10)
    ),
    "read": lambda c, n: add_readings(
        c,
        [(i, ReadingEntry(volume_low=n, volume_high=n)) for i in
         some_ids(c.session, c.plan_id, n)],
    ),
    "remove": lambda c, n: remove_keywords(c, some_ids(c.session, c.plan_id, n + 1)),
    "brief": lambda c, n: change_brief(c, {"monthly_spend": float(n), "sale_value": 10.0 + n}),
    "assume": lambda c, n: change_assumptions(c, {"stretch": n / 20, "in_reach": None}),
    "rename": lambda c, n: rename_plan(c, f"Plan {n}"),
}  # fmt: skip


@settings(max_examples=15, deadline=None)
@given(st.lists(st.tuples(st.sampled_from(sorted(ACTIONS)), st.integers(1, 6)), max_size=8))
def test_any_changes_are_undone_and_done_again(actions):
    with tempfile.TemporaryDirectory() as folder:
        database = Database(Path(folder) / "j.db")
        database.migrate()
        with database.begin() as session:
            plan_id = add_plan(session, "A plan")
        states = [everything(database)]
        for name, n in actions:
            with database.begin() as session:
                change = Change(session, plan_id, name)
                ACTIONS[name](change, n)
                change.finish()
            if everything(database) != states[-1]:
                states.append(everything(database))
        for wanted in reversed(states[:-1]):
            with database.begin() as session:
                undo(session, plan_id)
            assert everything(database) == wanted
        for wanted in states[1:]:
            with database.begin() as session:
                redo(session, plan_id)
            assert everything(database) == wanted
        database.close()


def test_undo_and_redo_are_named(database, plan_id):
    with database.begin() as session:
        change = Change(session, plan_id, "rename the plan")
        rename_plan(change, "Other")
        change.finish()
        assert labels(session, plan_id) == {"undo": "rename the plan", "redo": None}
        undo(session, plan_id)
        assert labels(session, plan_id) == {"undo": None, "redo": "rename the plan"}


def test_a_change_that_changes_nothing_leaves_no_entry(database, plan_id):
    with database.begin() as session:
        change = Change(session, plan_id, "rename the plan")
        rename_plan(change, "A plan")
        change.finish()
        assert labels(session, plan_id)["undo"] is None


def test_a_change_that_fails_half_way_leaves_nothing(database, plan_id):
    before = everything(database)
    with pytest.raises(BadValueError), database.begin() as session:
        change = Change(session, plan_id, "two things")
        add_keywords(change, entries("one", "two"))
        set_calls(change, [1], "maybe", "", "hand")
    assert everything(database) == before


def test_nothing_to_undo_or_redo_is_said(database, plan_id):
    with database.begin() as session:
        for act in (undo, redo):
            with pytest.raises(NotFoundError, match="nothing to"):
                act(session, plan_id)
