"""What a file of results holds, sheet by sheet, and what of it is read."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from milkwort.api.learn.columns import known_columns, under_known_headings
from milkwort.api.plan.workspace import Workspace
from milkwort.core.errors import NothingUsableError, PlannerError
from milkwort.formats.joined_sheets import JoinedSheets
from milkwort.formats.result_columns import is_dated, level_of, result_table
from milkwort.formats.result_remarks import said_of_sums
from milkwort.formats.result_rows import ResultFile, read_result_rows
from milkwort.formats.text_table import MAX_ROWS, TextTable

__all__ = ["ReadSheets", "SaidBeside", "read_sheets", "table_of_results"]

_MOST_SHEETS = 60
"""A sheet a month for five years; each takes the book to be opened once more."""
_FIRST = ("keyword", "term")


@dataclass(frozen=True)
class SaidBeside:
    """What a person said of a file, beside it: of the first table that it holds.

    Attributes
    ----------
    columns : dict of str to int
        By field, where headings don't tell.
    days : (int, int) or None
        First and last day of rows that say none, by their ordinals.
    spent : float or None
        Money of all rows together.
    currency : str
        The plan's.
    """

    columns: dict[str, int]
    days: tuple[int, int] | None
    spent: float | None
    currency: str


@dataclass(frozen=True)
class ReadSheets:
    """Results of a file, each with what to call it, and what is to be said of the rest.

    Attributes
    ----------
    first : TextTable
        The one of which things were said beside the file.
    files : list of (ResultFile, str)
    said : list of str
    """

    first: TextTable
    files: list[tuple[ResultFile, str]]
    said: list[str]


def table_of_results(work: Workspace, data: bytes, name: str) -> TextTable:
    """Return a file's table from its headings on; of a workbook the sheet that is read first.

    Raises
    ------
    PlannerError
        Where it is no table.
    """
    return _tables(work, data, name)[0][0]


def read_sheets(
    work: Workspace, data: bytes, name: str, beside: SaidBeside,
    progress: Callable[[int, int], None],
) -> ReadSheets:  # fmt: skip
    """Read a file of results: of a workbook all that its sheets hold of them.

    Sheets under the same headings are one table in parts, where their rows say their days. Others
    are read where nothing was yet that is about the same: a sheet of totals counts nothing twice.

    Raises
    ------
    PlannerError
        Where the first table is of no use; what the others lack is said.
    """
    tables, said = _tables(work, data, name)
    found, unread = _parted(work, tables, beside.columns)
    read: list[tuple[ResultFile, str]] = []
    for one in found:
        called = f"{name}, {one.name}" if len(found) > 1 or len(one.parts) > 1 else name
        first = beside if not read else SaidBeside({}, None, None, beside.currency)
        try:
            read.append((_read(work, one, called, first, progress), called))
        except NothingUsableError as error:
            if not read:
                raise
            said.append(f"Not read: {error}.")
    said.extend(f"The sheet {table.sheet} was not read: {why}." for table, why in unread)
    return ReadSheets(found[0].parts[0], read, said)


def _read(
    work: Workspace, sheets: JoinedSheets, name: str, beside: SaidBeside,
    progress: Callable[[int, int], None],
) -> ResultFile:  # fmt: skip
    table, rows = sheets.table, len(sheets.table.rows)
    known = under_known_headings(work, table, beside.columns)
    read = read_result_rows(known, name, beside.days, lambda n: progress(n, rows),
                            beside.currency, beside.spent)  # fmt: skip
    passed_over = said_of_sums(sheets.named(read.sums))
    return replace(read, refused=sheets.placed(read.refused),
                   remarks=(*passed_over, *read.remarks))  # fmt: skip


def _tables(work: Workspace, data: bytes, name: str) -> tuple[list[TextTable], list[str]]:
    """Return a file's table; of a workbook each sheet of results, those by keyword first.

    Where no heading is known, these are the first sheet and those under the same headings. What
    is said beside them is of sheets that were not looked at, or could not be.
    """
    first = result_table(work.reader.table(data, name))
    known, alike, said = list[TextTable](), list[TextTable](), list[str]()
    for looked, sheet in enumerate(first.sheets or ("",)):
        rows = sum(len(table.rows) for table in (*known, *alike))
        if looked == _MOST_SHEETS or rows > MAX_ROWS:
            said.append(f"The sheet {sheet} and those behind it were not read: expected at most "
                        f"{_MOST_SHEETS} sheets and {MAX_ROWS:,} rows in all.")  # fmt: skip
            break
        try:
            table = first if sheet == first.sheet else result_table(
                work.reader.table(data, name, sheet))  # fmt: skip
        except NothingUsableError:  # a sheet with nothing on it
            continue
        except PlannerError as error:
            said.append(f"The sheet {sheet} was not read: {error}.")
            continue
        if "clicks" in known_columns(work, table):
            known.append(table)
        elif _headings(table) == _headings(first):
            alike.append(table)
    return sorted(known, key=lambda table: _rank(work, table)) or alike or [first], said


def _rank(work: Workspace, table: TextTable) -> int:
    """An overview by campaign or by day stands before what it sums up, in most books."""
    level = level_of(under_known_headings(work, table, {}))
    return _FIRST.index(level) if level in _FIRST else len(_FIRST)


def _parted(
    work: Workspace, tables: list[TextTable], columns: dict[str, int]
) -> tuple[list[JoinedSheets], list[tuple[TextTable, str]]]:
    """Return tables as they are read, those of the same headings as one, and why others aren't."""
    found, unread, levels = list[JoinedSheets](), list[tuple[TextTable, str]](), set[str]()
    for table in tables:
        parts = [part for one in found for part in one.parts]
        copied = next((part.sheet for part in parts if _same(part, table)), None)
        same = [n for n, one in enumerate(found) if _headings(one.parts[0]) == _headings(table)]
        known = columns if not found or same == [0] else {}
        level = level_of(under_known_headings(work, table, known))
        if copied is not None:
            unread.append((table, f"it holds the same rows as {copied}"))
        elif same and is_dated(known or known_columns(work, table)):
            found[same[0]] = JoinedSheets((*found[same[0]].parts, table))
        elif same or level not in levels:
            found.append(JoinedSheets((table,)))
        else:
            unread.append((table, f"it is by {level} too, under other headings; if it holds more, "
                                  "bring it in as a file of its own"))  # fmt: skip
        levels.add(level)
    return found, unread


def _headings(table: TextTable) -> tuple[str, ...]:
    return table.rows[0] if table.rows else ()


def _same(one: TextTable, other: TextTable) -> bool:
    return (one.rows, one.above) == (other.rows, other.above)
