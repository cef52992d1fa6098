"""What ran before the plan, as the API takes and gives it."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from milkwort.api.gather.tray_schemas import RefusedRow
from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import Numbers, Taken

__all__ = ["AccountView", "PastApplied", "PastRate", "PastSummaryView", "PastTotals",
           "PastWindow", "TermsView"]  # fmt: skip


class PastWindow(Taken):
    """How many days the figures cover."""

    days: float = Field(ge=1, le=3660)


class PastApplied(Taken):
    """Whether the report's customers are customers, or enquiries that may become some."""

    counts: Literal["customers", "enquiries"] = "customers"


class PastRate(Given):
    """Customers per click that the results allow: 10th, 50th and 90th percentile."""

    low: float
    likely: float
    high: float


class PastSummaryView(Given):
    """What happened in a window; `rate` is null where there are too few clicks."""

    name: str
    at: str
    days: float
    clicks: float
    cost: float
    customers: float
    rate: PastRate | None
    cpc: float | None
    sale_value: float | None


class TermsView(Given):
    """Search terms by column, those that sold first; figures of the whole window."""

    summary: PastSummaryView
    sold: int
    text: list[str]
    clicks: Numbers
    cost: Numbers
    customers: Numbers
    cpc: Numbers
    refused: list[RefusedRow]


class PastTotals(Given):
    """Sums of a month."""

    clicks: float
    spend: float
    customers: float
    profit: float


class AccountView(Given):
    """What the plan changes of the account that runs; money a click, figures a month."""

    summary: PastSummaryView
    live: int
    negatives: int
    missing: int
    campaigns: list[str]
    now: PastTotals
    plan: PastTotals
    text: list[str]
    match: list[str]
    group: list[str]
    what: list[Literal["start", "stop", "raise", "cut", "same"]]
    bid_now: Numbers
    bid_plan: Numbers
    spend_now: Numbers
    spend_plan: Numbers
    customers_now: Numbers
    customers_plan: Numbers
    refused: list[RefusedRow]
