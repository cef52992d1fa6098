"""Which column of a file of results holds what, and what its headings say of it."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import replace

from milkwort.core.errors import BadValueError, NothingUsableError
from milkwort.core.words.texts import normalise
from milkwort.formats.days import WrittenDays, written_days
from milkwort.formats.headings import CURRENCIES, below_titles, columns_by_heading
from milkwort.formats.text_table import TextTable

__all__ = [
    "RESULT_COLUMNS",
    "RESULT_PATTERNS",
    "check_currency",
    "days_of",
    "is_dated",
    "is_priced",
    "level_of",
    "no_column",
    "result_columns",
    "result_table",
    "with_result_columns",
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
    "cost": r"(total |ad )?(costs?|spend|spent|amount( spent)?)(?P<currency> [a-z]{3})?",
    "cost_per_click": r"(avg |average |mean )?(cpc|cost per click|click price|price a click)"
    r"(?P<currency> [a-z]{3})?",
    "currency": r"currency( code)?",
    "credit": r"credit|credited",
    "customers": r"customers|conv(ersions)?|sales|orders|purchases",
    "enquiries": r"enquiries|leads",
    "could_show": r"could show|could be shown|eligible|searches",
    "lost_to_money": r"lost to money|lost to budget",
    "invalid_clicks": r"invalid clicks",
    "value": r"((sales?|orders?|conv(ersions?)?|customers?) )?value|revenue|turnover",
    "visits": r"(site |all |total )?(visits|sessions)",
    "unpaid": r"(unpaid|other) (customers|sales|orders)",
    "campaign": r"campaigns?( name)?",
    "group": r"(ad ?)?groups?( name)?",
    "ref": r"ref",
}
RESULT_PATTERNS = {name: re.compile(pattern) for name, pattern in _HEADINGS.items()}
RESULT_COLUMNS: Mapping[str, str] = {name: name.replace("_", " ") for name in _HEADINGS} | {
    "group": "ad group", "unpaid": "unpaid customers",
}  # fmt: skip
"""What each column of results is called, by its field."""


def level_of(table: TextTable) -> str:
    """Return what the rows of a table of results are about, by its headings.

    Parameters
    ----------
    table : TextTable
    """
    heads = {
        field
        for heading in (table.rows[0] if table.rows else ())
        for field, pattern in RESULT_PATTERNS.items()
        if pattern.fullmatch(normalise(heading.replace("_", " ")))
    }
    return next((n for n in ("term", "keyword", "group", "campaign") if n in heads), "day")


def result_columns(table: TextTable) -> dict[str, int]:
    """Return which columns of a table hold what, as far as their headings tell."""
    return columns_by_heading(table.rows[0] if table.rows else (), RESULT_PATTERNS)


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


def result_table(table: TextTable) -> TextTable:
    """Return a table of results from its headings on, titles above them set apart."""
    return below_titles(table, RESULT_PATTERNS, ("clicks",))


def check_currency(
    table: TextTable, columns: Mapping[str, int], name: str, currency: str
) -> None:  # fmt: skip
    """Refuse a file whose headings say that its money is another.

    Parameters
    ----------
    table : TextTable
        With headings in its first row.
    columns : mapping of str to int
        By field.
    name : str
        What to call the file in a message.
    currency : str
        The plan's; empty: whatever it is in.

    Raises
    ------
    NothingUsableError
    """
    for field in ("cost", "cost_per_click"):
        if not currency or field not in columns:
            continue
        heading = table.rows[0][columns[field]]
        found = RESULT_PATTERNS[field].fullmatch(normalise(heading.replace("_", " ")))
        said = (found["currency"] or "").strip() if found else ""
        if said in CURRENCIES and said.upper() != currency:
            where = f"row {table.number(0)}"
            raise NothingUsableError(
                f"{name}, {where}: expected money in {currency}, got {heading.strip()}", where
            )


def is_priced(columns: Mapping[str, int]) -> bool:
    """Say whether rows have a column for what their clicks cost."""
    return not {"cost", "cost_per_click"}.isdisjoint(columns)


def days_of(table: TextTable) -> WrittenDays:
    """Tell how days are written, by all columns that hold any.

    Parameters
    ----------
    table : TextTable
        With headings in its first row.
    """
    heads = [normalise(h.replace("_", " ")) for h in (table.rows[0] if table.rows else ())]
    of_days = [RESULT_PATTERNS[name] for name in ("day", "since", "until")]
    places = [at for at, head in enumerate(heads) if any(p.fullmatch(head) for p in of_days)]
    return written_days(row[at] for row in table.rows[1:] for at in places if at < len(row))


def is_dated(columns: Mapping[str, int]) -> bool:
    """Say whether rows have columns for the days they are about."""
    return "day" in columns or {"since", "until"} <= columns.keys()


def no_column(table: TextTable, name: str, wanted: str) -> NothingUsableError:
    """Return the refusal of a table that lacks a column.

    Parameters
    ----------
    table : TextTable
        With headings in its first row.
    name, wanted : str
        What to call the file, and the column.
    """
    seen = ", ".join(h for h in table.rows[0][:8] if h) if table.rows else "nothing"
    where = f"row {table.number(0)}"
    return NothingUsableError(f"{name}, {where}: expected a column {wanted}, got {seen}", where)
