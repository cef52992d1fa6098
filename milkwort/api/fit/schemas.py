"""What Fit takes and gives."""

from __future__ import annotations

from pydantic import BaseModel, Field

from milkwort.api.plan.schemas import Taken
from milkwort.core.brief.kinds import Goal, PolicyName

__all__ = ["BidChange", "Block", "FitView", "MoreMoney", "OtherWayItem"]


class BidChange(Taken):
    """A bid by hand, money a click; null gives the keywords back to the policy."""

    ids: list[int] = Field(min_length=1, max_length=200_000)
    bid: float | None


class Block(BaseModel):
    """Neighbouring steps of the ladder of pounds drawn as one; money a month."""

    start: float
    spend: float
    return_: float = Field(alias="return")
    group: int
    steps: int
    keywords: list[str]


class OtherWayItem(BaseModel):
    """What another way of bidding brings for the same money."""

    name: PolicyName
    flat_bid: float | None
    value: float
    customers: float
    clicks: float
    spend: float
    profit: float
    pace: float
    share: float | None = Field(description="the percentile, or what is added")
    reach: float = Field(description="share of the kept keywords' searches, paced")
    not_run: int


class MoreMoney(BaseModel):
    """What some more money would bring."""

    money: float
    value: float
    keywords: list[str]


class FitView(BaseModel):
    """The ladder of pounds and what stands beside it."""

    revision: int
    goal: Goal
    blocks: list[Block]
    groups: list[str]
    span: float
    frontier_purse: list[float]
    frontier_value: list[float]
    value: float
    bound: float
    other_ways: list[OtherWayItem]
    more: MoreMoney | None
    saturation: float
