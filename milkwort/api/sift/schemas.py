"""What Sift takes and gives, beside the shapes all screens share."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import BriefChange, Numbers, Taken
from milkwort.api.plan.summary_schemas import Purse
from milkwort.core.words.match_types import Match
from milkwort.formats.plan_values import HouseRuleValues, ReportStyleValues, SavedFilterValues

__all__ = [
    "Blocking",
    "BlockingWorth",
    "KeywordEdit",
    "LineChange",
    "OwnChange",
    "RulePreview",
    "RuleWorkItem",
    "Selection",
    "WhatIf",
    "WhatIfAnswer",
    "WordKindChange",
    "WordsView",
]  # fmt: skip

Ids = list[int]


class Selection(Taken):
    """Some keywords by id."""

    ids: Ids = Field(min_length=1, max_length=200_000)


class KeywordEdit(Taken):
    """What is set for some keywords; what is left out stays. Searches a month, money a click."""

    ids: Ids = Field(min_length=1, max_length=200_000)
    match: Match | None = None
    duplicate_as: Match | None = None
    offer: str | None = Field(default=None, max_length=200)
    intent: Literal["buy", "compare", "learn", "firm", "job", "unknown"] | None = None
    group: str | None = Field(default=None, max_length=120)
    note: str | None = Field(default=None, max_length=2000)
    volume: float | None = Field(default=None, ge=0, le=1e12)
    cpc_low: float | None = Field(default=None, ge=0, le=1e9)
    cpc_high: float | None = Field(default=None, ge=0, le=1e9)


class WordsView(Given):
    """Words and two-word runs of the sheet, by column; warning words first.

    The keywords of run i are ``ids[starts[i]:starts[i + 1]]``. Searches and customers a
    month, prices money a click.
    """

    revision: int
    word: list[str]
    kind: list[str]
    keywords: list[int]
    kept: list[int]
    called: list[int]
    searches: Numbers
    price_low: Numbers
    price_high: Numbers
    customers: Numbers
    starts: list[int]
    ids: list[int]


class WordKindChange(Taken):
    """What a word is; null takes back what was said."""

    word: str = Field(min_length=1, max_length=200)
    kind: Literal["place", "where", "rival", "own", "helper", "warning", "what"] | None


class Blocking(Taken):
    """A negative to be, and whether the keywords it stops are called block.

    It acts in a group or in a campaign where one is named, else in the whole plan.
    """

    text: str = Field(min_length=1, max_length=1000)
    match: Match = "phrase"
    campaign_id: int | None = None
    group_id: int | None = None
    reason: str = Field(default="", max_length=500)
    over: bool = False


class BlockingWorth(Given):
    """What a negative would change a month, at least."""

    stops: int
    uncalled: int
    called: int
    hurts: list[str]
    sold: list[str]
    everyday: bool
    spill_saved: float
    spend_freed: float
    customers_gained: float
    profit_gained: float


class RuleWorkItem(Given):
    """What one house rule would do."""

    ids: Ids
    by_hand: int
    texts: list[str]
    words: list[str]


class RulePreview(Given):
    """What the house rules would do, in their order."""

    revision: int
    rules: list[RuleWorkItem]


class OwnChange(Taken):
    """Some of the plan's own ways; what is left out stays."""

    quick_reasons: list[str] | None = Field(default=None, max_length=50)
    saved_filters: list[SavedFilterValues] | None = Field(default=None, max_length=200)
    house_rules: list[HouseRuleValues] | None = Field(default=None, max_length=100)
    report_style: ReportStyleValues | None = None


LineOrder = Literal["headroom", "price"]
"""Of headroom the rule behind the ceilings is changed, of price the highest price."""


class WhatIf(Taken):
    """Something to be tried without being kept: assumptions, fields of the brief, the line."""

    assumptions: dict[str, float | None] = Field(default_factory=dict)
    brief: BriefChange | None = None
    line: int | None = None
    by: LineOrder = "headroom"


class WhatIfAnswer(Given):
    """What the purse would be, and how the brief's rule would read."""

    purse: Purse
    ceiling_rule: str
    ceiling_value: float | None
    max_cpc: float | None
    beyond: int


class LineChange(Taken):
    """The keyword that is to be the last above the line, in order of headroom or of price."""

    id: int
    by: LineOrder = "headroom"


class NeighboursView(Given):
    """Ids of the keywords nearest to one, the nearest first."""

    meaning: list[int]
    price: list[int]
