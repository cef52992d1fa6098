"""What the negatives of Arrange take and give."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import Taken
from milkwort.core.words.match_types import Match
from milkwort.core.words.texts import MAX_TEXT
from milkwort.formats.pasted_negatives import MOST_LINES

__all__ = [
    "AddNegatives",
    "NegativesRead",
    "NegativesText",
    "NegativesView",
    "PastedNegatives",
    "WhereNegative",
]


class Works(Given):
    """What a negative does: money and customers a month."""

    stops: int = Field(description="keywords of the sheet")
    texts: list[str] = Field(description="some of them")
    terms: int = Field(description="search terms of the past")
    saves: float = Field(description="money a month, at least")
    hurts: list[str] = Field(description="some of the kept keywords among them")
    hurt: int = Field(description="kept keywords among them")
    sold: list[str] = Field(description="some of the terms that have sold")
    customers: float = Field(description="customers a month lost with the kept ones")
    spend: float


class NegativeLine(Works):
    """One negative of the plan."""

    id: int
    text: str
    match: Match
    level: Literal["plan", "campaign", "group"]
    where: str = Field(description="its campaign or group; empty for the whole plan")
    by: str
    at: str
    note: str


class BlockNextLine(Given):
    """A negative that would save money and stop nothing wanted."""

    text: str
    match: Match
    saves: float = Field(description="money a month, at least")
    source: Literal["dropped", "warning", "past"]
    stops: int = Field(description="keywords of the sheet")
    uncalled: int = Field(description="those of them that are not yet called")
    texts: list[str] = Field(description="some of what money goes to")


class NegativesView(Given):
    """The plan's negatives and what to block next, the most money saved first."""

    revision: int
    negatives: list[NegativeLine]
    to_block: list[BlockNextLine]
    saves: float = Field(description="money a month that all of it would save together")


class Form(Given):
    """A text and how it matches."""

    text: str
    match: Match


class ReadLine(Works):
    """One pasted line: what it would do, or why it is none."""

    line: int
    text: str
    match: Match
    refused: str
    campaign_id: int | None = Field(description="where it acts; with no group either, everywhere")
    group_id: int | None
    where: str
    firm: bool = Field(description="a firm’s name that is also a word of kept keywords")
    narrower: Form | None = Field(description="what of it would stop nothing wanted")


class NegativesRead(Given):
    """Pasted negatives before they are added."""

    revision: int
    lines: list[ReadLine]


class NegativesText(Given):
    """Negatives as lines that can be pasted."""

    text: str


class WhereNegative(Taken):
    """Where negatives act: in a campaign, in a group, or with neither in the whole plan."""

    campaign_id: int | None = None
    group_id: int | None = None


class PastedNegatives(WhereNegative):
    """Lines, one negative each."""

    text: str = Field(max_length=20_000_000)
    match: Match = "phrase"


class NewNegative(Taken):
    """A negative to be added."""

    text: str = Field(min_length=1, max_length=MAX_TEXT)
    match: Match = "phrase"


class PlacedNegative(NewNegative, WhereNegative):
    """A negative with where it acts, if that is not where the others do."""


class AddNegatives(WhereNegative):
    """Negatives to be added, and why where they stop something wanted."""

    items: list[PlacedNegative] = Field(min_length=1, max_length=MOST_LINES)
    note: str = Field(default="", max_length=2000)
    by: Literal["hand", "advice"] = "hand"
