"""A made-up account's file goes there and back: nothing of it is lost, nothing else is touched."""

import csv
import io

import pytest

from milkwort.core.errors import BadValueError
from milkwort.core.handover.account import Planned, held_against
from milkwort.formats.account_file import account_lines, changed_rows_of, read_account_file

ODD = (
    "\ufeffRow no.;Wörter;Kind;Ceiling €;Is it on;Owner's note\r\n"
    'A-17;"sash repair";Exact;€ 1,20;ON;"keep; ""always"""\r\n'
    "A-18;sash cord;Phrase;€ 0,80;ON;\r\n"
    "A-19;old glass;Exact;€ 0,50;OFF;x\r\n"
    "A-20;our other thing;Exact;€ 2,00;ON;stays\r\n"
)
COLUMNS = {"keyword": 1, "match": 2, "bid": 3, "run": 4}
PLAN = [
    Planned("Sash Repair", "exact", 1.35), Planned("sash cord", "phrase", None),
    Planned("old glass", "exact", 0.5), Planned("new words", "exact", 0.9),
]  # fmt: skip


def odd(text=ODD, columns=COLUMNS, encoding="utf-8"):
    return read_account_file(text.encode(encoding), "konto.csv", columns)


def rows_of(content, encoding="utf-8"):
    return list(csv.reader(io.StringIO(content.decode(encoding), newline=""), delimiter=";"))


def test_a_shape_of_its_own_is_read_by_its_own_columns():
    lines = account_lines(odd())
    assert [(x.text, x.match, x.bid, x.runs) for x in lines] == [
        ("sash repair", "exact", 1.2, True), ("sash cord", "phrase", 0.8, True),
        ("old glass", "exact", 0.5, False), ("our other thing", "exact", 2.0, True),
    ]  # fmt: skip


def test_only_changed_rows_come_back_in_the_very_shape_with_all_their_cells():
    file = odd()
    found = held_against(account_lines(file), PLAN)
    assert found.same == 0 and [x.text for x in found.strangers] == ["our other thing"]
    assert [x.text for x in found.missing] == ["new words"]
    content = changed_rows_of(file, found.changes)
    assert content.startswith(b"\xef\xbb\xbf")
    assert rows_of(content) == [
        ["\ufeffRow no.", "Wörter", "Kind", "Ceiling €", "Is it on", "Owner's note"],
        ["A-17", "sash repair", "Exact", "€ 1,35", "ON", 'keep; "always"'],
        ["A-18", "sash cord", "Phrase", "€ 0,80", "OFF", ""],
        ["A-19", "old glass", "Exact", "€ 0,50", "ON", "x"],
    ]


def test_what_was_written_back_and_taken_leaves_nothing_to_change():
    file = odd()
    changes = held_against(account_lines(file), PLAN).changes
    rows = {row[0]: row for row in rows_of(changed_rows_of(file, changes))}
    whole = [rows.get(row[0], row) for row in rows_of(ODD.encode())]
    out = io.StringIO()
    csv.writer(out, delimiter=";").writerows(whole)
    again = held_against(account_lines(odd(out.getvalue())), PLAN)
    assert again.changes == () and again.same == 3


@pytest.mark.parametrize(("encoding", "name"), [("utf-16", "UTF-16"), ("cp1252", "Windows-1252")])
def test_the_files_own_encoding_is_kept(encoding, name):
    text = ODD.removeprefix("\ufeff")
    file = odd(text, encoding=encoding)
    assert file.table.encoding == name
    content = changed_rows_of(file, held_against(account_lines(file), PLAN).changes)
    assert rows_of(content, encoding)[1][1] == "sash repair"
    assert not content.startswith(b"\xef\xbb\xbf")


def test_columns_are_guessed_from_plain_headings_and_marks_say_the_match():
    text = 'id,Keyword,Max CPC,Status\n1,[sash repair],1.20,Paused\n2,"""sash cord""",0.8,Active\n'
    file = read_account_file(text.encode(), "a.csv")
    assert dict(file.columns) == {"keyword": 1, "bid": 2, "run": 3}
    assert [(x.text, x.match, x.runs) for x in account_lines(file)] == [
        ("sash repair", "exact", False), ("sash cord", "phrase", True),
    ]  # fmt: skip
    found = held_against(account_lines(file), PLAN[:2])
    back = changed_rows_of(file, found.changes).decode().splitlines()
    assert back[1:] == ["1,[sash repair],1.35,Active", '2,"""sash cord""",0.8,Paused']


def test_a_file_without_a_known_heading_waits_to_be_told():
    file = read_account_file(b"a,b\nsash repair,2\n", "a.csv")
    assert dict(file.columns) == {} and account_lines(file) == []


def test_a_cell_that_a_spreadsheet_would_run_is_defused_and_known_again():
    text = "keyword,bid,memo\n=2+5,1.00,=HYPERLINK(1)\n"
    file = read_account_file(text.encode(), "a.csv")
    (line,) = account_lines(file)
    found = held_against([line], [Planned(line.text, "exact", 2.0)])
    back = changed_rows_of(file, found.changes)
    assert b"'=HYPERLINK" in back and b"'=2+5" in back
    assert account_lines(read_account_file(back, "b.csv"))[0].text == line.text


@pytest.mark.parametrize(
    ("text", "columns", "error"),
    [
        ("keyword,b\n1,2\n", {"keyword": 9}, BadValueError),
        ("keyword,b\n1,2\n", {"colour": 1}, BadValueError),
    ],
)
def test_a_file_that_cannot_be_read_so_is_refused_in_words(text, columns, error):
    with pytest.raises(error):
        read_account_file(text.encode(), "a.csv", columns)


def test_titles_and_sums_of_an_account_are_passed_over_and_rows_keep_their_numbers():
    text = "All keywords\nas of 1 May 2026\nKeyword,Max CPC,Status\nsash repair,1.20,Active\n"
    file = read_account_file((text + "Total,,\n").encode(), "a.csv")
    (line,) = account_lines(file)
    assert (line.text, line.bid, file.table.number(line.row)) == ("sash repair", 1.2, 4)
    found = held_against([line], PLAN[:1])
    back = changed_rows_of(file, found.changes).decode().splitlines()
    assert back == ["Keyword,Max CPC,Status", "sash repair,1.35,Active"]
