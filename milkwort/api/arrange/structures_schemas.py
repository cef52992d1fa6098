"""What ready structures take and give."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import Taken
from milkwort.core.arrange.proposals import Lower
from milkwort.core.arrange.structures import StructureName

__all__ = [
    "StructureAsked", "StructureChoice", "StructureFit", "StructureItem", "StructureLimits",
    "StructuresView",
]  # fmt: skip


class StructureAsked(Taken):
    """How large groups may be, and whose keywords are arranged: all that aren't locked."""

    most: int | None = Field(default=None, ge=1, le=100_000)
    group_ids: Annotated[list[int], Field(max_length=100_000)] = Field(default=[])


class StructureChoice(StructureAsked):
    """Which ready structure, and which of an exact keyword and its phrase twin bids lower."""

    kind: StructureName
    lower: Lower = "neither"
    by: float = Field(default=0.0, ge=0, lt=1)


class StructureItem(Given):
    """What a ready structure would make of the kept keywords."""

    kind: StructureName
    says: str
    campaigns: list[str]
    groups: int
    moves: int
    adds: int
    largest: int


class StructureLimits(Given):
    """How large groups may be here, and at the platform."""

    most: int
    keywords_per_group: int
    platform: str


class StructureFit(Given):
    """What a plan brings, arranged so: a month, and for the same money."""

    revision: int
    customers: float
    spend: float
    clicks: float
    running: int
    groups: int
    to_write: int = Field(description="groups without an ad")
    bids_set: int


class StructuresView(Given):
    """The ready structures beside the plan as it is."""

    revision: int
    items: list[StructureItem]
    limits: StructureLimits
    now: StructureFit
