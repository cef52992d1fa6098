"""Reading an upload: CSV or a workbook, a dictionary a row, as it was typed."""

from __future__ import annotations

import csv
import io
import zipfile
from typing import Any

__all__ = ["NotASheetError", "read_sheet"]

_GUARDED = ("=", "+", "-", "@", "\t", "\r")
_MOST_COLUMNS = 100
_MOST_UNPACKED = 200 * 2**20


class NotASheetError(Exception):
    """What came is no sheet; its text says what was expected, and what came."""


def read_sheet(content: bytes) -> list[dict[str, str]]:
    """Return the rows of a sheet by heading.

    Headings are compared in lower case; the guard that a spreadsheet's formulas are defused
    with is taken off again.

    Raises
    ------
    NotASheetError
    """
    rows = _workbook(content) if content[:2] == b"PK" else _text(content)
    if not rows:
        raise NotASheetError("Expected a sheet with a heading row, got an empty one.")
    heads = [head.strip().casefold() for head in rows[0]]
    if len(heads) > _MOST_COLUMNS or len(set(heads) - {""}) != len([h for h in heads if h]):
        raise NotASheetError("Expected at most 100 columns, each heading once.")
    found = []
    for row in rows[1:]:
        held = {h: _bare(cell) for h, cell in zip(heads, row, strict=False) if h}
        if any(held.values()):
            found.append(held)
    return found


def _bare(cell: str) -> str:
    cell = cell.strip()
    return cell[1:] if cell[:1] == "'" and cell[1:2] in _GUARDED and cell[1:] else cell


def _text(content: bytes) -> list[list[str]]:
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise NotASheetError("Expected UTF-8 text or a workbook.") from error
    try:
        return list(csv.reader(io.StringIO(text, newline="")))
    except csv.Error as error:
        raise NotASheetError(f"Expected CSV, got {error}.") from error


def _workbook(content: bytes) -> list[list[str]]:
    import openpyxl

    try:
        with zipfile.ZipFile(io.BytesIO(content)) as packed:
            if sum(part.file_size for part in packed.infolist()) > _MOST_UNPACKED:
                raise NotASheetError("Expected a workbook of at most 200 MB unpacked.")
        book = openpyxl.load_workbook(io.BytesIO(content), read_only=True, data_only=True)
        page = book.worksheets[0]
        return [[_cell(value) for value in row] for row in page.iter_rows(values_only=True)]
    except NotASheetError:
        raise
    except Exception as error:
        raise NotASheetError(
            f"Expected a workbook, got one that can’t be read: {error}."
        ) from error


def _cell(value: Any) -> str:
    if value is None:
        return ""
    if isinstance(value, float) and value.is_integer():
        return str(int(value))
    return str(value)
