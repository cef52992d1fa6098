"""Sheets of a workbook under the same headings, read one below the other."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import accumulate, chain

from milkwort.core.errors import Refusal
from milkwort.formats.text_table import TextTable

__all__ = ["JoinedSheets"]


@dataclass(frozen=True)
class JoinedSheets:
    """One table, in parts.

    Attributes
    ----------
    parts : tuple of TextTable
        At least one; all with the headings of the first in their first row.
    """

    parts: tuple[TextTable, ...]

    @cached_property
    def table(self) -> TextTable:
        """All rows under the headings of the first part."""
        first, *others = self.parts
        below = chain.from_iterable(part.rows[1:] for part in others)
        return replace(first, rows=(*first.rows, *below))

    @property
    def name(self) -> str:
        """The sheet, or the first and the last; empty for what is no workbook."""
        first, last = self.parts[0].sheet, self.parts[-1].sheet
        return first if len(self.parts) == 1 else f"{first} to {last}"

    def placed(self, refused: Sequence[Refusal]) -> tuple[Refusal, ...]:
        """Return refused rows of the table by the row of their own sheet, and which that is.

        Parameters
        ----------
        refused : sequence of Refusal
            Their rows counted through, as the table numbers them.
        """
        if len(self.parts) == 1:
            return tuple(refused)

        def at(one: Refusal) -> Refusal:
            sheet, row = self._place(one.row)
            return replace(one, row=row, why=f"{one.why} (sheet {sheet})")

        return tuple(map(at, refused))

    def named(self, rows: Sequence[int]) -> list[str]:
        """Return rows of the table as a planner finds them: by their own sheet, where several are.

        Parameters
        ----------
        rows : sequence of int
            Counted through, as the table numbers them.
        """
        if len(self.parts) == 1:
            return [f"{row:,}" for row in rows]
        places = map(self._place, rows)
        return [f"{row:,} of the sheet {sheet}" for sheet, row in places]

    def _place(self, row: int) -> tuple[str, int]:
        """Return the sheet that a row of the table stands on, and its number there."""
        # place of the row before each part's first; headings are there in the first part alone
        ends = [0, *accumulate(len(part.rows) - 1 for part in self.parts)]
        place = row - self.table.number(0)
        nth = min(bisect_right(ends, place - 1), len(self.parts)) - 1
        part = self.parts[nth]
        return part.sheet, part.number(place - ends[nth])
