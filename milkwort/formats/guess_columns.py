"""Which column of a file holds what, guessed from its headings and its cells."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from milkwort.core.words.texts import normalise
from milkwort.formats.headings import CURRENCIES
from milkwort.formats.keyword_rows import FIELDS
from milkwort.formats.match_words import read_match
from milkwort.formats.months import MONTHS
from milkwort.formats.numbers import is_blank, read_range
from milkwort.formats.text_table import TextTable

__all__ = ["ColumnGuess", "guess_columns"]

_HEADINGS: dict[str, str] = {
    "keyword": r"keywords?|search terms?|terms?|quer(y|ies)|searches for|text|phrases?",
    "match": r"match( type)?|type of match",
    "volume": r"((avg|average|mean) )?(monthly )?(search )?(volumes?|searches)( (a|per) month)?|"
    r"searches month|demand",
    "volume_low": r"((min|lowest|least|low)( monthly)?|searches from|volume from) ?"
    r"(searches|volume)?|volume low",
    "volume_high": r"((max|highest|most|high)( monthly)?|searches to|volume to) ?"
    r"(searches|volume)?|volume high",
    "cpc_low": r"(low|lowest|min|from)( top)?( of page)? ?(cpc|price|bid|click price)"
    r"( low)?( range)?|(cpc|price|bid) (low|from|min)|low",
    "cpc_high": r"(high|highest|max|to)( top)?( of page)? ?(cpc|price|bid|click price)"
    r"( high)?( range)?|(cpc|price|bid) (high|to|max)|high",
    "competition": r"competition( index| level)?",
    "intent": r"intent|purpose",
    "call": r"call|judgement|decision|verdict",
    "offer": r"offer|product",
    "rate": r"(conversion )?rate|conv rate|conversion",
    "basis": r"basis|counted as",
    "group": r"(ad )?group|theme|topic",
    "campaign": r"campaign",
    "unpaid_rank": r"(unpaid |organic )?(rank|position)",
    "paid_rank": r"paid (rank|position)",
    "popularity": r"popularity( index)?|(search )?index|interest( over time)?",
    "shown_at_bid": r"(shown|showings|impressions) at( a)? bid",
    "clicks": r"clicks( (a|per) (day|month))?",
    "cost": r"(total )?(cost|spend|spent)( (a|per) (day|month))?",
}
_DATED = re.compile(r"(?:\d{4} (\d{1,2})|(\d{1,2}) \d{4})(?: \d{1,2})?")
_ONE_PRICE = re.compile(
    r"((avg|average|mean|suggested) )?(cpc|click price|price|cost per click)"
    r"|(avg|average|mean|suggested) bid"
)
"""A bare *bid* is what an account bids, and says nothing of the market's prices."""
_PRICE_WORDS = frozenset({"cpc", "bid", "price"})
_LOW_WORDS = frozenset({"low", "lowest", "min", "minimum"})
_HIGH_WORDS = frozenset({"high", "highest", "max", "maximum"})
_NO_SEARCHES = frozenset({
    "impression", "impressions", "impr", "shown", "showings", "clicks", "visits", "sessions",
    "traffic", "results", "pages", "links", "cost", "spend", "revenue", "conversions", "sales",
    "difficulty", "score", "rank", "position", "ctr", "year", "id", "number",
})  # fmt: skip
"""A heading with one of these stands over anything but searches."""
_CODE = re.compile(rf" ({'|'.join(sorted(CURRENCIES))})$")
_PATTERNS = {name: re.compile(pattern) for name, pattern in _HEADINGS.items()}
_SAMPLE = 200
_MOST_TITLES = 15
"""Headings are looked for so far down."""
_LEAST_VOLUME = 5.0
"""A nameless column whose figures all lie under this holds shares or prices, not volumes."""


@dataclass(frozen=True)
class ColumnGuess:
    """What a file's columns seem to hold.

    Attributes
    ----------
    columns : dict of str to int
        Column of each field found, from 0.
    headings : tuple of str
        What stands over each column; empty texts where the file has no headings.
    first_row : int
        First row that holds data, the file's first being 1.
    currency : str
        What its prices are in, where a heading or a column says so; else empty.
    """

    columns: dict[str, int]
    headings: tuple[str, ...]
    first_row: int
    currency: str = ""


def guess_columns(table: TextTable) -> ColumnGuess:
    """Guess the columns of a file.

    Parameters
    ----------
    table : TextTable

    Returns
    -------
    ColumnGuess
        ``keyword`` is always among its columns: where no heading says so, the first column
        that holds words.
    """
    number, top = _first_filled(table)
    named = _by_heading(top)
    width = max(len(row) for row in table.rows[:_SAMPLE])
    others = [cell for at, cell in enumerate(top) if at not in named.values()]
    is_heading = not any(_numeric(cell, table) for cell in others) and (
        bool(named) or _stands_over_figures(top, table.rows[number:][:_SAMPLE], table)
    )
    columns = dict(named) if is_heading else {}
    body = table.rows[number if is_heading else number - 1 :][:_SAMPLE]
    if "keyword" not in columns:
        columns |= {"keyword": _wordiest(body, width, table, set(columns.values()))}
    if named and is_heading:
        free = [at for at, heading in enumerate(top) if _may_be_searches(heading)]
        columns |= _volume_by_cells(body, free, table, columns)
    else:
        columns |= _by_cells(body, width, table, columns["keyword"])
    return ColumnGuess(
        columns=columns,
        headings=tuple(c.strip() for c in top) if is_heading else ("",) * width,
        first_row=number + 1 if is_heading else number,
        currency=_currency(top, body, columns) if is_heading else "",
    )


def _first_filled(table: TextTable) -> tuple[int, tuple[str, ...]]:
    """Return the row of the headings, or the first row of data: titles above are passed over."""
    filled = [
        (number, row, sum(1 for c in row if c.strip()))
        for number, row in enumerate(table.rows[:_SAMPLE], start=1)
    ]
    filled = [f for f in filled if f[2]]
    for number, row, _ in filled[:_MOST_TITLES]:
        if "keyword" in _by_heading(row) and not any(_numeric(c, table) for c in row):
            return number, row
    usual = max((count for _, _, count in filled), default=1)
    for number, row, count in filled:
        if count >= min(2, usual):
            return number, row
    return 1, ()


def _by_heading(top: Sequence[str]) -> dict[str, int]:
    found: dict[str, int] = {}
    for at, cell in enumerate(top):
        bare = cell.strip().casefold()
        words = _CODE.sub("", normalise(bare.replace("_", " ")))
        name = bare if bare in FIELDS else next(
            (n for n, p in _PATTERNS.items() if n not in found and p.fullmatch(words)), None
        )  # fmt: skip
        name = name or _month_field(words) or _price_field(words)
        if name is not None and name not in found:
            found[name] = at
    return found


def _price_field(words: str) -> str | None:
    """Return the price a heading names: *CPC*, *lowest bid*, *price a click (high)*."""
    said = set(words.split())
    low, high = bool(said & _LOW_WORDS), bool(said & _HIGH_WORDS)
    if said & _PRICE_WORDS and low != high:
        return "cpc_low" if low else "cpc_high"
    return "cpc_low" if _ONE_PRICE.fullmatch(words) else None


def _may_be_searches(heading: str) -> bool:
    return not set(normalise(heading.replace("_", " ")).split()) & _NO_SEARCHES


def _stands_over_figures(
    top: Sequence[str], body: Sequence[Sequence[str]], table: TextTable
) -> bool:
    """Say whether words stand over a column of figures: such a row is no keyword's."""
    return any(
        not is_blank(heading) and _mostly_figures(at, body, table) for at, heading in enumerate(top)
    )


def _mostly_figures(at: int, body: Sequence[Sequence[str]], table: TextTable) -> bool:
    cells = [row[at] for row in body if at < len(row) and not is_blank(row[at])]
    return len(cells) > 0 and sum(_numeric(c, table) for c in cells) > len(cells) / 2


def _currency(top: Sequence[str], body: Sequence[Sequence[str]], columns: Mapping[str, int]) -> str:
    """Return the code that a heading of prices ends with, or that fills a column of its own."""
    for field in ("cpc_low", "cpc_high", "cost"):
        said = _CODE.search(normalise(top[columns[field]])) if field in columns else None
        if said:
            return said[1].upper()
    for at, heading in enumerate(top):
        if normalise(heading) in ("currency", "currency code"):
            held = {row[at].strip().upper() for row in body if at < len(row) and row[at].strip()}
            return held.pop() if len(held) == 1 else ""
    return ""


def _month_field(words: str) -> str | None:
    """Return the month a heading names: *May*, *Mai 2026*, *searches: août*, *2026-05*."""
    dated = _DATED.fullmatch(words)
    if dated:
        number = int(dated[1] or dated[2])
        return f"m{number:02d}" if 1 <= number <= 12 else None
    named = {MONTHS[w] for w in words.split() if w in MONTHS}
    others = [w for w in words.split() if w not in MONTHS and not w.isdigit()]
    told = len(named) == 1 and all(w in ("searches", "search", "volume", "in") for w in others)
    return f"m{named.pop():02d}" if told else None


def _wordiest(body: Sequence[Sequence[str]], width: int, table: TextTable, taken: set[int]) -> int:
    def words(at: int) -> int:
        cells = [row[at] for row in body if at < len(row)]
        return sum(1 for c in cells if not is_blank(c) and not _numeric(c, table))

    free = [at for at in range(width) if at not in taken] or [0]
    return max(free, key=words)


def _volume_by_cells(
    body: Sequence[Sequence[str]], free: Sequence[int], table: TextTable, columns: dict[str, int]
) -> dict[str, int]:
    """Take the column of the largest figures for the volume where no heading names one."""
    if any(name.startswith("volume") for name in columns):
        return {}
    largest: dict[int, float] = {}
    for at in set(free) - set(columns.values()):
        cells = [row[at] for row in body if at < len(row) and not is_blank(row[at])]
        figures = [read_range(c, table.decimal)[1] for c in cells if _numeric(c, table)]
        if len(figures) > len(cells) / 2:
            largest[at] = max(figures)
    best = max(largest, key=lambda at: largest[at], default=None)
    return {} if best is None or largest[best] < _LEAST_VOLUME else {"volume": best}


def _by_cells(
    body: Sequence[Sequence[str]], width: int, table: TextTable, keyword: int
) -> dict[str, int]:
    """Assign bare columns: match types by their words, then volume, low and high price."""
    found: dict[str, int] = {}
    numeric = []
    for at in range(width):
        cells = [row[at].strip() for row in body if at < len(row) and not is_blank(row[at])]
        if at == keyword or not cells:
            continue
        if all(read_match(c) for c in cells):
            found["match"] = at
        elif sum(_numeric(c, table) for c in cells) > len(cells) / 2:
            numeric.append(at)
    for name, at in zip(("volume", "cpc_low", "cpc_high"), numeric, strict=False):
        found[name] = at
    return found


def _numeric(cell: str, table: TextTable) -> bool:
    try:
        read_range(cell, table.decimal)
    except ValueError:
        return False
    return True
