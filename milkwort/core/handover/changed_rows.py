"""What changed in a sheet since it was last handed over, row by row."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

__all__ = ["Cell", "ChangedRow", "Row", "Turn", "applied", "changed_rows"]

Cell = str | float | bool | None
Row = Mapping[str, Cell]
Turn = Literal["new", "changed", "paused", "resumed", "removed"]

_RUN = "run"
"""The column that says whether a row runs."""


@dataclass(frozen=True)
class ChangedRow:
    """One row that is not as it was sent.

    Attributes
    ----------
    turn : Turn
        New; changed; paused, or resumed, where nothing but that it runs is different; removed.
    ref : str
        The key it is known by.
    row : Row
        As it now is; as it was, where it was removed.
    was : Row
        Cells that were different, as they were.
    """

    turn: Turn
    ref: str
    row: Row
    was: Row


def changed_rows(sent: Sequence[Row], now: Sequence[Row]) -> list[ChangedRow]:
    """Return the rows that are not as they were sent, known again by their `ref`.

    Parameters
    ----------
    sent, now : sequence of Row
        Each with a `ref` of its own.

    Returns
    -------
    list of ChangedRow
        Those of now in their order, then those removed. A row under another name is one
        changed row.
    """
    before = {str(row["ref"]): row for row in sent}
    found = [change for row in now for change in _change(before.get(str(row["ref"])), row)]
    there = {str(row["ref"]) for row in now}
    gone = [ref for ref in before if ref not in there]
    return [*found, *(ChangedRow("removed", ref, before[ref], {}) for ref in gone)]


def _change(before: Row | None, row: Row) -> Iterable[ChangedRow]:
    ref = str(row["ref"])
    if before is None:
        yield ChangedRow("new", ref, row, {})
        return
    was = {name: before.get(name) for name in row if before.get(name) != row[name]}
    if not was:
        return
    turn: Turn = "changed"
    if set(was) <= {_RUN, "bid"} and _RUN in was:
        turn = "resumed" if row[_RUN] == "yes" else "paused"
    yield ChangedRow(turn, ref, row, was)


def applied(sent: Sequence[Row], changes: Sequence[ChangedRow]) -> list[Row]:
    """Return what a sheet becomes where its changes are made, in the order of the sheet.

    Parameters
    ----------
    sent : sequence of Row
    changes : sequence of ChangedRow
    """
    rows = {str(row["ref"]): row for row in sent}
    for change in changes:
        if change.turn == "removed":
            rows.pop(change.ref, None)
        else:
            rows[change.ref] = change.row
    return list(rows.values())
