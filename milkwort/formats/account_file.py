"""An account's file as its own platform wrote it: read by its own columns, written back in them."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from milkwort.core.errors import BadValueError
from milkwort.core.handover.account import AccountChange, AccountLine
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.texts import normalise
from milkwort.formats.cells import safe_cell, unguarded
from milkwort.formats.headings import below_titles
from milkwort.formats.named_rows import says_sum
from milkwort.formats.numbers import is_blank, read_number
from milkwort.formats.text_table import TextTable, read_text_table

__all__ = ["ROLES", "AccountFile", "Role", "account_lines", "changed_rows_of", "read_account_file"]

Role = Literal["keyword", "match", "bid", "run"]
ROLES: tuple[Role, ...] = get_args(Role)

_HEADINGS: dict[Role, str] = {
    "keyword": r"(search )?(keywords?|terms?|words?|phrases?)",
    "match": r"(keyword )?(match( type)?|type)",
    "bid": r"(max(imum)? |highest )?(cpc )?(bid|price)( a click)?|max(imum)? cpc",
    "run": r"(keyword )?(status|state|run|runs|on|active)",
}
_PATTERNS: dict[str, re.Pattern[str]] = {
    role: re.compile(pattern) for role, pattern in _HEADINGS.items()
}
_RUNS = ("enabled", "active", "running", "live", "on", "yes", "true", "1")
_RESTS = ("paused", "inactive", "stopped", "off", "no", "false", "0", "disabled")
_ENCODINGS = {"UTF-8": "utf-8", "UTF-16": "utf-16", "UTF-32": "utf-32", "Windows-1252": "cp1252",
              "text": "utf-8"}  # fmt: skip
_MARK = b"\xef\xbb\xbf"
_DIGITS = 2


@dataclass(frozen=True)
class AccountFile:
    """A file with which of its columns hold what.

    Attributes
    ----------
    table : TextTable
        Its first row holds the headings.
    columns : mapping of str to int
    marked : bool
        Whether it begins with a byte-order mark.
    """

    table: TextTable
    columns: Mapping[str, int]
    marked: bool

    @property
    def headings(self) -> tuple[str, ...]:
        """What stands over its columns."""
        return self.table.rows[0]


def read_account_file(
    data: bytes, name: str, columns: Mapping[str, int] | None = None
) -> AccountFile:
    """Read an account's file, every column of it.

    Parameters
    ----------
    data : bytes
        CSV of any dress.
    name : str
    columns : mapping of str to int, optional
        Where each stands; guessed from the headings where left out.

    Raises
    ------
    BadValueError
        For a column that the file hasn't.
    """
    table = below_titles(read_text_table(data, name), _PATTERNS, ("keyword",))
    found = dict(columns) if columns is not None else _guessed(table.rows[0])
    wide = len(table.rows[0])
    for role, at in found.items():
        if role not in ROLES or not 0 <= at < wide:
            raise BadValueError(role, f"a column from 0 to {wide - 1}", at)
    return AccountFile(table, found, data.startswith(_MARK))


def _guessed(headings: Sequence[str]) -> dict[str, int]:
    found: dict[str, int] = {}
    for at, heading in enumerate(headings):
        words = normalise(heading)
        for role, pattern in _PATTERNS.items():
            if role not in found and pattern.fullmatch(words):
                found[role] = at
    return found


def account_lines(file: AccountFile) -> list[AccountLine]:
    """Return the keywords of a file; none until it is said which column holds them."""
    lines: list[AccountLine] = []
    if "keyword" not in file.columns:
        return lines
    for number, row in enumerate(file.table.rows[1:], start=1):
        if says_sum(row):
            continue
        text = unguarded(_cell(file, row, "keyword")).strip()
        match, bare = _match(text, _cell(file, row, "match"))
        if normalise(bare):
            lines.append(AccountLine(number, bare, match, _bid(file, row), _runs(file, row)))
    return lines


def _cell(file: AccountFile, row: Sequence[str], role: Role) -> str:
    at = file.columns.get(role, len(row))
    return row[at] if at < len(row) else ""


def _match(text: str, said: str) -> tuple[str, str]:
    """Return the match type and the bare text; brackets and quotes say it where nothing does."""
    words = normalise(said).split()
    named = next((match for match in MATCHES if match in words), "")
    if text[:1] == "[" and text[-1:] == "]":
        return named or "exact", text[1:-1]
    if len(text) > 1 and text[0] == text[-1] == '"':
        return named or "phrase", text[1:-1]
    return named or "exact", text


def _bid(file: AccountFile, row: Sequence[str]) -> float | None:
    cell = _cell(file, row, "bid")
    if is_blank(cell):
        return None
    try:
        return read_number(cell, file.table.decimal)
    except ValueError:
        return None


def _runs(file: AccountFile, row: Sequence[str]) -> bool | None:
    word = normalise(_cell(file, row, "run"))
    if word in _RUNS:
        return True
    return False if word in _RESTS else None


def changed_rows_of(file: AccountFile, changes: Sequence[AccountChange]) -> bytes:
    """Return the rows that change, in the very shape of the file: its columns, its dress.

    Every cell but the bid and the word for running is as it was; what a spreadsheet would run
    is defused.
    """
    rows = [list(file.table.rows[0])]
    words = _words(file)
    for change in changes:
        row = list(file.table.rows[change.row])
        row += [""] * (len(file.table.rows[0]) - len(row))
        if change.bid is not None and change.bid[1] is not None and "bid" in file.columns:
            at = file.columns["bid"]
            row[at] = _figure(row[at], change.bid[1], file.table.decimal)
        if change.runs is not None and "run" in file.columns:
            at = file.columns["run"]
            row[at] = _like(row[at], words[change.runs[1]])
        rows.append(row)
    out = io.StringIO()
    writer = csv.writer(out, delimiter=file.table.separator, lineterminator="\r\n")
    writer.writerows([_harmless(cell) for cell in row] for row in rows)
    encoded = out.getvalue().encode(_ENCODINGS[file.table.encoding])
    return _MARK + encoded if file.marked else encoded


def _words(file: AccountFile) -> dict[bool, str]:
    """Return the file's own words for running and resting, else those that go with them."""
    held = [normalise(_cell(file, row, "run")) for row in file.table.rows[1:]]
    runs = next((word for word in held if word in _RUNS), "")
    rests = next((word for word in held if word in _RESTS), "")
    pairs = dict(zip(_RUNS, ("disabled", "paused", "paused", "paused", "off", "no", "false", "0"),
                     strict=True))  # fmt: skip
    back = {"paused": "active", "inactive": "active", "stopped": "running", "off": "on",
            "no": "yes", "false": "true", "0": "1", "disabled": "enabled"}  # fmt: skip
    return {True: runs or back.get(rests, "active"), False: rests or pairs.get(runs, "paused")}


def _like(cell: str, word: str) -> str:
    """Return a word in the letters of the cell it takes the place of."""
    if cell.isupper():
        return word.upper()
    return word.capitalize() if cell[:1].isupper() else word


def _figure(cell: str, value: float, decimal: str) -> str:
    """Return a figure with the digits and the signs of the cell it takes the place of."""
    digits = re.search(r"[.,](\d+)\D*$", cell)
    said = f"{value:.{max(len(digits.group(1)) if digits else 0, _DIGITS)}f}"
    said = said.replace(".", decimal)
    number = re.search(r"\d[\d.,' ]*", cell)
    return cell[: number.start()] + said + cell[number.end() :] if number else said


def _harmless(cell: str) -> str:
    """Defuse a cell unless it was defused before, or is a figure."""
    if re.fullmatch(r"[-+]?[\d.,' ]+", cell):
        return cell
    return str(safe_cell(unguarded(cell)))
