"""What Fit takes and gives."""

from __future__ import annotations

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import Taken
from milkwort.core.brief.kinds import Goal

__all__ = ["BidChange", "Block", "FitView", "MoreMoney"]


class BidChange(Taken):
    """A bid by hand, money a click; null gives the keywords back to the policy."""

    ids: list[int] = Field(min_length=1, max_length=200_000)
    bid: float | None


class Block(Given):
    """Neighbouring steps of the ladder of pounds drawn as one; money a month."""

    start: float
    spend: float
    return_: float = Field(alias="return")
    group: int
    steps: int
    keywords: list[str]


class MoreMoney(Given):
    """What some more money would bring."""

    money: float
    value: float
    keywords: list[str]


class FitView(Given):
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
    more: MoreMoney | None
    saturation: float
