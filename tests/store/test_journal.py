"""Any run of changes, of two plans at once, is undone to the start and done again to the end."""

import itertools
import tempfile
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from sqlalchemy import select, text, update

from milkwort.core.arrange.ads.text import Ad
from milkwort.core.errors import BadValueError, NotFoundError, ReplayError
from milkwort.core.words.negatives import Negative
from milkwort.store import models
from milkwort.store.ads import add_ads
from milkwort.store.brief_changes import change_assumptions, change_brief
from milkwort.store.database import Database
from milkwort.store.entries import Arrival, KeywordEntry, ReadingEntry
from milkwort.store.groups import edit_group, remove_groups
from milkwort.store.journal import Change, Touched
from milkwort.store.keywords import (
    add_keywords,
    add_readings,
    lock_bids,
    remove_keywords,
    set_calls,
)
from milkwort.store.negatives import Owner, add_negatives
from milkwort.store.plan_state import PLAN_TABLES, read_plan_state, write_plan_state
from milkwort.store.plans import add_plan, load_plan, rename_plan
from milkwort.store.recipes import add_recipe
from milkwort.store.replay import labels, redo, undo
from milkwort.store.sheet import load_sheet
from milkwort.store.structure import load_structure
from tests.depth import cases

EVERY_TABLE = [t.name for t in models.Base.metadata.sorted_tables]


def entries(*texts, group=""):
    reading = ReadingEntry(volume_low=10, volume_high=20, cpc_low=1)
    return [Arrival(KeywordEntry(t, t, "exact", reading), group) for t in texts]


def everything(database):
    """Return every row of every table, but the journals and the plans' revisions."""
    with database.read() as session:
        rows = {
            t: session.execute(text(f"select * from {t} order by id")).all()
            for t in EVERY_TABLE
            if t not in ("journal", "plan")
        }
        plans = session.execute(text("select * from plan order by id")).mappings().all()
        return rows, [{k: v for k, v in plan.items() if k != "revision"} for plan in plans]


def of_plan(database, plan_id):
    """Return all that is one plan, with its ids."""
    with database.read() as session:
        return read_plan_state(session, plan_id)


def some_ids(change, share):
    sheet = load_sheet(change.session, load_plan(change.session, change.plan_id))
    return list(sheet.ids)[:: max(1, share)]


def add(change, n):
    texts = [f"keyword {next(_NUMBERS)}" for _ in range(n)]
    add_keywords(change, entries(*texts, group=f"g{n % 3}"))


def remove_newest(change, n):
    ids = some_ids(change, 1)
    remove_keywords(change, ids[-n:])


def negative(change, n):
    groups = load_structure(change.session, change.plan_id).groups
    owner = Owner(group_id=groups[n % len(groups)].id) if groups else Owner()
    add_negatives(change, [Negative(f"word {n}")], "hand", [owner])


def drop_empty(change, n):
    groups = load_structure(change.session, change.plan_id).groups
    k = models.Keyword.ad_group_id
    held = set(change.session.scalars(select(k).where(models.Keyword.plan_id == change.plan_id)))
    remove_groups(change, [g.id for g in groups if g.id not in held][:n])


def name_group(change, n):
    groups = load_structure(change.session, change.plan_id).groups
    if groups:
        edit_group(change, groups[n % len(groups)].id, {"name": f"name {next(_NUMBERS)}"})


def write_ad(change, n):
    groups = load_structure(change.session, change.plan_id).groups
    if groups:
        add_ads(change, [(groups[n % len(groups)].id, Ad((f"headline {n}",), ("text",)))])


_NUMBERS = itertools.count()

ACTIONS = {
    "ad": write_ad,
    "add": add,
    "call": lambda c, n: set_calls(c, some_ids(c, n), "keep", "why", "hand"),
    "drop": lambda c, n: set_calls(c, some_ids(c, n), "drop", "", "rule"),
    "uncall": lambda c, n: set_calls(c, some_ids(c, n), "none", "", "hand"),
    "lock": lambda c, n: lock_bids(c, dict.fromkeys(some_ids(c, n), n / 10)),
    "read": lambda c, n: add_readings(
        c, [(i, ReadingEntry(volume_low=n, volume_high=n)) for i in some_ids(c, n)]
    ),
    "remove": lambda c, n: remove_keywords(c, some_ids(c, n + 1)),
    "remove the newest": remove_newest,
    "negative": negative,
    "remove empty groups": drop_empty,
    "name a group": name_group,
    "offers": lambda c, n: change_brief(c, {"offer_name": "one", "more_offers": [
        {"name": f"offer {i}", "sale_value": 9.0, "gross_margin": 0.5, "rate_low": 0.01,
         "rate_likely": 0.02, "rate_high": 0.03} for i in range(n)]}),
    "brief": lambda c, n: change_brief(c, {"monthly_spend": float(n), "sale_value": 10.0 + n}),
    "assume": lambda c, n: change_assumptions(c, {"stretch": n / 20, "in_reach": None}),
    "rename": lambda c, n: rename_plan(c, f"Plan {n}"),
}  # fmt: skip
BETWEEN = ("undo", "redo", "copy", "load", "restart")


@settings(max_examples=cases(10, 60), deadline=None)
@given(st.lists(st.tuples(st.sampled_from(sorted(ACTIONS)), st.integers(1, 6)), max_size=8))
def test_any_changes_are_undone_and_done_again(actions):
    with tempfile.TemporaryDirectory() as folder:
        database = Database(Path(folder) / "j.db")
        database.migrate()
        with database.begin() as session:
            plan_id = add_plan(session, "A plan")
        states = [everything(database)]
        for name, n in actions:
            _change(database, plan_id, name, n)
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


def _change(database, plan_id, name, n):
    with database.begin() as session:
        change = Change(session, plan_id, name)
        ACTIONS[name](change, n)
        change.finish()


class _Own:
    """One plan's states as they were, to be gone back to."""

    def __init__(self, database, plan_id):
        self.plan_id, self.at = plan_id, 0
        self.states = [of_plan(database, plan_id)]

    def changed(self, database):
        now = of_plan(database, self.plan_id)
        if now != self.states[self.at]:
            self.states[self.at + 1 :] = [now]
            self.at += 1


@settings(max_examples=cases(12, 60), deadline=None)
@given(
    st.lists(
        st.tuples(
            st.integers(0, 1), st.sampled_from([*sorted(ACTIONS), *BETWEEN]), st.integers(1, 4)
        ),
        min_size=4, max_size=14,
    )
)  # fmt: skip
def test_two_plans_are_each_undone_whatever_the_other_did_meanwhile(actions):
    with tempfile.TemporaryDirectory() as folder:
        database = Database(Path(folder) / "j.db")
        database.migrate()
        with database.begin() as session:
            plans = [add_plan(session, "One"), add_plan(session, "Two")]
        for plan_id in plans:
            _change(database, plan_id, "add", 3)
        own = [_Own(database, plan_id) for plan_id in plans]
        for which, name, n in actions:
            mine = own[which]
            if name in ("undo", "redo"):
                to = mine.at + (1 if name == "redo" else -1)
                if not 0 <= to < len(mine.states):
                    continue
                with database.begin() as session:
                    (undo if name == "undo" else redo)(session, mine.plan_id)
                mine.at = to
            elif name in ("copy", "load"):
                with database.begin() as session:
                    state = read_plan_state(session, mine.plan_id)
                    client = session.get_one(models.Plan, mine.plan_id).client_id
                    write_plan_state(session, state, client_id=client)
            elif name == "restart":
                database.close()
                database = Database(database.path)
                database.migrate()
            else:
                _change(database, mine.plan_id, name, n)
                mine.changed(database)
            for one in own:
                assert of_plan(database, one.plan_id) == one.states[one.at]
        for mine in own:
            while mine.at:
                with database.begin() as session:
                    undo(session, mine.plan_id)
                mine.at -= 1
                assert of_plan(database, mine.plan_id) == mine.states[mine.at]
        database.close()


def test_an_id_that_was_given_once_is_never_given_again(database, plan_id):
    with database.begin() as session:
        other = add_plan(session, "Other")
    given = set()
    for plan in (plan_id, other) * 3:
        with database.begin() as session:
            change = Change(session, plan, "add")
            ids = add_keywords(change, entries(f"keyword {len(given)}", f"more {len(given)}"))
            change.finish()
        assert not given & set(ids)
        given |= set(ids)
        with database.begin() as session:
            if plan == plan_id:
                undo(session, plan)
            else:
                change = Change(session, plan, "remove")
                remove_keywords(change, ids)
                change.finish()


def test_a_row_taken_into_another_plan_does_not_stand_in_the_way_of_undo(database, plan_id):
    with database.begin() as session:
        other = add_plan(session, "Other")
        change = Change(session, plan_id, "add")
        ids = add_keywords(change, entries("one", "two"))
        change.finish()
        change = Change(session, plan_id, "remove the newest")
        remove_keywords(change, ids[1:])
        change.finish()
        change = Change(session, other, "take one in")
        add_keywords(change, entries("three"))
        change.finish()
    with database.begin() as session:
        assert undo(session, plan_id) == "remove the newest"
        assert undo(session, plan_id) == "add"


def test_a_step_that_cannot_be_replayed_is_said_and_leaves_the_plan_as_it_is(database, plan_id):
    with database.begin() as session:
        change = Change(session, plan_id, "two things")
        (keyword,) = add_keywords(change, entries("one"))
        set_calls(change, [keyword], "keep", "", "hand")
        change.finish()
    with database.begin() as session:  # by hand, past the journal
        session.execute(text("delete from call"))
    before = everything(database)
    with pytest.raises(ReplayError, match=r'"two things" can.t be undone'), database.begin() as s:
        undo(s, plan_id)
    assert everything(database) == before
    with database.read() as session:
        assert labels(session, plan_id)["undo"] == "two things"


def test_what_an_older_schema_wrote_is_where_undo_ends(database, plan_id):
    _change(database, plan_id, "rename", 1)
    with database.begin() as session:
        session.execute(update(models.Journal).values(schema="0005"))
    _change(database, plan_id, "rename", 2)
    with database.begin() as session:
        assert undo(session, plan_id) == "rename"
        assert labels(session, plan_id)["undo"] is None
        with pytest.raises(ReplayError, match="older Milkwort"):
            undo(session, plan_id)


def test_what_a_client_shares_is_undone_in_the_plan_that_did_it(database, plan_id):
    with database.begin() as session:
        client = session.get_one(models.Plan, plan_id).client_id
        other = add_plan(session, "Other", client_id=client)
        for plan, name in ((plan_id, "one"), (other, "one"), (other, "two")):
            change = Change(session, plan, "save a crossing")
            add_recipe(change, name, [{"words": ["a"], "on": True, "optional": False}])
            change.finish()
    with database.begin() as session:
        undo(session, plan_id)  # the other plan has replaced it meanwhile
        undo(session, other)
        undo(session, other)
        redo(session, plan_id)
        assert session.scalars(select(models.Recipe.name)).all() == ["one"]


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


def test_what_changes_are_replayed_in_is_named_in_the_journal(database, plan_id):
    _change(database, plan_id, "add", 2)
    with database.read() as session:
        schema = session.scalar(select(models.Journal.schema))
        assert schema == session.scalar(text("select version_num from alembic_version"))
    assert {m.__tablename__ for m in PLAN_TABLES} <= set(EVERY_TABLE)


def test_what_was_undone_is_done_again_in_its_order_and_each_plan_has_its_own(database, plan_id):
    with database.begin() as session:
        other = add_plan(session, "Another plan")
    names = ((plan_id, "One"), (other, "Elsewhere"), (plan_id, "Two"), (plan_id, "Three"))
    for plan, name in names:
        with database.begin() as session:
            change = Change(session, plan, f"call it {name}")
            rename_plan(change, name)
            change.finish()

    def said():
        with database.read() as session:
            return labels(session, plan_id), load_plan(session, plan_id)

    start = said()[1].revision
    assert said()[0] == {"undo": "call it Three", "redo": None}
    for left in ("call it Two", "call it One"):
        touched = Touched()
        with database.begin() as session:
            undo(session, plan_id, touched)
        assert said()[0]["undo"] == left and touched.tables == {"plan"}
    assert said()[0] == {"undo": "call it One", "redo": "call it Two"}
    assert said()[1].name == "One" and said()[1].revision == start + 2
    for name in ("Two", "Three"):
        touched = Touched()
        with database.begin() as session:
            assert redo(session, plan_id, touched) == f"call it {name}"
        assert said()[1].name == name and touched.tables == {"plan"}
    assert said()[1].revision == start + 4
    nothing = pytest.raises(NotFoundError, match="There is nothing to redo")
    with nothing, database.begin() as session:
        redo(session, plan_id)
