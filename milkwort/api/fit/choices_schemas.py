"""What Fit asks and answers of methods, limits, caps and inverse questions."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import Taken
from milkwort.api.plan.summary_schemas import Purse
from milkwort.core.brief.kinds import Goal, PolicyName
from milkwort.core.plan.bid_changes import Way
from milkwort.core.plan.limits_cost import LimitName

__all__ = ["BidMoveChange", "BidMoveTried", "CapView", "CurvesView", "LeastView", "LimitsView",
           "OtherWayItem", "SumsView", "WaysView"]  # fmt: skip


class OtherWayItem(Given):
    """What another way of bidding brings for the same money."""

    name: PolicyName
    flat_bid: float | None
    share: float | None = Field(description="the percentile, or what is added")
    value: float
    customers: float
    clicks: float
    spend: float
    profit: float
    pace: float
    reach: float = Field(description="share of the kept keywords' searches, paced")
    not_run: int


class WaysView(Given):
    """Every way to bid, fitted first."""

    revision: int
    goal: Goal
    ways: list[OtherWayItem]


class BidMoveChange(Taken):
    """Bids of several keywords moved at once."""

    ids: list[int] = Field(min_length=1, max_length=200_000)
    way: Way
    value: float | None = Field(default=None, description="a percentile, a factor or a price")


class BidMoveTried(Given):
    """What a move would do: the purse after it, and how many bids would change."""

    purse: Purse
    changed: int


class LimitItem(Given):
    """One limit and what it costs of the goal, a month."""

    limit: LimitName
    campaign_id: int | None
    campaign: str
    wanted: float
    costs: float


class LimitsView(Given):
    """Limits with their costs, those that could not be kept, and the attention curve."""

    revision: int
    goal: Goal
    limits: list[LimitItem]
    attention_keywords: list[int]
    attention_value: list[float]
    attention_gap: list[float]


class CurveItem(Given):
    """The goal against the purse of one version; money and goal a month."""

    plan_id: int
    label: str
    purse: list[float]
    value: list[float]
    gap: list[float] = Field(
        description="how far a value may lie below the best, a share; 0 where none would see it"
    )
    at: float = Field(description="the purse it now has")
    knee: float | None
    saturation: float


class CurvesView(Given):
    """Curves of the plan and of some of its versions, for one goal."""

    goal: Goal
    curves: list[CurveItem]


class LeastView(Given):
    """How much money a goal takes; null where no money brings it."""

    goal: Goal | Literal["clicks_each"]
    wanted: float
    purse: float | None
    more: float | None = Field(description="beyond the purse there is")
    most: float | None
    saturation: float | None
    keywords: int
    too_few: list[str] = Field(description="some keywords that can’t have so many clicks")
    too_few_count: int


class CapItem(Given):
    """The one cap, and what it would bring."""

    cap: float
    value: float
    customers: float
    clicks: float
    spend: float
    pace: float


class CapView(Given):
    """The one cap to give a platform, and beside it what fitted bids bring."""

    goal: Goal
    bare: CapItem | None
    own: CapItem | None
    fitted: float
    raise_share: float


class SumsView(Given):
    """Groups or campaigns in sum, a month, by column; money in the plan's currency."""

    revision: int
    id: list[int | None]
    name: list[str]
    keywords: list[int]
    running: list[int]
    searches: list[float]
    reach: list[float]
    not_won: list[float]
    unshown: list[float]
    clicks: list[float]
    customers: list[float]
    spend: list[float]
    profit: list[float]
