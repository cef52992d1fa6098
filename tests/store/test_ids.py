"""Ids: one after another, and none given twice."""

from milkwort.store.journal import Change, reserve_ids
from milkwort.store.models import Keyword


def test_reserved_ids_follow_each_other_whatever_the_counts(database):
    firsts = []
    for count in (5, 1, 3, 2):
        with database.begin() as session:
            firsts.append(reserve_ids(session, "keyword", count))
    assert firsts == [1, 6, 7, 10]
    with database.begin() as session:
        assert reserve_ids(session, "reading", 2) == 1


def test_an_id_that_was_removed_or_reserved_and_not_taken_is_not_given_again(database, plan_id):
    row = {"plan_id": plan_id, "key": "k1", "text": "sash", "normalised": "sash", "match": "exact",
           "intent": "buy"}  # fmt: skip
    with database.begin() as session:
        change = Change(session, plan_id, "add")
        (first,) = change.insert(Keyword, [row])
        change.finish()
    with database.begin() as session:
        change = Change(session, plan_id, "remove")
        change.delete(Keyword, [first])
        change.finish()
    with database.begin() as session:
        reserve_ids(session, "keyword", 4)
    with database.begin() as session:
        change = Change(session, plan_id, "add")
        (after,) = change.insert(Keyword, [row | {"key": "k2"}])
        change.finish()
    assert after == first + 5
