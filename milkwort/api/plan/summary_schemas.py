"""What every screen is given: the brief, the trail, the purse, how sure it is."""

from __future__ import annotations

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.core.brief.fields import FIELDS
from milkwort.core.brief.kinds import Goal, PolicyName
from milkwort.formats.field_models import with_brief_fields
from milkwort.formats.plan_values import (
    SHAPES,
    HouseRuleValues,
    OfferValues,
    ReportStyleValues,
    SavedFilterValues,
)

__all__ = ["Ranges", "Summary"]


@with_brief_fields(FIELDS.values(), SHAPES, all_there=True)
class BriefValues(Given):
    """The brief by field: money in the plan's currency, shares from 0 to 1."""

    offer_name: str
    more_offers: list[OfferValues]


class Worth(Given):
    """The descent from sale to click; money, and customers per click."""

    sale_value: float
    kept: float
    contribution: float
    allowed: float
    rate_low: float
    rate: float
    rate_high: float
    break_even_cpc: float
    ceiling: float
    ceiling_low: float
    ceiling_high: float


class Backward(Given):
    """At a click price: one click in how many must buy."""

    price: float
    rule: float
    break_even: float
    expected: float | None
    meets_rule: bool
    breaks_even: bool


class Acting(Given):
    """What the screens say of the model's settings, as they are in this plan."""

    stretch: float = Field(description="share of searches that a keyword at the line can win")
    low_percentile: float = Field(description="share of clicks that the low price wins")
    high_percentile: float


class BriefBlock(Given):
    """The brief and what follows from it."""

    name: str
    label: str
    values: BriefValues
    not_entered: list[str]
    assumptions: dict[str, float]
    worth: Worth
    purse: float
    backward: list[Backward]
    shown_share: float
    reading_rule: str
    strange: list[str]
    acting: Acting


class Trail(Given):
    """The live result of each stage; money a month."""

    ceiling: float
    keywords: int
    kept: int
    to_call: int
    groups: int
    campaigns: int
    without_ad: int = Field(description="groups with kept keywords and no ad")
    spend: float
    purse: float
    hand_overs: int


class Segment(Given):
    """One part of the purse, money a month: an ad group, what is in none, or a spot."""

    id: int | None
    spot_id: int | None
    name: str
    spend: float


class Purse(Given):
    """What the plan does with the money, a month."""

    purse: float
    per_day: float
    spend: float
    clicks: float
    customers: float
    cost_per_customer: float | None
    profit: float
    revenue: float
    running: int
    goal: Goal
    next_unit: float
    next_return: float
    pace: float
    gap: float
    exact: bool
    policy: PolicyName
    saturated: bool
    segments: list[Segment]
    notices: list[str]


class RangeItem(Given):
    """The 10th, 50th and 90th percentile; null where nobody buys."""

    low: float | None
    middle: float | None
    high: float | None


class InputMove(Given):
    """A month with one input at its 10th and at its 90th percentile, the rest likely."""

    input: str
    customers_low: float
    customers_high: float
    profit_low: float
    profit_high: float


class Ranges(Given):
    """How wide the forecast is, for one revision; money and figures a month."""

    revision: int
    draws: int
    figures: dict[str, RangeItem]
    profit_chance: float
    no_customer_chance: float
    early_chance: float
    early_day: float | None
    moves: list[InputMove]


class JournalEnds(Given):
    """What undo and redo would do."""

    undo: str | None
    redo: str | None


class OwnValues(Given):
    """What the planner made of the tool for this plan."""

    quick_reasons: list[str]
    saved_filters: list[SavedFilterValues]
    house_rules: list[HouseRuleValues]
    report_style: ReportStyleValues
    word_kinds: dict[str, str]


class Tail(Given):
    """Thin keywords summed, a month: those kept, and what the others would add."""

    keywords: int
    kept: int
    clicks: float
    spend: float
    customers: float
    more_spend: float
    more_customers: float


class Summary(Given):
    """What every screen shows."""

    plan_id: int
    revision: int
    brief: BriefBlock
    trail: Trail
    purse: Purse
    journal: JournalEnds
    closed_as: int | None = Field(description="the version that goes on from this closed month")
    own: OwnValues
    tail: Tail
