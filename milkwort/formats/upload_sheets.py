"""Sheets of a hand-over as files: each a table of its own, all of them a book."""

from __future__ import annotations

import io
import json
from collections.abc import Mapping, Sequence
from typing import Any

import xlsxwriter

from milkwort.core.handover.changed_rows import ChangedRow, Row
from milkwort.formats.cells import safe_cell
from milkwort.formats.shown_table import Cell, shown_csv

__all__ = ["changed_table", "descriptor", "sheet_csv", "sheet_table", "sheets_xlsx"]

_WIDEST = 60
Table = tuple[list[str], list[list[Cell]]]


def sheet_table(rows: Sequence[Row]) -> Table:
    """Return rows as headings and columns; a row that lacks one has an empty cell there."""
    heads = list(dict.fromkeys(name for row in rows for name in row))
    return heads, [[_cell(row.get(head)) for row in rows] for head in heads]


def changed_table(changes: Sequence[ChangedRow]) -> Table:
    """Return changed rows with what became of each, and what its cells were before."""
    rows = [
        {
            "change": change.turn,
            **change.row,
            "was": "; ".join(f"{name}: {'' if v is None else v}" for name, v in change.was.items()),
        }
        for change in changes
    ]
    return sheet_table(rows)


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
    options = {"in_memory": True, "strings_to_formulas": False, "strings_to_urls": False}
    with xlsxwriter.Workbook(out, options) as book:
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


def descriptor(name: str, tables: Mapping[str, tuple[str, Table]]) -> bytes:
    """Return a data package that describes CSV files: which columns each has, of which type.

    Parameters
    ----------
    name : str
        Of the package.
    tables : mapping of str to (str, Table)
        File name and table, by sheet.
    """
    resources = [
        {
            "name": sheet,
            "path": path,
            "profile": "tabular-data-resource",
            "format": "csv",
            "encoding": "utf-8",
            "schema": {
                "fields": [{"name": head, "type": _type(column)} for head, column in
                           zip(heads, columns, strict=True)],
                "primaryKey": "ref",
            },
        }
        for sheet, (path, (heads, columns)) in tables.items()
    ]  # fmt: skip
    package = {"profile": "tabular-data-package", "name": name, "resources": resources}
    return json.dumps(package, indent=1, ensure_ascii=False).encode("utf-8")


def _type(column: Sequence[Cell]) -> str:
    known = [cell for cell in column if cell is not None]
    return "number" if known and all(isinstance(cell, float) for cell in known) else "string"
