"""Cells on their way into a spreadsheet, and back out of one."""

from __future__ import annotations

from typing import Any

__all__ = ["safe_cell", "unguarded"]

_FORMULA_STARTS = ("=", "+", "-", "@", "\t", "\r", "\n")


def safe_cell(value: Any) -> Any:
    """Return a cell that no spreadsheet runs as a formula; numbers stay numbers.

    A text that starts like a formula gets an apostrophe before it, which spreadsheets
    read as "this is text".
    """
    if isinstance(value, str) and value.lstrip(" ").startswith(_FORMULA_STARTS):
        return "'" + value
    return value


def unguarded(text: str) -> str:
    """Return a text without the apostrophe that `safe_cell` put before it."""
    return text[1:] if text[:1] == "'" and safe_cell(text[1:]) == text else text
