"""Figures as people and programs write them: 1,200 · 1.200,50 · £0.80 · 1.2K · 10 to 100 · < 10."""

from __future__ import annotations

import math
import re
import unicodedata
from collections.abc import Iterable
from typing import Literal

__all__ = [
    "LONGEST_FIGURE",
    "Decimal",
    "guess_decimal",
    "is_blank",
    "read_number",
    "read_range",
    "read_share",
]

Decimal = Literal[".", ","]

LONGEST_FIGURE = 200
"""Characters of a cell that may hold a figure; a longer one holds something else."""
_DASHES = "-–— "
_NUMBER = re.compile(r"^([+-]?)(\d[\d.,' ]*|[.,]\d+)\s*([kKmM]?)$")
_PLAIN: dict[Decimal, re.Pattern[str]] = {
    ".": re.compile(r"[0-9]{1,15}(\.[0-9]+)?"),
    ",": re.compile(r"[0-9]{1,15}"),
}
_FEWER = re.compile(r"^(?:<|fewer than|less than|under|below) ?(.+)$", re.IGNORECASE)
_RANGE = re.compile(r"^(?:between )?(.+?) ?(?:\bto\b|\band\b|–|—|-|\.\.|…) ?(.+)$", re.IGNORECASE)
_ONE_SEPARATOR = re.compile(r"\d([.,])(\d+)(?!.*[.,])")
_SCALE = {"": 1.0, "k": 1e3, "m": 1e6}


def is_blank(text: str) -> bool:
    """Say whether a cell holds nothing, or only dashes."""
    return not text.strip().strip(_DASHES)


def read_number(text: str, decimal: Decimal = ".") -> float:
    """Return the number a cell holds.

    Parameters
    ----------
    text : str
        With a currency sign or code, thousands marks, or a K or M behind it.
    decimal : {".", ","}
        What the file writes before its decimals; decides 1,200 against 1.200.

    Returns
    -------
    float
        Finite.

    Raises
    ------
    ValueError
        Where the cell holds anything else.
    """
    if len(text) > LONGEST_FIGURE:
        raise ValueError(text)
    if _PLAIN[decimal].fullmatch(text):  # nearly every cell of a clean file
        return float(text)
    found = _NUMBER.match(_without_currency(text))
    if not found:
        raise ValueError(text)
    sign, digits, suffix = found.groups()
    value = float(_plain(digits.replace(" ", "").replace("'", ""), decimal))
    value *= _SCALE[suffix.lower()] * (-1 if sign == "-" else 1)
    if not math.isfinite(value):
        raise ValueError(text)
    return value


def read_share(text: str, decimal: Decimal = ".") -> float:
    """Return a share from 0.03 or 3 %; `ValueError` where the cell holds anything else."""
    bare = text.strip()
    if bare.endswith("%"):
        return read_number(bare[:-1], decimal) / 100
    return read_number(bare, decimal)


def read_range(text: str, decimal: Decimal = ".") -> tuple[float, float]:
    """Return the ends of a range of counts; the same figure twice for a single one.

    "fewer than n" is the range from 1 to n − 1.

    Raises
    ------
    ValueError
        Where the cell holds anything else.
    """
    if len(text) > LONGEST_FIGURE:
        raise ValueError(text)
    # single spaces: no pattern has two ways to share them out
    bare = " ".join(unicodedata.normalize("NFKC", text).split())
    fewer = _FEWER.match(bare)
    if fewer:
        most = max(read_number(fewer.group(1), decimal) - 1, 0.0)
        return (min(1.0, most), most)
    try:
        figure = read_number(bare, decimal)
    except ValueError:
        ends = _RANGE.match(bare)
        if not ends:
            raise
        return (read_number(ends.group(1), decimal), read_number(ends.group(2), decimal))
    return (figure, figure)


def guess_decimal(cells: Iterable[str], separator: str) -> Decimal:
    """Guess what a file writes before its decimals.

    Parameters
    ----------
    cells : iterable of str
        Cells of the file, in any order.
    separator : str
        What stands between its cells; a semicolon hints at a decimal comma.
    """
    votes = {".": 0, ",": 0}
    threes = {".": 0, ",": 0}
    for cell in cells:
        if len(cell) > LONGEST_FIGURE:
            continue
        found = _ONE_SEPARATOR.search(cell)
        if found and _is_figure(cell):  # words may hold marks too: "handle 1,5 mm"
            mark, behind = found.groups()
            if len(behind) == 3:
                threes[mark] += 1
            else:
                votes[mark] += 1
    if votes["."] != votes[","]:
        return "," if votes[","] > votes["."] else "."
    return "," if separator == ";" and threes["."] and not threes[","] else "."


def _is_figure(cell: str) -> bool:
    for decimal in _PLAIN:
        try:
            read_range(cell.rstrip(" %"), decimal)
        except ValueError:
            continue
        return True
    return False


def _without_currency(text: str) -> str:
    bare = unicodedata.normalize("NFKC", text).strip().replace("−", "-")
    bare = "".join(c for c in bare if unicodedata.category(c) != "Sc").strip()
    return re.sub(r"^[A-Z]{3}\s*(?=[\d.,+-])|(?<=\d)\s*[A-Z]{3}$", "", bare).strip()


def _plain(digits: str, decimal: Decimal) -> str:
    """Return digits with a point before the decimals and no other mark."""
    points, commas = digits.count("."), digits.count(",")
    if points and commas:
        last = max(digits.rfind("."), digits.rfind(","))
        mark = digits[last]
    elif points + commas > 1:
        mark = ""
    elif points + commas == 1:
        mark = "." if points else ","
        behind = len(digits) - digits.index(mark) - 1
        if behind == 3 and mark != decimal and digits.index(mark) > 0:
            mark = ""
    else:
        return digits
    other = digits.replace(mark, "#", 1) if mark else digits
    whole, _, rest = other.partition("#") if mark else (other, "", "")
    groups = re.split(r"[.,]", whole)
    if any(len(g) != 3 for g in groups[1:]) or (not rest.isdigit() and rest):
        raise ValueError(digits)
    return "".join(groups) + ("." + rest if rest else "")
