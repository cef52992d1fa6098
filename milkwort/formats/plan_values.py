"""Parts of a plan that screens and files share, as they are taken and given."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from milkwort.core.brief.brief import Match, Pricing

__all__ = [
    "HouseRuleValues", "OfferValues", "ProfileValues", "SavedFilterValues", "ShowingValues",
    "WhenValues",
]  # fmt: skip


class OfferValues(BaseModel):
    """A further offer: money in the plan's currency, shares from 0 to 1.

    Without an id it is the one of its name, or a new one.
    """

    id: int | None = None
    name: str = Field(min_length=1, max_length=200)
    sale_value: float
    gross_margin: float
    sales_per_customer: float = 1.0
    rate_low: float
    rate_likely: float
    rate_high: float
    close_low: float | None = None
    close_likely: float | None = None
    close_high: float | None = None


class ProfileValues(BaseModel):
    """The rules of an ad platform."""

    model_config = ConfigDict(extra="forbid")

    name: str = Field(max_length=80)
    pricing: Pricing
    matches: list[Match]
    min_bid: float
    bid_step: float
    raises: float
    keywords_per_group: int
    ads_per_group: int
    headline_characters: int
    description_characters: int
    refused_characters: str = Field(max_length=80)
    negative_close_forms: bool


class ShowingValues(BaseModel):
    """Days (Monday first) and hours of showing, and their share of searches where known."""

    model_config = ConfigDict(extra="forbid")

    days: list[bool] = Field(min_length=7, max_length=7)
    from_hour: int
    to_hour: int
    zone: str = Field(default="", max_length=60)
    share: float | None = None


class SavedFilterValues(BaseModel):
    """A filter by name; `query` as it stands in the address."""

    model_config = ConfigDict(extra="forbid")

    name: str = Field(min_length=1, max_length=120)
    query: str = Field(max_length=4000)


class WhenValues(BaseModel):
    """One condition of a house rule."""

    model_config = ConfigDict(extra="forbid")

    field: str = Field(max_length=40)
    value: str = Field(default="", max_length=200)
    least: float | None = None
    most: float | None = None


class HouseRuleValues(BaseModel):
    """A house rule: what fits all conditions gets a call."""

    model_config = ConfigDict(extra="forbid")

    when: list[WhenValues] = Field(max_length=20)
    call: Literal["keep", "hold", "drop", "block"]
    reason: str = Field(default="", max_length=500)
