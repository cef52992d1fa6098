"""Rows whose columns are found by their headings: each is taken, or refused with its reason."""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Callable, Mapping, Sequence
from datetime import date
from typing import Any, TypeVar

from milkwort.core.errors import NothingUsableError, Refusal
from milkwort.core.words.texts import MAX_TEXT, normalise
from milkwort.formats.days import WrittenDays
from milkwort.formats.headings import below_titles, columns_by_heading
from milkwort.formats.months import read_month
from milkwort.formats.numbers import Decimal, is_blank, read_number, read_share
from milkwort.formats.refused_rows import no_usable_row
from milkwort.formats.text_table import TextTable

__all__ = [
    "Cells", "RefusedCellError", "check_no_sum", "read_named_rows", "refusal_of_broken",
    "says_sum",
]  # fmt: skip

_Row = TypeVar("_Row")
_Value = TypeVar("_Value")
AS_USUAL = WrittenDays()
_MOST_FIGURE = 1e12
_MOST_SEEN = 100_000
_A_WORD = "a text with at least one word"
_TOTAL = re.compile(r"(grand )?totals?\s*([:–—-].*)?", re.IGNORECASE | re.DOTALL)
Seen = dict[Callable[..., Any], dict[str, Any]]


class RefusedCellError(Exception):
    """A cell that can't be used: its column, what was expected, and what stands there."""

    def __init__(self, column: str, expected: str, value: str) -> None:
        super().__init__(column)
        self.column, self.expected, self.value = column, expected, value


class Cells:
    """One row's cells by field.

    Parameters
    ----------
    row : int
        Of the file, its first being 1.
    cells : sequence of str
    columns : mapping of field to column number
    decimal : Decimal
    seen : Seen, optional
        Cells of the same file that were read before, by what they were read as: most of a file
        repeats.
    days : WrittenDays
        How the days of the file are written.
    """

    def __init__(
        self, row: int, cells: Sequence[str], columns: Mapping[str, int], decimal: Decimal,
        seen: Seen | None = None, days: WrittenDays = AS_USUAL,
    ) -> None:  # fmt: skip
        self.row, self._days = row, days
        self._cells, self._columns, self._decimal = cells, columns, decimal
        self._seen: Seen = defaultdict(dict) if seen is None else seen

    def text(self, field: str) -> str:
        """Return a cell's text, spaces collapsed; empty where there is none."""
        return self._once(str, field, self._text) or ""

    def keyword(self, field: str) -> str:
        """Return a cell that must hold a keyword or a search term."""
        text = self._once(normalise, field, self._keyword)
        if text is None:
            raise RefusedCellError(field, _A_WORD, "")
        return text

    def number(self, field: str) -> float | None:
        """Return a figure of 0 or more; None where the cell is blank."""
        return self._once(read_number, field, self._figure)

    def share(self, field: str) -> float | None:
        """Return a share or percentage of 0 or more; None where the cell is blank."""
        return self._once(read_share, field, self._figure)

    def day(self, field: str) -> int | None:
        """Return a date as the number of its day; None where the cell is blank."""
        return self._once(date, field, self._day)

    def _once(
        self, kind: Callable[..., Any], field: str, read: Callable[[str, Any, str], _Value]
    ) -> _Value | None:
        """Return what a cell of a kind holds, read once for all cells that hold the same."""
        at = self._columns.get(field)
        if at is None or at >= len(self._cells):
            return None
        cell, seen = self._cells[at], self._seen[kind]
        if cell in seen:
            found: _Value = seen[cell]
            return found
        found = read(cell, kind, field)
        if len(seen) < _MOST_SEEN:
            seen[cell] = found
        return found

    def _text(self, cell: str, _kind: Any, _field: str) -> str:
        return " ".join(cell.split())

    def _keyword(self, cell: str, _kind: Any, field: str) -> str:
        text = " ".join(cell.split())
        if not normalise(text) or len(text) > MAX_TEXT:
            raise RefusedCellError(field, _A_WORD, text)
        return text

    def _day(self, cell: str, _kind: Any, field: str) -> int | None:
        said = " ".join(cell.split())
        try:
            return self._days.read(said).toordinal() if said else None
        except ValueError:
            raise RefusedCellError(field, "a date such as 2026-05-31", said) from None

    def _figure(self, cell: str, read: Callable[[str, Decimal], float], field: str) -> float | None:
        said = " ".join(cell.split())
        if is_blank(said):
            return None
        try:
            value = read(said, self._decimal)
        except ValueError:
            raise RefusedCellError(field, "a number", said) from None
        if not 0 <= value <= _MOST_FIGURE:
            raise RefusedCellError(field, "a number of 0 or more", said)
        return value

    def month(self, field: str) -> tuple[int, int] | None:
        """Return a month's first and last day by number; None where the cell is blank."""
        said = self.text(field)
        try:
            return read_month(said) if said else None
        except ValueError:
            raise RefusedCellError(field, "a month such as 2026-05", said) from None


def _refusal_of(no: RefusedCellError, number: int) -> Refusal:
    why = f'expected {no.expected}, got "{no.value[:80]}"'
    return Refusal(number, no.column, no.value[:200], why)


def read_named_rows(
    table: TextTable,
    patterns: Mapping[str, re.Pattern[str]],
    needed: Mapping[str, str],
    read: Callable[[Cells], _Row],
    name: str,
    days: WrittenDays = AS_USUAL,
    *,
    sums: bool = False,
    passed_over: list[int] | None = None,
) -> tuple[tuple[_Row, ...], tuple[Refusal, ...]]:
    """Read every row below the headings; titles above them are passed over.

    Parameters
    ----------
    table : TextTable
    patterns : mapping of field to pattern
        Of its heading as normalised words.
    needed : mapping of field to str
        Columns that must be there, as the planner calls them.
    read : callable
        Makes a row of its cells, or raises `RefusedCellError`.
    name : str
        What to call the file in a message.
    days : WrittenDays
        How its days are written.
    sums : bool
        Whether a report may hold rows that sum up others: these are refused.
    passed_over : list of int, optional
        Takes the numbers of such rows in place of refusing them.

    Raises
    ------
    NothingUsableError
        Where a heading is missing, or no row is usable.
    """
    table = below_titles(table, patterns, needed)
    headings = table.rows[0] if table.rows else ()
    columns = columns_by_heading(headings, patterns)
    _check_needed(table, needed, columns, name)
    before: Seen = defaultdict(dict)
    taken, refused = list[_Row](), list[Refusal]()
    for place, cells in enumerate(table.rows[1:], start=1):
        if not "".join(cells).strip():
            continue
        if place in table.broken:
            refused.append(refusal_of_broken(table, place))
            continue
        number = table.number(place)
        if passed_over is not None and says_sum(cells):
            passed_over.append(number)
            continue
        try:
            if sums:
                check_no_sum(cells, headings)
            taken.append(read(Cells(number, cells, columns, table.decimal, before, days)))
        except RefusedCellError as no:
            refused.append(_refusal_of(no, number))
    if not taken:
        raise no_usable_row(name, refused)
    return tuple(taken), tuple(refused)


def _check_needed(
    table: TextTable, needed: Mapping[str, str], columns: Mapping[str, int], name: str
) -> None:
    headings = table.rows[0] if table.rows else ()
    for field, said in needed.items():
        if field not in columns:
            seen = ", ".join(h for h in headings[:8] if h) or "an empty row"
            where = f"row {table.number(0)}"
            raise NothingUsableError(
                f"{name}, {where}: expected a column for {said}, got {seen}", where
            )


def check_no_sum(cells: Sequence[str], headings: Sequence[str] = ()) -> None:
    """Refuse a row whose first words say that it sums up others.

    Parameters
    ----------
    cells : sequence of str
    headings : sequence of str
        By which its column is named.

    Raises
    ------
    RefusedCellError
    """
    if says_sum(cells):
        at = _first_filled(cells)
        column = headings[at].strip() if at < len(headings) else ""
        raise RefusedCellError(column or "row", "a row that is no sum of others", cells[at])


def says_sum(cells: Sequence[str]) -> bool:
    """Say whether the first words of a row are that it sums up others."""
    at = _first_filled(cells)
    return at < len(cells) and _TOTAL.fullmatch(cells[at].strip()) is not None


def _first_filled(cells: Sequence[str]) -> int:
    return next((at for at, cell in enumerate(cells) if cell.strip()), len(cells))


def refusal_of_broken(table: TextTable, place: int) -> Refusal:
    """Return why a row whose quotes don't close is left out."""
    text = table.rows[place][0]
    why = f'expected {table.broken[place]}, got "{text[:80]}"'
    return Refusal(table.number(place), "row", text, why)
