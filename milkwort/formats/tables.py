"""Any file of rows: text, workbook, or JSON, told apart by what it holds."""

from __future__ import annotations

from itertools import islice
from typing import Any

import orjson

from milkwort.core.errors import BadValueError, NothingUsableError, TooLargeError
from milkwort.formats.text_table import MAX_BYTES, MAX_COLUMNS, MAX_ROWS, TextTable, read_text_table
from milkwort.formats.workbook import is_workbook, read_workbook

__all__ = ["read_table"]

_LONGEST = 10_000
"""Characters of a nested value that are kept."""


def read_table(data: bytes | str, name: str = "file", sheet: str | None = None) -> TextTable:
    """Read the rows of a file.

    Parameters
    ----------
    data : bytes or str
    name : str
        What to call it in a message; its ending only decides for JSON.
    sheet : str, optional
        Which sheet of a workbook.

    Raises
    ------
    PlannerError
        Where it is too large, empty or not to be read; says which.
    """
    if isinstance(data, bytes) and is_workbook(data):
        return read_workbook(data, name, sheet)
    if isinstance(data, bytes) and name.casefold().endswith(".json"):
        return _read_json(data, name)
    return read_text_table(data, name)


def _read_json(data: bytes, name: str) -> TextTable:
    """Read a list of objects, or an object that holds one list of them."""
    if len(data) > MAX_BYTES:
        raise TooLargeError(f"{name}: expected at most 20 MB, got {len(data) / 2**20:.1f} MB", name)
    try:
        content = orjson.loads(data)
    except orjson.JSONDecodeError as error:
        raise BadValueError(name, "a JSON file", str(error)) from error
    if isinstance(content, dict):
        lists = [v for v in content.values() if isinstance(v, list)]
        content = lists[0] if len(lists) == 1 else content
    if not isinstance(content, list):
        raise BadValueError(name, "a JSON list of rows", type(content).__name__)
    if len(content) > MAX_ROWS:
        raise TooLargeError(f"{name}: expected at most 200,000 rows, got {len(content):,}", name)
    rows = [row if isinstance(row, dict) else {"keyword": row} for row in content]
    headings = list(dict.fromkeys(str(key) for row in rows for key in islice(row, MAX_COLUMNS)))
    if len(headings) > MAX_COLUMNS:
        got = f"{len(headings):,} different ones"
        raise BadValueError(name, f"rows with at most {MAX_COLUMNS} names of fields", got)
    if not headings:
        raise NothingUsableError(f"{name}: expected rows of keywords, got an empty list", name)
    cells = [tuple(_said(row.get(h)) for h in headings) for row in rows]
    return TextTable((tuple(headings), *cells), "objects", ".", "JSON")


def _said(value: Any) -> str:
    return "" if value is None else value if isinstance(value, str) else repr(value)[:_LONGEST]
