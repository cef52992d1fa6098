"""The shape of a plan's own file: every field with its kind and its bounds."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, AliasChoices, BaseModel, ConfigDict, Field

from milkwort.core.brief.fields import OF_PLAN
from milkwort.core.brief.spots import Pays
from milkwort.core.words.match_types import Match
from milkwort.core.words.texts import MAX_TEXT
from milkwort.formats.field_models import with_brief_fields
from milkwort.formats.plan_values import (
    SHAPES,
    AudienceValues,
    HouseRuleValues,
    OfferValues,
    PolicyValues,
    ReportStyleValues,
    SavedFilterValues,
    ShowingValues,
)

__all__ = [
    "AdDocument", "CallDocument", "CampaignDocument", "ClientDocument", "GroupDocument",
    "KeywordDocument", "NegativeDocument", "NegativeListDocument", "NegativeRow", "OfferDocument",
    "PageDocument", "PastListDocument", "PinnedListDocument", "PlanDocument", "PlanValues",
    "ReadingDocument", "RecipeDocument", "RecipePartDocument", "RivalListDocument",
    "SetAsideDocument", "ShownThingDocument", "SpotDocument", "TaughtPlanDocument",
    "TaughtRateDocument", "TaughtReadingDocument", "ThingDocument",
]  # fmt: skip

_MOST_KEYWORDS = 200_000
_Call = Literal["keep", "hold", "drop", "block"]
_Intent = Literal["buy", "compare", "learn", "firm", "job", "unknown"]


class _Part(BaseModel):
    """Unknown fields, infinities and things of another kind are refused."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, strict=True, defer_build=True)


_Name = Field(default="", max_length=400)
_Key = Field(default="", max_length=40)
_Money = Field(default=None, ge=0, le=1e12)
_Logo = Annotated[str, Field(max_length=1_400_000, pattern="^(png|svg):[A-Za-z0-9+/=]+$")]


def _day_or_none(text: str) -> str:
    """A day such as 2027-03-01, or nothing."""
    return date.fromisoformat(text).isoformat() if text else ""


_Day = Annotated[str, Field(max_length=10), AfterValidator(_day_or_none)]
_Spread = Annotated[float, Field(ge=0, le=100)]
_Factor = Annotated[float, Field(gt=0, le=1e15)]
_AdField = Annotated[str, Field(max_length=1000)]


@with_brief_fields(OF_PLAN, SHAPES)
class PlanValues(_Part):
    """A plan's own row: the brief without its offers, and the planner's own ways."""

    name: str = Field(min_length=1, max_length=120)
    label: str = Field(default="", max_length=120)
    reason: str = Field(default="", max_length=4000)
    monthly_spend: float = 300.0
    start_date: date = Field(strict=False)
    reading_rule: str = Field(default="newest", max_length=400)
    quick_reasons: list[str] | None = None
    saved_filters: list[SavedFilterValues] | None = None
    house_rules: list[HouseRuleValues] | None = None
    word_kinds: dict[str, str] | None = None
    report_style: ReportStyleValues | None = None
    report_logo: _Logo | None = None
    taught: TaughtPlanDocument | None = None
    not_entered: list[str] = Field(
        default=[], validation_alias=AliasChoices("not_entered", "unsaid")
    )


class OfferDocument(OfferValues):
    """An offer; the first is the one a keyword has unless it says another."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, defer_build=True)

    name: str = Field(default="", max_length=200)
    id: None = Field(default=None, exclude=True)


class CampaignDocument(_Part):
    """A campaign; money a month."""

    key: str = _Key
    name: str = Field(min_length=1, max_length=400)
    least_spend: float = Field(default=0.0, ge=0, le=1e12)
    most_spend: float | None = _Money
    scouting_share: float | None = Field(default=None, ge=0, le=1)
    area_share: float | None = Field(default=None, ge=0, le=1)
    showing: ShowingValues | None = None
    note: str = Field(default="", max_length=4000)
    landing_page: str = Field(default="", max_length=4000)
    first_day: _Day = ""
    last_day: _Day = ""
    bid_moves: str = Field(default="", max_length=400)
    partner_sites: bool = False
    audience: list[AudienceValues] | None = Field(default=None, max_length=50)
    policy: PolicyValues | None = None


class SpotDocument(_Part):
    """A place to be shown without a keyword: the key of its campaign, its offer from 1."""

    key: str = _Key
    campaign: str
    offer: int | None = Field(default=None, ge=1)
    name: str = Field(min_length=1, max_length=200)
    pays: Pays
    price: float = Field(gt=0, le=1e12)
    showings: float = Field(default=0.0, ge=0, le=1e12)
    clicks: float = Field(default=0.0, ge=0, le=1e12)
    click_rate: float = Field(default=0.0, ge=0, le=1)
    sells: float | None = Field(default=None, ge=0, le=1000)


class ThingDocument(_Part):
    """A thing that is sold: money, and the share of its price that is left."""

    code: str = Field(min_length=1, max_length=80)
    name: str = Field(min_length=1, max_length=400)
    price: float | None = _Money
    margin: float | None = Field(default=None, ge=0, le=1)
    page: str = Field(default="", max_length=4000)
    deliverable: bool = True


class ShownThingDocument(_Part):
    """That a group, by its key, shows a thing, by its code."""

    group: str
    thing: str


class SetAsideDocument(_Part):
    """A suggestion of the results that was set aside: for good, or until later results."""

    kind: str = Field(min_length=1, max_length=40)
    key: str = Field(min_length=1, max_length=400)
    suggestion: str = Field(min_length=1, max_length=40)
    as_of: date | None = None


class GroupDocument(_Part):
    """An ad group, and the key of its campaign."""

    key: str = _Key
    campaign: str
    name: str = Field(min_length=1, max_length=400)
    landing_page: str = Field(default="", max_length=4000)
    policy: PolicyValues | None = None
    bid: float | None = Field(default=None, gt=0, le=1e12)
    locked: bool = False
    blocks_twins: bool = False


class AdDocument(_Part):
    """A written ad, and the key of its group."""

    key: str = _Key
    group: str
    headlines: list[_AdField] = Field(default=[], max_length=50)
    descriptions: list[_AdField] = Field(default=[], max_length=50)


class TaughtPlanDocument(_Part):
    """What results left unsure of all keywords together: spreads in log units."""

    searches: _Spread | None = None
    click_rate: _Spread | None = None
    price: _Spread | None = None
    conversion: float = Field(default=1.0, gt=0, le=1)
    held: dict[str, _Factor] = Field(default={}, max_length=4)


class TaughtReadingDocument(_Part):
    """By what results corrected a reading, and the spreads they left, log units."""

    searches: _Factor
    click_rate: _Factor
    price: _Factor
    own: list[_Spread] = Field(min_length=3, max_length=3)
    group: list[_Spread] = Field(min_length=3, max_length=3)


class TaughtRateDocument(_Part):
    """What results made of a keyword's rate, what it was before, and on how many clicks."""

    rate: float = Field(ge=0, le=1)
    before: float | None = Field(default=None, ge=0, le=1)
    clicks: float = Field(ge=0, le=1e12)


class ReadingDocument(_Part):
    """One source's figures; searches a period, money a click."""

    in_use: bool = True
    prices_in_use: bool | None = None
    """As for searches where it isn't said."""
    volume_low: float | None = _Money
    volume_high: float | None = _Money
    cpc_low: float | None = _Money
    cpc_high: float | None = _Money
    competition: float | None = Field(default=None, ge=0, le=1)
    months: list[float] | None = Field(default=None, min_length=12, max_length=12)
    basis: Literal["", "exact", "phrase", "broad"] = ""
    area: str = _Name
    period: Literal["day", "month"] = "month"
    shown_at_bid: float | None = Field(default=None, gt=0, le=1e12)
    read_at: str = Field(default="", max_length=40)
    origin: str = Field(default="", max_length=2000)
    origin_row: int | None = None
    taught: TaughtReadingDocument | None = None


class CallDocument(_Part):
    """A judgement, by whom or what, and when."""

    call: _Call
    reason: str = Field(default="", max_length=2000)
    by: str = Field(default="hand", max_length=40)
    at: str = Field(default="", max_length=40)


class KeywordDocument(_Part):
    """One keyword: the key of its group, the number of its offer from 1, its readings."""

    key: str = _Key
    text: str = Field(min_length=1, max_length=MAX_TEXT)
    match: Match = "exact"
    intent: _Intent = "unknown"
    group: str | None = None
    offer: int | None = Field(default=None, ge=1)
    rate: float | None = Field(default=None, ge=0, le=1)
    locked_bid: float | None = _Money
    last_cpc: float | None = _Money
    unpaid_rank: float | None = _Money
    paid_rank: float | None = _Money
    popularity: float | None = _Money
    note: str = Field(default="", max_length=4000)
    taught: TaughtRateDocument | None = None
    readings: list[ReadingDocument] = Field(default=[], max_length=1000)
    call: CallDocument | None = None


class NegativeDocument(_Part):
    """A negative keyword, and the key of the campaign or group it acts in."""

    key: str = _Key
    text: str = Field(min_length=1, max_length=MAX_TEXT)
    match: Match = "phrase"
    campaign: str | None = None
    group: str | None = None
    by: str = Field(default="file", max_length=40)
    at: str = Field(default="", max_length=40)
    note: str = Field(default="", max_length=4000)


class RecipePartDocument(_Part):
    """Words that are crossed with those of the other parts."""

    words: list[str]
    on: bool = True
    optional: bool = False


class RecipeDocument(_Part):
    """A crossing that was saved."""

    name: str = Field(min_length=1, max_length=80)
    parts: list[dict[str, Any]]


class RivalListDocument(_Part):
    """A list of rivals' keywords."""

    name: str = _Name
    at: str = ""
    rows: list[dict[str, Any]]


class PastListDocument(_Part):
    """Search terms of the past, or what an account runs, over so many days."""

    kind: Literal["terms", "account"]
    name: str = _Name
    at: str = ""
    days: float = Field(gt=0, le=3660)
    rows: list[dict[str, Any]]


class PageDocument(_Part):
    """A page of the client's site with its text, and when that was read."""

    address: str = Field(min_length=1, max_length=2048)
    title: str = Field(default="", max_length=1000)
    headings: list[Annotated[str, Field(max_length=1000)]] = Field(default=[], max_length=400)
    text: str = Field(default="", max_length=400_000)
    at: str = Field(default="", max_length=40)


class NegativeRow(_Part):
    """A negative of a list."""

    text: str = Field(min_length=1, max_length=MAX_TEXT)
    match: Match = "phrase"


class NegativeListDocument(_Part):
    """A named list of negatives of the client."""

    key: str = Field(min_length=1, max_length=40)
    name: str = Field(min_length=1, max_length=120)
    edition: int = Field(default=1, ge=1)
    at: str = Field(default="", max_length=40)
    rows: list[NegativeRow] = Field(default=[], max_length=10_000)


class PinnedListDocument(_Part):
    """A negative list as the plan uses it, by the key of the list it came from."""

    list_key: str = Field(min_length=1, max_length=40)
    name: str = Field(min_length=1, max_length=120)
    edition: int = Field(ge=1)
    rows: list[NegativeRow] = Field(default=[], max_length=10_000)


class ClientDocument(_Part):
    """Whose plan it is, and what outlives the plan."""

    name: str = Field(min_length=1, max_length=120)
    recipes: list[RecipeDocument] = []
    rival_lists: list[RivalListDocument] = []
    past_lists: list[PastListDocument] = []
    pages: list[PageDocument] = Field(default=[], max_length=2000)
    negative_lists: list[NegativeListDocument] = Field(default=[], max_length=200)


class PlanDocument(_Part):
    """A plan with all that belongs to it."""

    format: Literal["milkwort-plan-2"] = "milkwort-plan-2"
    client: ClientDocument
    plan: PlanValues
    offers: list[OfferDocument] = Field(min_length=1, max_length=51)
    assumptions: dict[str, float] = {}
    campaigns: list[CampaignDocument] = []
    groups: list[GroupDocument] = []
    ads: list[AdDocument] = Field(default=[], max_length=100_000)
    keywords: list[KeywordDocument] = Field(default=[], max_length=_MOST_KEYWORDS)
    negatives: list[NegativeDocument] = []
    spots: list[SpotDocument] = Field(default=[], max_length=1000)
    pinned_lists: list[PinnedListDocument] = Field(default=[], max_length=200)
    things: list[ThingDocument] = Field(default=[], max_length=50_000)
    shown_things: list[ShownThingDocument] = Field(default=[], max_length=200_000)
    set_aside: list[SetAsideDocument] = Field(default=[], max_length=200_000)
