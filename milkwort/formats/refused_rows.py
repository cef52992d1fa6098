"""Refused rows: as a CSV with why beside them, and as the error of a file that has no other."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

from milkwort.core.errors import NothingUsableError, Refusal
from milkwort.formats.cells import safe_cell
from milkwort.formats.text_table import TextTable

__all__ = ["no_usable_row", "refused_csv"]


def refused_csv(table: TextTable, refused: Sequence[Refusal]) -> str:
    """Return the refused rows of a file under its headings, and why in a last column.

    Parameters
    ----------
    table : TextTable
        The file; its first row is taken for the headings.
    refused : sequence of Refusal
    """
    out = io.StringIO()
    writer = csv.writer(out, delimiter=";" if table.decimal == "," else ",", lineterminator="\r\n")
    headings = table.rows[0] if table.rows else ()
    writer.writerow([*(safe_cell(h) for h in headings), "why it was refused"])
    for refusal in refused:
        row = table.rows[refusal.row - 1] if refusal.row <= len(table.rows) else ()
        cells = [*row, *[""] * (len(headings) - len(row))]
        writer.writerow([*(safe_cell(c) for c in cells), f"{refusal.column}: {refusal.why}"])
    return out.getvalue()


def no_usable_row(name: str, refused: Sequence[Refusal]) -> NothingUsableError:
    """Return the error of a file whose rows are all refused: the first says why.

    Parameters
    ----------
    name : str
        What to call the file.
    refused : sequence of Refusal
    """
    first = f"; the first: {refused[0]}" if refused else ""
    return NothingUsableError(f"{name}: no usable row, {len(refused):,} refused{first}", name)
