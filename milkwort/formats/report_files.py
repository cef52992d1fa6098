"""The client's sheet as HTML, PDF, a workbook and CSV: one sheet, the same figures in each."""

from __future__ import annotations

import base64
import csv
import io
import json
import re
import tempfile
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any, Literal

from milkwort.core.errors import BadValueError
from milkwort.core.handover.report.shape import Chart, Report, Section, Table
from milkwort.core.handover.said import Kind
from milkwort.formats.cells import safe_cell
from milkwort.formats.new_book import new_book

__all__ = [
    "MAX_LOGO", "REPORT_KINDS", "Logo", "Paper", "checked_logo", "logo_of", "logo_said",
    "report_csv", "report_file", "report_html", "report_pdf", "report_xlsx",
]  # fmt: skip

Paper = Literal["a4", "us-letter"]
REPORT_KINDS: tuple[str, ...] = ("html", "pdf", "xlsx", "csv")

_FOLDER = Path(__file__).with_name("report_templates")
_NOT_DRAWN = ("<script", "<!entity", "<!doctype", "foreignobject", "javascript:", "href=\"http",
              "href='http", "url(http", "<use", "<image", "<iframe")  # fmt: skip
"""What makes more of an SVG than a drawing."""
_HIGHEST = 100.0
_SLOT = 40
MAX_LOGO = 1_000_000
_FORMATS: dict[Kind, str] = {"money": "#,##0.00", "whole": "#,##0", "count": "#,##0.00",
                             "share": "0.0 %", "text": "@"}  # fmt: skip


@dataclass(frozen=True)
class Logo:
    """A picture for the letter-head, checked: PNG or SVG."""

    kind: Literal["png", "svg"]
    content: bytes


def checked_logo(content: bytes) -> Logo:
    """Return a picture that may stand in a letter-head.

    Raises
    ------
    BadValueError
        For one that is too large, is neither PNG nor SVG, or holds anything but a drawing.
    """
    if len(content) > MAX_LOGO:
        raise BadValueError("logo", "a picture of at most 1 MB", f"{len(content):,} bytes")
    if content.startswith(b"\x89PNG\r\n\x1a\n"):
        width, height = (int.from_bytes(content[at : at + 4], "big") for at in (16, 20))
        if not (0 < width <= 4000 and 0 < height <= 4000):
            raise BadValueError("logo", "a picture of at most 4,000 by 4,000", f"{width}×{height}")
        return Logo("png", content)
    text = content.decode("utf-8", errors="replace").lower()
    if "<svg" not in text:
        raise BadValueError("logo", "a PNG or an SVG", "something else")
    strange = [mark for mark in _NOT_DRAWN if mark in text]
    strange += re.findall(r"\son[a-z]{3,20}\s{0,3}=", text)[:1]
    if strange:
        raise BadValueError("logo", "an SVG that only draws", strange[0].strip("<"))
    return Logo("svg", content)


def logo_said(logo: Logo) -> str:
    """Return a picture as text, the opposite of `logo_of`."""
    return f"{logo.kind}:{base64.b64encode(logo.content).decode()}"


def logo_of(said: str | None) -> Logo | None:
    """Return a picture that was kept as text, checked anew; None for none."""
    return None if said is None else checked_logo(base64.b64decode(said.partition(":")[2]))


def report_file(kind: str, report: Report, *, paper: Paper = "a4", logo: Logo | None = None,
                language: str = "en") -> bytes:  # fmt: skip
    """Return the sheet as a file.

    Raises
    ------
    BadValueError
        For a kind that is none of `REPORT_KINDS`.
    """
    makers: dict[str, Callable[[], bytes]] = {
        "html": lambda: report_html(report, logo=logo, language=language),
        "pdf": lambda: report_pdf(report, paper=paper, logo=logo, language=language),
        "xlsx": lambda: report_xlsx(report),
        "csv": lambda: report_csv(report),
    }
    if kind not in makers:
        raise BadValueError("kind", "one of " + ", ".join(REPORT_KINDS), kind)
    return makers[kind]()


def report_html(report: Report, *, logo: Logo | None = None, language: str = "en") -> bytes:
    """Return the sheet as one page: no script, nothing from elsewhere, made to be printed."""
    import jinja2

    loader = jinja2.FileSystemLoader(_FOLDER)
    jinja = jinja2.Environment(loader=loader, autoescape=True, undefined=jinja2.StrictUndefined)
    page = jinja.get_template("report.html")
    data = ""
    if logo is not None:
        kind = "image/png" if logo.kind == "png" else "image/svg+xml"
        data = f"data:{kind};base64,{base64.b64encode(logo.content).decode()}"
    text = page.render(report=report, said=report.style.said, bars=_bars, logo=data,
                       language=language)  # fmt: skip
    return text.encode("utf-8")


def _bars(chart: Chart) -> list[dict[str, Any]]:
    most = max(1.0, *chart.whole, *chart.part)
    bars = []
    for at, (label, whole, part) in enumerate(
        zip(chart.labels, chart.whole, chart.part, strict=True)
    ):
        tall, filled = (round(_HIGHEST * sum_ / most, 2) for sum_ in (whole, part))
        bars.append({
            "x": at * _SLOT + 6, "label": label, "whole_y": round(4 + _HIGHEST - tall, 2),
            "whole_height": tall, "part_y": round(4 + _HIGHEST - filled, 2),
            "part_height": filled,
        })  # fmt: skip
    return bars


def report_pdf(
    report: Report, *, paper: Paper = "a4", logo: Logo | None = None, language: str = "en"
) -> bytes:
    """Return the sheet as a tagged PDF whose text can be selected; its fonts stand in it."""
    data = {
        "title": report.title, "made": report.made, "letterhead": list(report.letterhead),
        "note": report.note, "paper": paper, "language": language,
        "logo": f"logo.{logo.kind}" if logo else "",
        "sections": [_section(section, report) for section in report.sections],
    }  # fmt: skip
    import typst

    with tempfile.TemporaryDirectory() as folder:
        root = Path(folder)
        source = root / "report.typ"
        source.write_bytes((_FOLDER / "report.typ").read_bytes())
        if logo is not None:
            (root / f"logo.{logo.kind}").write_bytes(logo.content)
        try:
            made = typst.compile(
                str(source), root=str(root), ignore_system_fonts=True,
                sys_inputs={"data": json.dumps(data)},
            )  # fmt: skip
        except typst.TypstError as error:
            if logo is None:
                raise
            raise BadValueError("logo", "a picture that can be drawn", str(error)) from error
    assert isinstance(made, bytes)
    return made


def _section(section: Section, report: Report) -> dict[str, Any]:
    said = report.style.said
    return {
        "title": section.title,
        "texts": list(section.texts),
        "chart": None if section.chart is None else vars(section.chart),
        "tables": [
            {
                "title": table.title,
                "more": table.more,
                "columns": [{"head": c.head, "figure": c.kind != "text"} for c in table.columns],
                "rows": [
                    [said(cell, c.kind) for cell, c in zip(row, table.columns, strict=True)]
                    for row in table.rows
                ],
            }
            for table in section.tables
        ],
    }


def report_xlsx(report: Report) -> bytes:
    """Return the sheet as a workbook: a page a section, figures as figures, native charts."""
    out = io.BytesIO()
    with new_book(out) as book:
        bold, title = book.add_format({"bold": True}), book.add_format({"bold": True, "size": 14})
        formats = {kind: book.add_format({"num_format": f}) for kind, f in _FORMATS.items()}
        for section in report.sections:
            page = book.add_worksheet(section.title.replace("/", " ")[:31])
            page.write_string(0, 0, str(safe_cell(section.title)), title)
            at = 1
            for text in section.texts:
                page.write_string(at, 0, str(safe_cell(text)))
                at += 1
            for number, table in enumerate(section.tables):
                at = _write_table(page, table, at + 1, bold, formats)
                if section.chart is not None and number == 0:
                    _chart(book, page, section.chart, at - len(table.rows), at)
            if len(section.tables) == 1 and section.tables[0].rows:
                page.freeze_panes(at - len(section.tables[0].rows), 1)
            page.set_column(0, 0, 44)
            page.set_column(1, 12, 16)
    return out.getvalue()


def _write_table(page: Any, table: Table, at: int, bold: Any, formats: dict[Kind, Any]) -> int:
    """Write a table from a row on and return the row after it."""
    if table.title:
        page.write_string(at, 0, str(safe_cell(table.title)), bold)
        at += 1
    for column, one in enumerate(table.columns):
        page.write_string(at, column, str(safe_cell(one.head)), bold)
    for row in table.rows:
        at += 1
        for column, (cell, one) in enumerate(zip(row, table.columns, strict=True)):
            if isinstance(cell, str):
                page.write_string(at, column, str(safe_cell(cell)))
            elif cell is not None:
                page.write_number(at, column, cell, formats[one.kind])
    return at + 1


def _chart(book: Any, page: Any, chart: Chart, first: int, end: int) -> None:
    drawn = book.add_chart({"type": "column"})
    for column, name in ((1, chart.whole_name), (2, chart.part_name)):
        drawn.add_series({
            "name": name,
            "categories": [page.get_name(), first, 0, end - 1, 0],
            "values": [page.get_name(), first, column, end - 1, column],
        })  # fmt: skip
    page.insert_chart(end + 1, 0, drawn)


def report_csv(report: Report) -> bytes:
    """Return the sheet's tables as CSV, each under its section's name; figures as numbers."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    for section in report.sections:
        for table in section.tables:
            writer.writerow([safe_cell(section.title), safe_cell(table.title)])
            writer.writerow([safe_cell(column.head) for column in table.columns])
            writer.writerows([["" if c is None else safe_cell(c) for c in row]
                              for row in table.rows])  # fmt: skip
            writer.writerow([])
    return out.getvalue().encode("utf-8-sig")
