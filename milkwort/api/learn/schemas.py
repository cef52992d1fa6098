"""What Learn takes and gives."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from milkwort.api.plan.schemas import Taken
from milkwort.api.plan.summary_schemas import Summary

__all__ = [
    "CloseRequest", "Closed", "ImportForce", "ImportItem", "KeywordActs", "LearnView",
    "ResultsTaken", "TermActs",
]  # fmt: skip

Verdict = Literal["stop", "wait", "raise", "no_prior"]
Suggestion = Literal["block_family", "block_text", "own_keyword", "wait"]


class ImportItem(BaseModel):
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


class RefusedItem(BaseModel):
    """A row of a file that could not be read."""

    row: int
    column: str
    value: str
    why: str


class ResultsTaken(BaseModel):
    """What came of bringing results in."""

    taken: int
    same: bool = Field(description="just this was there already: nothing was changed")
    level: str
    refused: list[RefusedItem]
    summary: Summary


class ImportForce(Taken):
    """Whether an import counts."""

    in_force: bool


class LearnKeyword(BaseModel):
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


class LearnGroup(BaseModel):
    """One ad group by its results."""

    group: str
    exposure: float
    customers: float = Field(description="or enquiries, where they are what is judged on")
    spend: float
    factor: float
    missing: float | None
    verdict: Verdict


class LearnTerm(BaseModel):
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


class LearnDay(BaseModel):
    """One day: what came, and what was to be expected of it."""

    day: str
    cost: float
    clicks: float
    customers: float
    planned_cost: float
    planned_clicks: float
    planned_customers: float


class Waiting(BaseModel):
    """One decision that waits, and the money about it."""

    kind: Literal["block", "own_keyword", "stop", "raise"]
    key: str = Field(description="the term, or the keyword's id")
    name: str
    says: str
    money: float


class LearnView(BaseModel):
    """What results teach about a plan."""

    revision: int
    imports: list[ImportItem]
    since: str | None
    until: str | None
    as_of: str | None
    days: list[LearnDay]
    customers: dict[str, float]
    spend: dict[str, float]
    late: float = Field(description="customers that are still expected to be reported")
    keywords: list[LearnKeyword]
    groups: list[LearnGroup]
    terms: list[LearnTerm]
    corrections: dict[str, float] = Field(description="factors of the whole plan, by input")
    searches_known: bool
    on_enquiries: bool
    stop_chance: float = Field(description="chance of missing the rule from which to stop")
    raise_chance: float = Field(description="and up to which to raise")
    waiting: list[Waiting]
    unmatched: int
    has_practice: bool


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


class Closed(BaseModel):
    """The version that the next month begins with."""

    id: int
    label: str
    corrected: int
    stopped: int
    blocked: int
    added: int
