"""Texts that break programs go in by every reader and out by every writer, and stay so."""

import csv
import io

import pytest

from milkwort.core.errors import PlannerError
from milkwort.core.words.texts import normalise
from milkwort.formats.cells import safe_cell, unguarded
from milkwort.formats.keyword_rows import KeywordRows, columns_by_heading, read_keyword_rows
from milkwort.formats.shown_table import shown_csv, shown_xlsx
from milkwort.formats.tables import read_table
from tests.naughty import SPECTRUM, TEXTS


def keywords_in(data: bytes) -> KeywordRows:
    table = read_table(data, "naughty.csv")
    return read_keyword_rows(table, columns_by_heading(table))


@pytest.mark.parametrize("name", SPECTRUM)
def test_a_table_of_another_program_says_what_it_says(name):
    written, rows = SPECTRUM[name]
    assert list(read_table(written.encode(), "table.csv").rows) == rows


@pytest.mark.parametrize("write", [shown_csv, shown_xlsx], ids=["csv", "xlsx"])
def test_what_a_list_writes_reads_back_as_it_was(write):
    figures = [float(n) for n in range(len(TEXTS))]
    read = read_table(write(["text", "figure"], [TEXTS, figures]), "list")
    back = [unguarded(row[0]) for row in read.rows[1:]]
    # a table keeps no space around a cell, nor a sign that is none
    assert [" ".join(text.split()) for text in back] == [" ".join(t.split()) for t in TEXTS]
    assert [float(row[1]) for row in read.rows[1:]] == figures


@pytest.mark.parametrize("text", TEXTS)
def test_no_cell_that_leaves_is_a_formula(text):
    said = safe_cell(text)
    assert said.lstrip(" ")[:1] not in ("=", "+", "-", "@")
    assert unguarded(said) == text or text.startswith("'")


def test_every_text_is_a_keyword_or_refused_by_its_row():
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(["keyword", "volume", "note"])
    writer.writerows([text, 10, text] for text in TEXTS)
    found = keywords_in(out.getvalue().encode())
    rows = {row.row for row in found.taken} | {one.row for one in found.refused}
    assert len(rows) == len(TEXTS)
    for row in found.taken:
        assert row.normalised == normalise(row.text) == normalise(row.normalised)
    for one in found.refused:
        assert one.why and one.column


@pytest.mark.parametrize("text", TEXTS)
def test_normalising_twice_is_normalising_once(text):
    once = normalise(text)
    assert normalise(once) == once
    assert once == once.strip() and "\n" not in once and "\t" not in once


@pytest.mark.parametrize("text", TEXTS)
def test_a_cell_where_a_figure_belongs_is_read_or_refused_in_words(text):
    table = f'keyword,volume,cpc_low,cpc_high\n"sash","{text.replace(chr(34), chr(34) * 2)}",1,2\n'
    try:
        found = keywords_in(table.encode())
    except PlannerError as error:
        assert str(error)
        return
    for row in found.taken:
        assert row.volume is None or 0 <= row.volume[0] <= row.volume[1] < 1e15
    for one in found.refused:
        assert one.column == "volume" and one.why
