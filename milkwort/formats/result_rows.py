"""What happened, out of a file's rows: by keyword, or by what people typed."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.errors import BadValueError, NothingUsableError, Refusal
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.texts import normalise
from milkwort.formats.days import WrittenDays, written_days
from milkwort.formats.named_rows import Cells, RefusedCellError, columns_by_heading, read_named_rows
from milkwort.formats.text_table import TextTable

__all__ = [
    "BESIDE", "FIGURES", "RESULT_COLUMNS", "ResultFile", "level_of", "places_of",
    "read_result_rows", "result_columns", "with_result_columns",
]  # fmt: skip

_HEADINGS = {
    "term": r"(search )?terms?|(search )?quer(y|ies)|what (people|they) typed",
    "keyword": r"(search )?keywords?|text",
    "match": r"match( type)?|type of match|(keyword )?type",
    "day": r"day|date",
    "since": r"since|from|start( day| date)?|first day",
    "until": r"until|to|end( day| date)?|last day",
    "impressions": r"impr(essions?|s)?|imps?|shown|showings|times shown|views|displays",
    "clicks": r"(ad )?clicks",
    "cost": r"(total |ad )?(costs?|spend|spent|amount( spent)?)( [a-z]{3})?",
    "credit": r"credit|credited",
    "customers": r"customers|conv(ersions)?|sales|orders|purchases",
    "enquiries": r"enquiries|leads",
    "could_show": r"could show|could be shown|eligible|searches",
    "lost_to_money": r"lost to money|lost to budget",
    "invalid_clicks": r"invalid clicks",
    "value": r"((sales?|orders?|conversions?|customers?) )?value|revenue|turnover",
    "visits": r"(site |all |total )?(visits|sessions)",
    "unpaid": r"(unpaid|other) (customers|sales|orders)",
    "campaign": r"campaigns?( name)?",
    "group": r"(ad ?)?groups?( name)?",
    "ref": r"ref",
}
_TAKEN = frozenset({*MATCHES, "spot"})
"""Match types that a row may have."""
_PATTERNS = {name: re.compile(pattern) for name, pattern in _HEADINGS.items()}
RESULT_COLUMNS: Mapping[str, str] = {name: name.replace("_", " ") for name in _HEADINGS} | {
    "group": "ad group", "unpaid": "unpaid customers",
}  # fmt: skip
"""What each column of results is called, by its field."""
BESIDE = ("value", "visits", "unpaid")
"""Optional lines beside what ads did: what customers bought for, visits of the whole site,
customers who came without an ad."""
FIGURES: tuple[str, ...] = ("impressions", "clicks", "cost", "credit", "customers", "enquiries",
                            "could_show", "lost_to_money", "invalid_clicks", *BESIDE)  # fmt: skip
_UNTOLD = ("enquiries", "could_show", "lost_to_money", "invalid_clicks", *BESIDE)
"""Figures that are missing where a file doesn't say, not 0."""


@dataclass(frozen=True)
class ResultFile:
    """Rows as read, by column; rows refused apart.

    Attributes
    ----------
    level : str
        ``term``, ``keyword``, ``group``, ``campaign`` or ``day``: what its rows are about.
    row : Ints, shape (n_rows,)
        Of the file, its first being 1.
    term, keyword, match, campaign, group, ref : list of str
        Empty texts where not said.
    first, last : Ints
        Ordinals of the days a row is about.
    figures : dict of str to Floats
        By `FIGURES`; NaN where not said.
    refused : tuple of Refusal
    read_as : str
        How a day that could be read either way was read, where nothing in the file tells.
    """

    level: str
    row: Ints
    term: list[str]
    keyword: list[str]
    match: list[str]
    campaign: list[str]
    group: list[str]
    ref: list[str]
    first: Ints
    last: Ints
    figures: dict[str, Floats]
    refused: tuple[Refusal, ...]
    read_as: str = ""

    def __len__(self) -> int:
        return len(self.row)

    @property
    def cost(self) -> Floats:
        """Money, less what was credited."""
        return np.maximum(self.figures["cost"] - self.figures["credit"], 0.0)

    def at(self, rows: Ints) -> ResultFile:
        """Return some of the rows."""
        some = rows.tolist()

        def texts(column: list[str]) -> list[str]:
            return [column[row] for row in some]

        return replace(
            self, row=self.row[rows], term=texts(self.term), keyword=texts(self.keyword),
            match=texts(self.match), campaign=texts(self.campaign), group=texts(self.group),
            ref=texts(self.ref), first=self.first[rows], last=self.last[rows],
            figures={name: column[rows] for name, column in self.figures.items()},
        )  # fmt: skip


def level_of(table: TextTable) -> str:
    """Return what the rows of a table of results are about, by its headings.

    Parameters
    ----------
    table : TextTable
    """
    heads = {
        field
        for heading in (table.rows[0] if table.rows else ())
        for field, pattern in _PATTERNS.items()
        if pattern.fullmatch(normalise(heading.replace("_", " ")))
    }
    return next((n for n in ("term", "keyword", "group", "campaign") if n in heads), "day")


def result_columns(table: TextTable) -> dict[str, int]:
    """Return which columns of a table hold what, as far as their headings tell."""
    return columns_by_heading(table.rows[0] if table.rows else (), _PATTERNS)


def with_result_columns(table: TextTable, columns: Mapping[str, int]) -> TextTable:
    """Return a table of results under headings that say which column holds what.

    Parameters
    ----------
    table : TextTable
        With headings of its own in its first row.
    columns : mapping of str to int
        Column of each field of `RESULT_COLUMNS`; all others are left unread.

    Raises
    ------
    BadValueError
        For a field nobody knows, a column there isn't, or one that is to hold two things.
    """
    wide = max(map(len, table.rows), default=0)
    heads = [""] * wide
    for field, at in columns.items():
        if field not in RESULT_COLUMNS:
            raise BadValueError("columns", "fields of results", field)
        if not 0 <= at < wide:
            raise BadValueError("columns", f"a column from 0 to {wide - 1}", f"{field} in {at}")
        if heads[at]:
            raise BadValueError("columns", "one thing a column", f"{heads[at]} and {field}")
        heads[at] = RESULT_COLUMNS[field]
    return replace(table, rows=(tuple(heads), *table.rows[1:]))


def read_result_rows(
    table: TextTable, name: str = "file", window: tuple[int, int] | None = None,
    progress: Callable[[int], None] = lambda _: None,
) -> ResultFile:  # fmt: skip
    """Read results; bad rows are refused one by one.

    Parameters
    ----------
    table : TextTable
        With headings in its first row.
    name : str
        What to call the file in a message.
    window : (int, int), optional
        Days of rows that say none, by their ordinals.
    progress : callable
        Told now and then how many rows are read; may raise to stop.

    Raises
    ------
    NothingUsableError
        Where a heading is missing, or no row is usable.
    """
    level = level_of(table)
    needed = {"clicks": "clicks"}
    if window is None and not _dated(table):
        seen = ", ".join(h for h in table.rows[0][:8] if h) if table.rows else "nothing"
        raise NothingUsableError(
            f"{name}, row 1: expected a column day, or since and until, got {seen}", "row 1"
        )
    held = [name for name in FIGURES if name in result_columns(table)]
    count = 0

    def read(cells: Cells) -> tuple[object, ...]:
        nonlocal count
        count += 1
        if count % 2000 == 0:
            progress(count)
        return _row(cells, level, window, held)

    days = _written_days(table)
    rows, refused = read_named_rows(table, _PATTERNS, needed, read, name, days)
    columns = list(zip(*rows, strict=True))
    term, keyword, match, campaign, group, ref = (
        [str(cell) for cell in column] for column in columns[1:7]
    )
    said = dict(zip(held, columns[9:], strict=True))
    figures = {
        name: np.array(said[name], dtype=np.float64) if name in said
        else np.full(len(rows), _unsaid(name))
        for name in FIGURES
    }  # fmt: skip
    return ResultFile(
        level=level, row=np.array(columns[0], dtype=np.int64), term=term, keyword=keyword,
        match=match, campaign=campaign, group=group, ref=ref,
        first=np.array(columns[7], dtype=np.int64), last=np.array(columns[8], dtype=np.int64),
        figures=figures, refused=refused, read_as=_read_as(days),
    )  # fmt: skip


def _written_days(table: TextTable) -> WrittenDays:
    """Tell how days are written, by all columns that hold any."""
    heads = [normalise(h.replace("_", " ")) for h in (table.rows[0] if table.rows else ())]
    of_days = [_PATTERNS[name] for name in ("day", "since", "until")]
    places = [at for at, head in enumerate(heads) if any(p.fullmatch(head) for p in of_days)]
    return written_days(row[at] for row in table.rows[1:] for at in places if at < len(row))


def _read_as(days: WrittenDays) -> str:
    if not days.undecided:
        return ""
    day = days.read(days.undecided)
    return f"{days.undecided} was read as {day.isoformat()}: nothing in the file says otherwise."


def _dated(table: TextTable) -> bool:
    heads = [normalise(h.replace("_", " ")) for h in (table.rows[0] if table.rows else ())]
    held = {n for n in ("day", "since", "until") if any(_PATTERNS[n].fullmatch(h) for h in heads)}
    return "day" in held or {"since", "until"} <= held


def _row(
    cells: Cells, level: str, window: tuple[int, int] | None, held: Sequence[str]
) -> tuple[object, ...]:
    term = cells.keyword("term") if level == "term" else ""
    keyword = cells.keyword("keyword") if level == "keyword" else cells.text("keyword")
    match = cells.text("match").casefold() or "exact"
    if match not in _TAKEN and level in ("keyword", "term"):
        raise RefusedCellError("match", "one of " + ", ".join(MATCHES), cells.text("match"))
    first, last = _days(cells, window)
    figures = [_figure(cells, name) for name in held]
    return (cells.row, term, keyword, match, cells.text("campaign"), cells.text("group"),
            cells.text("ref"), first, last, *figures)  # fmt: skip


def _days(cells: Cells, window: tuple[int, int] | None) -> tuple[int, int]:
    day = cells.day("day")
    if day is not None:
        return day, day
    first, last = cells.day("since"), cells.day("until")
    if first is None or last is None:
        if window is None:
            raise RefusedCellError("day", "a day, or since and until", cells.text("day"))
        return window
    if last < first:
        raise RefusedCellError("until", "a day from since on", cells.text("until"))
    return first, last


def _figure(cells: Cells, name: str) -> float:
    value = cells.number(name)
    return _unsaid(name) if value is None else value


def _unsaid(name: str) -> float:
    """Return what a figure is where nothing is said of it."""
    return float("nan") if name in _UNTOLD else 0.0


def places_of(
    file: ResultFile, refs: Mapping[str, int], rows: Mapping[tuple[str, str], int]
) -> Ints:
    """Return the row of the plan's table that each row is about; −1 for none.

    Parameters
    ----------
    file : ResultFile
    refs : mapping of str to int
        Rows of the plan's table by the keyword's stable key; looked at first.
    rows : mapping of (str, str) to int
        By normalised text and match type.
    """
    said = list(zip(file.ref, file.keyword, file.match, strict=True))

    def place(ref: str, keyword: str, match: str) -> int:
        if ref and ref in refs:
            return refs[ref]
        return rows.get((normalise(keyword), match), -1)

    # a keyword has a row a day: each is looked up once
    places = {one: place(*one) for one in dict.fromkeys(said)}
    return np.fromiter(map(places.__getitem__, said), dtype=np.int64, count=len(said))
