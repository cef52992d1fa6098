"""What Learn gives of the month and of the months so far."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from milkwort.api.http.described import Given

__all__ = ["History", "LearnMonth", "OurWord", "Unmatched"]


class Pace(Given):
    """How fast the month's money goes."""

    spent: float
    purse: float
    by_now: float = Field(description="money that the purse holds for the days that have gone")
    at_end: float = Field(description="money spent by the month’s end if it goes on like this")
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


class Site(Given):
    """What the whole site saw in the days somebody said something of."""

    visits: float | None
    unpaid: float | None = Field(description="customers who came without an ad")
    cost_per_visit: float | None = Field(description="money a visit of any origin")
    without_ad: float | None = Field(description="share of customers who came without an ad")


class RanSent(Given):
    """What was handed over at a time, and the days it ran on, ends included."""

    at: str
    first: str
    last: str
    read: bool = Field(description="whether it can be read; the plan stands in for it where not")


class LearnMonth(Given):
    """The newest month that is seen."""

    first: str
    last: str
    end: str
    customers: dict[str, float] = Field(description="planned, each part, and what was reported")
    spend: dict[str, float]
    late: float = Field(description="customers that are still expected to be reported")
    sent: list[RanSent] = Field(description="what was handed over and ran; none: the plan itself")
    pace: Pace
    moved: Moved | None
    campaigns: list[CampaignMonth]
    invalid_clicks: float | None
    invalid_cost: float
    by_hand: float = Field(description="customers counted by hand, of these days")
    by_hand_value: float | None = Field(description="money they bought for, where it was said")
    site: Site | None
    steering: Steering


class Unmatched(Given):
    """Rows that are no keyword of the plan, with the nearest that is."""

    keyword: str
    match: str
    clicks: float
    cost: float
    customers: float
    item: bool = Field(description="the code of a thing, and no words")
    nearest: str | None


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
