"""Parts of a plan that screens and files share, as they are taken and given."""

from __future__ import annotations

from typing import Annotated, Any, Literal, Self

from pydantic import BaseModel, ConfigDict, Field, model_validator

from milkwort.core.brief.brief import Policy
from milkwort.core.brief.fields import OF_OFFER
from milkwort.core.brief.kinds import PolicyName
from milkwort.core.brief.platform import Profile
from milkwort.core.brief.showing import Showing
from milkwort.core.handover.report.shape import SECTIONS, SectionName
from milkwort.core.sift.house_rules import rule_of
from milkwort.formats.field_models import with_brief_fields, with_fields_of

__all__ = [
    "SHAPES", "AudienceValues", "HouseRuleValues", "OfferValues", "PolicyValues", "ProfileValues",
    "ReportStyleValues", "SavedFilterValues", "ShowingValues", "WhenValues",
]  # fmt: skip


@with_brief_fields(OF_OFFER, {})
class OfferValues(BaseModel):
    """A further offer: money in the plan's currency, shares from 0 to 1.

    Without an id it is the one of its name, or a new one.
    """

    id: int | None = None
    name: str = Field(min_length=1, max_length=200)


@with_fields_of(
    Profile, {"name": 80, "refused_characters": 80, "upload_columns": 400, "upload_name": 80}
)
class ProfileValues(BaseModel):
    """The rules of an ad platform."""

    model_config = ConfigDict(extra="forbid", defer_build=True)

    @model_validator(mode="before")
    @classmethod
    def _completed(cls, value: Any) -> Any:
        """Fill in what a file written before says nothing of."""
        if not isinstance(value, dict):
            return value
        later = ("click_rate_top", "report_half_life", "reports_back", "upload_rows",
                 "shares_budgets", "day_over", "headlines", "descriptions",
                 "written_ads", "upload_columns", "upload_name")  # fmt: skip
        return {name: getattr(Profile(), name) for name in later} | value


class ShowingValues(BaseModel):
    """Days (Monday first) and hours of showing, and their share of searches where known."""

    model_config = ConfigDict(extra="forbid", defer_build=True)

    days: list[bool] = Field(min_length=7, max_length=7)
    from_hour: int
    to_hour: int
    zone: str = Field(default="", max_length=60)
    share: float | None = None


class PolicyValues(BaseModel):
    """Where bids of a campaign or a group come from; money a click, a share."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, defer_build=True)

    name: PolicyName
    flat_bid: float | None = Field(default=None, gt=0, le=1e12)
    share: float | None = Field(default=None, ge=0, le=10)

    @model_validator(mode="after")
    def _checked(self) -> Self:
        Policy(self.name, self.flat_bid, self.share)
        return self


class ReportStyleValues(BaseModel):
    """What a planner chose of the client's sheet; what is left out is as usual."""

    model_config = ConfigDict(extra="forbid", defer_build=True)

    sections: list[SectionName] = Field(default=list(SECTIONS), max_length=20)
    columns: list[Literal["group", "searches", "bid", "cpc", "clicks", "customers", "spend"]] = (
        Field(default=["group", "searches", "bid", "clicks", "customers", "spend"], max_length=10)
    )
    short: bool = False
    language: str = Field(default="en", max_length=10)
    marks: Literal["1,234.5", "1.234,5", "1 234,5"] = "1,234.5"
    sign_first: bool = True
    paper: Literal["a4", "us-letter"] = "a4"
    letterhead: list[Annotated[str, Field(max_length=200)]] = Field(default=[], max_length=8)
    note: str = Field(default="", max_length=8000)


class AudienceValues(BaseModel):
    """Devices or people in words, their share of the searches, and how well they buy."""

    model_config = ConfigDict(extra="forbid", defer_build=True)

    who: str = Field(min_length=1, max_length=120)
    share: float | None = Field(default=None, ge=0, le=1)
    sells: float | None = Field(default=None, ge=0, le=100)


SHAPES: dict[type, Any] = {Profile: ProfileValues, Showing: ShowingValues}
"""What stands for a part of the brief that has a shape of its own."""


class SavedFilterValues(BaseModel):
    """A filter by name; `query` as it stands in the address."""

    model_config = ConfigDict(extra="forbid", defer_build=True)

    name: str = Field(min_length=1, max_length=120)
    query: str = Field(max_length=4000)


class WhenValues(BaseModel):
    """One condition of a house rule."""

    model_config = ConfigDict(extra="forbid", defer_build=True)

    field: str = Field(max_length=40)
    value: str = Field(default="", max_length=200)
    least: float | None = None
    most: float | None = None


class HouseRuleValues(BaseModel):
    """A house rule: what fits all conditions gets a call."""

    model_config = ConfigDict(extra="forbid", defer_build=True)

    when: list[WhenValues] = Field(max_length=20)
    call: Literal["keep", "hold", "drop", "block"]
    reason: str = Field(default="", max_length=500)

    @model_validator(mode="after")
    def _is_a_rule(self) -> Self:
        rule_of(self.model_dump())
        return self
