"""The shape of RESULT.json, published as a JSON Schema beside this file.

``python -m milkwort.formats.result_schema`` writes it anew.
"""

from __future__ import annotations

import json
from pathlib import Path
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

__all__ = ["SCHEMA_FILE", "ResultDocument", "schema_text"]

SCHEMA_FILE = Path(__file__).with_name("plan_result.schema.json")
MatchName = Literal["exact", "phrase", "broad"]


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class Totals(_Part):
    """Sums over what runs, a month; money in the plan's currency."""

    searches: float
    impressions: float
    clicks: float
    spend: float
    customers: float
    revenue: float
    profit: float
    cost_per_customer: float | None = Field(description="None where nobody is expected to buy.")


class FrontierPoint(_Part):
    """The best goal for a purse, a month."""

    purse: float = Field(description="Money there would be.")
    spend: float = Field(description="Money the best bids would spend of it.")
    value: float
    gap: float = Field(description="How far under the best the value may lie, as a share.")


class AttentionPoint(_Part):
    """The best goal with at most so many keywords."""

    keywords: int
    value: float
    gap: float = Field(description="How far under the best the value may lie, as a share.")


class UnmetLimit(_Part):
    """A limit that could not be kept."""

    limit: Literal["max_keywords", "least_spend", "most_spend", "scouting_share"]
    campaign: str = Field(description="Empty where it is of the whole plan.")
    wanted: float = Field(description="Keywords, or money a month.")
    got: float


class CampaignMoney(_Part):
    """A campaign's money."""

    campaign: str
    spend: float = Field(description="Expected, a month.")
    daily_budget: float = Field(description="Money a day, in whole cents.")
    clicks_lost: float = Field(description="Clicks a month that busy days lose to the budget.")


class Group(_Part):
    """An ad group; figures of its kept keywords, a month."""

    group: str
    campaign: str
    keywords: int
    kept: int
    running: int
    words: list[str] = Field(description="Main words, in the singular, the most clicked first.")
    likeness: float | None = Field(
        description="How alike its kept keywords are, 0 to 1; null for none."
    )
    searches: float
    clicks: float
    spend: float
    customers: float


class SpotMoney(_Part):
    """A place to be shown that has no keyword; figures a month."""

    spot: str
    campaign: str
    pays: Literal["showings", "click"]
    price: float = Field(description="Money a thousand showings, or a click.")
    click_price: float = Field(description="Money a click.")
    showings: float = Field(description="0 where clicks are paid.")
    clicks: float
    customers: float
    spend: float
    revenue: float
    profit: float


class BlockNext(_Part):
    """A negative that would save money and stop nothing wanted."""

    text: str
    match: MatchName
    saves: float = Field(description="Money a month, at least.")


class LadderStep(_Part):
    """One step the money could take; the steps come best first."""

    keyword: str = Field(description="Empty where a spot takes the step.")
    match: MatchName | Literal[""]
    spot: str = Field(description="Empty where a keyword takes the step.")
    from_bid: float | None = Field(description="Money a click; null for not running.")
    to_bid: float | None = Field(description="Money a click; null for a spot, which has no bid.")
    spend: float = Field(description="What the step costs more, a month.")
    value: float = Field(description="What the step brings more of the goal, a month.")
    spend_so_far: float
    value_so_far: float


class Expected(_Part):
    """What a month brings; 0 where the keyword doesn't run."""

    impressions: float
    clicks: float
    spend: float
    customers: float
    revenue: float
    profit: float


class Keyword(_Part):
    """One keyword of the sheet."""

    keyword: str
    match: MatchName
    intent: Literal["buy", "compare", "learn", "firm", "job", "unknown"]
    call: Literal["none", "keep", "hold", "drop", "block"]
    standing: Literal["in_reach", "stretch", "beyond", "unknown"]
    own_searches: float = Field(description="Searches a month for its own text.")
    searches: float = Field(description="Searches a month it is shown for.")
    spill: float = Field(description="Of these, searches the planner dropped.")
    rate: float = Field(description="Effective customers per click.")
    ceiling: float = Field(description="Money a click.")
    reach_at_ceiling: float | None = Field(description="Null where no price is known.")
    bid: float | None = Field(description="Money a click; null where it doesn't run.")
    expected: Expected
    notes: list[str]


class Conflict(_Part):
    """Two things in the plan that work against each other."""

    kind: Literal[
        "negative_stops_kept", "negative_word_in_kept", "same_keyword_twice",
        "one_search_two_bids", "negative_stops_sold",
    ]  # fmt: skip
    keywords: list[str]
    negative: str = Field(description="The negative keyword; empty where none is at fault.")
    searches: float = Field(description="Searches a month that are lost or shared.")
    customers: float = Field(description="Customers a month that are lost, at least.")
    spend: float = Field(description="Money a month that would have brought them.")


class RefusedRow(_Part):
    """A row of the file that was left out; the heading is row 1."""

    row: int
    column: str
    value: str
    why: str


class ResultDocument(_Part):
    """The result of a headless run."""

    plan: str
    currency: str
    totals: Totals
    goal: Literal["customers", "profit", "clicks", "revenue"]
    value: float = Field(description="The goal that the bids reach, a month.")
    bound: float = Field(description="No bids bring more.")
    exact: bool = Field(description="Whether the value is known to be the best there is.")
    next_unit: float = Field(description="Goal that one more unit of money would bring.")
    unspent: float = Field(description="Money that no step worth its price could use.")
    frontier: list[FrontierPoint]
    attention: list[AttentionPoint]
    unmet: list[UnmetLimit]
    campaigns: list[CampaignMoney]
    groups: list[Group]
    spots: list[SpotMoney]
    ladder: list[LadderStep]
    keywords: list[Keyword]
    to_block: list[BlockNext]
    conflicts: list[Conflict]
    refused: list[RefusedRow]
    notices: list[str]


def schema_text() -> str:
    """Return the JSON Schema with sorted keys."""
    schema = ResultDocument.model_json_schema()
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    return json.dumps(schema, indent=2, sort_keys=True, ensure_ascii=False) + "\n"


if __name__ == "__main__":
    SCHEMA_FILE.write_text(schema_text(), encoding="utf-8")
