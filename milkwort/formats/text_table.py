"""A text file of rows and cells: CSV with commas, semicolons or tabs."""

from __future__ import annotations

import csv
import io
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from milkwort.core.errors import BadValueError, NothingUsableError, TooLargeError
from milkwort.formats.numbers import Decimal, guess_decimal

__all__ = ["MAX_BYTES", "MAX_COLUMNS", "MAX_ROWS", "TextTable", "decoded", "read_text_table"]

MAX_BYTES = 20 * 1024 * 1024
MAX_ROWS = 200_000
MAX_COLUMNS = 200
"""Cells of a row that are looked at; a sheet of keywords has a few dozen."""
_MAX_CELL = 100_000
_MOST_LINES = 50
"""No cell of a list of keywords goes over so many lines: its quote was never closed."""
_SHOWN = 200
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
    broken : dict of int to str
        Rows, by their place, whose quotes don't close, with what is said of each.
    above : tuple of tuple of str
        Rows of the file above these, where they were set apart.
    """

    rows: tuple[tuple[str, ...], ...]
    separator: str
    decimal: Decimal
    encoding: str
    sheets: tuple[str, ...] = ()
    sheet: str = ""
    broken: Mapping[int, str] = field(default_factory=dict)
    above: tuple[tuple[str, ...], ...] = ()

    def number(self, place: int) -> int:
        """Return the number of a row in its file, the file's first being 1."""
        return len(self.above) + place + 1


def read_text_table(data: bytes | str, name: str = "file") -> TextTable:
    """Read a CSV in any of its usual dresses.

    Parameters
    ----------
    data : bytes or str
        UTF-8, UTF-16, UTF-32 or Windows-1252, with or without a byte-order mark; commas, semicolons
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
    text, encoding = decoded(data, name)
    separator = _separator(text)
    rows, broken = _records(text, separator, name)
    if not any(any(c.strip() for c in row) for row in rows):
        raise NothingUsableError(f"{name}: expected rows of keywords, got an empty file", name)
    cells = (cell for row in rows[:_SAMPLE_ROWS] for cell in row)
    decimal = guess_decimal(cells, separator)
    return TextTable(tuple(rows), separator, decimal, encoding, broken=broken)


def _records(text: str, separator: str, name: str) -> tuple[list[tuple[str, ...]], dict[int, str]]:
    """Return rows of cells, and which of them hold a quote that doesn't close.

    Such a quote would swallow all that follows it: its line stands alone, and reading goes
    on with the next one.
    """
    csv.field_size_limit(_MAX_CELL)
    lines = list(io.StringIO(text, newline=""))
    rows: list[tuple[str, ...]] = []
    broken: dict[int, str] = {}
    at = 0
    while at < len(lines):
        reader = csv.reader((lines[i] for i in range(at, len(lines))), delimiter=separator)
        start = at
        while True:
            first = start + reader.line_num
            record = _next_record(reader, lines, start)
            if record is None:
                at = len(lines)
                break
            if isinstance(record, str):
                broken[len(rows)] = record
                rows.append((lines[first].rstrip("\r\n")[:_SHOWN],))
                at = first + 1
                break
            rows.append(tuple(record[:MAX_COLUMNS]))
            if len(rows) > MAX_ROWS + 1:
                raise TooLargeError(f"{name}: expected at most 200,000 rows, got more", name)
        if len(rows) > MAX_ROWS + 1:
            raise TooLargeError(f"{name}: expected at most 200,000 rows, got more", name)
    return rows, broken


def _next_record(reader: Any, lines: list[str], start: int) -> list[str] | str | None:
    """Return the next record, None at the end, or what is wrong with the line it begins on."""
    before = reader.line_num
    try:
        record: list[str] = next(reader)
    except StopIteration:
        return None
    except csv.Error as error:
        return f"cells that can be read ({error})"
    taken = reader.line_num - before
    last = start + reader.line_num >= len(lines)
    if taken > _MOST_LINES or (last and _stays_open(lines[start + before :], reader.dialect)):
        return "a closing quote"
    return record


def _stays_open(lines: list[str], dialect: Any) -> bool:
    """Say whether the last record of a file ends within quotes."""
    if not any('"' in line for line in lines):
        return False
    try:
        list(csv.reader(lines, delimiter=dialect.delimiter, strict=True))
    except csv.Error as error:
        return "end of data" in str(error)
    return False


def decoded(data: bytes | str, name: str) -> tuple[str, str]:
    """Return a file's text, and what it was written in.

    Parameters
    ----------
    data : bytes or str
        UTF-8, UTF-16, UTF-32 or Windows-1252; text stays as it is.
    name : str
        What to call the file in a message.

    Raises
    ------
    BadValueError
        Where the bytes are no text.
    """
    if isinstance(data, str):
        return data.removeprefix("\ufeff"), "text"
    if data[:4] in (b"\xff\xfe\0\0", b"\0\0\xfe\xff"):
        try:
            return data.decode("utf-32"), "UTF-32"
        except UnicodeDecodeError as error:
            raise BadValueError(name, "UTF-32 text", error.reason) from error
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
        # titles above a table are of one cell, however many there are
        wide = [width for width in widths if width > 1]
        usual = max(set(wide), key=wide.count, default=1)
        score = usual * wide.count(usual) / len(widths)
        if score > most:
            best, most = mark, score
    return best
