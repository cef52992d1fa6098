"""The client's sheet: what each part says, and that every file of it says the same."""

import csv
import io
import re
from datetime import date

import numpy as np
import openpyxl
import pytest

from milkwort.core.brief.worth import CeilingRule
from milkwort.core.errors import BadValueError
from milkwort.core.handover.report.shape import SECTIONS, ForReport, Options, Other
from milkwort.core.handover.report.sheet import report_of
from milkwort.core.handover.report.words import words_of
from milkwort.core.handover.said import NumberStyle
from milkwort.core.market.keyword_table import blank_table
from milkwort.core.plan.draws import draw_month
from milkwort.core.plan.run import run_plan
from milkwort.core.plan.year import year_ahead
from milkwort.core.words.negatives import Negative
from milkwort.formats.report_files import checked_logo, report_file
from tests.samples import brief, random_table

STEEP = brief(ceiling=CeilingRule("cost_per_customer", 40.0), monthly_spend=40.0,
              negatives=(Negative("free"),))  # fmt: skip


def about(plan=STEEP, rows=None, **more):
    result = run_plan(plan, random_table(3, 40) if rows is None else rows)
    return ForReport(
        result, "Eastmere Sash & <Casement>", list(result.table.texts), ["Repair"],
        draw_month(result, 200), year_ahead(result, 9), date(2027, 9, 1), date(2027, 8, 20),
        values={"sale_value": 340.0, "gross_margin": 0.55}, not_entered=("gross_margin",), **more,
    )  # fmt: skip


def sections(report):
    return {section.key: section for section in report.sections}


def test_keywords_stand_in_the_tier_they_belong_to():
    made = about()
    found, result = sections(report_of(made)), made.result
    bought = [row[0] for row in found["buy_now"].tables[0].rows]
    dear = [row[0] for row in found["too_dear"].tables[0].rows]
    runs = np.isfinite(result.bid)
    assert sorted(bought) == sorted(t for t, r in zip(result.table.texts, runs, strict=True) if r)
    assert not set(bought) & set(dear)
    assert dear
    spends = [row[-1] for row in found["buy_now"].tables[0].rows]
    assert spends == sorted(spends, reverse=True)


def test_the_sums_worked_through_are_of_the_three_that_matter():
    made = about()
    result = made.result
    titles = [table.title for table in sections(report_of(made))["worked"].tables]
    most = result.table.texts[int(np.nan_to_num(result.expected.spend).argmax())]
    out = np.where(np.isnan(result.bid), result.prices.mu, -np.inf)
    assert titles[0].endswith(most)
    assert titles[2].endswith(result.table.texts[int(out.argmax())])


def test_what_is_assumed_says_where_it_comes_from():
    rows = {r[0]: r[2] for r in sections(report_of(about()))["assumed"].tables[0].rows}
    assert rows["sale value"] == "you told us"
    assert rows["margin"] == "assumed"


def test_a_sheet_of_a_page_leaves_most_out_and_says_how_much():
    short = report_of(about(), Options(short=True))
    assert [s.key for s in short.sections] == ["promise", "buy_now", "next_in_line", "too_dear",
                                               "steps"]  # fmt: skip
    table = sections(short)["buy_now"].tables[0]
    assert len(table.rows) == 8 and table.more > 0


def test_versions_stand_side_by_side_only_where_there_are_some():
    other = about(brief(monthly_spend=80.0))
    made = about(others=[Other("Richer", other.result, other.draws)], label="First")
    heads = [c.head for c in sections(report_of(made))["versions"].tables[0].columns]
    assert heads[1:] == ["First", "Richer"]
    assert "versions" not in sections(report_of(about()))


def test_an_empty_plan_has_a_sheet_that_says_so():
    made = about(brief(), blank_table([]))
    report = report_of(made)
    assert sections(report)["promise"].texts == (words_of("en")["promise"]["nobody"],)
    for kind in ("html", "pdf", "xlsx", "csv"):
        assert report_file(kind, report)


def test_every_heading_comes_from_the_file_of_words():
    words = words_of("xx")
    assert words == words_of("en")
    titles = {key: words[key]["title"] for key in SECTIONS}
    report = report_of(about(others=[Other("B", about().result, about().draws)]))
    assert {s.key: s.title for s in report.sections} == titles


def same(cell, got):
    """A workbook holds sixteen digits."""
    if isinstance(cell, float) and isinstance(got, int | float):
        return got == pytest.approx(cell, rel=1e-14)
    return cell == got


@pytest.fixture(scope="module")
def whole():
    return report_of(about())


def test_every_figure_of_the_workbook_and_the_csv_is_the_sheets(whole):
    book = openpyxl.load_workbook(io.BytesIO(report_file("xlsx", whole)))
    lines = list(csv.reader(io.StringIO(report_file("csv", whole).decode("utf-8-sig"))))
    for section in whole.sections:
        cells = [c.value for row in book[section.title[:31]].iter_rows() for c in row
                 if c.value is not None]  # fmt: skip
        for table in section.tables:
            for row in table.rows:
                for cell in row:
                    assert cell is None or cell == "" or any(same(cell, got) for got in cells)
                assert any(
                    all(str(c if c is not None else "") == got or
                        (isinstance(c, float) and float(got) == c)
                        for c, got in zip(row, line, strict=False))
                    for line in lines if len(line) == len(row)
                    and line[0] == str(row[0])
                )  # fmt: skip
    assert book["The month and the year"]._charts


def test_every_figure_of_the_page_is_the_sheets_and_nothing_of_it_acts(whole):
    page = report_file("html", whole).decode()
    assert "<script" not in page and "http://" not in page and "https://" not in page
    assert "Eastmere Sash &amp; &lt;Casement&gt;" in page
    plain = re.sub(r"<[^>]+>", "|", page)
    for section in whole.sections:
        for table in section.tables:
            for row in table.rows:
                for cell, column in zip(row, table.columns, strict=True):
                    said = whole.style.said(cell, column.kind)
                    assert (
                        said.replace("&", "&amp;")
                        .replace("<", "&lt;")
                        .replace(">", "&gt;")
                        .replace("'", "&#39;")
                        in plain
                    )


def test_the_pdf_is_tagged_and_has_its_fonts_in_it(whole):
    content = report_file("pdf", whole)
    assert content.startswith(b"%PDF")
    assert b"/StructTreeRoot" in content and b"/MarkInfo" in content
    assert b"/FontFile" in content
    assert report_file("pdf", whole, paper="us-letter") != content


@pytest.mark.parametrize(
    ("style", "said"),
    [
        (NumberStyle("GBP"), ("£1,234.50", "−0.50", "12.5 %", "–")),
        (NumberStyle("EUR", ".", ",", sign_first=False), ("1.234,50 €", "−0,50", "12,5 %", "–")),
        (NumberStyle("CHF", " ", "."), ("CHF 1 234.50", "−0.50", "12.5 %", "–")),
    ],
)
def test_figures_are_written_in_one_style(style, said):
    assert style.said(1234.5, "money") == said[0]
    assert style.said(-0.5, "count") == said[1]
    assert style.said(0.125, "share") == said[2]
    assert style.said(None, "whole") == style.said(float("inf"), "money") == said[3]


PNG = b"\x89PNG\r\n\x1a\n" + b"\0" * 8 + (10).to_bytes(4, "big") * 2 + b"\0" * 20


@pytest.mark.parametrize(
    "bad",
    [
        b"GIF89a", b"<svg><script>alert(1)</script></svg>", b'<svg onload="x()"></svg>',
        b'<!DOCTYPE svg [<!ENTITY a "aaaa">]><svg>&a;</svg>', b"x" * 1_000_001,
        PNG[:16] + (60_000).to_bytes(4, "big") * 2, b'<svg><image href="http://x"/></svg>',
    ],
)  # fmt: skip
def test_a_logo_that_is_more_than_a_picture_is_refused(bad):
    with pytest.raises(BadValueError, match="logo"):
        checked_logo(bad)


def test_a_logo_stands_in_the_letterhead():
    logo = checked_logo(
        b'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 4 4"><path d="M0 0h4"/></svg>'
    )
    assert checked_logo(PNG).kind == "png"
    report = report_of(about(), Options(letterhead=("Ann Grove", "Wrenfold")))
    page = report_file("html", report, logo=logo).decode()
    assert "data:image/svg+xml;base64," in page and "Ann Grove" in page
    assert report_file("pdf", report, logo=logo).startswith(b"%PDF")
    broken = checked_logo(b"<svg><rect></svg>")
    with pytest.raises(BadValueError, match="logo"):
        report_file("pdf", report, logo=broken)
