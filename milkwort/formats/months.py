"""Months by name, and a month as files write it: 2026-05 · 2026-05-01 · 05/2026 · May 2026."""

from __future__ import annotations

import re
from calendar import monthrange
from datetime import date

__all__ = ["MONTHS", "read_month"]

_YEAR_FIRST = re.compile(r"(\d{4})[-/.](\d{1,2})(?:[-/.]\d{1,2})?(?:[T ][\d:.Z+-]*)?")
_YEAR_LAST = re.compile(r"(\d{1,2})[-/.](\d{4})")
_NAMED = re.compile(r"([^\W\d_]{3,12})\.?[ -]+(\d{4})|(\d{4})[ -]+([^\W\d_]{3,12})\.?")
_MONTH_NAMES = (
    "jan janu januar january janv janvier ene enero gennaio gen",
    "feb febr februar february fev fév fevr févr fevrier février febrero febbraio",
    "mar mars march mär märz mrz maerz marzo",
    "apr april avr avril abr abril aprile",
    "may mai mayo maggio mag",
    "jun june juni juin junio giugno giu",
    "jul july juli juil juillet julio luglio lug",
    "aug august aou aoû août aout ago agosto",
    "sep sept september septembre septiembre settembre set",
    "oct okt october oktober octobre octubre ottobre ott",
    "nov november novembre noviembre",
    "dec dez dic december dezember déc decembre décembre diciembre dicembre",
)
MONTHS = {word: n for n, words in enumerate(_MONTH_NAMES, start=1) for word in words.split()}
"""Every name of a month, small letters, to its number."""


def read_month(text: str) -> tuple[int, int]:
    """Return the first and last day of a month by number.

    Parameters
    ----------
    text : str
        One line, spaces collapsed.

    Raises
    ------
    ValueError
        Where it names no month.
    """
    year, month = _parts(text[:40].strip())
    days = monthrange(year, month)[1]
    return date(year, month, 1).toordinal(), date(year, month, days).toordinal()


def _parts(text: str) -> tuple[int, int]:
    if found := _YEAR_FIRST.fullmatch(text):
        return int(found[1]), int(found[2])
    if found := _YEAR_LAST.fullmatch(text):
        return int(found[2]), int(found[1])
    if found := _NAMED.fullmatch(text):
        name, year = (found[1], found[2]) if found[1] else (found[4], found[3])
        if month := MONTHS.get(name.casefold()):
            return int(year), month
    raise ValueError(text)
