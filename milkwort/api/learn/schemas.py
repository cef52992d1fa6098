"""What Learn takes and gives."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.learn.month_schemas import LearnMonth, Unmatched
from milkwort.api.plan.schemas import IsoDay, Taken
from milkwort.api.plan.summary_schemas import Summary
from milkwort.core.learn.hardly_shown import Why

__all__ = [
    "AsideRequest", "BidActs", "CloseRequest", "Closed", "HandCount", "ImportForce", "ImportItem",
    "KeywordActs", "LearnView", "LookedOver", "Reopened", "ResultsTaken", "TermActs",
]  # fmt: skip

Verdict = Literal["stop", "wait", "raise", "no_prior"]
Suggestion = Literal["block_family", "block_text", "own_keyword", "spot", "wait"]


class ImportItem(Given):
    """One file of results, or one taking over from the practice market."""

    id: int
    at: str
    source: str
    level: str
    since: str
    until: str
    as_of: str
    rows: int
    in_force: bool


class RefusedItem(Given):
    """A row of a file that could not be read."""

    row: int
    column: str
    value: str
    why: str


class ResultsTaken(Given):
    """What came of bringing results in."""

    taken: int
    same: bool = Field(description="just this was there already: nothing was changed")
    level: str
    refused: list[RefusedItem]
    notices: list[str] = Field(description="whose file it seems to be, and what it changes")
    summary: Summary


class ResultHeadings(Given):
    """A file of results before it is read: its headings, and which column holds what."""

    headings: list[str]
    columns: dict[str, int] = Field(description="by field; as they were assigned, or guessed")
    fields: dict[str, str] = Field(description="what a column of results may hold, by field")
    since: date | None = Field(description="first day it is about, where a line above says it")
    until: date | None = Field(description="last day")


class ImportForce(Taken):
    """Whether an import counts."""

    in_force: bool


class Hardly(Given):
    """Why a keyword is hardly shown."""

    expected: float
    seen: float
    why: Why
    next_bid: float | None = Field(description="the least that is shown for half its searches")
    pays: bool = Field(description="whether that is under its ceiling")


class LearnKeyword(Given):
    """One keyword by its results; money in the plan's currency."""

    id: int
    keyword: str
    match: str
    group: str
    call: str
    clicks: float
    exposure: float
    customers: float
    enquiries: float | None = Field(description="where it is judged on them, not on customers")
    spend: float
    cpc: float | None
    rate: float
    prior_rate: float
    needed_rate: float | None = Field(description="customers a click that meet the rule")
    missing: float | None
    losing: float | None
    verdict: Verdict
    clicks_needed: float | None
    rule_cuts: bool
    false_cut: float
    searches: float
    click_rate: float
    price: float
    worth_testing: float
    testing_pays: bool
    click_rate_low: bool = Field(description="judged, and so few clicks seldom come by chance")
    clicked: float | None = Field(description="clicks over those to be expected of the showings")
    hardly: Hardly | None
    listed_well: bool = Field(description="far up for nothing, and no paid rank is known")
    rivals_came: list[str] = Field(description="who pays for it since the list of rivals before")
    rivals_gone: list[str]


class LearnGroup(Given):
    """One ad group by its results."""

    group: str
    exposure: float
    customers: float = Field(description="or enquiries, where they are what is judged on")
    spend: float
    factor: float
    missing: float | None
    verdict: Verdict


class LearnTerm(Given):
    """One term that people typed."""

    term: str
    keyword: str
    match: str
    impressions: float
    clicks: float
    cost: float
    customers: float
    exposure: float
    rate: float
    missing: float | None
    suggestion: Suggestion
    ground: str
    form: str | None
    form_match: str | None
    bid: float | None
    group: str | None
    clicks_needed: float | None
    decided: bool = Field(description="it is blocked, a keyword of its own, or has a spot")
    item: bool = Field(description="the code of a thing, and no words")
    thing: str = Field(description="what that thing is called; empty where nobody said")


class LearnDay(Given):
    """One day: what came, and what was to be expected of it."""

    day: str
    cost: float
    clicks: float
    customers: float
    planned_cost: float
    planned_clicks: float
    planned_customers: float


AskedKind = Literal[
    "block", "own_keyword", "spot", "stop", "raise", "hardly", "close", "refused", "review"
]


class Waiting(Given):
    """One decision that waits, and the money about it."""

    kind: AskedKind
    key: str = Field(description="the term, the keyword’s id, the month, the sending or the look")
    name: str
    says: str
    money: float
    suggestion: str
    bid: float | None = Field(description="that would be shown, for a keyword that is hardly shown")


class LearnView(Given):
    """What results teach about a plan."""

    revision: int
    imports: list[ImportItem]
    since: str | None
    until: str | None
    as_of: str | None
    days: list[LearnDay]
    customers: dict[str, float] = Field(description="of all days that are seen")
    spend: dict[str, float]
    late: float
    keywords: list[LearnKeyword]
    groups: list[LearnGroup]
    terms: list[LearnTerm]
    corrections: dict[str, float] = Field(
        description="factors of the whole plan over its uncorrected inputs, by input"
    )
    held: dict[str, float] = Field(description="of these, what the plan’s figures hold already")
    evidence_since: str | None = Field(description="the first day that evidence rests on")
    searches_known: bool
    on_enquiries: bool
    stop_chance: float = Field(description="chance of missing the rule from which to stop")
    raise_chance: float = Field(description="and up to which to raise")
    waiting: list[Waiting]
    aside: list[Waiting] = Field(description="what was set aside and is still suggested")
    unmatched: list[Unmatched]
    unmatched_rows: int
    has_practice: bool
    month: LearnMonth | None
    closed_as: int | None = Field(description="the version that goes on from this closed month")
    next_label: str | None
    notices: list[str] = Field(description="gaps, and sums of levels that don’t match")


class TermActs(Taken):
    """Terms to be decided as suggested, or otherwise."""

    terms: Annotated[list[str], Field(min_length=1, max_length=10_000)]
    act: Literal["suggested", "block_text", "own_keyword"] = "suggested"


class ItemActs(Taken):
    """Item codes that get a spot of their own, or a lower price."""

    terms: Annotated[list[str], Field(min_length=1, max_length=1_000)]


class KeywordActs(Taken):
    """Keywords to be stopped: they are dropped, with the reason."""

    ids: Annotated[list[int], Field(min_length=1, max_length=100_000)]


class CloseRequest(Taken):
    """What the next month takes over."""

    label: Annotated[str, Field(max_length=120)] = ""
    figures: bool = Field(default=True, description="corrected searches, prices and rates")
    stops: bool = Field(default=True, description="keywords that evidence stops are dropped")
    terms: bool = Field(default=True, description="suggestions about terms are taken")
    ranges: bool = Field(default=True, description="low and high rates stand nearer the likely")


class Closed(Given):
    """The version that the next month begins with."""

    id: int
    label: str
    corrected: int
    stopped: int
    blocked: int
    added: int


class AsideItem(Taken):
    """One line of the queue."""

    kind: AskedKind
    key: Annotated[str, Field(max_length=400)]
    suggestion: Annotated[str, Field(max_length=40)]


class AsideRequest(Taken):
    """Lines of the queue to be set aside: for good, until later results, or brought back."""

    items: Annotated[list[AsideItem], Field(min_length=1, max_length=10_000)]
    until: Literal["turned", "later", "now"] = "turned"


class BidActs(Taken):
    """Hardly shown keywords that get the bid that is shown."""

    ids: Annotated[list[int], Field(min_length=1, max_length=10_000)]


class Decisions(Taken):
    """What was decided about what waits, by kind: done as one change."""

    terms: TermActs | None = None
    items: ItemActs | None = None
    keywords: KeywordActs | None = None
    bids: BidActs | None = None
    aside: AsideRequest | None = None


class HandCount(Taken):
    """Customers that somebody counted."""

    campaign: Annotated[str, Field(max_length=400)] = Field(default="", description="empty for all")
    since: IsoDay
    until: IsoDay
    customers: Annotated[float, Field(ge=0, le=1_000_000)]
    value: Annotated[float, Field(ge=0, le=1e12)] | None = Field(
        default=None, description="money they bought for"
    )


class SiteCount(Taken):
    """What the whole site saw, ads or not."""

    since: IsoDay
    until: IsoDay
    visits: Annotated[float, Field(ge=0, le=1e9)] | None = None
    unpaid: Annotated[float, Field(ge=0, le=1_000_000)] | None = Field(
        default=None, description="customers who came without an ad"
    )


class Reopened(Given):
    """What became of the next month when a closed one was opened again."""

    removed: bool = Field(description="the next month went: nothing was done in it")
    id: int
    label: str


class FindingItem(Given):
    """One thing that stands out in a running account."""

    code: str
    text: str
    stage: str = Field(description="where it is mended")
    money: float | None = Field(description="that went there; null where it is no sum of money")
    names: list[str]


class LookedOver(Given):
    """What stands out: most money first, then last checks in order of harm."""

    revision: int
    found: list[FindingItem]
