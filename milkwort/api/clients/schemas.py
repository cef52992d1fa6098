"""What the page of all clients shows."""

from __future__ import annotations

from pydantic import Field

from milkwort.api.http.described import Given

__all__ = ["ClientLine", "Glance"]


class Glance(Given):
    """A plan at a glance; money in its currency."""

    plan_id: int
    revision: int
    first: str | None = Field(description="first day seen of the newest month; or null")
    last: str | None
    spent: float
    purse: float = Field(description="of that month")
    out: str | None = Field(description="day on which the money is gone at this pace")
    left: float
    customers: float
    low: float | None = Field(description="8 draws of 10 for the same days; null without results")
    high: float | None
    refused: int
    stops: int
    reviews: int
    terms: int
    month_over: bool = Field(description="the newest month has ended and is not closed")
    money: float = Field(description="spent on what waits")
    next_review: str | None
    urgency: int = Field(description="0 money out early … 5 nothing waits")


class ClientLine(Given):
    """One plan that counts, as it stands among all clients'."""

    plan_id: int
    client: str
    name: str
    label: str
    currency: str
    monthly_spend: float
    keywords: int
    handed_over: int
    glance: Glance | None = Field(description="null where it is not worked out yet")
