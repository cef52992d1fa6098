"""What Year takes and gives."""

from __future__ import annotations

from datetime import date

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import Taken
from milkwort.core.brief.kinds import YearPurse

__all__ = ["MonthChange", "MonthView", "YearRanges", "YearView"]


class MonthChange(Taken):
    """Another sum for one month, 0 for the first; the others keep the year's sum if asked to."""

    month: int = Field(ge=0, le=11)
    money: float = Field(ge=0, le=1e12)
    keep_sum: bool = True


class YearSums(Given):
    """Money and counts of the twelve months together; of money in cents as the months show it."""

    purse: float
    spend: float
    clicks: float
    customers: float
    revenue: float
    profit: float
    gross: float
    cost_per_customer: float | None


class YearView(Given):
    """Twelve months by column, the first from the plan's first day; money in whole cents."""

    revision: int
    kind: YearPurse
    refit: bool
    can_refit: bool = Field(description="whether any bid is fitted")
    first: list[date]
    days: list[int]
    index: list[float]
    purse: list[float]
    gross: list[float] = Field(description="with fee and tax")
    spend: list[float]
    clicks: list[float]
    customers: list[float]
    revenue: list[float]
    profit: list[float]
    cost_per_customer: list[float | None]
    market: list[float] = Field(description="the most the month could take")
    sums: YearSums


class RangeItem(Given):
    """10th, 50th and 90th percentile; null where nobody buys."""

    low: float | None
    middle: float | None
    high: float | None


class YearRanges(Given):
    """Ranges of the twelve months and of their sums, by figure."""

    revision: int
    draws: int
    months: list[dict[str, RangeItem]]
    year: dict[str, RangeItem]


class CampaignDayItem(Given):
    """One campaign's money by the day; shares of its days, clicks a month."""

    campaign_id: int | None
    campaign: str
    daily: float
    spend: float
    clicks: float
    lost: float
    gone: float
    gone_early: float
    hour: float | None


class MonthView(Given):
    """One month by its days; money in whole cents where it is a day's."""

    revision: int
    month: int
    first: date
    dates: list[date]
    spend: list[float]
    purse: float
    total: float
    week: list[list[float]] = Field(description="money by weekday, Monday first, and hour")
    campaigns: list[CampaignDayItem]
    budgets: float = Field(description="all daily budgets over the month")
    lost: float
    lost_shared: float
