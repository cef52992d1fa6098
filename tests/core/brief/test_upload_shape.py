"""The shape of upload sheets: columns merged with what a sheet has, files named by a rule."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.brief.platform import Profile, profile_of
from milkwort.core.brief.upload_shape import (
    ColumnChange,
    UploadColumn,
    check_file_name,
    check_upload_columns,
    columns_of_sheet,
    file_name,
    with_changes,
    with_sheet_columns,
)
from milkwort.core.errors import BadValueError

NAMES = ["campaign", "keyword", "bid", "ref"]
_CHANGES = st.builds(
    ColumnChange,
    column=st.sampled_from(NAMES),
    heading=st.one_of(st.none(), st.sampled_from([*NAMES, "Most", "KEYWORD", "keyword 2"])),
    sent=st.sampled_from([None, True]),
    place=st.one_of(st.none(), st.integers(0, 9)),
)


@given(st.lists(_CHANGES, max_size=8))
def test_no_column_is_lost_and_no_heading_stands_twice(changes):
    said = with_changes(columns_of_sheet("keywords", NAMES, []), changes)
    found = columns_of_sheet("keywords", [*NAMES, "run"], said)
    assert sorted(one.column for one in found) == sorted([*NAMES, "run"])
    headings = [one.heading.casefold() for one in found if one.sent]
    assert len(set(headings)) == len(headings)
    assert [one.column for one in found[:-1]] == [one.column for one in said]


def test_what_a_sheet_lacks_for_now_is_not_forgotten():
    own = (UploadColumn("ads", "headline 4", "H4"), UploadColumn("keywords", "bid", "Most"))
    now = columns_of_sheet("ads", ["headline 1"], own)
    assert [one.column for one in now] == ["headline 1"]
    kept = with_sheet_columns(own, "ads", with_changes(now, [ColumnChange("headline 1", "H1")]))
    assert {one.heading for one in kept} == {"H1", "H4", "Most"}
    later = columns_of_sheet("ads", ["headline 1", "headline 4"], kept)
    assert [one.heading for one in later] == ["H1", "H4"]


@pytest.mark.parametrize(
    "columns",
    [
        [UploadColumn("colours", "bid", "Most")],
        [UploadColumn("keywords", "bid", " ")],
        [UploadColumn("keywords", "bid", "a\nb")],
        [UploadColumn("keywords", "bid", "a"), UploadColumn("keywords", "bid", "b")],
        [UploadColumn("keywords", "bid", "a"), UploadColumn("keywords", "ref", "A ")],
        [UploadColumn("keywords", "bid", "a", sent=False)],
        [UploadColumn("keywords", "bid", "Change")],
        [UploadColumn("keywords", f"c{n}", f"c{n}") for n in range(401)],
    ],
)
def test_columns_that_no_sheet_can_have_are_refused(columns):
    with pytest.raises(BadValueError):
        check_upload_columns(columns)
    with pytest.raises(BadValueError):
        Profile(upload_columns=tuple(columns))


def test_a_profile_keeps_its_shape_through_plain_values():
    own = Profile(upload_columns=(UploadColumn("keywords", "bid", "Most"),), upload_name="‹what›")
    assert profile_of(own.as_dict()) == own
    with pytest.raises(BadValueError):
        profile_of({"upload_columns": [{"sheet": "keywords"}]})


_WORDS = {"client": "Dr. Ash & Sons/..", "plan": "a plan", "what": "upload-ads-2", "date": "2026",
          "revision": "7"}  # fmt: skip


@pytest.mark.parametrize(
    ("rule", "name"),
    [
        ("‹plan›-‹what›-‹date›-r‹revision›", "a-plan-upload-ads-2-2026-r7"),
        ("../‹client›/‹what›", "Dr.-Ash-Sons-..-upload-ads-2"),
        ("‹what›", "upload-ads-2"),
    ],
)
def test_a_file_is_named_so_that_no_system_reads_more_in_it(rule, name):
    check_file_name(rule)
    assert file_name(rule, _WORDS) == name


@pytest.mark.parametrize("rule", ["", "‹plan›", "‹what›‹who›", "‹what", "‹what›\n", "‹what›" * 14])
def test_rules_that_name_nothing_are_refused(rule):
    with pytest.raises(BadValueError):
        check_file_name(rule)
