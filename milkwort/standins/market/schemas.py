"""What the market's calls take and answer."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Any, Literal

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field

from milkwort.core.words.iso_day import only_iso_day
from milkwort.standins.market.clock import MOST_DAYS
from milkwort.standins.market.known import INTENT_RATES
from milkwort.standins.market.levels import LevelName

__all__ = [
    "AccountOpened", "AccountState", "ClockAsked", "ClockState", "ErrorAnswer", "FaultsAsked",
    "LivePage", "Opening", "Options", "Reply", "Results", "Truth", "UploadState",
]  # fmt: skip

Share = Annotated[float, Field(ge=0, le=1)]
IsoDay = Annotated[date, BeforeValidator(only_iso_day)]
Money = Annotated[float, Field(ge=0, le=1e6)]
Text = Annotated[str, Field(min_length=1, max_length=1000)]


class _Asked(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class OfferTold(_Asked):
    """Customers a click, low, likely and high; of those who enquire, the share that buys."""

    low: Share
    likely: Share
    high: Share
    close: Annotated[float, Field(gt=0, le=1)] | None = None


class KeywordTold(_Asked):
    """One text that the planner knows of, with its figures."""

    text: Text
    searches: Annotated[float, Field(ge=0, le=1e9)]
    searches_low: Annotated[float, Field(ge=0, le=1e9)] | None = None
    searches_high: Annotated[float, Field(ge=0, le=1e9)] | None = None
    price_low: Money | None = None
    price_high: Money | None = None
    intent: Literal["buy", "compare", "learn", "firm", "job", "unknown"] = "unknown"
    offer: Annotated[int, Field(ge=0, le=100)] = 0
    months: Annotated[list[float], Field(min_length=12, max_length=12)] | None = None
    own_place: bool = False
    rate: Share | None = None


class LimitsTold(_Asked):
    """The limits of the planner's platform profile."""

    matches: list[Literal["exact", "phrase", "broad"]] = ["exact", "phrase", "broad"]
    min_bid: Annotated[float, Field(gt=0, le=1e4)] = 0.05
    bid_step: Annotated[float, Field(gt=0, le=1e4)] = 0.01
    raises: Share = 0.0
    keywords_per_group: Annotated[int, Field(ge=1, le=100_000)] = 150
    ads_per_group: Annotated[int, Field(ge=1, le=100_000)] = 7
    headlines: Annotated[int, Field(ge=1, le=20)] = 3
    descriptions: Annotated[int, Field(ge=1, le=20)] = 1
    headline_characters: Annotated[int, Field(ge=1, le=100_000)] = 36
    description_characters: Annotated[int, Field(ge=1, le=100_000)] = 110
    written_ads: bool = True
    refused_characters: Annotated[str, Field(max_length=200)] = "<>|\\^~#$_"
    close_forms: bool = True
    negative_close_forms: bool = False
    upload_rows: Annotated[int, Field(ge=1, le=10_000_000)] = 20_000
    day_over: Annotated[float, Field(ge=0, le=10)] = 0.0


class Opening(_Asked):
    """What an account is opened with."""

    name: Annotated[str, Field(min_length=1, max_length=200)]
    currency: Annotated[str, Field(pattern="^[A-Z]{3}$")]
    pricing: Literal["pay_enough", "pay_bid"] = "pay_enough"
    level: LevelName = "usual"
    seed: Annotated[int, Field(ge=0, le=2**31)] = 1
    start: Annotated[IsoDay, Field(ge=date(2000, 1, 1), le=date(2100, 1, 1))]
    zone: Annotated[str, Field(max_length=60)] = ""
    limits: LimitsTold = LimitsTold()
    offers: Annotated[list[OfferTold], Field(min_length=1, max_length=100)]
    keywords: Annotated[list[KeywordTold], Field(min_length=1, max_length=100_000)]
    low_percentile: Annotated[float, Field(gt=0, lt=1)] = 0.25
    high_percentile: Annotated[float, Field(gt=0, lt=1)] = 0.75
    click_rate_top: Share = 0.06
    click_rate_bottom: Share = 0.35
    season: Annotated[list[float], Field(min_length=12, max_length=12)] | None = None
    hours: Annotated[list[float], Field(min_length=24, max_length=24)] | None = None
    weekdays: Annotated[list[float], Field(min_length=7, max_length=7)] | None = None
    intent_rates: dict[str, float] = INTENT_RATES


class AccountState(BaseModel):
    """How an account stands; `today` is the day that is lived next."""

    id: str
    name: str
    currency: str
    level: str
    start: date
    today: date
    envelope: str | None
    live: dict[str, int]
    simulated: bool = True


class AccountOpened(BaseModel):
    """A new account with its key, which is told once."""

    account: AccountState
    key: str


class UploadState(BaseModel):
    """How far an upload is."""

    number: int
    kind: str
    state: Literal["waiting", "processing", "done"]
    rows: int
    read: int
    taken: int
    warned: int
    refused: int


class Reply(BaseModel):
    """The reply sheet: a list a row, by its heads."""

    heads: list[str]
    rows: list[list[Any]]


class LivePage(BaseModel):
    """What is live, a page of it; `next` asks for the page after."""

    rows: list[dict[str, Any]]
    next: str | None


class ClockAsked(_Asked):
    """How many days are to pass."""

    days: Annotated[int, Field(ge=1, le=MOST_DAYS)]


class ClockState(BaseModel):
    """How far the clock is; `stands`, `running` or `stopped`."""

    state: str
    wanted: int
    done: int
    today: date


class Results(BaseModel):
    """Results by day of the click, a list a row, by their heads."""

    level: str
    since: date
    until: date
    heads: list[str]
    rows: list[list[Any]]


class FaultsAsked(_Asked):
    """Faults to switch on; what is left out is off."""

    refuse_rows: Share = 0.0
    slow_ms: Annotated[float, Field(ge=0, le=60_000)] = 0.0
    unavailable: Share = 0.0
    throttle_per_minute: Annotated[int, Field(ge=0, le=1_000_000)] = 0
    cut_after: Share = 0.0
    lose_reply: Annotated[int, Field(ge=0, le=1000)] = 0
    deliver_twice: bool = False
    clock_jump: Share = 0.0
    half_failed: bool = False


class Truth(BaseModel):
    """The hidden truth, by column."""

    model_config = ConfigDict(extra="allow")

    opened: str
    texts: list[str]


class Options(BaseModel):
    """What each of some bids would bring for each keyword, under the truth."""

    model_config = ConfigDict(extra="allow")

    ref: list[str]
    bid: list[float]


class ErrorBody(BaseModel):
    """What is wrong, and where."""

    code: str
    message: str
    where: str


class ErrorAnswer(BaseModel):
    """An error."""

    error: ErrorBody
