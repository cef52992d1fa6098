"""What versions of a plan take and give."""

from __future__ import annotations

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import Taken
from milkwort.core.plan.differences import Kind

__all__ = [
    "ApartItem", "CompareView", "DifferenceColumns", "NewVersion", "OddsView", "StandingValues",
    "VersionChange", "VersionItem", "VersionSide", "VersionsView",
]  # fmt: skip


class NewVersion(Taken):
    """A copy of the plan; without a name it gets the next number."""

    label: str = Field(default="", max_length=400)
    reason: str = Field(default="", max_length=4000)


class VersionChange(Taken):
    """What a version is called, and why it was made; what is left out stays."""

    label: str | None = Field(default=None, max_length=400)
    reason: str | None = Field(default=None, max_length=4000)


class VersionItem(Given):
    """One version as it stands beside the others."""

    id: int
    label: str
    reason: str
    is_first: bool
    is_plan: bool
    closed: bool = Field(description="its month is over, and another goes on from it")
    created_at: str
    start_date: str
    revision: int


class VersionsView(Given):
    """All versions a plan stands among, the first one first."""

    revision: int
    versions: list[VersionItem]


class StandingValues(Given):
    """What one version brings, expected; money in its currency, a month unless of the year."""

    purse: float
    spend: float
    clicks: float
    customers: float
    cost_per_customer: float | None
    revenue: float
    profit: float
    searches: float
    kept: int
    running: int
    year_spend: float
    year_customers: float
    year_profit: float


class DifferenceColumns(Given):
    """What is not the same as in the first, by column; `of_kind` counts also what is not sent."""

    kind: list[Kind]
    what: list[str]
    unit: list[str]
    was: list[str | float | bool | None]
    now: list[str | float | bool | None]
    of_kind: dict[str, int]


class VersionSide(Given):
    """One version of those side by side."""

    plan_id: int
    revision: int
    label: str
    currency: str
    standing: StandingValues
    differences: DifferenceColumns


class CompareView(Given):
    """Versions side by side; differences are to the first of them."""

    sides: list[VersionSide]


class RangeValues(Given):
    """10th, 50th and 90th percentile; null where nobody buys."""

    low: float | None
    middle: float | None
    high: float | None


class ApartItem(Given):
    """How one version does against another in the same months; shares of them."""

    first: int
    second: int
    more: float
    fewer: float
    same: float
    more_profit: float
    by: dict[str, RangeValues]


class OddsSide(Given):
    """The ranges of one version."""

    plan_id: int
    revision: int
    figures: dict[str, RangeValues]


class OddsView(Given):
    """Versions drawn with the same luck, and each pair against each other."""

    draws: int
    sides: list[OddsSide]
    pairs: list[ApartItem]
