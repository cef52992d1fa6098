"""What is said of a file of results as it comes in."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from datetime import date

from milkwort.formats.days import WrittenDays
from milkwort.formats.result_columns import is_dated

__all__ = ["remarks_of", "said_of_sums"]

_NAMED = 6
"""A report may sum up every day: of so many rows the rest is counted."""


def remarks_of(
    days: WrittenDays, columns: Mapping[str, int], level: str, window: tuple[int, int] | None,
    each: float | None = None,
) -> tuple[str, ...]:  # fmt: skip
    """Say how a file was read where it doesn't tell, and what it lacks.

    Parameters
    ----------
    days : WrittenDays
        How its days are written.
    columns : mapping of str to int
        By field.
    level : str
        What its rows are about.
    window : (int, int) or None
        Days that a line above its headings says for all rows, by their ordinals.
    each : float or None
        Money a click, where it was laid evenly on all of them; infinite where nobody clicked.
    """
    said = list[str]()
    if days.undecided:
        day = days.read(days.undecided)
        said.append(f"{days.undecided} was read as {day.isoformat()}: "
                    "nothing in the file says otherwise.")  # fmt: skip
    if window is not None and not is_dated(columns):
        first, last = map(date.fromordinal, window)
        said.append(f"No row says its day: all are from {first.isoformat()} to "
                    f"{last.isoformat()}, as a line above the headings says.")  # fmt: skip
    if level == "day":  # of the whole site, where customers may be left out
        return tuple(said)
    if not {"customers", "enquiries"} & columns.keys():
        said.append("No column says customers: its clicks tell nothing of what sells. "
                    "Say which column holds them, if one does.")  # fmt: skip
    if "impressions" not in columns:
        said.append("No column says how often a keyword was shown: searches and click rates are "
                    "not judged by it.")  # fmt: skip
    if each == math.inf:
        said.append("Nobody clicked in it: the money that was said for its clicks is left out.")
    elif each is not None:
        said.append(f"No column says what was spent: each click counts as {each:,.2f}, an equal "
                    "part of the money that was said for all of them.")  # fmt: skip
    return tuple(said)


def said_of_sums(rows: Sequence[str]) -> list[str]:
    """Say which rows were passed over because they sum up others.

    Parameters
    ----------
    rows : sequence of str
        As a planner finds them.
    """
    if len(rows) < 2:
        return [f"Row {row} sums up others and was passed over." for row in rows]
    if len(rows) > _NAMED:
        rows = [*rows[: _NAMED - 1], f"{len(rows) - _NAMED + 1:,} more"]
    *some, last = rows
    return [f"Rows {', '.join(some)} and {last} sum up others and were passed over."]
