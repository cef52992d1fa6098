"""What the ads of Arrange take and give."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import Taken
from milkwort.core.arrange.ads.checks import FaultKind
from milkwort.core.arrange.ads.says import LineKind

__all__ = [
    "AdCopy",
    "AdDraft",
    "AdFields",
    "AdFileRow",
    "AdIds",
    "AdItem",
    "AdLook",
    "AdsBrought",
    "AdsDrafted",
    "AdsFile",
    "AdsView",
    "ReplacedItem",
    "Replacement",
    "ReplacementView",
]  # fmt: skip

_Text = Annotated[str, Field(max_length=1000)]
_Fields = Annotated[list[_Text], Field(max_length=50)]
_Ids = Annotated[list[int], Field(max_length=100_000)]


class AdLimits(Given):
    """What the platform takes of an ad."""

    platform: str
    written_ads: bool
    headlines: int
    descriptions: int
    headline_characters: int
    description_characters: int
    ads_per_group: int


class AdFaultItem(Given):
    """One thing wrong with an ad; `must` where a platform would refuse it."""

    kind: FaultKind
    field: str
    says: str
    must: bool


class AdLineItem(Given):
    """One thing an ad says or doesn't, and what would answer it."""

    kind: LineKind
    said: bool
    says: str
    mend: str


class FieldItem(Given):
    """A field of an ad as it will appear, and its code points at the longest."""

    name: str
    shown: str
    characters: int
    most: int


class AdLook(Given):
    """How an ad reads, what is wrong with it, and what it says."""

    headlines: list[FieldItem]
    descriptions: list[FieldItem]
    faults: list[AdFaultItem]
    lines: list[AdLineItem]


class AdItem(AdLook):
    """An ad as it is written, beside how it reads."""

    id: int
    key: str
    group_id: int
    written_headlines: list[str]
    written_descriptions: list[str]


class AdsView(Given):
    """All ads of a plan, and the groups with kept keywords that have none."""

    revision: int
    limits: AdLimits
    ads: list[AdItem]
    without: list[int]


class AdFields(Taken):
    """An ad as it is written."""

    headlines: _Fields
    descriptions: _Fields


class AdDraft(AdFields):
    """An ad of a group, not yet kept; beside the ads of the group but the one named."""

    group_id: int
    ad_id: int | None = None


class AdIds(Taken):
    """Some ads."""

    ids: Annotated[list[int], Field(min_length=1, max_length=100_000)]


class AdsDrafted(Taken):
    """Groups that get a first draft; those without an ad where none is named."""

    group_ids: _Ids = Field(default=[])


class AdCopy(Taken):
    """An ad, and the groups that get it with the words exchanged."""

    ad_id: int
    group_ids: Annotated[list[int], Field(min_length=1, max_length=10_000)]


class Replacement(Taken):
    """What is searched in all fields of all ads, and what takes its place."""

    search: str = Field(min_length=1, max_length=200)
    by: str = Field(default="", max_length=200)


class ReplacedItem(Given):
    """A field that would be another."""

    ad_id: int
    group: str
    field: str
    before: str
    after: str


class ReplacementView(Given):
    """What a replacement would change."""

    revision: int
    fields: list[ReplacedItem]
    ads: int


class AdFileRow(Taken):
    """A row of a file: what would become of it; `refused` says why it is left out."""

    row: int
    ad_id: int | None = None
    group_id: int | None = None
    group: str = Field(default="", max_length=900)
    headlines: _Fields = Field(default=[])
    descriptions: _Fields = Field(default=[])
    refused: str = Field(default="", max_length=2000)
    same: bool = False


class AdsFile(Given):
    """The ads of a file before they are taken in."""

    revision: int
    name: str
    rows: list[AdFileRow]


class AdsBrought(Taken):
    """Rows of a file that are taken in."""

    rows: Annotated[list[AdFileRow], Field(min_length=1, max_length=100_000)]
