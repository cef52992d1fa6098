"""Rows of cells out of an XLSX workbook, read as a stream and within bounds."""

from __future__ import annotations

import io
import time
import zipfile
import zlib
from collections.abc import Iterator
from datetime import date, datetime
from typing import Any

from milkwort.core.errors import BadValueError, NothingUsableError, TooLargeError
from milkwort.formats.text_table import MAX_BYTES, MAX_ROWS, TextTable

__all__ = ["is_workbook", "read_workbook", "unpacked_size"]

_MOST_UNPACKED = 400 * 2**20
"""A workbook that unpacks to more than this is no sheet of keywords."""
_MOST_TEXTS = 1_000_000
_MOST_SECONDS = 60.0
"""Ten times what the longest honest sheet took; a reader that needs more says so."""
_MOST_COLUMNS = 100
_MOST_BLANK = 2_000
"""So many empty rows in a run end a sheet: some programs write a million of them."""


def is_workbook(data: bytes) -> bool:
    """Say whether bytes look like a workbook."""
    return data[:4] == b"PK\x03\x04"


def unpacked_size(data: bytes) -> int:
    """Return how large a workbook is unpacked, as it says itself; 0 for a broken one."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            return sum(info.file_size for info in packed.infolist())
    except (zipfile.BadZipFile, ValueError, NotImplementedError):  # reading it says what is wrong
        return 0


def read_workbook(
    data: bytes, name: str = "file", sheet: str | None = None, seconds: float = _MOST_SECONDS
) -> TextTable:
    """Read one sheet of a workbook; formulas count as what they last came to.

    Parameters
    ----------
    data : bytes
    name : str
        What to call it in a message.
    sheet : str, optional
        Its name; the first that holds anything where left out.
    seconds : float
        How long it may take.

    Returns
    -------
    TextTable

    Raises
    ------
    TooLargeError
        Past 20 MB packed, 400 MB unpacked, 200,000 rows or the time.
    BadValueError
        Where the bytes are no workbook, or it has no such sheet.
    NothingUsableError
        Where no sheet holds anything.
    """
    from openpyxl import load_workbook

    if len(data) > MAX_BYTES:
        raise TooLargeError(f"{name}: expected at most 20 MB, got {len(data) / 2**20:.1f} MB", name)
    _check_unpacked(data, name)
    try:
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True, keep_links=False)
    except Exception as error:  # the library raises whatever a broken file makes it stumble on
        raise BadValueError(name, "an XLSX workbook", type(error).__name__) from error
    end = time.monotonic() + seconds
    names = tuple(book.sheetnames)
    if sheet is not None and sheet not in names:
        raise BadValueError(f"{name}, sheet", "one of " + ", ".join(names), sheet)
    for wanted in (sheet,) if sheet is not None else names:
        rows = _whole(book[wanted], f"{name}, {wanted}", end)
        if any(any(row) for row in rows):
            return TextTable(rows, "sheet", ".", "XLSX", names, wanted)
    raise NothingUsableError(f"{name}: expected rows of keywords, got an empty workbook", name)


def _whole(sheet: Any, where: str, end: float) -> tuple[tuple[str, ...], ...]:
    rows: list[tuple[str, ...]] = []
    try:
        rows.extend(_rows(sheet, where, end))
    except TooLargeError:
        raise
    except Exception as error:  # what the library stumbles on in a damaged cell
        after = f"{where}, after row {len(rows)}"
        raise BadValueError(after, "cells that can be read", type(error).__name__) from error
    return tuple(rows)


def _check_unpacked(data: bytes, name: str) -> None:
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            size = sum(info.file_size for info in packed.infolist())
            texts = _texts_in(packed) if size <= _MOST_UNPACKED else 0
    except (zipfile.BadZipFile, zlib.error, EOFError, NotImplementedError, RuntimeError) as error:
        raise BadValueError(name, "an XLSX workbook", "a broken archive") from error
    if texts > _MOST_TEXTS:
        message = f"{name}: expected a workbook of at most 1,000,000 texts, got more"
        raise TooLargeError(message, name)
    if size > _MOST_UNPACKED:
        raise TooLargeError(
            f"{name}: expected a workbook of at most 400 MB unpacked, got {size / 2**20:,.0f} MB",
            name,
        )


def _texts_in(packed: zipfile.ZipFile) -> int:
    """Count the texts of a workbook without reading them, as far as is asked."""
    count, end = 0, b""
    for name in packed.namelist():
        if not name.casefold().endswith("sharedstrings.xml"):
            continue
        with packed.open(name) as content:
            while chunk := content.read(2**20):
                count += (end + chunk).count(b"<si")
                end = chunk[-2:]
                if count > _MOST_TEXTS:
                    return count
    return count


def _rows(sheet: Any, where: str, end: float) -> Iterator[tuple[str, ...]]:
    blank = 0
    for number, cells in enumerate(sheet.iter_rows(values_only=True, max_col=_MOST_COLUMNS)):
        if number > MAX_ROWS:
            raise TooLargeError(f"{where}: expected at most 200,000 rows, got more", where)
        if number % 500 == 0 and time.monotonic() > end:
            message = f"{where}: reading it takes too long; stopped at row {number + 1:,}"
            raise TooLargeError(message, where)
        row = _trimmed([_said(cell) for cell in cells])
        blank = 0 if any(row) else blank + 1
        if blank > _MOST_BLANK:
            return
        yield row


def _trimmed(cells: list[str]) -> tuple[str, ...]:
    while cells and not cells[-1]:
        cells.pop()
    return tuple(cells)


def _said(cell: Any) -> str:
    """Return a cell as text that reads back to the same figure."""
    if cell is None:
        return ""
    if isinstance(cell, bool):
        return "yes" if cell else "no"
    if isinstance(cell, float):
        return repr(int(cell)) if cell.is_integer() and abs(cell) < 1e15 else repr(cell)
    if isinstance(cell, datetime | date):
        return cell.isoformat()[:10]
    return str(cell)
