"""What the API takes and gives. Columns are arrays of one length, a place a keyword."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from typing import Annotated, Any, Literal

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, model_validator

from milkwort.api.http.described import Given
from milkwort.api.http.texts import whole_texts
from milkwort.api.plan.columns import STORED, CallName
from milkwort.api.plan.summary_schemas import Summary
from milkwort.core.brief.fields import FIELDS
from milkwort.core.plan.figures import FIGURES
from milkwort.core.words.iso_day import only_iso_day
from milkwort.formats.field_models import with_brief_fields, with_columns
from milkwort.formats.plan_values import SHAPES, OfferValues

Numbers = list[float | None]
FigureName = Literal["spend", "clicks", "customers", "cost_per_customer", "profit", "next_unit"]


IsoDay = Annotated[date, BeforeValidator(only_iso_day)]
"""A day that is taken: a number is none, whatever could be made of it."""


class Taken(BaseModel):
    """The root of what is taken: unknown fields, broken texts and infinities are refused."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    @model_validator(mode="before")
    @classmethod
    def _whole(cls, value: Any) -> Any:
        return whole_texts(value)

    def given(self) -> dict[str, Any]:
        """Return the fields that were sent, as JSON would hold them, each whole.

        What a field holds keeps its own defaults: a rule sent without a reason has an empty one.
        """
        return {k: v for k, v in self.model_dump(mode="json").items() if k in self.model_fields_set}


class ErrorBody(Given):
    """What went wrong, for a person."""

    code: str
    message: str
    where: str


class ErrorAnswer(Given):
    """Every error's shape."""

    error: ErrorBody


class PlanItem(Given):
    """A plan in the list, client by client; `monthly_spend` in its currency."""

    id: int
    client_id: int
    client: str
    version_of: int | None
    label: str
    is_plan: bool = Field(description="the one that counts, of all its versions")
    name: str
    currency: str
    monthly_spend: float
    keywords: int
    created_at: str


class DeletedPlan(Given):
    """A plan that was deleted, and can be brought back."""

    id: int
    client: str
    name: str
    label: str
    deleted_at: str


class NewPlan(Taken):
    """A plan to be made, blank or from the sample, for a client or for a new one."""

    name: str = Field(min_length=1, max_length=120)
    start: Literal["blank", "sample", "second_sample", "service", "shop", "subscription"] = "blank"
    client_id: int | None = None


class PlanName(Taken):
    """A plan's new name."""

    name: str = Field(min_length=1, max_length=120)


class PlanId(Given):
    """Which plan was made."""

    id: int


@with_brief_fields([replace(f, required=False) for f in FIELDS.values()], SHAPES)
class BriefChange(Taken):
    """Fields of the brief to change; what is left out stays."""

    offer_name: str = Field(default="", max_length=200)
    start_date: IsoDay = date(2027, 1, 1)
    more_offers: list[OfferValues] = Field(default=[], max_length=50)


class PurseChange(Taken):
    """What is to be left to spend on clicks, money a month unless said a day or a week."""

    purse: float = Field(ge=0, le=1e10)
    per: Literal["day", "week", "month"] = "month"


class StepsChange(Taken):
    """In how many steps customers are counted: 2 with enquiries between."""

    steps: Literal[1, 2]


class AssumptionChange(Taken):
    """Assumptions by name; null puts the default back."""

    values: dict[str, float | None]


class AssumptionItem(Given):
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


@with_columns(STORED)
class Texts(Given):
    """What is stored of keywords, by column."""


@with_columns(FIGURES)
class Figures(Given):
    """What the plan says of keywords, by column: money a click, figures a month.

    Clicks, spend and customers are of this plan for a kept keyword, and what it would
    bring for any other.
    """


@with_columns(FIGURES, may_be_left_out=True)
class MovedFigures(Given):
    """The columns of `Figures` that are not what they were."""

    model_config = ConfigDict(extra="forbid")


class GroupItem(Given):
    """An ad group; its label is its name, with the campaign's where the name repeats."""

    id: int
    name: str
    label: str
    campaign_id: int


class CampaignItem(Given):
    """A campaign."""

    id: int
    name: str


class SheetBlock(Given):
    """All keywords of a plan."""

    texts: Texts
    figures: Figures
    groups: list[GroupItem]
    campaigns: list[CampaignItem]


class PlanAnswer(Given):
    """A whole plan, for a window that opens it."""

    summary: Summary
    sheet: SheetBlock


class ChangeAnswer(Given):
    """What one change moved.

    `sheet` where keywords came or went; otherwise `rows` that were touched and `columns`
    that moved for everybody. `was` is the revision that they are to be laid upon.
    """

    did: str
    was: int
    summary: Summary
    sheet: SheetBlock | None
    rows: Texts | None
    columns: MovedFigures | None


class CallChange(Taken):
    """A judgement of some keywords."""

    ids: list[int] = Field(min_length=1, max_length=200_000)
    call: CallName
    reason: str = Field(default="", max_length=500)
    by: Literal["hand", "word", "rule"] = "hand"


class PlanLoaded(PlanId):
    """Which plan was made of a file, and what of it the program no longer knows."""

    notices: list[str]


class KeywordIds(Taken):
    """Some keywords."""

    ids: list[int] = Field(min_length=1, max_length=200_000)
