"""What happened, out of a file's rows: by keyword, or by what people typed."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.errors import NothingUsableError, Refusal
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.texts import normalise
from milkwort.formats.days import WrittenDays
from milkwort.formats.match_words import read_match, unwrapped
from milkwort.formats.named_rows import Cells, RefusedCellError, read_named_rows
from milkwort.formats.report_window import window_above
from milkwort.formats.result_columns import (
    RESULT_PATTERNS,
    check_currency,
    days_of,
    is_dated,
    is_priced,
    level_of,
    no_column,
    result_columns,
    result_table,
)
from milkwort.formats.result_remarks import remarks_of
from milkwort.formats.text_table import TextTable

__all__ = ["BESIDE", "FIGURES", "ResultFile", "places_of", "read_result_rows", "told_apart"]

_SPOT = "spot"
"""Stands in place of a match type in rows of spots."""
BESIDE = ("value", "visits", "unpaid")
"""Optional lines beside what ads did: what customers bought for, visits of the whole site,
customers who came without an ad."""
FIGURES: tuple[str, ...] = ("impressions", "clicks", "cost", "credit", "customers", "enquiries",
                            "could_show", "lost_to_money", "invalid_clicks", *BESIDE)  # fmt: skip
_UNTOLD = ("enquiries", "could_show", "lost_to_money", "invalid_clicks", *BESIDE)
"""Figures that are missing where a file doesn't say, not 0."""
_COUNTED = ("impressions", "customers")
"""Figures that count as 0 in every sum where a file has no column of them, and teach nothing."""


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
        By `FIGURES`; NaN where not said, but for what `untold` names.
    untold : dict of str to ndarray of bool
        Rows that say no showings, and rows that say no customers: these are 0.
    refused : tuple of Refusal
    remarks : tuple of str
        How the file was read where it doesn't tell, and what it lacks.
    sums : tuple of int
        Rows that sum up others and were passed over.
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
    untold: dict[str, NDArray[np.bool_]]
    refused: tuple[Refusal, ...]
    remarks: tuple[str, ...] = ()
    sums: tuple[int, ...] = ()

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
            untold={name: column[rows] for name, column in self.untold.items()},
        )  # fmt: skip

    def as_said(self, name: str) -> Floats:
        """Return a figure with NaN in every row that doesn't say it."""
        untold = self.untold.get(name)
        return (
            self.figures[name] if untold is None else np.where(untold, np.nan, self.figures[name])
        )


def told_apart(
    figures: Mapping[str, Floats],
) -> tuple[dict[str, Floats], dict[str, NDArray[np.bool_]]]:
    """Return figures with 0 for showings and customers that nobody said, and where that is so."""
    untold = {name: np.isnan(figures[name]) for name in _COUNTED}
    known = {name: np.nan_to_num(figures[name]) for name in _COUNTED}
    return {**figures, **known}, untold


def read_result_rows(
    table: TextTable, name: str = "file", window: tuple[int, int] | None = None,
    progress: Callable[[int], None] = lambda _: None, currency: str = "",
    spent: float | None = None,
) -> ResultFile:  # fmt: skip
    """Read results; bad rows are refused one by one.

    Parameters
    ----------
    table : TextTable
        Titles may stand above its headings, and name the days it is about.
    name : str
        What to call the file in a message.
    window : (int, int), optional
        Days of rows that say none, by their ordinals; without it those that a title names.
    progress : callable
        Told now and then how many rows are read; may raise to stop.
    currency : str
        Money in any other is refused; empty: whatever it is in.
    spent : float, optional
        Money of all rows, laid evenly on their clicks where no column says what was spent.

    Raises
    ------
    NothingUsableError
        Where a heading is missing, or no row is usable.
    """
    table = result_table(table)
    level, columns = level_of(table), result_columns(table)
    check_currency(table, columns, name, currency)
    days = days_of(table)
    told, window = window, window or _window_above(table, columns, days, name)
    held = [name for name in (*FIGURES, "cost_per_click") if name in columns]
    count = 0

    def read(cells: Cells) -> tuple[object, ...]:
        nonlocal count
        count += 1
        if count % 2000 == 0:
            progress(count)
        return _row(cells, level, window, held, currency)

    needed, sums = {"clicks": "clicks"}, list[int]()
    rows, refused = read_named_rows(table, RESULT_PATTERNS, needed, read, name, days,
                                    passed_over=sums)  # fmt: skip
    by_column = list(zip(*rows, strict=True))
    term, keyword, match, campaign, group, ref = (
        [str(cell) for cell in column] for column in by_column[1:7]
    )
    figures, untold = told_apart(_figures(dict(zip(held, by_column[9:], strict=True)), len(rows)))
    each = None
    # without a price no rate is too low; days of the whole site are no evidence
    if level != "day" and not is_priced(columns):
        each = _laid_evenly(figures, spent, no_column(table, name, "cost, or cost per click"))
    return ResultFile(
        level=level, row=np.array(by_column[0], dtype=np.int64), term=term, keyword=keyword,
        match=match, campaign=campaign, group=group, ref=ref,
        first=np.array(by_column[7], dtype=np.int64), last=np.array(by_column[8], dtype=np.int64),
        figures=figures, untold=untold, refused=refused,
        remarks=remarks_of(days, columns, level, None if told else window, each), sums=tuple(sums),
    )  # fmt: skip


def _window_above(
    table: TextTable, columns: Mapping[str, int], days: WrittenDays, name: str
) -> tuple[int, int] | None:
    """Return the days that a title says for rows which say none; None where rows say them."""
    if is_dated(columns):
        return None
    window = window_above(table.above, days)
    if window is None:
        raise no_column(table, name, "day, or since and until")
    return window


def _laid_evenly(
    figures: dict[str, Floats], spent: float | None, unsaid: NothingUsableError
) -> float | None:
    """Lay money evenly on all clicks, and return that of one; infinite where there are none."""
    if spent is None:
        raise unsaid
    clicks = float(figures["clicks"].sum())
    if clicks <= 0:
        return np.inf if spent else None
    figures["cost"] = figures["clicks"] * (spent / clicks)
    return spent / clicks


def _figures(said: Mapping[str, Sequence[float]], many: int) -> dict[str, Floats]:
    figures = {
        name: np.array(said[name], dtype=np.float64) if name in said
        else np.full(many, np.nan if name in _COUNTED else _unsaid(name))
        for name in FIGURES
    }  # fmt: skip
    if "cost" not in said and "cost_per_click" in said:
        figures["cost"] = figures["clicks"] * np.array(said["cost_per_click"], dtype=np.float64)
    return figures


def _row(
    cells: Cells, level: str, window: tuple[int, int] | None, held: Sequence[str], currency: str
) -> tuple[object, ...]:
    term = cells.keyword("term") if level == "term" else ""
    keyword, marked = unwrapped(
        cells.keyword("keyword") if level == "keyword" else cells.text("keyword")
    )
    match = _match(cells, level, marked)
    if currency and (other := cells.text("currency").upper()) and other != currency:
        raise RefusedCellError("currency", f"money in {currency}", other)
    first, last = _days(cells, window)
    said = ((name, cells.number(name)) for name in held)
    figures = [_unsaid(name) if value is None else value for name, value in said]
    return (cells.row, term, keyword, match, cells.text("campaign"), cells.text("group"),
            cells.text("ref"), first, last, *figures)  # fmt: skip


def _match(cells: Cells, level: str, marked: str) -> str:
    said = cells.text("match")
    if not said:
        return marked or "exact"
    match = read_match(said) or said.casefold()
    if match not in (*MATCHES, _SPOT) and level in ("keyword", "term"):
        raise RefusedCellError("match", "one of " + ", ".join(MATCHES), said)
    return match


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
        By normalised text and match type; with an empty match type what stands for a keyword of
        terms whose match type says how a term was matched.
    """
    said = list(zip(file.ref, file.keyword, file.match, strict=True))

    def place(ref: str, keyword: str, match: str) -> int:
        if ref and ref in refs:
            return refs[ref]
        text = normalise(keyword)
        found = rows.get((text, match), -1)
        return rows.get((text, ""), -1) if found < 0 and file.level == "term" else found

    # a keyword has a row a day: each is looked up once
    places = {one: place(*one) for one in dict.fromkeys(said)}
    return np.fromiter(map(places.__getitem__, said), dtype=np.int64, count=len(said))
