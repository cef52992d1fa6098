"""What the workings panel is given, and the choice of a reading."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import Taken
from milkwort.store.readings import PARTS, Part

__all__ = [
    "Apart",
    "ReadingChoice",
    "ReadingItem",
    "ReadingRule",
    "WorkingLine",
    "WorkingSection",
    "Workings",
]


class WorkingLine(Given):
    """One line of a sum; `unit` says how to print its value."""

    label: str
    value: float | None
    unit: str
    formula: str
    source: str
    assumption: str
    text: str
    result: bool


class WorkingSection(Given):
    """A sum under its heading."""

    title: str
    lines: list[WorkingLine]


class ReadingItem(Given):
    """One source's figures for a keyword: searches a period, money a click."""

    id: int
    in_use: bool
    prices_in_use: bool
    origin: str
    origin_row: int | None
    read_at: str
    volume_low: float | None
    volume_high: float | None
    cpc_low: float | None
    cpc_high: float | None
    period: str
    basis: str
    area: str
    shown_at_bid: float | None
    made: bool


class ReadingChoice(Taken):
    """Which reading to use, and what for."""

    id: int
    use: Literal["both", "searches", "prices"] = "both"

    @property
    def parts(self) -> tuple[Part, ...]:
        """The same as it is stored."""
        return {"both": PARTS, "searches": PARTS[:1], "prices": PARTS[1:]}[self.use]


class ReadingRule(Taken):
    """Which readings are in use: ``newest``, ``mean``, or ``of`` and a source's name."""

    rule: str = Field(max_length=300)


class Apart(Given):
    """The greatest over the least of what sources say; null where fewer than two say it."""

    volume: float | None
    price: float | None


class Workings(Given):
    """The arithmetic behind a figure."""

    revision: int
    title: str
    about: str
    notes: list[str]
    sections: list[WorkingSection]
    readings: list[ReadingItem] = Field(default=[])
    apart: Apart | None = None
