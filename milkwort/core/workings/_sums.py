"""The shape of workings: short sums, line by line."""

from __future__ import annotations

from dataclasses import dataclass, field

from milkwort.core.plan.run import PlanResult

__all__ = ["Line", "Section", "pace_lines"]


@dataclass(frozen=True)
class Line:
    """One line of a sum.

    Attributes
    ----------
    label : str
        What it is, in words.
    value : float or None
        None where there is none, or `text` says it instead.
    unit : str
        ``money``, ``share``, ``count`` or another word; says how to print it.
    formula : str
        How it came about, in signs.
    source : str
        Where an input is from: ``brief``, ``reading``, ``assumption``, ``planner``; empty
        for a result.
    assumption : str
        Name in the table of assumptions, where one acts here.
    text : str
        Said in place of a number.
    result : bool
        Whether it closes its sum.
    """

    label: str
    value: float | None = None
    unit: str = "count"
    formula: str = ""
    source: str = ""
    assumption: str = ""
    text: str = ""
    result: bool = False


@dataclass(frozen=True)
class Section:
    """A sum under its heading."""

    title: str
    lines: list[Line] = field(default_factory=list)


def pace_lines(result: PlanResult) -> list[Line]:
    """Return the line that says how far everything is paced, where it is."""
    if result.expected.pace >= 1:
        return []
    return [Line("paced to the purse", result.expected.pace, "share", "purse ÷ Σ spend")]
