"""Keywords out of rows of cells: each row is taken, or refused with its reason."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np

from milkwort.core.errors import NothingUsableError, Refusal
from milkwort.core.market.keyword_table import CALLS, TAUGHT, KeywordTable
from milkwort.core.words.intents import INTENTS
from milkwort.core.words.lexicon import Lexicon, shipped_lexicon
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.texts import joints_of
from milkwort.formats.keyword_row import MONTHS, KeywordRow, RefusedCellError, RowReader
from milkwort.formats.named_rows import check_no_sum, refusal_of_broken
from milkwort.formats.text_table import TextTable

__all__ = [
    "FIELDS",
    "SUMS",
    "KeywordRows",
    "TablePlaces",
    "columns_by_heading",
    "read_keyword_rows",
    "table_of",
]

_NO_MONTHS = (np.nan,) * 12
FIRST_CAMPAIGN = "Search"
"""The campaign of a row that names none."""
_TELL_EVERY_ROWS = 1000
FIELDS: tuple[str, ...] = (
    "keyword", "match", "volume", "volume_low", "volume_high", "cpc_low", "cpc_high",
    "competition", "intent", "call", "offer", "rate", "basis", "group", "campaign",
    "unpaid_rank", "paid_rank", "popularity", "shown_at_bid", *MONTHS,
)  # fmt: skip
"""What a column may hold, by the headings of the headless run."""
SUMS: tuple[str, ...] = ("cost", "clicks")
"""What a column of a file on its way in may hold beside: money and clicks of one period."""


@dataclass(frozen=True)
class KeywordRows:
    """What a file held: rows taken and rows refused."""

    taken: tuple[KeywordRow, ...]
    refused: tuple[Refusal, ...] = field(default=())


@dataclass(frozen=True)
class TablePlaces:
    """The names behind a table's numbers.

    Attributes
    ----------
    campaigns : tuple of str
        By the campaign's number.
    groups : tuple of (int, str)
        By the group's number: its campaign's, and its name. A name stands once in its
        campaign, and may stand in several.
    """

    campaigns: tuple[str, ...]
    groups: tuple[tuple[int, str], ...]


def columns_by_heading(table: TextTable) -> dict[str, int]:
    """Return the column of each field whose very heading stands in the first row.

    Raises
    ------
    NothingUsableError
        Where no column is headed ``keyword``.
    """
    headings = [h.strip().casefold() for h in table.rows[0]]
    columns = {name: headings.index(name) for name in FIELDS if name in headings}
    if "keyword" not in columns:
        seen = ", ".join(h for h in headings[:8] if h) or "an empty row"
        raise NothingUsableError(f'row 1: expected a column headed "keyword", got {seen}', "row 1")
    return columns


def read_keyword_rows(
    table: TextTable,
    columns: Mapping[str, int],
    *,
    first_row: int = 2,
    call_if_absent: str = "keep",
    offers: Sequence[str] = ("",),
    price_is_sum: bool = False,
    price_rate: float = 1.0,
    clean: Callable[[str], str] = str,
    progress: Callable[[int, int], None] | None = None,
) -> KeywordRows:
    """Read keywords from a table whose columns are known.

    Parameters
    ----------
    table : TextTable
    columns : mapping of field to column number
        From `FIELDS`, ``keyword`` among them; columns count from 0.
    first_row : int
        First row that holds data, the file's first being 1.
    call_if_absent : str
        The call of every row where there is no such column.
    offers : sequence of str
        Names that a row's offer may have.
    price_is_sum : bool
        Whether prices are money for all clicks of the period, to be divided by the clicks.
    price_rate : float
        Money of the plan in one of the file's; 0 leaves prices out.
    clean : callable
        Makes a keyword as the platform takes it of the one that was read.
    progress : callable, optional
        Told now and then how many rows are done, and of how many; may raise to stop.

    Returns
    -------
    KeywordRows
        A second row of the same identity is among the refused.
    """
    taken: list[KeywordRow] = []
    refused: list[Refusal] = []
    seen: dict[tuple[str, str], int] = {}
    reader = RowReader(
        columns, table.decimal, call_if_absent, offers, price_is_sum, price_rate, clean
    )
    for number, cells in enumerate(table.rows[first_row - 1 :], start=first_row):
        if progress and number % _TELL_EVERY_ROWS == 0:
            progress(number, len(table.rows))
        if not any(c.strip() for c in cells):
            continue
        if number - 1 in table.broken:
            refused.append(refusal_of_broken(table, number - 1))
            continue
        try:
            check_no_sum(cells)
            taken.append(_once(reader.read(number, cells), seen))
        except RefusedCellError as no:
            why = f'expected {no.expected}, got "{no.value[:80]}"'
            refused.append(Refusal(number, no.column, no.value[:200], why))
    return KeywordRows(tuple(taken), tuple(refused))


def _once(row: KeywordRow, seen: dict[tuple[str, str], int]) -> KeywordRow:
    """Return a row, refused where an earlier one is the same keyword."""
    earlier = seen.setdefault(row.identity, row.row)
    if earlier != row.row:
        expected = f"one row for each keyword and match type; row {earlier} has it"
        raise RefusedCellError("keyword", expected, row.text)
    return row


def table_of(
    rows: Iterable[KeywordRow],
    default_basis: str,
    offers: Sequence[str] = ("",),
    lexicon: Lexicon | None = None,
    campaigns: Sequence[str] = (),
) -> tuple[KeywordTable, TablePlaces]:
    """Return rows as columns for the core, with the names behind its numbers.

    Parameters
    ----------
    rows : iterable of KeywordRow
    default_basis : str
        What volumes counted where a row doesn't say.
    offers : sequence of str
        Names of the brief's offers, in its order; a row that names none has the first.
    lexicon : Lexicon, optional
        What reads an intent that a row doesn't say; the shipped one where left out.
    campaigns : sequence of str
        Names that have the first numbers, in this order.
    """
    rows = list(rows)
    held = dict.fromkeys((*campaigns, *sorted({r.campaign or FIRST_CAMPAIGN for r in rows})))
    holder = {name: at for at, name in enumerate(held)}
    groups = sorted({(holder[r.campaign or FIRST_CAMPAIGN], r.group) for r in rows if r.group})
    number = {group: at for at, group in enumerate(groups)}
    place = {"": 0} | {name: i for i, name in enumerate(offers)}
    words = lexicon or shipped_lexicon()

    def ints(of: Callable[[KeywordRow], int]) -> Any:
        return np.array([of(r) for r in rows], dtype=np.int64)

    def floats(of: Callable[[KeywordRow], float | None]) -> Any:
        return np.array([np.nan if (v := of(r)) is None else v for r in rows], dtype=np.float64)

    table = KeywordTable(
        texts=tuple(r.normalised for r in rows),
        match=ints(lambda r: MATCHES.index(r.match)),
        basis=ints(lambda r: MATCHES.index(r.basis or default_basis)),
        intent=ints(lambda r: INTENTS.index(r.intent or words.intent(r.normalised).intent)),
        call=ints(lambda r: CALLS.index(r.call)),
        volume_low=floats(lambda r: r.volume[0] if r.volume else None),
        volume_high=floats(lambda r: r.volume[1] if r.volume else None),
        cpc_low=floats(lambda r: r.cpc_low),
        cpc_high=floats(lambda r: r.cpc_high),
        rate=floats(lambda r: r.rate),
        group=ints(lambda r: number.get((holder[r.campaign or FIRST_CAMPAIGN], r.group), -1)),
        locked_bid=np.full(len(rows), np.nan),
        campaign=ints(lambda r: holder[r.campaign or FIRST_CAMPAIGN]),
        offer=ints(lambda r: place[r.offer]),
        months=np.array([r.months or _NO_MONTHS for r in rows], dtype=np.float64).reshape(-1, 12),
        last_cpc=np.full(len(rows), np.nan),
        shown_at_bid=floats(lambda r: r.shown_at_bid),
        taught=np.full((len(rows), len(TAUGHT)), np.nan),
        joints=joints_of(r.text for r in rows),
    )
    return table, TablePlaces(tuple(held), tuple(groups))
