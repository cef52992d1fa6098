"""The days that a report says it is about, in a line above its headings."""

from __future__ import annotations

from collections.abc import Sequence

from milkwort.formats.days import WrittenDays, days_in
from milkwort.formats.months import read_month

__all__ = ["window_above"]


def window_above(above: Sequence[Sequence[str]], days: WrittenDays) -> tuple[int, int] | None:
    """Return the first and last day a report is about, by their ordinals.

    Parameters
    ----------
    above : sequence of rows of cells
        What stands above the headings.
    days : WrittenDays
        How its days are written.

    Returns
    -------
    (int, int) or None
        Of the first line that names two days in order, or a month and nothing else.
    """
    for row in above:
        said = " ".join(" ".join(cell.split()) for cell in row if cell.strip())
        found = [day.toordinal() for day in days_in(said, days)]
        if len(found) == 2 and found[0] <= found[1]:
            return found[0], found[1]
        if not found and (month := _month(said)):
            return month
    return None


def _month(said: str) -> tuple[int, int] | None:
    try:
        return read_month(said.rpartition(":")[2].strip())
    except ValueError:
        return None
