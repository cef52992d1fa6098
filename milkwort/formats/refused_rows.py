"""Refused rows as a CSV: as they stood, with why beside them, to be mended and brought back."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

from milkwort.core.errors import Refusal
from milkwort.formats.cells import safe_cell
from milkwort.formats.text_table import TextTable

__all__ = ["refused_csv"]


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
