"""Negatives out of pasted lines or a small file: one a line, with its match type or without."""

from __future__ import annotations

import csv
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import cast

from milkwort.core.errors import TooLargeError
from milkwort.core.words.match_types import MATCHES, Match
from milkwort.core.words.texts import MAX_TEXT, normalise
from milkwort.formats.cells import unguarded

__all__ = ["MOST_LINES", "PastedNegative", "lines_of_table", "read_pasted_negatives"]

MOST_LINES = 10_000
_HEADINGS = frozenset({"negative", "keyword", "negative keyword", "text", "term", "search term"})
_TABLE = (
    _HEADINGS, {"match", "match type", "type"},
    {"campaign", "campaign name", "acts in", "where"}, {"ad group", "group", "group name"},
)  # fmt: skip
"""Headings of a table, by what its column holds: text, match type, campaign, group."""
_ENDS = {('"', '"'): "phrase", ("“", "”"): "phrase", ("[", "]"): "exact"}
"""Marks about a text that say its match type; they are never shown."""


@dataclass(frozen=True)
class PastedNegative:
    """One line.

    Attributes
    ----------
    line : int
        Of what was pasted, from 1.
    text : str
    match : Match
    campaign, group : str
        Where it acts, by name: `campaign` may name a group where `group` is empty; both are
        empty where the line doesn't say.
    refused : str
        Why it is no negative; empty where it is one.
    """

    line: int
    text: str
    match: Match
    campaign: str = ""
    group: str = ""
    refused: str = ""


def read_pasted_negatives(pasted: str, match: Match = "phrase") -> list[PastedNegative]:
    """Read negatives, one a line: ``jobs`` · ``"free quote"`` · ``[sash]`` · ``jobs, broad``.

    Behind the match type a line may name the campaign, and behind that the group it acts in.

    Parameters
    ----------
    pasted : str
    match : Match
        Of a line that doesn't say its own.

    Returns
    -------
    list of PastedNegative
        Lines that are refused among them; empty lines and a line of headings are left out.

    Raises
    ------
    TooLargeError
        Past `MOST_LINES` lines.
    """
    lines = [(n, line) for n, line in enumerate(pasted.splitlines(), start=1) if line.strip()]
    if len(lines) > MOST_LINES:
        message = f"negatives: expected at most {MOST_LINES:,} lines, got {len(lines):,}"
        raise TooLargeError(message, "negatives")
    return [one for at, (n, line) in enumerate(lines) for one in _read(n, line, match, at == 0)]


def _read(number: int, line: str, match: Match, is_first: bool) -> Iterator[PastedNegative]:
    cells = _cells(line)
    text, own = cells[0], cells[1].strip().casefold() if len(cells) > 1 else ""
    if is_first and text.strip().casefold() in _HEADINGS:
        return
    bare, marked = _unmarked(text.strip().removeprefix("'").lstrip("-−+ ").strip())
    said = own.removeprefix("negative ").strip()
    found = said if said in MATCHES else marked or match
    where = [" ".join(cell.split()) for cell in (*cells[2:4], "", "")]
    refused = _why_not(bare, own, said)
    yield PastedNegative(number, bare, cast(Match, found), where[0], where[1], refused)


def lines_of_table(rows: Sequence[Sequence[str]]) -> list[str]:
    """Return a table of negatives as lines that can be pasted.

    Parameters
    ----------
    rows : sequence of sequence of str
        With or without headings; with them, columns may stand in any order, and those of no
        meaning here are left out.

    Returns
    -------
    list of str
        Text, match type, campaign and group, as far as the table has them; headings first.
    """
    heads = [" ".join(cell.split()).casefold() for cell in rows[0]] if rows else []
    places = [next((at for at, head in enumerate(heads) if head in known), -1) for known in _TABLE]
    if places[0] < 0:
        places = [0, 1]
    lines = []
    for row in rows:
        cells = [row[at] if 0 <= at < len(row) else "" for at in places]
        line = "\t".join(unguarded(" ".join(cell.split())) for cell in cells).strip()
        if line:
            lines.append(line)
    return lines


def _why_not(bare: str, own: str, said: str) -> str:
    if not normalise(bare):
        return "expected a text with at least one word"
    if len(bare) > MAX_TEXT:
        return f"expected at most {MAX_TEXT:,} characters, got {len(bare):,}"
    if own and said not in MATCHES:
        return f'match: expected one of {", ".join(MATCHES)}, got "{own[:60]}"'
    return ""


def _cells(line: str) -> list[str]:
    """Return a line's cells where it is a row of a table, else the whole line."""
    for mark in ("\t", ";", ","):
        if mark in line:
            try:
                return next(csv.reader([line], delimiter=mark), [line])
            except csv.Error:  # a cell without end is no row; as a text it is refused
                return [line]
    return [line]


def _unmarked(text: str) -> tuple[str, str]:
    for (first, last), match in _ENDS.items():
        if len(text) > 1 and text.startswith(first) and text.endswith(last):
            return text[1:-1].strip(), match
    return text, ""
