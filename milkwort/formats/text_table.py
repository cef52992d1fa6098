"""A text file of rows and cells: CSV with commas, semicolons or tabs."""

from __future__ import annotations

import csv
import io
from dataclasses import dataclass

from milkwort.core.errors import BadValueError, NothingUsableError, TooLargeError
from milkwort.formats.numbers import Decimal, guess_decimal

__all__ = ["MAX_BYTES", "MAX_ROWS", "TextTable", "read_text_table"]

MAX_BYTES = 20 * 1024 * 1024
MAX_ROWS = 200_000
_MAX_CELL = 100_000
_SAMPLE_ROWS = 400


@dataclass(frozen=True)
class TextTable:
    """Rows of cells, as read.

    Attributes
    ----------
    rows : tuple of tuple of str
        Every record, blank ones included, so that row numbers are those of the file.
    separator : str
        What stands between cells.
    decimal : {".", ","}
        What stands before decimals.
    encoding : str
        How the bytes were read.
    sheets : tuple of str
        Names of a workbook's sheets; empty for any other file.
    sheet : str
        The one that was read.
    """

    rows: tuple[tuple[str, ...], ...]
    separator: str
    decimal: Decimal
    encoding: str
    sheets: tuple[str, ...] = ()
    sheet: str = ""


def read_text_table(data: bytes | str, name: str = "file") -> TextTable:
    """Read a CSV in any of its usual dresses.

    Parameters
    ----------
    data : bytes or str
        UTF-8, UTF-16 or Windows-1252, with or without a byte-order mark; commas, semicolons
        or tabs; quoted cells may hold line breaks.
    name : str
        What to call it in a message.

    Returns
    -------
    TextTable

    Raises
    ------
    TooLargeError
        Past 20 MB or 200,000 rows.
    BadValueError
        Where the bytes are no text.
    NothingUsableError
        Where there are no rows.
    """
    size = len(data) if isinstance(data, bytes) else len(data.encode())
    if size > MAX_BYTES:
        raise TooLargeError(f"{name}: expected at most 20 MB, got {size / 2**20:.1f} MB", name)
    text, encoding = _decoded(data, name)
    separator = _separator(text)
    csv.field_size_limit(_MAX_CELL)
    rows: list[tuple[str, ...]] = []
    try:
        for record in csv.reader(io.StringIO(text, newline=""), delimiter=separator):
            rows.append(tuple(record))
            if len(rows) > MAX_ROWS + 1:
                raise TooLargeError(f"{name}: expected at most 200,000 rows, got more", name)
    except csv.Error as error:
        raise BadValueError(
            f"{name}, row {len(rows) + 1}", "cells that can be read", str(error)
        ) from error
    if not any(any(c.strip() for c in row) for row in rows):
        raise NothingUsableError(f"{name}: expected rows of keywords, got an empty file", name)
    cells = (cell for row in rows[:_SAMPLE_ROWS] for cell in row)
    return TextTable(tuple(rows), separator, guess_decimal(cells, separator), encoding)


def _decoded(data: bytes | str, name: str) -> tuple[str, str]:
    if isinstance(data, str):
        return data.removeprefix("\ufeff"), "text"
    wide = _wide_encoding(data)
    if wide is None and b"\0" in data[:4096]:
        raise BadValueError(name, "a text file (CSV)", "a binary file")
    if wide is None:
        try:
            return data.decode("utf-8-sig"), "UTF-8"
        except UnicodeDecodeError:
            return _windows(data, name), "Windows-1252"
    try:
        return data.decode(wide).removeprefix("\ufeff"), "UTF-16"
    except UnicodeDecodeError as error:
        where = f"{name}, byte {error.start + 1:,}"
        raise BadValueError(where, "UTF-16 text", f"byte 0x{data[error.start]:02x}") from error


def _wide_encoding(data: bytes) -> str | None:
    """Return UTF-16 in its byte order, where the bytes look like it; None elsewhere.

    Without a mark: in Western text every other byte is 0.
    """
    if data[:2] == b"\xff\xfe":
        return "utf-16-le"
    if data[:2] == b"\xfe\xff":
        return "utf-16-be"
    head = data[:4096]
    if len(head) >= 4 and len(head) % 2 == 0:
        for at, encoding in ((1, "utf-16-le"), (0, "utf-16-be")):
            if head[at::2].count(0) > 0.8 * len(head) / 2 and not head[1 - at :: 2].count(0):
                return encoding
    return None


def _windows(data: bytes, name: str) -> str:
    try:
        return data.decode("cp1252")
    except UnicodeDecodeError as error:
        line = data.count(b"\n", 0, error.start) + 1
        raise BadValueError(
            f"{name}, line {line}",
            "text in UTF-8, UTF-16 or Windows-1252",
            f"byte 0x{data[error.start]:02x}",
        ) from error


def _separator(text: str) -> str:
    """Return the mark that splits the first rows into the same number of cells, most of them."""
    best, most = ",", 1.0
    for mark in (",", ";", "\t"):
        sample = io.StringIO(text[:65536], newline="")
        try:
            widths = [
                len(record)
                for record, _ in zip(csv.reader(sample, delimiter=mark), range(60), strict=False)
                if record
            ]
        except csv.Error:
            continue
        if not widths:
            continue
        usual = max(set(widths), key=widths.count)
        score = usual * widths.count(usual) / len(widths)
        if usual > 1 and score > most:
            best, most = mark, score
    return best
