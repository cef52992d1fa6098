"""Sheets of a hand-over as files: each a table of its own, all of them a book."""

from __future__ import annotations

import io
import json
from collections.abc import Mapping, Sequence
from typing import Any

from milkwort.core.brief.upload_shape import UploadColumn
from milkwort.core.handover.changed_rows import ChangedRow, Row
from milkwort.formats.cells import safe_cell
from milkwort.formats.new_book import new_book
from milkwort.formats.shown_table import Cell, shown_csv

__all__ = ["changed_table", "descriptor", "in_shape", "sheet_csv", "sheet_table", "sheets_xlsx"]

_WIDEST = 60
Table = tuple[list[str], list[list[Cell]]]


def sheet_table(rows: Sequence[Row]) -> Table:
    """Return rows as headings and columns; a row that lacks one has an empty cell there."""
    heads = list(dict.fromkeys(name for row in rows for name in row))
    return heads, [[_cell(row.get(head)) for row in rows] for head in heads]


def in_shape(table: Table, columns: Sequence[UploadColumn]) -> Table:
    """Return a table with the columns that are sent, in their order, under their headings."""
    heads, cells = table
    held = dict(zip(heads, cells, strict=True))
    sent = [one for one in columns if one.sent and one.column in held]
    return [one.heading for one in sent], [held[one.column] for one in sent]


def changed_table(changes: Sequence[ChangedRow], columns: Sequence[UploadColumn]) -> Table:
    """Return changed rows with what became of each before them, and what was there behind."""
    heads, cells = in_shape(sheet_table([change.row for change in changes]), columns)
    headings = {one.column: one.heading for one in columns}
    turns: list[Cell] = [change.turn for change in changes]
    was: list[Cell] = [
        "; ".join(f"{headings.get(n, n)}: {'' if v is None else v}" for n, v in c.was.items())
        for c in changes
    ]
    return ["change", *heads, "was"], [turns, *cells, was]


def _cell(value: Any) -> Cell:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return value if value is None or isinstance(value, (str, float)) else float(value)


def sheet_csv(table: Table) -> bytes:
    """Return one sheet as CSV: UTF-8 with a byte-order mark, commas, points, CRLF."""
    heads, columns = table
    return shown_csv(heads, columns)


def sheets_xlsx(tables: Mapping[str, Table]) -> bytes:
    """Return sheets as a book, a page each; figures are figures, texts never formulas."""
    out = io.BytesIO()
    with new_book(out) as book:
        bold = book.add_format({"bold": True})
        for name, (heads, columns) in tables.items():
            page = book.add_worksheet(name[:31])
            for at, (head, column) in enumerate(zip(heads, columns, strict=True)):
                page.write_string(0, at, str(safe_cell(head)), bold)
                widest = len(head)
                for row, cell in enumerate(column, start=1):
                    if isinstance(cell, str):
                        page.write_string(row, at, str(safe_cell(cell)))
                        widest = max(widest, len(cell))
                    elif cell is not None:
                        page.write_number(row, at, cell)
                page.set_column(at, at, min(widest, _WIDEST) + 2)
            page.freeze_panes(1, 0)
            if heads:
                page.autofilter(0, 0, max(len(columns[0]), 1), len(heads) - 1)
    return out.getvalue()


def descriptor(
    name: str, tables: Mapping[str, tuple[str, Table]], refs: Mapping[str, str]
) -> bytes:
    """Return a data package that describes CSV files: which columns each has, of which type.

    Parameters
    ----------
    name : str
        Of the package.
    tables : mapping of str to (str, Table)
        File name and table, by sheet.
    refs : mapping of str to str
        The heading by which rows are known again, by sheet; none where it is not sent.
    """
    resources = [
        {
            "name": sheet,
            "path": path,
            "profile": "tabular-data-resource",
            "format": "csv",
            "encoding": "utf-8",
            "schema": {
                "fields": [{"name": safe_cell(head), "type": _type(column)} for head, column in
                           zip(heads, columns, strict=True)],
                **({"primaryKey": safe_cell(refs[sheet])} if sheet in refs else {}),
            },
        }
        for sheet, (path, (heads, columns)) in tables.items()
    ]  # fmt: skip
    package = {"profile": "tabular-data-package", "name": name, "resources": resources}
    return json.dumps(package, indent=1, ensure_ascii=False).encode("utf-8")


def _type(column: Sequence[Cell]) -> str:
    known = [cell for cell in column if cell is not None]
    return "number" if known and all(isinstance(cell, float) for cell in known) else "string"
