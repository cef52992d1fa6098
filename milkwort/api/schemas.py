"""What the API takes and gives. Columns are arrays of one length, a place a keyword."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from milkwort.api.frame_schemas import Frame, OfferValues, ProfileValues, ShowingValues
from milkwort.core.brief import Goal, Match, PolicyName, Pricing
from milkwort.core.worth import RuleName

CallName = Literal["none", "keep", "hold", "drop", "block"]
FigureName = Literal["spend", "clicks", "customers", "cost_per_customer", "profit", "next_unit"]
Numbers = list[float | None]


class Taken(BaseModel):
    """The root of what is taken: unknown fields are refused."""

    model_config = ConfigDict(extra="forbid")


class ErrorBody(BaseModel):
    """What went wrong, for a person."""

    code: str
    message: str
    where: str


class ErrorAnswer(BaseModel):
    """Every error's shape."""

    error: ErrorBody


class PlanItem(BaseModel):
    """A plan in the list; `monthly_spend` in its currency."""

    id: int
    name: str
    currency: str
    monthly_spend: float
    keywords: int
    created_at: str


class NewPlan(Taken):
    """A plan to be made, blank or from the sample."""

    name: str = Field(min_length=1, max_length=120)
    start: Literal["blank", "sample", "second_sample", "service", "shop", "subscription"] = "blank"


class PlanName(Taken):
    """A plan's new name."""

    name: str = Field(min_length=1, max_length=120)


class PlanId(BaseModel):
    """Which plan was made."""

    id: int


class BriefChange(Taken):
    """Fields of the brief to change; what is left out stays."""

    offer_name: str = Field(default="", max_length=200)
    sale_value: float = 0
    gross_margin: float = 0
    sales_per_customer: float = 0
    rate_low: float = 0
    rate_likely: float = 0
    rate_high: float = 0
    close_low: float | None = None
    close_likely: float | None = None
    close_high: float | None = None
    currency: str = Field(default="", max_length=3)
    monthly_spend: float = 0
    goal: Goal = "customers"
    start_month: int = Field(default=1, ge=1, le=12)
    pricing: Pricing = "pay_enough"
    places: list[str] = Field(default=[], max_length=200)
    volume_basis: Match = "exact"
    ceiling_rule: RuleName = "break_even"
    ceiling_value: float | None = None
    max_cpc: float | None = None
    may_pay_to_learn: bool = False
    policy: PolicyName = "fitted"
    flat_bid: float | None = None
    policy_share: float | None = None
    season: list[float] | None = Field(default=None, max_length=12)
    gross_spend: float | None = None
    tax_share: float = 0
    fee: float = 0
    profile: ProfileValues | None = None
    other_places: list[str] = Field(default=[], max_length=500)
    max_keywords: int | None = None
    min_clicks: float = 0
    showing: ShowingValues | None = None
    more_offers: list[OfferValues] = Field(default=[], max_length=50)


class AssumptionChange(Taken):
    """Assumptions by name; null puts the default back."""

    values: dict[str, float | None]


class AssumptionItem(BaseModel):
    """One row of the table of assumptions, as the plan sees it."""

    name: str
    label: str
    value: float
    default: float
    unit: str
    least: float
    most: float
    why: str
    changed: bool


class Texts(BaseModel):
    """What is stored of keywords, by column."""

    id: list[int]
    text: list[str]
    match: list[Match]
    intent: list[str]
    call: list[CallName]
    reason: list[str]
    group: list[str]
    offer: list[str]
    note: list[str]
    kinds: list[str]
    by: list[str]
    at: list[str]
    unpaid_rank: Numbers
    paid_rank: Numbers
    origin: list[str]
    volume_low: Numbers
    volume_high: Numbers
    months: list[list[float] | None]
    locked_bid: Numbers


class Figures(BaseModel):
    """What the plan says of keywords, by column: money a click, figures a month.

    Clicks, spend and customers are of this plan for a kept keyword, and what it would
    bring for any other.
    """

    searches: Numbers
    rate: Numbers
    cpc_low: Numbers
    cpc_high: Numbers
    cpc_median: Numbers
    cpc_at_line: Numbers
    rate_at_line: Numbers
    value_at_line: Numbers
    price_at_line: Numbers
    spill: Numbers
    first_sale: Numbers
    ceiling: Numbers
    headroom: Numbers
    reach: Numbers
    standing: list[str]
    bid: Numbers
    bid_reach: Numbers
    cpc: Numbers
    clicks: Numbers
    spend: Numbers
    customers: Numbers
    notes: list[list[str]]


class MovedFigures(BaseModel):
    """The columns of `Figures` that are not what they were."""

    model_config = ConfigDict(extra="forbid")

    searches: Numbers | None = None
    rate: Numbers | None = None
    cpc_low: Numbers | None = None
    cpc_high: Numbers | None = None
    cpc_median: Numbers | None = None
    cpc_at_line: Numbers | None = None
    rate_at_line: Numbers | None = None
    value_at_line: Numbers | None = None
    price_at_line: Numbers | None = None
    spill: Numbers | None = None
    first_sale: Numbers | None = None
    ceiling: Numbers | None = None
    headroom: Numbers | None = None
    reach: Numbers | None = None
    standing: list[str] | None = None
    bid: Numbers | None = None
    bid_reach: Numbers | None = None
    cpc: Numbers | None = None
    clicks: Numbers | None = None
    spend: Numbers | None = None
    customers: Numbers | None = None
    notes: list[list[str]] | None = None


class SheetBlock(BaseModel):
    """All keywords of a plan."""

    texts: Texts
    figures: Figures
    groups: list[str]
    campaigns: list[str]


class PlanAnswer(BaseModel):
    """A whole plan, for a window that opens it."""

    frame: Frame
    sheet: SheetBlock


class ChangeAnswer(BaseModel):
    """What one change moved.

    `sheet` where keywords came or went; otherwise `rows` that were touched and `columns`
    that moved for everybody. `was` is the revision that they are to be laid upon.
    """

    did: str
    was: int
    frame: Frame
    sheet: SheetBlock | None
    rows: Texts | None
    columns: MovedFigures | None


class CallChange(Taken):
    """A judgement of some keywords."""

    ids: list[int] = Field(min_length=1, max_length=200_000)
    call: CallName
    reason: str = Field(default="", max_length=500)
    by: Literal["hand", "word", "rule"] = "hand"


class BidChange(Taken):
    """A bid by hand, money a click; null gives the keywords back to the policy."""

    ids: list[int] = Field(min_length=1, max_length=200_000)
    bid: float | None


class KeywordIds(Taken):
    """Some keywords."""

    ids: list[int] = Field(min_length=1, max_length=200_000)


class WorkingLine(BaseModel):
    """One line of a sum; `unit` says how to print its value."""

    label: str
    value: float | None
    unit: str
    formula: str
    source: str
    assumption: str
    text: str
    result: bool


class WorkingSection(BaseModel):
    """A sum under its heading."""

    title: str
    lines: list[WorkingLine]


class ReadingItem(BaseModel):
    """One source's figures for a keyword: searches a period, money a click."""

    id: int
    in_use: bool
    origin: str
    origin_row: int | None
    read_at: str
    volume_low: float | None
    volume_high: float | None
    cpc_low: float | None
    cpc_high: float | None
    period: str
    basis: str
    area: str
    made: bool


class ReadingChoice(Taken):
    """Which reading to use."""

    id: int


class ReadingRule(Taken):
    """Which readings are in use: ``newest``, ``mean``, or ``of`` and a source's name."""

    rule: str = Field(max_length=300)


class Apart(BaseModel):
    """The greatest over the least of what sources say; null where fewer than two say it."""

    volume: float | None
    price: float | None


class Workings(BaseModel):
    """The arithmetic behind a figure."""

    revision: int
    title: str
    about: str
    notes: list[str]
    sections: list[WorkingSection]
    readings: list[ReadingItem] = []
    apart: Apart | None = None


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
    pace: float


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
    frontier_spend: list[float]
    frontier_value: list[float]
    value: float
    bound: float
    other_ways: list[OtherWayItem]
    more: MoreMoney | None
    saturation: float


class ColumnChoice(Taken):
    """Which column holds what, from 0, and the first row of data, from 1."""

    columns: dict[str, int]
    first_row: int = Field(ge=1)
    sheet: str = Field(default="", max_length=200)
    period: Literal["month", "day"] = "month"
    basis: Literal["", "exact", "phrase", "broad"] = ""
    area: str = Field(default="", max_length=120)
    price: Literal["click", "sum"] = "click"


class PastedText(Taken):
    """Rows pasted in."""

    text: str
    name: str = Field(default="pasted", max_length=200)


class RefusedRow(BaseModel):
    """One row left out, and why."""

    row: int
    column: str
    value: str
    why: str


class TrayRows(BaseModel):
    """Rows of the tray, by column; `status` is new, near, caught, changed or there."""

    row: list[int]
    text: list[str]
    match: list[Match]
    status: list[str]
    like: list[str]
    volume_low: Numbers
    volume_high: Numbers
    cpc_low: Numbers
    cpc_high: Numbers
    call: list[CallName]
    group: list[str]
    unpaid_rank: Numbers


class TrayView(BaseModel):
    """A file on its way in."""

    key: str
    name: str
    separator: str
    decimal: str
    encoding: str
    headings: list[str]
    first_row: int
    columns: dict[str, int]
    fields: list[str]
    sample: list[list[str]]
    counts: dict[str, int]
    rows: TrayRows
    was: dict[int, list[float | None]]
    """Of a row with new figures: low and high volume, low and high price in use till now."""
    cleaned: dict[int, str]
    """Of a row whose text was cleaned: what stood there."""
    verdict: Literal["take", "keep", "mean"]
    """What the plan's rule of readings makes of new figures."""
    refused: list[RefusedRow]
    sheets: list[str]
    sheet: str
    period: Literal["month", "day"]
    basis: Literal["", "exact", "phrase", "broad"]
    area: str
    price: Literal["click", "sum"]
    more: bool = False
    quota_left: int | None = None


class HandOverRequest(Taken):
    """Which file to make."""

    kind: Literal["csv", "xlsx", "json"]


class HandOverItem(BaseModel):
    """A frozen copy of what was sent."""

    id: int
    kind: str
    filename: str
    at: str
    revision: int
    rows: int
    sha256: str


class UploadLine(BaseModel):
    """One row of the upload sheet; bid is money a click, null where it doesn't run."""

    campaign: str
    group: str
    keyword: str
    match: str
    bid: float | None


class CheckItem(BaseModel):
    """One thing to look at before launch."""

    text: str
    stage: str


class HandOverView(BaseModel):
    """The upload sheet as it stands, what to look at, and what went before."""

    revision: int
    rows: list[UploadLine]
    checks: list[CheckItem]
    sent: list[HandOverItem]


class HandOverMade(BaseModel):
    """A hand-over and the plan's frame after it."""

    made: HandOverItem
    frame: Frame


def shape_of(model: type[BaseModel]) -> dict[int | str, dict[str, Any]]:
    """Return the documented answer of a route that sends ready bytes."""
    return {200: {"model": model}}
