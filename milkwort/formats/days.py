"""Days as files write them: 2026-05-31 · 20260531 · 31.5.2026 · 5/31/26 · May 31, 2026 …"""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date

from milkwort.formats.months import MONTHS

__all__ = ["WrittenDays", "days_in", "written_days"]

_TIME = r"(?:[T ,]+[\d:.]{1,15} ?(?:[AaPp]\.?[Mm]\.?)?(?:Z|[+-]\d\d:?\d\d)?)?"
_YEAR_FIRST = re.compile(r"(\d{4})([-/.])(\d{1,2})\2(\d{1,2})" + _TIME)
_BARE = re.compile(r"(\d{4})(\d\d)(\d\d)")
_YEAR_LAST = re.compile(r"(\d{1,2})([-/.])(\d{1,2})\2(\d{4}|\d\d)" + _TIME)
_WEEKDAY = r"(?:[^\W\d_]{2,10}\.?,? )?"
_DAY_NAMED = re.compile(
    _WEEKDAY + r"(\d{1,2})(?:st|nd|rd|th|\.)?[ -]([^\W\d_]{3,12})\.?,?[ -](\d{4}|\d\d)" + _TIME
)
_NAME_FIRST = re.compile(
    _WEEKDAY + r"([^\W\d_]{3,12})\.? (\d{1,2})(?:st|nd|rd|th)?,? (\d{4})" + _TIME
)
_SOMEWHERE = re.compile(
    r"(?<![\w./-])(?:\d{4}([-/.])\d{1,2}\1\d{1,2}|\d{1,2}([-/.])\d{1,2}\2(?:\d{4}|\d\d)"
    r"|\d{1,2}(?:st|nd|rd|th|\.)? [^\W\d_]{3,12}\.?,? \d{4}"
    r"|[^\W\d_]{3,12}\.? \d{1,2}(?:st|nd|rd|th)?,? \d{4})(?![\w/])"
)
_LONGEST = 60
_LONGEST_LINE = 400
_THIS_CENTURY = 2000


@dataclass(frozen=True)
class WrittenDays:
    """How the days of a file are written.

    Attributes
    ----------
    day_first : bool
        Whether 4/5/2027 is the fourth of May.
    undecided : str
        A day that could be read either way, where nothing in the file tells; else empty.
    """

    day_first: bool = True
    undecided: str = ""

    def read(self, text: str) -> date:
        """Return a day.

        Parameters
        ----------
        text : str
            One line, spaces collapsed.

        Raises
        ------
        ValueError
            Where it names no day.
        """
        said = text[:_LONGEST]
        if found := _YEAR_FIRST.fullmatch(said):
            return date(int(found[1]), int(found[3]), int(found[4]))
        if found := _BARE.fullmatch(said):
            return date(int(found[1]), int(found[2]), int(found[3]))
        if found := _YEAR_LAST.fullmatch(said):
            one, other = int(found[1]), int(found[3])
            # between dots the day comes first wherever anybody writes so
            first = self.day_first or found[2] == "."
            return date(_year(found[4]), *((other, one) if first else (one, other)))
        if found := _DAY_NAMED.fullmatch(said):
            return date(_year(found[3]), _month(found[2]), int(found[1]))
        if found := _NAME_FIRST.fullmatch(said):
            return date(int(found[3]), _month(found[1]), int(found[2]))
        raise ValueError(text)


def written_days(texts: Iterable[str]) -> WrittenDays:
    """Tell by all days of a file whether the day or the month comes first.

    A part above 12 is the day. Where there is none, the days of a report lie close together: the
    reading that needs fewer months is taken, and the day comes first where both need as many.

    Parameters
    ----------
    texts : iterable of str
        Cells of its columns of days.
    """
    parted = [
        (int(found[1]), int(found[3]), found[4], text)
        for text in dict.fromkeys(" ".join(t.split())[:_LONGEST] for t in texts)
        if (found := _YEAR_LAST.fullmatch(text)) and found[2] != "."
    ]
    day_first = sum(one > 12 for one, *_ in parted)
    month_first = sum(other > 12 for _, other, *_ in parted)
    if day_first or month_first:
        return WrittenDays(day_first >= month_first)
    open_to_both = [text for one, other, _, text in parted if one != other]
    if not open_to_both:
        return WrittenDays()
    if_day_first = len({(year, other) for _, other, year, _ in parted})
    if_month_first = len({(year, one) for one, _, year, _ in parted})
    return WrittenDays(if_day_first <= if_month_first, open_to_both[0])


def days_in(line: str, written: WrittenDays) -> list[date]:
    """Return the days that a line names, in its order.

    Parameters
    ----------
    line : str
        Spaces collapsed; words may stand round the days.
    written : WrittenDays
        How days are written.
    """
    found = []
    for one in _SOMEWHERE.finditer(line[:_LONGEST_LINE]):
        try:
            found.append(written.read(one[0]))
        except ValueError:
            continue
    return found


def _year(said: str) -> int:
    return int(said) + (_THIS_CENTURY if len(said) == 2 else 0)


def _month(name: str) -> int:
    found = MONTHS.get(name.casefold())
    if found is None:
        raise ValueError(name)
    return found
