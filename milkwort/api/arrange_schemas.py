"""What Arrange takes and gives."""

from __future__ import annotations

from pydantic import BaseModel, Field

from milkwort.api.schemas import Numbers, Taken
from milkwort.core.structures import StructureName

__all__ = [
    "ArrangeView",
    "ConflictItem",
    "GroupColumns",
    "GroupEdit",
    "KeywordMove",
    "SharedWord",
    "StructureChoice",
    "StructureItem",
]


class SharedWord(BaseModel):
    """A word of a group, and how many of its keywords hold it."""

    word: str
    keywords: int


class GroupColumns(BaseModel):
    """Ad groups, columns of one length; searches, clicks, money and customers a month."""

    id: list[int]
    name: list[str]
    campaign: list[str]
    page: list[str]
    keywords: list[int]
    kept: list[int]
    running: list[int]
    searches: Numbers
    clicks: Numbers
    spend: Numbers
    customers: Numbers
    words: list[list[SharedWord]]


class ConflictItem(BaseModel):
    """One conflict: its kind in words, and what it touches a month."""

    kind: str
    says: str
    negative: str
    count: int
    ids: list[int]
    texts: list[str]
    searches: float
    customers: float
    spend: float
    terms: list[str]


class ArrangeView(BaseModel):
    """How a plan's keywords are arranged."""

    revision: int
    groups: GroupColumns
    alone: int
    conflicts: list[ConflictItem]


class StructureItem(BaseModel):
    """What a ready structure would make of the kept keywords."""

    kind: StructureName
    says: str
    campaigns: list[str]
    groups: int
    moves: int
    adds: int


class StructureChoice(Taken):
    """Which ready structure to take."""

    kind: StructureName


class GroupEdit(Taken):
    """What is set of a group; what is left out stays."""

    name: str | None = Field(default=None, max_length=400)
    page: str | None = Field(default=None, max_length=4000)


class KeywordMove(Taken):
    """Keywords and the group they go to, by name; made in that campaign where there is none."""

    ids: list[int] = Field(min_length=1, max_length=200_000)
    group: str = Field(min_length=1, max_length=120)
    campaign: str = Field(default="", max_length=120)
