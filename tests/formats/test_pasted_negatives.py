"""Negatives out of pasted lines: what each says, and what is no negative."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.errors import TooLargeError
from milkwort.core.words.texts import MAX_TEXT
from milkwort.formats.pasted_negatives import MOST_LINES, lines_of_table, read_pasted_negatives


def read(pasted, match="phrase"):
    return [
        (one.line, one.text, one.match, one.campaign, one.group)
        for one in read_pasted_negatives(pasted, match) if not one.refused
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("line", "text", "match"),
    [
        ("jobs", "jobs", "phrase"),
        ('"free quote"', "free quote", "phrase"),
        ("“free quote”", "free quote", "phrase"),
        ("[sash]", "sash", "exact"),
        ("jobs, Broad", "jobs", "broad"),
        ("jobs;exact", "jobs", "exact"),
        ("jobs\tNegative exact", "jobs", "exact"),
        ("[jobs], broad", "jobs", "broad"),
        ("- jobs", "jobs", "phrase"),
        ("−jobs", "jobs", "phrase"),
        ("'+jobs", "jobs", "phrase"),
        ("  two   words ", "two   words", "phrase"),
        ('"one, two", exact', "one, two", "exact"),
    ],
)
def test_a_line_says_its_text_and_its_match(line, text, match):
    assert read(line) == [(1, text, match, "", "")]


def test_a_line_that_does_not_say_its_match_takes_the_one_chosen():
    assert read("jobs\n[sash]", "broad") == [
        (1, "jobs", "broad", "", ""),
        (2, "sash", "exact", "", ""),
    ]


def test_behind_the_match_stands_where_it_acts():
    assert read("jobs, exact, Search,  Sash   repair") == [
        (1, "jobs", "exact", "Search", "Sash repair")
    ]
    assert read("jobs\tbroad\tSearch") == [(1, "jobs", "broad", "Search", "")]


def test_headings_and_empty_lines_are_left_out_and_lines_keep_their_numbers():
    assert read("Keyword, Match type\n\njobs, exact\n \nfree") == [
        (3, "jobs", "exact", "", ""), (5, "free", "phrase", "", "")]  # fmt: skip
    # further down it is a text like any other
    assert [text for _, text, *_ in read("free\nkeyword")] == ["free", "keyword"]


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("--", "at least one word"),
        (", broad", "at least one word"),
        ('"', "at least one word"),
        ("jobs, close", 'got "close"'),
        ("x" * (MAX_TEXT + 1), f"at most {MAX_TEXT:,} characters"),
        ("x" * 200_000 + ", broad", f"at most {MAX_TEXT:,} characters"),
        ('"' + "x" * 200_000 + ", broad", f"at most {MAX_TEXT:,} characters"),
    ],
)
def test_what_is_no_negative_says_why_and_costs_no_other(line, says):
    first, second, third = read_pasted_negatives(f"free\n{line}\njobs")
    assert (first.refused, third.refused) == ("", "")
    assert says in second.refused and second.line == 2


def test_ten_thousand_lines_are_read_and_no_more():
    assert len(read("jobs\n" * MOST_LINES)) == MOST_LINES
    with pytest.raises(TooLargeError, match="10,000"):
        read_pasted_negatives("jobs\n" * (MOST_LINES + 1))


def test_a_tables_columns_may_stand_in_any_order():
    rows = [["Ad group", "Note", "Match type", "Negative keyword", "Campaign"],
            ["Sash", "old", "exact", "'=jobs", "Search"], ["", "", "", "", ""],
            ["", "", "broad", "free", ""]]  # fmt: skip
    lines = lines_of_table(rows)
    assert read("\n".join(lines)) == [
        (2, "=jobs", "exact", "Search", "Sash"), (3, "free", "broad", "", "")]  # fmt: skip
    assert lines_of_table([]) == []


def test_a_table_without_headings_holds_texts_and_their_match():
    lines = lines_of_table([["jobs", "exact", "Search"], ["free"]])
    assert read("\n".join(lines)) == [(1, "jobs", "exact", "", ""), (2, "free", "phrase", "", "")]


@given(st.text(max_size=300))
def test_any_text_is_read_or_refused_line_by_line(pasted):
    for one in read_pasted_negatives(pasted):
        assert one.match in ("exact", "phrase", "broad")
        assert one.refused or one.text.strip()
