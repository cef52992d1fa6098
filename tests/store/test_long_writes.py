"""Many rows are written a few at a time, and kept all or none."""

import pytest
from sqlalchemy import func, select, text

from milkwort.core.errors import StoppedError
from milkwort.store import long_writes, models
from milkwort.store.entries import Arrival, KeywordEntry, ReadingEntry
from milkwort.store.journal import Change, reserve_ids
from milkwort.store.keywords import prepare_keywords
from milkwort.store.long_writes import carry_out, take_back_unfinished
from milkwort.store.plans import add_plan
from milkwort.store.replay import labels, undo
from milkwort.store.structure import Structure

TABLES = ("campaign", "ad_group", "keyword", "reading", "call")


@pytest.fixture(autouse=True)
def few_at_once(monkeypatch):
    monkeypatch.setattr(long_writes, "_AT_ONCE", 7)


@pytest.fixture
def rows(database, plan_id):
    def reserve(table, count):
        with database.begin() as session:
            return reserve_ids(session, table, count)

    entries = [
        KeywordEntry(f"word {n}", f"word {n}", "exact", ReadingEntry(), call="keep")
        for n in range(30)
    ]
    return prepare_keywords(reserve, plan_id, Structure(), {}, list(map(Arrival, entries)))


def counts(database):
    with database.read() as session:
        return {t: session.scalar(text(f"select count(*) from {t}")) for t in TABLES}


def test_they_are_one_change_that_is_undone_whole(database, plan_id, rows):
    told = []
    before = counts(database)
    change, revision = carry_out(
        database, plan_id, "take in", rows.in_order, lambda c: None, lambda *n: told.append(n)
    )
    assert counts(database)["keyword"] == 30 and revision == 2
    assert change.touched.keywords == set(rows.keywords.ids)
    assert told == sorted(told) and len(told) > 10
    with database.begin() as session:
        assert undo(session, plan_id) == "take in"
    assert counts(database) == before


def test_what_was_done_before_in_this_plan_and_another_can_still_be_undone(database, plan_id, rows):
    with database.begin() as session:
        plans = [plan_id, add_plan(session, "Another")]
        for one in plans:
            change = Change(session, one, "name it")
            change.update(models.Plan, {one: {"label": "before"}})
            change.finish()
    carry_out(database, plan_id, "take in", rows.in_order, lambda c: None)
    with database.begin() as session:
        assert session.scalar(select(func.count()).where(models.Journal.under_way)) == 0
        assert undo(session, plan_id) == "take in"
        assert [undo(session, one) for one in plans] == ["name it", "name it"]


@pytest.mark.parametrize("where", ["between", "at the end"])
def test_what_fails_or_is_stopped_leaves_nothing(database, plan_id, rows, where):
    before = counts(database)

    def stop(done, _of):
        if where == "between" and done > 40:
            raise StoppedError("Stopped.")

    def fail(_change):
        raise StoppedError("Stopped.")

    with pytest.raises(StoppedError):
        carry_out(database, plan_id, "take in", rows.in_order, fail, stop)
    assert counts(database) == before
    with database.read() as session:
        assert session.scalar(select(func.count(models.Journal.id))) == 0
        assert session.scalar(select(models.Plan.revision)) == 1


def test_what_a_crash_left_under_way_is_taken_back_and_never_undone(
    database, plan_id, rows, monkeypatch
):
    before = counts(database)

    def killed(_database, _entry):
        """Stand in for a process that no longer lives."""

    def stop(done, _of):
        if done > 40:
            raise KeyboardInterrupt

    monkeypatch.setattr(long_writes, "_take_back", killed)
    with pytest.raises(KeyboardInterrupt):
        carry_out(database, plan_id, "take in", rows.in_order, lambda c: None, stop)
    assert counts(database) != before
    with database.read() as session:
        assert labels(session, plan_id)["undo"] is None
    monkeypatch.undo()
    take_back_unfinished(database)
    assert counts(database) == before
    take_back_unfinished(database)  # a second time there is nothing to do
