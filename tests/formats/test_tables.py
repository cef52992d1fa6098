import io
import zipfile

import pytest
from openpyxl import Workbook

from milkwort.core.errors import BadValueError, NothingUsableError, PlannerError, TooLargeError
from milkwort.formats import workbook
from milkwort.formats.guess_columns import guess_columns
from milkwort.formats.keyword_rows import read_keyword_rows
from milkwort.formats.tables import read_table
from tests.books import book

ROWS = [["keyword", "searches", "low price"], ["sash repair", 1200, 0.85], ["sill", None, 2]]


def test_the_first_sheet_that_holds_anything_is_read_and_the_others_are_named():
    table = read_table(book(Empty=[], May=ROWS, June=[["keyword"], ["other"]]), "k.xlsx")
    assert (table.sheets, table.sheet) == (("Empty", "May", "June"), "May")
    assert table.rows[1] == ("sash repair", "1200", "0.85")
    assert read_table(book(May=ROWS, June=[["x"]]), "k.xlsx", "June").rows == (("x",),)


def test_rows_that_are_no_data_before_the_headings_are_passed_over():
    data = book(May=[["Report of May"], [None], *ROWS])
    table = read_table(data, "k.xlsx")
    guess = guess_columns(table)
    taken = read_keyword_rows(table, guess.columns, first_row=guess.first_row).taken
    assert [r.text for r in taken] == ["sash repair", "sill"]
    assert guess.columns["volume"] == 1


def test_a_formula_counts_as_what_it_last_came_to():
    rows = read_table(book(May=[["keyword"], ["=1+1"], ["sash"]]), "k.xlsx").rows
    assert rows == (("keyword",), (), ("sash",))


def test_a_million_empty_rows_end_early():
    made = Workbook()
    made.active.append(["keyword"])
    made.active.cell(row=500_000, column=1, value="far away")
    out = io.BytesIO()
    made.save(out)
    assert len(read_table(out.getvalue(), "k.xlsx").rows) < 5_000


def test_a_zip_bomb_and_a_broken_archive_are_refused(monkeypatch):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("xl/sheet.xml", b"0" * 3_000_000)
    monkeypatch.setattr(workbook, "_MOST_UNPACKED", 2_000_000)
    with pytest.raises(TooLargeError, match="unpacked"):
        read_table(out.getvalue(), "k.xlsx")
    with pytest.raises(BadValueError, match="workbook"):
        read_table(b"PK\x03\x04 nothing here", "k.xlsx")


def test_an_archive_that_is_no_workbook_and_an_unknown_sheet_are_refused():
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as packed:
        packed.writestr("a.txt", "a")
    with pytest.raises(BadValueError, match="workbook"):
        read_table(out.getvalue(), "k.xlsx")
    with pytest.raises(BadValueError, match="sheet"):
        read_table(book(May=ROWS), "k.xlsx", "July")
    with pytest.raises(NothingUsableError):
        read_table(book(May=[]), "k.xlsx")


@pytest.mark.parametrize(
    "text",
    [
        '[{"keyword": "sash", "volume": 10}, {"keyword": "sill", "cpc_low": 0.5}]',
        '{"rows": [{"keyword": "sash", "volume": 10}, {"keyword": "sill", "cpc_low": 0.5}]}',
    ],
)
def test_json_rows_become_columns(text):
    table = read_table(text.encode(), "k.json")
    assert table.rows == (("keyword", "volume", "cpc_low"), ("sash", "10", ""), ("sill", "", "0.5"))


@pytest.mark.parametrize("text", ["{", "3", "[]", '{"a": 1}'])
def test_json_that_holds_no_rows_says_so(text):
    with pytest.raises(PlannerError):
        read_table(text.encode(), "k.json")


@pytest.mark.parametrize(
    "headings",
    [
        "keyword jan feb mar apr may jun jul aug sep oct nov dec",
        "Suchbegriff Dez Nov Okt Sep Aug Jul Jun Mai Apr März Feb Jan",
        "keyword janvier février mars avril mai juin juillet août septembre octobre novembre "
        "décembre",
        "keyword " + " ".join(f"2026-{m:02d}" for m in range(1, 13)),
        "keyword ene feb mar abr may jun jul ago sept oct nov dic",
    ],
)
def test_twelve_months_are_found_in_any_order_and_several_languages(headings):
    headings = headings.split()
    table = read_table(";".join(headings) + "\nsash repair;" + ";".join("123456789012") + "\n")
    found = guess_columns(table).columns
    assert {f"m{n:02d}" for n in range(1, 13)} <= set(found)
    first = next(i for i, h in enumerate(headings) if h[:3].casefold() in ("jan", "ene", "202"))
    assert found["m01"] == first
