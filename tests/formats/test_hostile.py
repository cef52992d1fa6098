"""Files that would do harm are read, or refused in a sentence, within a moment."""

import io
import signal
import zipfile

import pytest
import xlsxwriter

from milkwort.core.errors import BadValueError, NothingUsableError, PlannerError, TooLargeError
from milkwort.formats import text_table, workbook
from milkwort.formats.keyword_rows import columns_by_heading, read_keyword_rows
from milkwort.formats.numbers import guess_decimal, read_number, read_range
from milkwort.formats.page import page_words
from milkwort.formats.tables import read_table
from milkwort.formats.text_table import MAX_COLUMNS, read_text_table


@pytest.fixture(autouse=True)
def comes_to_an_end():
    """Give up on what would go on for minutes: that it ends is asked, not how soon."""

    def give_up(_signal, _frame):
        raise AssertionError("it went on and on")

    before = signal.signal(signal.SIGALRM, give_up)
    signal.alarm(60)
    yield
    signal.alarm(0)
    signal.signal(signal.SIGALRM, before)


@pytest.mark.parametrize(
    "cell",
    ["between" + " " * 4000, "between" + " " * 190 + "x", "to " * 2000, "1" * 5000, "1." * 2000,
     "<" + " " * 199, "9" * 400 + " to 1", "1e309", "£" * 500],
)  # fmt: skip
def test_a_cell_that_is_no_figure_is_refused_in_time_with_its_length(cell):
    for read in (read_number, read_range):
        with pytest.raises(ValueError):
            read(cell)
    guess_decimal([cell] * 50, ",")


def test_a_bad_cell_costs_only_its_row():
    text = "keyword,volume\na," + "between" + " " * 4000 + "\nb,10\nc,9e99\n"
    table = read_text_table(text)
    rows = read_keyword_rows(table, columns_by_heading(table))
    assert [r.text for r in rows.taken] == ["b"]
    assert [(r.row, r.column) for r in rows.refused] == [(2, "volume"), (4, "volume")]


def test_a_lone_quote_takes_only_its_own_row_with_it():
    lines = [f"keyword {n} of many,{n}" for n in range(1, 300)]
    lines[9] = '"keyword 10 of many,10'
    lines[-1] = '"the last,1'
    table = read_text_table("keyword,volume\n" + "\n".join(lines) + "\n")
    rows = read_keyword_rows(table, columns_by_heading(table))
    assert len(rows.taken) == 297
    assert [r.row for r in rows.refused] == [11, 300]
    assert "a closing quote" in rows.refused[0].why and "keyword 10" in rows.refused[0].value
    assert rows.taken[-1].row == 299


def test_a_quoted_cell_may_go_over_lines_and_an_inch_is_no_quote():
    table = read_text_table('keyword,volume\n"a\nb",10\n12" pipe,20\n"say ""hello""",30\n')
    rows = read_keyword_rows(table, columns_by_heading(table))
    assert [r.text for r in rows.taken] == ["a b", '12" pipe', 'say "hello"']
    assert rows.refused == () and not table.broken


def test_quotes_that_never_close_do_not_make_reading_square():
    text = "keyword\n" + '"a\nb\n' * 20_000
    table = read_text_table(text)
    assert len(table.rows) <= 40_001


@pytest.mark.parametrize("encoding", ["utf-32", "utf-16", "utf-16-le", "utf-8-sig", "cp1252"])
def test_every_usual_encoding_is_recognised(encoding):
    data = "keyword,volume\ncafé repair,10\n".encode(encoding)
    assert read_text_table(data).rows[1] == ("café repair", "10")


@pytest.mark.parametrize(
    "data",
    [b"\xff\xfe\0\0abc", "keyword\na\n".encode("utf-32-le"), b"\0\0\xfe\xff\xff\xff\xff\xff"],
)
def test_what_is_no_text_is_refused_in_words(data):
    with pytest.raises(BadValueError, match="expected"):
        read_text_table(data)


def test_rows_of_many_cells_are_read_as_far_as_a_sheet_goes():
    table = read_text_table("keyword" + ",x" * 5000 + "\na" + ",1" * 5000 + "\n")
    assert len(table.rows[1]) == MAX_COLUMNS


def test_objects_with_a_field_each_are_refused_before_they_fill_the_memory():
    data = "[" + ",".join(f'{{"k{n}": 1}}' for n in range(8000)) + "]"
    with pytest.raises(BadValueError, match="8,000 different ones"):
        read_table(data.encode(), "x.json")


@pytest.mark.parametrize(
    "page",
    ["<div>" * 8000 + "deep words", "<![" * 100_000, "<b>" * 4000 + "bold words" + "</i>" * 4000,
     "<!--" * 50_000, "<a " + "x=" * 50_000, "word " * 400_000, "<p>" + "long" * 200_000],
)  # fmt: skip
def test_a_page_however_nested_is_read_in_time_with_its_length(page):
    try:
        found = page_words(page)
    except NothingUsableError:
        found = []
    if "deep words" in page:
        assert found[0].text == "deep words"


def test_a_pages_title_weighs_more_than_its_text_and_scripts_nothing():
    found = {w.text: w.weight for w in page_words(
        "<title>sash repair</title><script>alert box</script><p>oak doors</p>"
        "<meta name=description content='box sash'><h1>timber windows</h1>"
    )}  # fmt: skip
    assert found["sash repair"] > found["timber windows"] > found["oak doors"]
    assert "alert box" not in found and "box sash" in found


def workbook_of(rows):
    out = io.BytesIO()
    with xlsxwriter.Workbook(out) as book:
        page = book.add_worksheet()
        for at, row in enumerate(rows):
            page.write_row(at, 0, row)
    return out.getvalue()


def changed(data, name, change):
    """Return a workbook with one of its parts changed."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as old, zipfile.ZipFile(out, "w") as new:
        for info in old.infolist():
            content = old.read(info)
            new.writestr(info.filename, change(content) if info.filename == name else content)
    return out.getvalue()


SHEET = "xl/worksheets/sheet1.xml"


@pytest.mark.parametrize(
    "change",
    [
        lambda c: c.replace(b"<v>10</v>", b"<v>ten</v>"),
        lambda c: c.replace(b'r="A2"', b'r="2A2"'),
        lambda c: c.replace(b't="s"><v>2<', b't="s"><v>99999<'),
        lambda c: c.replace(b'<c r="B2">', b'<c r="B2" t="d">'),
        lambda c: c[: len(c) // 2],
        lambda c: b"",
        lambda c: c.replace(b"<row ", b"<row r='x' "),
    ],
)
def test_damaged_cells_are_said_and_never_break_the_reader(change):
    whole = workbook_of([["keyword", "volume"], ["a", 10], ["b", 20]])
    data = changed(whole, SHEET, change)
    assert data != whole
    try:
        read_table(data, "x.xlsx")
    except PlannerError as error:
        assert "expected" in error.message


def test_a_workbook_with_too_many_texts_is_refused_before_they_are_read(monkeypatch):
    monkeypatch.setattr(workbook, "_MOST_TEXTS", 50)
    data = workbook_of([["keyword"], *([f"text {n}"] for n in range(80))])
    with pytest.raises(TooLargeError, match="texts"):
        read_table(data, "x.xlsx")
    assert text_table.MAX_ROWS == 200_000


def test_a_workbook_that_passes_its_time_is_left_and_says_how_far_it_came():
    data = workbook_of([["keyword", "volume"], *([f"word {n}", n] for n in range(2000))])
    assert len(workbook.read_workbook(data).rows) == 2001
    with pytest.raises(TooLargeError, match=r"takes too long; stopped at row [1-9]"):
        workbook.read_workbook(data, seconds=0)
