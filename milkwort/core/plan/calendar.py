"""The months a year ahead is made of, from its first day to its last."""

from __future__ import annotations

import calendar
from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np

from milkwort.core.arrays import Ints
from milkwort.core.errors import BadValueError

__all__ = ["Months", "months_from"]


@dataclass(frozen=True)
class Months:
    """Twelve calendar months, of which the first and the last may be lived in part.

    Attributes
    ----------
    first, last : tuple of date
        The days of each that are lived, ends included; `last` before `first` where none is.
    """

    first: tuple[date, ...]
    last: tuple[date, ...]

    @property
    def number(self) -> Ints:
        """1 for January, of each month."""
        return np.array([day.month for day in self.first])

    @property
    def whole(self) -> Ints:
        """Days of each calendar month."""
        return np.array([calendar.monthrange(d.year, d.month)[1] for d in self.first])

    @property
    def days(self) -> Ints:
        """Days of each that are lived, 0 or more."""
        return np.array([max((last - first).days + 1, 0) for first, last in
                         zip(self.first, self.last, strict=True)])  # fmt: skip

    def dates(self, month: int) -> list[date]:
        """Return the days of one month that are lived."""
        return [self.first[month] + timedelta(n) for n in range(int(self.days[month]))]


def months_from(first: date, last: date | None = None) -> Months:
    """Return twelve months.

    Parameters
    ----------
    first : date
        The first day: its month is lived from there.
    last : date, optional
        The last day; nothing is lived after it.

    Raises
    ------
    BadValueError
        Where the last day comes before the first.
    """
    if last is not None and last < first:
        raise BadValueError("last day", f"a day from {first} on", str(last))
    starts, ends = [], []
    for number in range(12):
        year, month = divmod(first.year * 12 + first.month - 1 + number, 12)
        start = first if number == 0 else date(year, month + 1, 1)
        end = date(year, month + 1, calendar.monthrange(year, month + 1)[1])
        starts.append(start)
        ends.append(end if last is None else min(end, last))
    return Months(tuple(starts), tuple(ends))
