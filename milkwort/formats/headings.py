"""Where the headings of a report stand, and which column each of them names."""

from __future__ import annotations

import re
from collections.abc import Collection, Mapping, Sequence
from dataclasses import replace

from milkwort.core.words.texts import normalise
from milkwort.formats.numbers import Decimal, read_number
from milkwort.formats.text_table import TextTable

__all__ = ["CURRENCIES", "below_titles", "columns_by_heading"]

CURRENCIES = frozenset({
    "aed", "aud", "brl", "cad", "chf", "czk", "dkk", "eur", "gbp", "hkd", "huf", "ils", "inr",
    "jpy", "krw", "mxn", "nok", "nzd", "pln", "ron", "sek", "sgd", "try", "usd", "zar",
})  # fmt: skip
"""Codes that money in a heading may be said in."""

_MOST_TITLES = 15
"""Headings are looked for so far down."""
_SAMPLE = 200
_NEARLY_ALL = 0.6
"""Of the cells of the fullest row: headings stand over that many at least, titles do not."""


def columns_by_heading(
    headings: Sequence[str], patterns: Mapping[str, re.Pattern[str]]
) -> dict[str, int]:
    """Return the column of each field whose heading is known; of two the first."""
    found: dict[str, int] = {}
    for at, heading in enumerate(headings):
        words = normalise(heading.replace("_", " "))
        field = next((f for f, p in patterns.items() if p.fullmatch(words)), None)
        if field is not None and field not in found:
            found[field] = at
    return found


def below_titles(
    table: TextTable, patterns: Mapping[str, re.Pattern[str]], needed: Collection[str] = ()
) -> TextTable:
    """Return a table from its headings on: what a report says above them is kept apart.

    Parameters
    ----------
    table : TextTable
    patterns : mapping of field to pattern
        Of its heading as normalised words.
    needed : collection of str
        Fields that headings have; where no row names all of them, the first that is about as
        full as the rows below it is taken.

    Returns
    -------
    TextTable
        With its headings in its first row.
    """
    if table.above:
        return table
    many = [_known(row, patterns, needed, table.decimal) for row in table.rows[:_MOST_TITLES]]
    at = many.index(max(many)) if any(many) else _first_full(table)
    if at == 0:
        return table
    broken = {place - at: said for place, said in table.broken.items() if place >= at}
    return replace(table, rows=table.rows[at:], above=table.rows[:at], broken=broken)


def _known(
    row: Sequence[str], patterns: Mapping[str, re.Pattern[str]], needed: Collection[str],
    decimal: Decimal,
) -> int:  # fmt: skip
    """Return how many headings of a row are known; none where it holds a figure."""
    found = columns_by_heading(row, patterns)
    if not set(needed) <= found.keys() or any(_is_figure(cell, decimal) for cell in row):
        return 0
    return len(found)


def _is_figure(cell: str, decimal: Decimal) -> bool:
    try:
        read_number(cell, decimal)
    except ValueError:
        return False
    return True


def _first_full(table: TextTable) -> int:
    full = [sum(1 for cell in row if cell.strip()) for row in table.rows[:_SAMPLE]]
    least = _NEARLY_ALL * max(full, default=0)
    return next((at for at, cells in enumerate(full[:_MOST_TITLES]) if cells >= least), 0)
