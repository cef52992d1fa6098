"""The client's sheet as data: its parts, what it is made of, and how it may be written."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from typing import Any, Literal, get_args

from milkwort.core.handover.said import Kind, NumberStyle
from milkwort.core.plan.draws import Draws
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.year import Year

__all__ = [
    "SECTIONS",
    "STYLE_STARTS",
    "Cell",
    "Chart",
    "Column",
    "ForReport",
    "Options",
    "Other",
    "Report",
    "Section",
    "SectionName",
    "Table",
]

Cell = str | float | None


SectionName = Literal[
    "promise", "versions", "buy_now", "next_in_line", "too_dear", "blocked", "year", "ads",
    "assumed", "worked", "steps",
]  # fmt: skip


SECTIONS: tuple[SectionName, ...] = get_args(SectionName)


STYLE_STARTS: Mapping[str, Any] = {
    "sections": list(SECTIONS),
    "columns": ["group", "searches", "bid", "clicks", "customers", "spend"],
    "short": False, "language": "en", "marks": "1,234.5", "sign_first": True, "paper": "a4",
    "letterhead": [], "note": "",
}  # fmt: skip
"""What every plan's sheet starts with."""


@dataclass(frozen=True)
class Column:
    """A column of a table: its key, what stands over it, and what its cells are."""

    key: str
    head: str
    kind: Kind


@dataclass(frozen=True)
class Table:
    """Rows under columns, one cell a column."""

    columns: tuple[Column, ...]
    rows: tuple[tuple[Cell, ...], ...]
    title: str = ""
    more: int = 0
    """Rows that are left out for want of room."""


@dataclass(frozen=True)
class Chart:
    """Columns of a year: a label and two sums each."""

    labels: tuple[str, ...]
    whole: tuple[float, ...]
    part: tuple[float, ...]
    whole_name: str
    part_name: str


@dataclass(frozen=True)
class Section:
    """One part of the sheet."""

    key: str
    title: str
    texts: tuple[str, ...] = ()
    tables: tuple[Table, ...] = ()
    chart: Chart | None = None


@dataclass(frozen=True)
class Report:
    """The whole sheet.

    Attributes
    ----------
    title, made : str
    letterhead : tuple of str
        Lines at the top; the first is the name.
    note : str
        By the planner.
    style : NumberStyle
    sections : tuple of Section
    """

    title: str
    made: str
    letterhead: tuple[str, ...]
    note: str
    style: NumberStyle
    sections: tuple[Section, ...]


@dataclass(frozen=True)
class Options:
    """What a planner chooses of a sheet.

    Attributes
    ----------
    sections : collection of str
        Which of `SECTIONS` stand in it.
    columns : collection of str
        Which figures of a keyword stand in its tables.
    short : bool
        Whether it is kept to a page.
    language : str
        Of headings and sentences.
    style : NumberStyle
    letterhead : tuple of str
    note : str
    """

    sections: Collection[str] = SECTIONS
    columns: Collection[str] = ("group", "searches", "bid", "clicks", "customers", "spend")
    short: bool = False
    language: str = "en"
    style: NumberStyle = field(default_factory=NumberStyle)
    letterhead: tuple[str, ...] = ()
    note: str = ""


@dataclass(frozen=True)
class Other:
    """A version that stands beside the plan for a client who chooses."""

    label: str
    result: PlanResult
    draws: Draws


@dataclass(frozen=True)
class ForReport:
    """What a sheet is made of.

    Attributes
    ----------
    result : PlanResult
    name : str
        Of the plan.
    texts : sequence of str
        Of the keywords, as written.
    groups : sequence of str
        By number.
    draws : Draws
    year : Year
    first_day, today : date
    gross : float or None
        What the client pays a month with fee and tax, where that is another sum.
    ads : sequence of (str, sequence of str)
        A group, and the lines of its ad as they will read.
    values : mapping
        The brief by field.
    not_entered : collection of str
        Fields nobody has entered.
    label : str
        Of the version, where it is one.
    others : sequence of Other
        Versions that stand beside it.
    """

    result: PlanResult
    name: str
    texts: Sequence[str]
    groups: Sequence[str]
    draws: Draws
    year: Year
    first_day: date
    today: date
    gross: float | None = None
    ads: Sequence[tuple[str, Sequence[str]]] = ()
    values: Mapping[str, Any] = field(default_factory=dict)
    not_entered: Collection[str] = ()
    label: str = ""
    others: Sequence[Other] = ()
