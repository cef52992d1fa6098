"""An upload sheet that left, read back: its columns known by their headings, its rows by `ref`."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from milkwort.core.brief.upload_shape import UploadColumn
from milkwort.core.errors import BadValueError, Refusal
from milkwort.core.handover.changed_rows import Cell, Row
from milkwort.formats.cells import safe_cell, unguarded
from milkwort.formats.numbers import Decimal, is_blank, read_number
from milkwort.formats.text_table import TextTable

__all__ = ["SheetBack", "read_sheet_back"]

_REF = "ref"


@dataclass(frozen=True)
class SheetBack:
    """One sheet as it came back.

    Attributes
    ----------
    sheet : str
        Which of the plan's sheets it is.
    rows : tuple of Row
        Each with its `ref`; columns that the file lacks are not in them.
    refused : tuple of Refusal
        Rows that could not be read.
    """

    sheet: str
    rows: tuple[Row, ...]
    refused: tuple[Refusal, ...]


def read_sheet_back(
    table: TextTable,
    name: str,
    shapes: Mapping[str, Sequence[UploadColumn]],
    now: Mapping[str, Sequence[Row]],
) -> SheetBack:
    """Read one upload sheet as it left.

    Parameters
    ----------
    table : TextTable
        With headings in its first row.
    name : str
        What to call the file in a message.
    shapes : mapping of str to sequence of UploadColumn
        The columns of each sheet as they leave.
    now : mapping of str to sequence of Row
        The plan's own rows: what is a number there is read as one.

    Raises
    ------
    BadValueError
        Where the headings are of no sheet of this plan, or no column says which row is which.
    """
    headings = [unguarded(cell.strip()) for cell in table.rows[0]]
    sheet = max(shapes, key=lambda one: len(_columns(headings, shapes[one])), default="")
    columns = _columns(headings, shapes.get(sheet, ()))
    if _REF not in columns.values():
        raise BadValueError(name, "an upload sheet of this plan with its column ref",
                            ", ".join(headings[:8]) or "no heading")  # fmt: skip
    numbers = {
        key for row in now[sheet] for key, value in row.items()
        if value is None or isinstance(value, float)
    }  # fmt: skip
    rows: dict[str, Row] = {}
    refused: list[Refusal] = []
    for number, cells in enumerate(table.rows[1:], start=2):
        if not any(cells):
            continue
        try:
            row = _row(cells, columns, numbers, table.decimal)
            ref = str(row.get(_REF) or "")
            if not ref or ref in rows:
                raise BadValueError(_REF, "a ref of its own", ref or "nothing")
            rows[ref] = row
        except BadValueError as error:
            why = f"expected {error.expected}, got {error.got}"
            refused.append(Refusal(number, error.where or _REF, str(error.got), why))
    return SheetBack(sheet, tuple(rows.values()), tuple(refused))


def _columns(headings: Sequence[str], shape: Sequence[UploadColumn]) -> dict[int, str]:
    """Return which columns of a file are which of a sheet's own."""
    # a heading may have left guarded, and is compared as it then reads
    known = {unguarded(str(safe_cell(one.heading))).casefold(): one.column for one in shape}
    return {at: known[h.casefold()] for at, h in enumerate(headings) if h.casefold() in known}


def _row(
    cells: Sequence[str], columns: Mapping[int, str], numbers: set[str], decimal: Decimal
) -> Row:
    row: dict[str, Cell] = {}
    for at, column in columns.items():
        text = unguarded(cells[at]) if at < len(cells) else ""
        if column not in numbers:
            row[column] = text
        elif is_blank(text):
            row[column] = None
        else:
            row[column] = _number(text, column, decimal)
    return row


def _number(text: str, column: str, decimal: Decimal) -> float:
    try:
        return read_number(text, decimal)
    except ValueError as error:
        raise BadValueError(column, "a number", text) from error
