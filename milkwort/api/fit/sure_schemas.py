"""What How sure is given."""

from __future__ import annotations

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.core.plan.must_be import Input

__all__ = ["HowSureView"]


class DottedFigure(Given):
    """One figure of the month: its dots in rising order, and what it is expected to be."""

    expected: float | None
    low: float | None
    middle: float | None
    high: float | None
    dots: list[float | None] = Field(description="null where nobody buys")


class OddItem(Given):
    """What happens in some share of the months."""

    share: float
    says: str


class MoveItem(Given):
    """A month with one input at its 10th and 90th percentile; where the input is changed."""

    input: str
    customers_low: float
    customers_high: float
    profit_low: float
    profit_high: float
    assumption: str = Field(description="its spread; empty where the brief or results say it")
    spread: float | None = Field(description="in log units; none where the brief says it")


class TurnItem(Given):
    """A value of an input over today's, and how likely the draws think one beyond it is."""

    times: float | None
    value: float | None
    chance: float | None


class MustItem(Given):
    """At which values of one input the plan turns."""

    input: Input
    now: float | None
    rule: TurnItem
    even: TurnItem
    nothing: TurnItem


class GroupDoubtItem(Given):
    """How unsure one group or spot is; its share of the whole month's doubt."""

    key: str = Field(description="by which its workings are asked for")
    group_id: int | None
    name: str
    low: float
    middle: float
    high: float
    share: float


class RemedyItem(Given):
    """What would use more of the purse, and what that would bring."""

    name: str
    spend: float
    customers: float


class BudgetUseItem(Given):
    """Where a month's purse goes, in the mean of the draws; money a month."""

    purse: float
    low: float
    middle: float
    high: float
    spent: float
    cut: float
    not_searched: float
    not_planned: float
    remedies: list[RemedyItem]


class HowSureView(Given):
    """The month drawn many times over."""

    revision: int
    draws: int
    months_a_dot: int
    figures: dict[str, DottedFigure]
    odds: list[OddItem]
    moves: list[MoveItem]
    must: list[MustItem]
    groups: list[GroupDoubtItem]
    use: BudgetUseItem
