"""What the further sources of Gather take and give."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from milkwort.api.gather.tray_schemas import RefusedRow
from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import Taken
from milkwort.core.words.match_types import Match

__all__ = [
    "AlmanacQuestion",
    "Category",
    "Completions",
    "CrossingAnswer",
    "CrossingPart",
    "CrossingQuestion",
    "JobStopped",
    "KeywordTexts",
    "NegativeIds",
    "NegativeItem",
    "NegativesTaken",
    "PageQuestion",
    "PageWordItem",
    "PlaceItem",
    "PlaceSwap",
    "RecipeItem",
    "RecipeTaken",
    "RivalAds",
    "RivalChange",
    "RivalKeywords",
    "RivalTotals",
    "RivalsShared",
    "RivalsView",
    "SightingColumns",
    "StarterAnswer",
    "StarterQuestion",
    "TakeChoice",
]


Verdict = Literal["take", "keep", "mean"]


class TakeChoice(Taken):
    """What becomes of rows that are not simply new.

    Near-duplicates are left, taken in, or merged: their figures stand beside those of the
    keyword they are alike. New figures are taken into use, kept beside, or averaged with the
    old: all alike, and by row where `verdicts` says so.
    """

    near: Literal["leave", "take", "merge"] = "leave"
    caught: bool = False
    changed: Verdict = "take"
    verdicts: dict[int, Verdict] = Field(default={}, max_length=200_000)


class JobStopped(Given):
    """Whether there was anything under way to stop."""

    stopped: bool


class CrossingPart(Taken):
    """One list of words of a crossing."""

    words: list[str] = Field(max_length=2000)
    on: bool = True
    optional: bool = False


class CrossingQuestion(Taken):
    """Lists to cross, in the order they stand in a keyword."""

    parts: list[CrossingPart] = Field(min_length=1, max_length=6)
    any_order: bool = False


class CrossingAnswer(Given):
    """What a crossing would make."""

    count: int
    doubles: int
    known: int
    preview: list[str]


class RecipeTaken(Taken):
    """A crossing to be saved."""

    name: str = Field(min_length=1, max_length=80)
    parts: list[CrossingPart] = Field(min_length=1, max_length=6)


class RecipeItem(Given):
    """A crossing that was saved."""

    id: int
    name: str
    parts: list[CrossingPart]


class AlmanacQuestion(Taken):
    """Root words for the simulated source; `only_these` asks for their own figures alone."""

    roots: list[str] = Field(min_length=1, max_length=500)
    page: int = Field(default=0, ge=0, le=1000)
    near_only: bool = False
    only_these: bool = False


class Category(Given):
    """A trade the almanac knows, with the words it is asked by."""

    name: str
    roots: list[str]


class Completions(Given):
    """What people type after some words."""

    texts: list[str]


class PageQuestion(Taken):
    """A page's HTML or text."""

    content: str


class PageWordItem(Given):
    """A run of words of a page."""

    text: str
    count: int
    weight: float


class PlaceItem(Given):
    """A place that is not the plan's, and how many keywords name it."""

    name: str
    keywords: int


class PlaceSwap(Taken):
    """Other places, and the own place to stand in their stead."""

    others: list[str] = Field(min_length=1, max_length=500)
    own: str = Field(default="", max_length=120)


class NegativeItem(Given):
    """A negative keyword, by whom and when it was made."""

    id: int
    text: str
    match: Match
    level: str
    campaign_id: int | None
    group_id: int | None
    by: str
    at: str


class NegativesTaken(Taken):
    """Words never wanted."""

    texts: list[str] = Field(min_length=1, max_length=5000)
    match: Match = "phrase"


class NegativeIds(Taken):
    """Some negatives."""

    ids: list[int] = Field(min_length=1, max_length=20_000)


class SightingColumns(Given):
    """Keywords, ads or rivals as they were seen, a place for each; money and clicks a month."""

    name: list[str]
    rivals: list[list[int]] = Field(description="places in the view’s rivals")
    days: list[int | None]
    running: list[bool]
    months: list[list[int]] = Field(description="places in the view’s months")
    position: list[float | None]
    clicks: list[float | None]
    monthly_cost: list[float | None]
    clicks_share: list[float | None] = Field(description="of all clicks of these rivals")
    ads: list[list[str]]
    pages: list[list[str]]


class RivalKeywords(SightingColumns):
    """What rivals pay for: what only they buy by what it would bring, then what both buy."""

    ours: list[bool]
    would_bring: list[float | None]
    unknown_why: str = Field(description="why nothing would be known to come of any; else empty")


class RivalAds(SightingColumns):
    """Rivals' ads, with the keywords each is shown for."""

    keywords: list[list[str]]


class RivalTotals(SightingColumns):
    """Each rival in sum, in keywords."""

    keywords: list[int]
    shared: list[int]
    alone: list[int]
    running_keywords: list[int]


class RivalsShared(Given):
    """Keywords that any two both buy: this plan's kept ones first, then the largest rivals."""

    rivals: list[str]
    counts: list[list[int]]


class RivalChange(Given):
    """What a rival began and gave up since the list before."""

    rival: str
    new: list[str]
    given_up: list[str]


class RivalsView(Given):
    """Rivals' keywords against the plan."""

    name: str
    at: str
    rivals: list[str]
    of: str | None = Field(description="the one rival that keywords and ads are of")
    months: list[str] = Field(description="such as 2026-05, without gaps")
    both: int
    only_they: int
    only_we: int
    keywords: RivalKeywords
    ads: RivalAds
    totals: RivalTotals
    shared: RivalsShared
    changes: list[RivalChange]
    refused: list[RefusedRow]


class KeywordTexts(Taken):
    """Some keywords by text."""

    texts: list[str] = Field(min_length=1, max_length=20_000)


class StarterQuestion(Taken):
    """How many keywords to start with."""

    most: int = Field(default=30, ge=1, le=1000)


class StarterAnswer(Given):
    """Keywords to start with, what brings most first; customers and money a month."""

    ids: list[int]
    texts: list[str]
    customers: list[float]
    spend: list[float]
    total_customers: float
    total_spend: float
    bound: float
