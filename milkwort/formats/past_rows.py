"""Search terms of the past, or what an account runs, out of a file's rows."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import cast

from milkwort.core.errors import Refusal
from milkwort.core.gather.past import PastRow
from milkwort.core.words.match_types import MATCHES, Match
from milkwort.formats.named_rows import Cells, RefusedCellError, read_named_rows
from milkwort.formats.text_table import TextTable

__all__ = ["PastFile", "read_past_rows"]

_HEADINGS = {
    "text": r"search terms?|keywords?|terms?|quer(y|ies)|what (people|they) typed",
    "match": r"match( type)?|type of match|(keyword )?type",
    "negative": r"negative|excluded",
    "campaign": r"campaign",
    "group": r"(ad )?group",
    "page": r"(landing |final )?(page|url)",
    "bid": r"(max |highest )?(cpc )?bid|max cpc",
    "impressions": r"impressions|shown|times shown",
    "clicks": r"clicks",
    "cost": r"cost|spend|spent",
    "customers": r"customers|conversions|sales|orders|enquiries|leads",
    "revenue": r"revenue|turnover|(conversion |sales )?value",
}
_PATTERNS = {name: re.compile(pattern) for name, pattern in _HEADINGS.items()}
_FIGURES = ("bid", "impressions", "clicks", "cost", "customers", "revenue")
_NO = ("", "no", "false", "0", "n", "keyword")


@dataclass(frozen=True)
class PastFile:
    """What a file held: rows taken and rows refused."""

    rows: tuple[PastRow, ...]
    refused: tuple[Refusal, ...]


def read_past_rows(table: TextTable, name: str = "file") -> PastFile:
    """Read search terms or live keywords; bad rows are refused one by one.

    Parameters
    ----------
    table : TextTable
        With headings: a search term or keyword at least; clicks, cost,
        customers, revenue, impressions, campaign, group, match, bid, page and negative
        where it has them.
    name : str
        What to call the file in a message.

    Raises
    ------
    NothingUsableError
        Where a heading is missing, or no row is usable.
    """
    needed = {"text": "the search term or keyword"}
    return PastFile(*read_named_rows(table, _PATTERNS, needed, _row, name, sums=True))


def _row(cells: Cells) -> PastRow:
    said = cells.text("match").casefold()
    match = next((m for m in MATCHES if m in said.split()), "exact" if not said else "")
    if not match:
        raise RefusedCellError("match", "one of " + ", ".join(MATCHES), cells.text("match"))
    figures = {name: cells.number(name) for name in _FIGURES}
    clicks, customers = figures["clicks"], figures["customers"]
    if clicks is not None and customers is not None and customers > clicks:
        raise RefusedCellError("customers", f"at most its {clicks:g} clicks",
                               cells.text("customers"))  # fmt: skip
    return PastRow(
        cells.keyword("text"),
        cast(Match, match),
        "negative" in said or cells.text("negative").casefold() not in _NO,
        cells.text("campaign")[:120],
        cells.text("group")[:120],
        cells.text("page")[:500],
        **figures,
    )
