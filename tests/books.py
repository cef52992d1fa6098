"""Workbooks for tests, made of rows."""

import io
from collections.abc import Iterable
from typing import Any

from openpyxl import Workbook


def book(**sheets: Iterable[list[Any]]) -> bytes:
    """Return a workbook, its rows by the names of its sheets."""
    made = Workbook()
    made.remove(made.active)
    for name, rows in sheets.items():
        sheet = made.create_sheet(name)
        for row in rows:
            sheet.append(row)
    out = io.BytesIO()
    made.save(out)
    return out.getvalue()
