"""Rivals' paid keywords out of a file's rows."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from milkwort.core.errors import NothingUsableError, Refusal
from milkwort.core.rivals import RivalRow
from milkwort.core.words import MAX_TEXT, normalise
from milkwort.formats.numbers import is_blank, read_number, read_share
from milkwort.formats.text_table import TextTable

__all__ = ["RivalFile", "read_rival_rows"]

_HEADINGS = {
    "rival": r"rival|competitor|advertiser|firm|company|domain|site",
    "text": r"keywords?|search terms?|terms?",
    "cpc": r"(estimated |avg |average )?(cpc|click price|price( a click)?)",
    "clicks": r"(estimated )?(monthly )?clicks( a month)?",
    "cost": r"(estimated )?(monthly )?cost( a month)?",
    "position": r"(average |avg )?(position|place)",
    "share": r"(estimated )?(impression )?share( of showings)?",
    "first_seen": r"first seen|since|from",
    "last_seen": r"last seen|until|to",
    "ad": r"ad( text)?|headline",
    "page": r"(landing )?page|url",
}
_PATTERNS = {name: re.compile(pattern) for name, pattern in _HEADINGS.items()}
_NUMBERS = ("cpc", "clicks", "cost", "position")


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
        With headings in its first row: rival and keyword at least.
    name : str
        What to call the file in a message.

    Raises
    ------
    NothingUsableError
        Where a heading is missing, or no row is usable.
    """
    columns = _columns(table.rows[0] if table.rows else ())
    for needed, said in (("rival", "the rival"), ("text", "the keyword")):
        if needed not in columns:
            seen = ", ".join(h for h in table.rows[0][:8] if h) or "an empty row"
            raise NothingUsableError(
                f"{name}, row 1: expected a column for {said}, got {seen}", "row 1"
            )
    taken: list[RivalRow] = []
    refused: list[Refusal] = []
    for number, cells in enumerate(table.rows[1:], start=2):
        if any(c.strip() for c in cells):
            row = _row(number, cells, columns, table)
            (taken if isinstance(row, RivalRow) else refused).append(row)  # type: ignore[arg-type]
    if not taken:
        raise NothingUsableError(f"{name}: no usable row, {len(refused)} refused", name)
    return RivalFile(tuple(taken), tuple(refused))


def _columns(headings: Sequence[str]) -> dict[str, int]:
    found: dict[str, int] = {}
    for at, heading in enumerate(headings):
        words = normalise(heading.replace("_", " "))
        field = next((f for f, p in _PATTERNS.items() if p.fullmatch(words)), None)
        if field is not None and field not in found:
            found[field] = at
    return found


def _row(
    number: int, cells: Sequence[str], columns: dict[str, int], table: TextTable
) -> RivalRow | Refusal:
    def cell(field: str) -> str:
        at = columns.get(field, len(cells))
        return cells[at].strip() if at < len(cells) else ""

    rival, text = " ".join(cell("rival").split())[:120], " ".join(cell("text").split())
    if not rival:
        return _refusal(number, "rival", "", "the name of a rival")
    if not normalise(text) or len(text) > MAX_TEXT:
        return _refusal(number, "keyword", text, "a text with at least one word")
    figures: dict[str, float | None] = {}
    for field in (*_NUMBERS, "share"):
        said = cell(field)
        try:
            read = read_share if field == "share" else read_number
            figures[field] = None if is_blank(said) else read(said, table.decimal)
        except ValueError:
            return _refusal(number, field, said, "a number")
        value = figures[field]
        if value is not None and value < 0:
            return _refusal(number, field, said, "a number of 0 or more")
    days: dict[str, int | None] = {}
    for field in ("first_seen", "last_seen"):
        said = cell(field)
        try:
            days[field] = date.fromisoformat(said[:10]).toordinal() if said else None
        except ValueError:
            return _refusal(number, field, said, "a date such as 2026-05-31")
    first, last = days["first_seen"], days["last_seen"]
    if first is not None and last is not None and first > last:
        return _refusal(number, "first_seen", cell("first_seen"), "a date not after last_seen")
    return RivalRow(rival, text, **figures, **days, ad=cell("ad")[:300], page=cell("page")[:500])  # type: ignore[arg-type] # the names are those of the fields


def _refusal(row: int, column: str, value: str, expected: str) -> Refusal:
    return Refusal(row, column, value[:200], f'expected {expected}, got "{value[:80]}"')
