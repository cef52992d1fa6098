from dataclasses import replace

import numpy as np
import pytest
from sqlalchemy import func, select, text
from sqlalchemy.exc import IntegrityError

from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store import keywords as store
from milkwort.store.brief_changes import change_assumptions, change_brief
from milkwort.store.entries import Arrival, KeywordEntry, ReadingEntry
from milkwort.store.journal import Change
from milkwort.store.keywords import (
    add_keywords,
    add_readings,
    lock_bids,
    remove_keywords,
    set_calls,
)
from milkwort.store.models import AdGroup, Call, Campaign, Keyword, Reading
from milkwort.store.plans import load_plan
from milkwort.store.sheet import load_sheet, read_again, with_brief
from milkwort.store.structure import GENERAL_GROUP


def entry(text="sash repair", **fields):
    reading = ReadingEntry(
        volume_low=10, volume_high=100, cpc_low=0.5, cpc_high=1.5,
        months=tuple(float(m) for m in range(12)), origin="a.csv", origin_row=7,
    )  # fmt: skip
    names = {n: fields.pop(n) for n in ("group", "campaign", "offer") if n in fields}
    return Arrival(KeywordEntry(**({"text": text, "normalised": text, "match": "exact",
                                    "reading": reading} | fields)), **names)  # fmt: skip


def changed(database, plan_id, *steps):
    with database.begin() as session:
        change = Change(session, plan_id, "a change")
        results = [step(change) for step in steps]
        change.finish()
        return results


def sheet_of(database, plan_id):
    with database.begin() as session:
        return load_sheet(session, load_plan(session, plan_id))


def test_a_keyword_comes_back_as_it_was_stored(database, plan_id):
    stored = entry(call="hold", reason="dear", group="Repair", rate=0.04, locked_bid=1.2,
                   intent="buy", unpaid_rank=3.0)  # fmt: skip
    changed(database, plan_id, lambda c: add_keywords(c, [stored]))
    sheet = sheet_of(database, plan_id)
    (found,) = sheet.entries
    (group,) = sheet.structure.groups
    assert (group.id, group.name) == (found.group_id, "Repair")
    assert sheet.structure.campaign(group.campaign_id).name == "Search"
    assert found.call_by == "file" and found.call_at and found.key.startswith("k")
    plain = replace(found, group_id=None, key="", call_at="", call_by="")
    assert plain == stored.entry


def test_a_keyword_without_a_group_joins_the_general_one(database, plan_id):
    changed(database, plan_id, lambda c: add_keywords(c, [entry("a"), entry("b", group="Repair")]))
    sheet = sheet_of(database, plan_id)
    assert sheet.labels == (GENERAL_GROUP, "Repair")
    assert sheet.table.group.tolist() == [0, 1]
    with database.begin() as session:
        assert session.scalar(select(func.count(Campaign.id))) == 1
        assert session.scalar(select(func.count(AdGroup.id))) == 2


def test_two_keywords_of_one_identity_cannot_stand_in_a_plan(database, plan_id):
    with pytest.raises(IntegrityError):
        changed(database, plan_id, lambda c: add_keywords(c, [entry(), entry()]))


def test_new_figures_come_into_use_and_the_old_ones_stay(database, plan_id):
    ((keyword,),) = changed(database, plan_id, lambda c: add_keywords(c, [entry()]))
    fresh = ReadingEntry(volume_low=500, volume_high=500, origin="b.csv")
    changed(database, plan_id, lambda c: add_readings(c, [(keyword, fresh)]))
    assert sheet_of(database, plan_id).entries[0].reading == fresh
    with database.begin() as session:
        assert session.scalar(select(func.count(Reading.id))) == 2


def test_daily_volumes_are_planned_by_the_month(database, plan_id):
    daily = entry(reading=ReadingEntry(volume_low=12, volume_high=12, period="day"))
    changed(database, plan_id, lambda c: add_keywords(c, [daily]))
    assert sheet_of(database, plan_id).table.volume_high[0] == pytest.approx(365)
    changed(database, plan_id, lambda c: change_assumptions(c, {"month_days": 30.0}))
    assert sheet_of(database, plan_id).table.volume_high[0] == pytest.approx(360)


def test_the_plans_own_basis_stands_where_a_reading_names_none(database, plan_id):
    rows = [entry("a"), entry("b", reading=ReadingEntry(basis="broad"))]
    changed(database, plan_id, lambda c: add_keywords(c, rows),
            lambda c: change_brief(c, {"volume_basis": "phrase"}))  # fmt: skip
    assert sheet_of(database, plan_id).table.basis.tolist() == [1, 2]


@pytest.mark.parametrize("few", [500, 1])
def test_calls_replace_each_other_and_are_taken_back(database, plan_id, few, monkeypatch):
    monkeypatch.setattr(store, "_FEW", few)
    (ids,) = changed(database, plan_id, lambda c: add_keywords(c, [entry(t) for t in "abc"]))
    changed(database, plan_id, lambda c: set_calls(c, ids, "keep", "", "hand"))
    twice = [*ids[:2], *ids[:2]]
    changed(database, plan_id, lambda c: set_calls(c, twice, "drop", "too dear", "rule"))
    assert [e.call for e in sheet_of(database, plan_id).entries] == ["drop", "drop", "keep"]
    changed(database, plan_id, lambda c: set_calls(c, ids, "none", "", "hand"))
    with database.begin() as session:
        assert session.scalar(select(func.count(Call.id))) == 0


def test_a_removed_keyword_takes_its_readings_and_calls_with_it(database, plan_id):
    (ids,) = changed(
        database, plan_id, lambda c: add_keywords(c, [entry("a", call="keep"), entry("b")])
    )
    changed(database, plan_id, lambda c: remove_keywords(c, ids[:1]))
    with database.begin() as session:
        counts = [session.scalar(select(func.count(m.id))) for m in (Keyword, Reading, Call)]
    assert counts == [1, 1, 0]


@pytest.mark.parametrize("bid", [-1.0, float("nan"), float("inf")])
def test_an_impossible_bid_is_refused(database, plan_id, bid):
    (ids,) = changed(database, plan_id, lambda c: add_keywords(c, [entry()]))
    with pytest.raises(BadValueError, match="bid"):
        changed(database, plan_id, lambda c: lock_bids(c, {ids[0]: bid}))


def test_a_sheet_read_again_where_it_was_touched_is_the_sheet_read_anew(database, plan_id):
    (ids,) = changed(database, plan_id, lambda c: add_keywords(c, [entry(t) for t in "abcd"]))
    before = sheet_of(database, plan_id)
    with database.begin() as session:
        change = Change(session, plan_id, "several things")
        set_calls(change, [ids[0], ids[2]], "keep", "good", "hand")
        lock_bids(change, {ids[2]: 1.5})
        add_readings(change, [(ids[3], ReadingEntry(volume_low=7, volume_high=7))])
        change.finish()
        again = read_again(session, before, load_plan(session, plan_id), change.touched)
    fresh = sheet_of(database, plan_id)
    assert again.entries == fresh.entries
    for name, column in vars(fresh.table).items():
        if isinstance(column, np.ndarray):
            assert np.array_equal(
                getattr(again.table, name), column, equal_nan=column.dtype.kind == "f"
            ), name
    assert again.table.rate is before.table.rate  # what stays is the very same column


def test_another_brief_makes_the_table_anew_only_where_it_matters(database, plan_id):
    changed(database, plan_id, lambda c: add_keywords(c, [entry()]))
    sheet = sheet_of(database, plan_id)
    with database.read() as session:
        record = load_plan(session, plan_id)
    assert with_brief(sheet, record).table is sheet.table
    changed(database, plan_id, lambda c: change_brief(c, {"volume_basis": "broad"}))
    with database.read() as session:
        record = load_plan(session, plan_id)
    assert with_brief(sheet, record).table.basis.tolist() == [2]


def test_an_unknown_keyword_is_said(database, plan_id):
    with pytest.raises(NotFoundError, match="no longer"):
        sheet_of(database, plan_id).rows_of([42])


def test_the_file_is_guarded(database):
    database.migrate()  # a second time changes nothing
    with database.begin() as session:
        assert session.scalar(text("pragma journal_mode")) == "wal"
        assert session.scalar(text("pragma foreign_keys")) == 1
        with pytest.raises(IntegrityError):
            session.execute(text("insert into assumption (plan_id, name, value) values (9,'x',1)"))
