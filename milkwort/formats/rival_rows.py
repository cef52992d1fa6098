"""Rivals' paid keywords out of a file's rows."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from milkwort.core.errors import Refusal
from milkwort.core.gather.rivals import RivalRow
from milkwort.formats.named_rows import Cells, RefusedCellError, read_named_rows
from milkwort.formats.text_table import TextTable

__all__ = ["RivalFile", "read_rival_rows"]

_HEADINGS = {
    "rival": r"rival|competitor|advertiser|firm|company|domain|site",
    "keyword": r"keywords?|search terms?|terms?",
    "cpc": r"(estimated |avg |average )?(cpc|click price|price( a click)?)",
    "clicks": r"(estimated )?(monthly )?clicks( a month)?",
    "cost": r"(estimated )?(monthly )?cost( a month)?",
    "position": r"(average |avg )?(position|place)",
    "share": r"(estimated )?(impression )?share( of showings)?",
    "clicks_share": r"(estimated )?(click share|share of (their )?clicks)",
    "month": r"month",
    "first_seen": r"first seen|since|from",
    "last_seen": r"last seen|until|to",
    "ad": r"ad( text)?|headline",
    "page": r"(landing )?page|url",
}
_PATTERNS = {name: re.compile(pattern) for name, pattern in _HEADINGS.items()}
_NEEDED = {"rival": "the rival", "keyword": "the keyword"}


@dataclass(frozen=True)
class RivalFile:
    """What a file held: rows taken and rows refused."""

    rows: tuple[RivalRow, ...]
    refused: tuple[Refusal, ...]


def read_rival_rows(table: TextTable, name: str = "file") -> RivalFile:
    """Read rivals' keywords; bad rows are refused one by one.

    Parameters
    ----------
    table : TextTable
        With headings for the rival and the keyword at least.
    name : str
        What to call the file in a message.

    Raises
    ------
    NothingUsableError
        Where a heading is missing, or no row is usable.
    """
    rows, refused = read_named_rows(table, _PATTERNS, _NEEDED, _Reader(), name, sums=True)
    return RivalFile(rows, refused)


class _Reader:
    """Makes rows one after the other: a rival is called as it was first, no row comes twice."""

    def __init__(self) -> None:
        self._names: dict[str, str] = {}
        self._rows: dict[RivalRow, int] = {}

    def __call__(self, cells: Cells) -> RivalRow:
        row = _row(cells)
        row = replace(row, rival=self._names.setdefault(row.rival.casefold(), row.rival))
        first = self._rows.setdefault(_of_whom(row), cells.row)
        if first != cells.row:
            raise RefusedCellError(
                "keyword", f"each keyword of a rival once a time, as in row {first}", row.text
            )
        return row


def _of_whom(row: RivalRow) -> RivalRow:
    """Return what tells a row from others: whose, what, when, and with which ad and page."""
    return RivalRow(
        row.rival,
        row.normalised,
        first_seen=row.first_seen,
        last_seen=row.last_seen,
        ad=row.ad,
        page=row.page,
    )


def _row(cells: Cells) -> RivalRow:
    rival = cells.text("rival")[:120]
    if not rival:
        raise RefusedCellError("rival", "the name of a rival", "")
    month = cells.month("month")
    first, last = month or (cells.day("first_seen"), cells.day("last_seen"))
    row = RivalRow(
        rival,
        cells.keyword("keyword"),
        cpc=cells.number("cpc"),
        clicks=cells.number("clicks"),
        cost=cells.number("cost"),
        position=cells.number("position"),
        share=cells.share("share"),
        first_seen=first,
        last_seen=last,
        ad=cells.text("ad")[:300],
        page=cells.text("page")[:500],
        clicks_share=cells.share("clicks_share"),
    )
    if row.first_seen is not None and row.last_seen is not None and row.first_seen > row.last_seen:
        raise RefusedCellError("first_seen", "a date not after last_seen", cells.text("first_seen"))
    return row
