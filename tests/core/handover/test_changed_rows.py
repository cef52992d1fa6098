"""What changed since it was sent: changes made to what was sent give what is now."""

from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.handover.changed_rows import applied, changed_rows

NAMES = st.sampled_from(["sash repair", "sash cord", "new glass"])
ROW = st.fixed_dictionaries({
    "keyword": NAMES, "bid": st.sampled_from([None, 0.5, 0.8]),
    "run": st.sampled_from(["yes", "no"]),
})  # fmt: skip
SHEET = st.dictionaries(st.sampled_from("abcdefgh"), ROW, max_size=8).map(
    lambda rows: [{**row, "ref": ref} for ref, row in rows.items()]
)


def by_ref(rows):
    return {row["ref"]: row for row in rows}


@given(sent=SHEET, now=SHEET)
def test_changes_made_to_what_was_sent_give_what_is_now(sent, now):
    changes = changed_rows(sent, now)
    assert by_ref(applied(sent, changes)) == by_ref(now)
    assert (changes == []) == (by_ref(sent) == by_ref(now))
    assert len({change.ref for change in changes}) == len(changes)


@given(sent=SHEET)
def test_a_sheet_beside_itself_has_no_changes_in_any_order(sent):
    assert changed_rows(sent, sent[::-1]) == []


def test_a_rename_is_one_changed_row_and_a_pause_is_a_pause():
    sent = [{"keyword": "sash", "bid": 0.5, "run": "yes", "ref": "k1"},
            {"keyword": "cord", "bid": 0.5, "run": "yes", "ref": "k2"},
            {"keyword": "old", "bid": 0.5, "run": "yes", "ref": "k3"}]  # fmt: skip
    now = [{**sent[0], "keyword": "sashes"}, {**sent[1], "bid": None, "run": "no"},
           {**sent[2], "ref": "k4"}]  # fmt: skip
    found = changed_rows(sent, now)
    assert [(c.turn, c.ref) for c in found] == [
        ("changed", "k1"), ("paused", "k2"), ("new", "k4"), ("removed", "k3"),
    ]  # fmt: skip
    assert found[0].was == {"keyword": "sash"}
