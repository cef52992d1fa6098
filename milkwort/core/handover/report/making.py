"""What every part of a client's sheet is made from."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import numpy as np

from milkwort.core.arrays import Ints
from milkwort.core.handover.report.shape import Cell, Column, ForReport, Options, Table
from milkwort.core.handover.report.words import words_of
from milkwort.core.handover.said import Kind

__all__ = ["Making"]


_SHORT_ROWS = 8


class Making:
    """A plan, how its sheet is to be written, and what several parts of it need.

    Parameters
    ----------
    about : ForReport
    options : Options
    """

    def __init__(self, about: ForReport, options: Options) -> None:
        self.about, self.options, self.words = about, options, words_of(options.language)
        self.result = about.result
        running = np.flatnonzero(np.isfinite(self.result.bid))
        spend = self.result.expected.spend
        self.running = running[np.argsort(-spend[running], kind="stable")]

    def money(self, value: float | None) -> str:
        """Return an amount as the client writes it."""
        return self.options.style.said(value, "money")

    def count(self, value: float | None) -> str:
        """Return a count as the client writes it."""
        return self.options.style.said(value, "count")

    def keywords(self, rows: Ints, figures: Mapping[str, Any]) -> Table:
        """Return keywords with the figures that are chosen and known."""
        heads = self.words["columns"]
        kinds: dict[str, Kind] = {
            "group": "text", "searches": "whole", "bid": "money", "cpc": "money",
            "clicks": "count", "customers": "count", "spend": "money", "line": "money",
            "why": "text",
        }  # fmt: skip
        always = ("line", "why")
        keys = [k for k in kinds if k in figures and (k in self.options.columns or k in always)]
        columns = [Column("keyword", heads["keyword"], "text")]
        columns += [Column(key, heads[key], kinds[key]) for key in keys]
        most = _SHORT_ROWS if self.options.short else len(rows)
        shown = rows[:most]
        cells = tuple(
            (self.about.texts[row], *(_cell(figures[key][row]) for key in keys))
            for row in shown.tolist()
        )
        return Table(tuple(columns), cells, more=len(rows) - len(shown))

    def group_names(self) -> dict[int, str]:
        """Return the group of each keyword by its row; empty where it has none."""
        numbers = self.result.table.group.tolist()
        return {row: self.about.groups[n] if 0 <= n < len(self.about.groups) else ""
                for row, n in enumerate(numbers)}  # fmt: skip


def _cell(value: Any) -> Cell:
    if value is None or isinstance(value, str):
        return value
    return None if not np.isfinite(value) else float(value)
