"""Cells of a sheet as the market reads them: money, days, hours, yes and no."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping
from datetime import date
from typing import Any

__all__ = [
    "DAYS",
    "LONGEST",
    "RefusedError",
    "cell_said",
    "day_cell",
    "days_cell",
    "hour_cell",
    "money_cell",
    "name_cell",
    "yes_cell",
]

DAYS = ("monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday")
"""Names of days as sheets write them, Monday first."""
LONGEST = 200
"""Characters of a name."""
_MOST_MONEY = 1e9
_YES = frozenset({"yes", "true", "1", "on"})
_NO = frozenset({"no", "false", "0", "off"})


class RefusedError(Exception):
    """A row that is refused: why, by a code and in words, and the cell at fault."""

    def __init__(self, code: str, message: str, column: str, old: str = "", new: str = "") -> None:
        self.code, self.message, self.column, self.old, self.new = code, message, column, old, new
        super().__init__(message)


def name_cell(row: Mapping[str, str], column: str) -> str:
    """Return a name; refused where there is none, or one too long."""
    name = row.get(column, "")
    if not name:
        raise RefusedError("name_missing", "expected a name, got none", column)
    if len(name) > LONGEST:
        raise RefusedError("too_long", f"expected at most {LONGEST} characters, got {len(name)}",
                            column, str(LONGEST), name)  # fmt: skip
    return name


def money_cell(
    row: Mapping[str, str], column: str, before: float | None, blank: float | None = None
) -> float | None:
    """Return money of 0 or more; what stood `before` where the sheet lacks the column."""
    text = row.get(column)
    if text is None:
        return before
    if not text:
        return blank
    try:
        value = float(text)
    except ValueError:
        value = math.nan
    if not (math.isfinite(value) and 0 <= value <= _MOST_MONEY):
        raise RefusedError("not_a_price", f'expected a price of 0 or more, got "{text}"', column,
                            "", text)  # fmt: skip
    return value


def day_cell(row: Mapping[str, str], column: str, before: str) -> str:
    """Return a day as ISO text; what stood `before` where the sheet lacks the column."""
    text = row.get(column)
    if text is None:
        return before
    if not text:
        return ""
    try:
        return date.fromisoformat(text[:10]).isoformat()
    except ValueError:
        message = f'expected a day as 2026-04-30, got "{text}"'
        raise RefusedError("date_wrong", message, column, "", text) from None


def days_cell(row: Mapping[str, str]) -> list[str]:
    """Return names of days, each once; empty for every day."""
    text = row.get("days", "").casefold().replace(",", " ").split()
    wrong = [day for day in text if day not in DAYS]
    if wrong:
        raise RefusedError("day_unknown", f'expected names of days, got "{wrong[0]}"', "days")
    return [day for day in DAYS if day in text] or list(DAYS)


def hour_cell(row: Mapping[str, str], column: str, blank: int) -> int:
    """Return a whole hour of the day, `blank` where the cell is empty."""
    text = row.get(column, "")
    if not text:
        return blank
    if not text.isdecimal() or not text.isascii() or int(text) > 24:
        raise RefusedError("hour_wrong", f'expected an hour from 0 to 24, got "{text}"', column)
    return int(text)


def yes_cell(row: Mapping[str, str], column: str, blank: bool) -> bool:
    """Return whether a cell says yes, `blank` where it is empty."""
    text = row.get(column, "").casefold()
    if not text:
        return blank
    if text not in _YES | _NO:
        raise RefusedError("yes_or_no", f'expected yes or no, got "{text}"', column)
    return text in _YES


def cell_said(value: Any) -> str:
    """Return a value as it is said in a reply."""
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return f"{value:g}"
    if isinstance(value, Iterable) and not isinstance(value, str):
        return " ".join(map(str, value))
    return str(value)
