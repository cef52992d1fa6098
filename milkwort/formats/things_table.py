"""Things sold, read from a table: code, name, price, margin, page, can be delivered or not."""

from __future__ import annotations

import re

from milkwort.core.arrange.things import Thing
from milkwort.core.errors import BadValueError, Refusal
from milkwort.formats.cells import unguarded
from milkwort.formats.named_rows import Cells, RefusedCellError, read_named_rows
from milkwort.formats.text_table import TextTable

__all__ = ["read_things_table"]

_PATTERNS = {
    "code": re.compile(r"code|sku|item code|article|article number"),
    "name": re.compile(r"name|title|product|item"),
    "price": re.compile(r"price"),
    "margin": re.compile(r"margin|gross margin"),
    "page": re.compile(r"page|address|url|link|landing page"),
    "deliverable": re.compile(r"deliverable|can be delivered|available|availability|in stock"),
}
_YES = frozenset({"", "yes", "y", "true", "1", "in stock", "available"})
_NO = frozenset({"no", "n", "false", "0", "out of stock", "not available", "unavailable"})


def read_things_table(
    table: TextTable, name: str = "file"
) -> tuple[tuple[Thing, ...], tuple[Refusal, ...]]:
    """Read things, each row taken or refused with its reason.

    Parameters
    ----------
    table : TextTable
        With headings in its first row: `code` and `name` at least.
    name : str
        What to call the file in a message.

    Raises
    ------
    NothingUsableError
        Where a column is missing or no row is usable.
    """
    needed = {"code": "the code", "name": "the name"}
    return read_named_rows(table, _PATTERNS, needed, _row, name)


def _row(cells: Cells) -> Thing:
    can = cells.text("deliverable").casefold()
    if can not in _YES | _NO:
        raise RefusedCellError("deliverable", "yes or no", can)
    code, title = unguarded(cells.text("code")), unguarded(cells.text("name"))
    try:
        return Thing(code, title, cells.number("price"), cells.share("margin"),
                     unguarded(cells.text("page")), can in _YES)  # fmt: skip
    except BadValueError as no:
        column = str(no.where).removeprefix("thing, ")
        raise RefusedCellError(column, no.expected, cells.text(column)) from no
