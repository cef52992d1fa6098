"""Any list of the screens as a file: its columns, rows and order as they were shown."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

from milkwort.core.errors import BadValueError
from milkwort.formats.cells import safe_cell
from milkwort.formats.new_book import new_book

__all__ = ["Cell", "shown_csv", "shown_xlsx"]

Cell = str | float | None
_WIDEST = 60


def shown_csv(heads: Sequence[str], columns: Sequence[Sequence[Cell]]) -> bytes:
    """Return a list as CSV: UTF-8 with a byte-order mark, commas, points, CRLF.

    Parameters
    ----------
    heads : sequence of str, length k
    columns : sequence of sequence of str, float or None, shape (k, n)

    Raises
    ------
    BadValueError
        Where columns differ in length, or are not one a head.
    """
    _check(heads, columns)
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow([safe_cell(head) for head in heads])
    writer.writerows(zip(*[[_plain(c) for c in column] for column in columns], strict=True))
    return out.getvalue().encode("utf-8-sig")


def shown_xlsx(heads: Sequence[str], columns: Sequence[Sequence[Cell]]) -> bytes:
    """Return a list as a workbook of one page; figures are figures, texts never formulas.

    Parameters and errors are those of `shown_csv`.
    """
    _check(heads, columns)
    out = io.BytesIO()
    with new_book(out) as book:
        page = book.add_worksheet("list")
        bold = book.add_format({"bold": True})
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
        page.autofilter(0, 0, max(len(columns[0]), 1), len(heads) - 1)
    return out.getvalue()


def _check(heads: Sequence[str], columns: Sequence[Sequence[Cell]]) -> None:
    if len(columns) != len(heads):
        raise BadValueError("columns", f"one for each of {len(heads)} heads", str(len(columns)))
    for head, column in zip(heads, columns, strict=True):
        if len(column) != len(columns[0]):
            raise BadValueError(f"column {head}", f"{len(columns[0])} rows", str(len(column)))


def _plain(cell: Cell) -> Cell:
    if isinstance(cell, float) and cell.is_integer() and abs(cell) < 1e15:
        return int(cell)
    harmless: Cell = safe_cell(cell)
    return harmless
