"""What Learn takes and gives."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import Taken
from milkwort.api.plan.summary_schemas import Summary

__all__ = [
    "AsideRequest", "BidActs", "CloseRequest", "Closed", "HandCount", "ImportForce", "ImportItem",
    "KeywordActs", "LearnView", "LookedOver", "OurWord", "Reopened", "ResultsTaken", "TermActs",
]  # fmt: skip

Verdict = Literal["stop", "wait", "raise", "no_prior"]
Suggestion = Literal["block_family", "block_text", "own_keyword", "wait"]


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


class ImportForce(Taken):
    """Whether an import counts."""

    in_force: bool


class Hardly(Given):
    """Why a keyword is hardly shown."""

    expected: float
    seen: float
    why: Literal["negative", "money", "few_searches", "bid"]
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
    decided: bool = Field(description="it is blocked, or a keyword of its own")


class LearnDay(Given):
    """One day: what came, and what was to be expected of it."""

    day: str
    cost: float
    clicks: float
    customers: float
    planned_cost: float
    planned_clicks: float
    planned_customers: float


AskedKind = Literal["block", "own_keyword", "stop", "raise", "hardly", "close", "refused", "review"]


class Waiting(Given):
    """One decision that waits, and the money about it."""

    kind: AskedKind
    key: str = Field(description="the term, the keyword's id, the month, the sending or the look")
    name: str
    says: str
    money: float
    suggestion: str
    bid: float | None = Field(description="that would be shown, for a keyword that is hardly shown")


class Pace(Given):
    """How fast the month's money goes."""

    spent: float
    purse: float
    by_now: float = Field(description="money that the purse holds for the days that have gone")
    at_end: float = Field(description="money spent by the month's end if it goes on like this")
    left: float
    out: str | None = Field(description="day on which the money is gone")


class Moved(Given):
    """The last weeks against as many before; sums by figure, and cpc."""

    days: int
    until: str
    before: dict[str, float]
    now: dict[str, float]


class CampaignMonth(Given):
    """A campaign's month against its daily budget, and why it differs."""

    name: str
    daily: float
    spend: float
    customers: float
    days: int
    cut: int = Field(description="days on which its money was gone")
    lost: float | None = Field(description="share of its searches unshown for want of money")
    customer_parts: dict[str, float]
    spend_parts: dict[str, float]


class Steering(Given):
    """Customers of 30 days, and to within what share they are known, 8 times of 10."""

    customers: float
    within: float | None
    enough: bool


class LearnMonth(Given):
    """The newest month that is seen."""

    first: str
    last: str
    end: str
    customers: dict[str, float] = Field(description="planned, each part, and what was reported")
    spend: dict[str, float]
    late: float = Field(description="customers that are still expected to be reported")
    pace: Pace
    moved: Moved | None
    campaigns: list[CampaignMonth]
    invalid_clicks: float | None
    invalid_cost: float
    by_hand: float = Field(description="customers counted by hand, of all days that are seen")
    steering: Steering


class Unmatched(Given):
    """Rows that are no keyword of the plan, with the nearest that is."""

    keyword: str
    match: str
    clicks: float
    cost: float
    customers: float
    nearest: str | None


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
    held: dict[str, float] = Field(description="of these, what the plan's figures hold already")
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
    notices: list[str] = Field(description="gaps, and sums of levels that don't match")


class WordFigure(Given):
    """A range that was given, and what came; null is without bound."""

    figure: Literal["clicks", "spend", "customers", "cost_per_customer", "profit"]
    low: float | None
    middle: float | None
    high: float | None
    actual: float | None
    held: bool
    fewer: float = Field(description="share of draws with as little or less")
    more: float = Field(description="share of draws with as much or more")


class MonthWord(Given):
    """A month that is seen, whole or in part, and what was promised of those days."""

    first: str
    last: str
    version: str
    afterwards: bool = Field(description="the plan begins after it: its range is no promise")
    ended: bool
    figures: list[WordFigure]


class SoFarRange(Given):
    """8 draws of 10 at the end of a day."""

    low: float
    middle: float
    high: float


class SoFar(Given):
    """What the newest month promises by some of its days."""

    days: list[str]
    spend: list[SoFarRange]
    customers: list[SoFarRange]


class OurWord(Given):
    """Every range that was given for the months that are seen, the newest first."""

    revision: int
    months: list[MonthWord]
    so_far: SoFar | None
    purse: float = Field(description="money of the newest month")


class HistorySums(Given):
    """Of some keywords, in 30 days."""

    clicks: float
    spend: float
    customers: float


class HistoryChange(Given):
    """Keywords that were changed alike, before and after."""

    change: Literal["raised", "lowered", "stopped", "added", "same"]
    keywords: int
    before: HistorySums
    after: HistorySums


class HistoryMonth(Given):
    """A month that is seen, and what was changed for it; money of its days."""

    first: str
    last: str
    version: str = Field(description="that planned it; empty for the first one")
    purse: float
    running: int = Field(description="keywords that ran")
    negatives: int
    clicks: float
    spend: float
    customers: float
    changes: list[HistoryChange]


class History(Given):
    """The months so far, the newest first."""

    revision: int
    months: list[HistoryMonth]


class TermActs(Taken):
    """Terms to be decided as suggested, or otherwise."""

    terms: Annotated[list[str], Field(min_length=1, max_length=10_000)]
    act: Literal["suggested", "block_text", "own_keyword"] = "suggested"


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


class HandCount(Taken):
    """Customers that somebody counted."""

    campaign: Annotated[str, Field(max_length=400)] = Field(default="", description="empty for all")
    since: date
    until: date
    customers: Annotated[float, Field(ge=0, le=1_000_000)]


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
