"""Keywords out of rows of cells: each row is taken, or refused with its reason."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, TypeVar

import numpy as np

from milkwort.core.brief import MATCHES
from milkwort.core.errors import NothingUsableError, Refusal
from milkwort.core.keyword_table import CALLS, INTENTS, KeywordTable
from milkwort.core.lexicon import Lexicon, shipped_lexicon
from milkwort.core.words import MAX_TEXT, joints_of, normalise
from milkwort.formats.numbers import Decimal, is_blank, read_number, read_range, read_share
from milkwort.formats.text_table import TextTable

__all__ = [
    "FIELDS",
    "SUMS",
    "KeywordRow",
    "KeywordRows",
    "columns_by_heading",
    "read_keyword_rows",
    "table_of",
]

_Read = TypeVar("_Read")

_NO_MONTHS = (np.nan,) * 12
_TELL_EVERY_ROWS = 1000
MONTHS = tuple(f"m{n:02d}" for n in range(1, 13))
FIELDS: tuple[str, ...] = (
    "keyword", "match", "volume", "volume_low", "volume_high", "cpc_low", "cpc_high",
    "competition", "intent", "call", "offer", "rate", "basis", "group", "unpaid_rank",
    "paid_rank", *MONTHS,
)  # fmt: skip
"""What a column may hold, by the headings of the headless run."""
SUMS: tuple[str, ...] = ("cost", "clicks")
"""What a column of a file on its way in may hold beside: money and clicks of one period."""


@dataclass(frozen=True, slots=True)
class KeywordRow:
    """One keyword as read.

    Attributes
    ----------
    row : int
        Row of the file.
    text, normalised : str
        As written, trimmed; and as compared.
    match, basis : str
        A match type; `basis` is what the volume counted, empty where not said.
    volume : tuple of float or None
        Ends of the range, searches a month; None where absent.
    cpc_low, cpc_high, rate, competition : float or None
        Money a click; customers per click; a share.
    months : tuple of float or None
        Twelve figures, January first.
    intent, call, group, offer : str
        `intent` is empty where the words are to say it, `group` and `offer` for none named.
    unpaid_rank, paid_rank : float or None
    as_written : str
        What stood there, where the text was cleaned; else empty.
    """

    row: int
    text: str
    normalised: str
    match: str = "exact"
    basis: str = ""
    volume: tuple[float, float] | None = None
    cpc_low: float | None = None
    cpc_high: float | None = None
    rate: float | None = None
    competition: float | None = None
    months: tuple[float, ...] | None = None
    intent: str = ""
    call: str = "none"
    group: str = ""
    offer: str = ""
    unpaid_rank: float | None = None
    paid_rank: float | None = None
    as_written: str = ""

    @property
    def identity(self) -> tuple[str, str]:
        """What makes the keyword itself: its normalised text and match type."""
        return (self.normalised, self.match)


@dataclass(frozen=True)
class KeywordRows:
    """What a file held: rows taken and rows refused."""

    taken: tuple[KeywordRow, ...]
    refused: tuple[Refusal, ...] = field(default=())


class _RefusedError(Exception):
    def __init__(self, column: str, expected: str, value: str) -> None:
        super().__init__(column)
        self.column, self.expected, self.value = column, expected, value


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
    reader = _RowReader(columns, table.decimal, call_if_absent, offers, price_is_sum, clean)
    for number, cells in enumerate(table.rows[first_row - 1 :], start=first_row):
        if progress and number % _TELL_EVERY_ROWS == 0:
            progress(number, len(table.rows))
        if not any(c.strip() for c in cells):
            continue
        try:
            row = reader.read(number, cells)
            earlier = seen.setdefault(row.identity, number)
            if earlier != number:
                expected = f"one row for each keyword and match type; row {earlier} has it"
                raise _RefusedError("keyword", expected, row.text)
            taken.append(row)
        except _RefusedError as no:
            why = f'expected {no.expected}, got "{no.value[:80]}"'
            refused.append(Refusal(number, no.column, no.value[:200], why))
    return KeywordRows(tuple(taken), tuple(refused))


def table_of(
    rows: Iterable[KeywordRow],
    default_basis: str,
    offers: Sequence[str] = ("",),
    lexicon: Lexicon | None = None,
) -> tuple[KeywordTable, list[str]]:
    """Return rows as columns for the core, with the names of their groups.

    Parameters
    ----------
    rows : iterable of KeywordRow
    default_basis : str
        What volumes counted where a row doesn't say.
    offers : sequence of str
        Names of the brief's offers, in its order; a row that names none has the first.
    lexicon : Lexicon, optional
        What reads an intent that a row doesn't say; the shipped one where left out.

    Returns
    -------
    table : KeywordTable
    groups : list of str
        The name of each group number.
    """
    rows = list(rows)
    groups = sorted({r.group for r in rows if r.group})
    number = {name: i for i, name in enumerate(groups)} | {"": -1}
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
        group=ints(lambda r: number[r.group]),
        locked_bid=np.full(len(rows), np.nan),
        campaign=np.full(len(rows), -1, dtype=np.int64),
        offer=ints(lambda r: place[r.offer]),
        months=np.array([r.months or _NO_MONTHS for r in rows], dtype=np.float64).reshape(-1, 12),
        last_cpc=np.full(len(rows), np.nan),
        joints=joints_of(r.text for r in rows),
    )
    return table, groups


class _RowReader:
    """Reads one row after another by the same columns."""

    def __init__(
        self,
        columns: Mapping[str, int],
        decimal: Decimal,
        call_if_absent: str,
        offers: Sequence[str],
        price_is_sum: bool,
        clean: Callable[[str], str],
    ) -> None:
        self._price_is_sum = price_is_sum
        self._clean = clean
        self._columns = columns
        self._decimal = decimal
        self._call_if_absent = call_if_absent
        self._offers = {o.casefold(): o for o in offers}
        self._months = all(m in columns for m in MONTHS)

    def read(self, number: int, cells: Sequence[str]) -> KeywordRow:
        def cell(name: str) -> str:
            at = self._columns.get(name)
            return cells[at].strip() if at is not None and at < len(cells) else ""

        written, match = _text_and_match(cell("keyword"), cell("match"))
        text = self._clean(written)
        if not normalise(text):
            raise _RefusedError("keyword", "a text with at least one word", written)
        cpc_low, cpc_high = self._prices(cell)
        return KeywordRow(
            row=number,
            text=text,
            normalised=normalise(text),
            match=match,
            basis=_word("basis", cell("basis"), MATCHES, ""),
            volume=self._volume(cell),
            cpc_low=cpc_low,
            cpc_high=cpc_high,
            rate=self._share("rate", cell("rate")),
            competition=self._competition(cell("competition")),
            months=self._twelve(cell) if self._months else None,
            intent=_word("intent", cell("intent"), INTENTS, ""),
            call=_word("call", cell("call"), CALLS, "none")
            if "call" in self._columns
            else self._call_if_absent,
            group=cell("group"),
            offer=self._offer(cell("offer")),
            unpaid_rank=self._rank("unpaid_rank", cell("unpaid_rank")),
            paid_rank=self._rank("paid_rank", cell("paid_rank")),
            as_written=written if written != text else "",
        )

    def _volume(self, cell: Callable[[str], str]) -> tuple[float, float] | None:
        if not is_blank(cell("volume")):
            low, high = self._number("volume", cell("volume"), "a number or a range of searches",
                                     read_range)  # fmt: skip
            column, said = "volume", cell("volume")
        else:
            ends = [c for c in ("volume_low", "volume_high") if not is_blank(cell(c))]
            if not ends:
                return None
            read = [self._number(c, cell(c), "a number of searches", read_number) for c in ends]
            low, high = read[0], read[-1]
            column, said = ends[0], cell(ends[0])
        if low < 0:
            raise _RefusedError(column, "searches of 0 or more", said)
        if low > high:
            raise _RefusedError(column, "a low end not above the high end", said)
        return (low, high)

    def _prices(self, cell: Callable[[str], str]) -> tuple[float | None, float | None]:
        low, high = cell("cpc_low"), cell("cpc_high")
        values = [self._price("cpc_low", low), self._price("cpc_high", high)]
        if values[0] is not None and values[1] is not None and values[0] > values[1]:
            raise _RefusedError("cpc_low", f"a price not above cpc_high ({high})", low)
        if values == [None, None] and not is_blank(cell("cost")):
            return self._per_click(self._price("cost", cell("cost")), cell), None
        if self._price_is_sum:
            return self._per_click(values[0], cell), self._per_click(values[1], cell)
        return values[0], values[1]

    def _per_click(self, money: float | None, cell: Callable[[str], str]) -> float | None:
        """Return the price of a click, of money and clicks of one period."""
        if money is None:
            return None
        said = cell("clicks")
        clicks = None if is_blank(said) else self._number("clicks", said, "a number", read_number)
        if not clicks or clicks < 0:
            raise _RefusedError("clicks", "clicks of the same period, to divide the money by", said)
        return money / clicks

    def _price(self, column: str, text: str) -> float | None:
        if is_blank(text):
            return None
        price = self._number(column, text, "a price above 0", read_number)
        if price < 0:
            raise _RefusedError(column, "a price above 0", text)
        return price or None

    def _share(self, column: str, text: str) -> float | None:
        if is_blank(text):
            return None
        share = self._number(column, text, "a share from 0 to 1, or a percentage", read_share)
        if not 0 <= share <= 1:
            raise _RefusedError(column, "a share from 0 to 1 (100 %)", text)
        return share

    def _competition(self, text: str) -> float | None:
        words = {"low": 0.2, "medium": 0.5, "high": 0.8}
        if text.casefold() in words:
            return words[text.casefold()]
        if is_blank(text):
            return None
        value = self._number(
            "competition", text, "low, medium, high or a share from 0 to 1", read_share
        )
        value = value / 100 if 1 < value <= 100 else value
        if not 0 <= value <= 1:
            raise _RefusedError("competition", "low, medium, high or a share from 0 to 1", text)
        return value

    def _rank(self, column: str, text: str) -> float | None:
        if is_blank(text):
            return None
        rank = self._number(column, text, "a rank of 1 or more", read_number)
        if rank < 1:
            raise _RefusedError(column, "a rank of 1 or more", text)
        return rank

    def _twelve(self, cell: Callable[[str], str]) -> tuple[float, ...] | None:
        texts = [cell(m) for m in MONTHS]
        if any(is_blank(t) for t in texts):
            return None
        values = [
            self._number(m, t, "a number of searches", read_number)
            for m, t in zip(MONTHS, texts, strict=True)
        ]
        for month, text, value in zip(MONTHS, texts, values, strict=True):
            if value < 0:
                raise _RefusedError(month, "searches of 0 or more", text)
        return tuple(values)

    def _offer(self, text: str) -> str:
        if text and text.casefold() not in self._offers:
            raise _RefusedError("offer", "the name of an offer of the brief", text)
        return self._offers.get(text.casefold(), "")

    def _number(
        self, column: str, text: str, expected: str, read: Callable[[str, Decimal], _Read]
    ) -> _Read:
        try:
            return read(text, self._decimal)
        except ValueError:
            raise _RefusedError(column, expected, text) from None


_WRAPPED = re.compile(r'^(?:\[(?P<exact>.*)\]|"(?P<phrase>.*)")$', re.DOTALL)


def _text_and_match(text: str, match: str) -> tuple[str, str]:
    """Return the keyword and its match type; marks round a pasted text say the latter."""
    wrapped = _WRAPPED.match(text)
    read_as = "exact"
    if wrapped:
        read_as = "exact" if wrapped["exact"] is not None else "phrase"
        text = (wrapped["exact"] if wrapped["exact"] is not None else wrapped["phrase"]).strip()
    text = " ".join(text.split())
    if not normalise(text):
        raise _RefusedError("keyword", "a text with at least one word", text)
    if len(text) > MAX_TEXT:
        raise _RefusedError("keyword", f"at most {MAX_TEXT} characters", text)
    return text, _word("match", match, MATCHES, read_as)


def _word(column: str, text: str, known: Sequence[str], if_blank: str) -> str:
    if not text:
        return if_blank
    word = text.casefold()
    if word not in known:
        raise _RefusedError(column, "one of " + ", ".join(known), text)
    return word
