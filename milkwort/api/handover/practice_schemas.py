"""What the practice view takes and gives."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import Taken
from milkwort.api.plan.summary_schemas import Summary

__all__ = [
    "DayItem", "DifferenceItem", "EnvelopeView", "OpenRequest", "PassRequest", "PracticeView",
    "ReplyItem", "SendRequest", "SendingItem",
]  # fmt: skip

Level = Literal["as-planned", "usual", "rough"]


class OpenRequest(Taken):
    """How far the hidden truth may lie from the plan, and which of many truths it is."""

    level: Level = "usual"
    seed: Annotated[int, Field(ge=0, le=2**31)] = 1


class SendRequest(Taken):
    """Whether rows that stand as they should are sent all the same."""

    only: Literal["all", "changed"] = "all"


class PassRequest(Taken):
    """How many days are to pass."""

    days: Annotated[int, Field(ge=1, le=366)]


class ReplyItem(Given):
    """The answer to one row of a sheet."""

    sheet: str
    name: str = Field(description="what a person knows the row by")
    row: int
    state: str
    code: str
    message: str
    field: str
    old: str
    new: str
    ref: str


class DifferenceItem(Given):
    """One field that stands otherwise in the account than in the plan."""

    sheet: str
    ref: str
    name: str
    field: str
    wanted: str
    stands: str


class SendingItem(Given):
    """The last sending: how it ended, and what the market answered."""

    id: int
    at: str
    state: str
    message: str
    taken: int
    warned: int
    refused: int
    replies: list[ReplyItem] = Field(description="refused and warned rows first, at most 2,000")
    more: int
    differs: list[DifferenceItem] | None = Field(description="none until it was read back")


class DayItem(Given):
    """One day of results; money in the plan's currency."""

    day: str
    could_show: int
    lost_to_money: int
    impressions: int
    clicks: int
    cost: float
    credit: float
    customers: int
    enquiries: int
    invalid_clicks: int


class PracticeAccountItem(Given):
    """The practice account as the market knows it."""

    name: str
    level: Level
    seed: int
    start: str
    today: str
    envelope: str | None
    live: dict[str, int]
    clock: str
    wanted: int
    done: int


class PracticeView(Given):
    """A plan's practice account, what was sent to it, and what came of it by day."""

    account: PracticeAccountItem | None
    sending: SendingItem | None
    days: list[DayItem]
    waits: int = Field(description="rows that are not in the account as they are in the plan")
    summary: Summary | None = Field(default=None, description="where a hand-over was made")


class EnvelopeKeyword(Given):
    """One keyword as it was assumed, and as it truly is."""

    keyword: str
    match: str
    searches: float
    true_searches: float
    price: float | None
    true_price: float
    rate: float
    true_rate: float
    clicks: float
    best_bid: float | None


class EnvelopeSums(Given):
    """Clicks, money, customers and what is left over a span of days."""

    clicks: float
    spend: float
    customers: float
    profit: float


class EnvelopeView(Given):
    """The hidden truth beside the plan's assumptions."""

    opened: str
    level: Level
    seed: int
    since: str | None
    until: str | None
    plan: EnvelopeSums | None = Field(description="the bids as they stand, luck left aside")
    hindsight: EnvelopeSums | None = Field(description="the best for the same money and keywords")
    keywords: list[EnvelopeKeyword]
    useless: float = Field(description="searches a month of unknown terms that nobody buys of")
    unknown: float = Field(description="searches a month of all unknown terms")
