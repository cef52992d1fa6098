"""Platform profiles: the rules of an ad platform that a plan must keep to."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import asdict, dataclass, fields, replace
from typing import Any

from milkwort.core.assumptions import TABLE
from milkwort.core.brief.kinds import PRICINGS, Pricing
from milkwort.core.brief.upload_shape import (
    FILE_NAME,
    UploadColumn,
    check_file_name,
    check_upload_columns,
)
from milkwort.core.errors import BadValueError
from milkwort.core.words.match_types import MATCHES, Match

__all__ = ["PROFILES", "Profile", "profile_of"]


_ASSUMED = {"raises": "platform_raise"}
_DECIDES = ("min_bid", "bid_step", "raises", "click_rate_top", "report_half_life", "day_over")
"""What of a profile stands in the place of an assumption."""


@dataclass(frozen=True)
class Profile:
    """What one ad platform takes.

    Attributes
    ----------
    name : str
    pricing : str
        ``pay_enough`` or ``pay_bid``.
    matches : tuple of str
        Match types it has, from `MATCHES`.
    min_bid, bid_step : float
        Money a click.
    raises : float
        How far it may raise a bid by itself, as a share.
    keywords_per_group, ads_per_group : int
        At most.
    headlines, descriptions : int
        Fields of an ad, at most.
    headline_characters, description_characters : int
        At most.
    written_ads : bool
        Whether ads are written at all; without, the title of the thing sold is the ad.
    refused_characters : str
        Characters it takes in no keyword.
    negative_close_forms : bool
        Whether a negative's plural stops its singular too.
    click_rate_top : float
        Clicks a showing at the top, as is usual there.
    report_half_life : float
        Days by which half the customers are reported.
    reports_back : int
        Days that its reports reach back at most.
    upload_rows : int
        Rows an upload may have at most.
    upload_columns : tuple of UploadColumn
        Columns of upload sheets that are not as they come.
    upload_name : str
        The rule by which their files are named.
    shares_budgets : bool
        Whether campaigns can share one budget.
    day_over : float
        How far a day may run over its budget, as a share.
    """

    name: str = "Usual auction"
    pricing: Pricing = "pay_enough"
    matches: tuple[Match, ...] = ("exact", "phrase", "broad")
    min_bid: float = 0.05
    bid_step: float = 0.01
    raises: float = 0.0
    keywords_per_group: int = 150
    ads_per_group: int = 7
    headlines: int = 3
    descriptions: int = 1
    headline_characters: int = 36
    description_characters: int = 110
    written_ads: bool = True
    refused_characters: str = "<>|\\^~#$_"
    negative_close_forms: bool = False
    click_rate_top: float = 0.06
    report_half_life: float = 2.0
    reports_back: int = 400
    upload_rows: int = 20_000
    upload_columns: tuple[UploadColumn, ...] = ()
    upload_name: str = FILE_NAME
    shares_budgets: bool = False
    day_over: float = 0.0

    def __post_init__(self) -> None:
        if not 1 <= len(self.name.strip()) <= 80:
            raise BadValueError("profile name", "a name of 1 to 80 characters", self.name)
        if self.pricing not in PRICINGS:
            raise BadValueError("profile pricing", "pay_enough or pay_bid", self.pricing)
        if not self.matches or not set(self.matches) <= set(MATCHES):
            raise BadValueError("profile matches", "some of " + ", ".join(MATCHES), self.matches)
        for name in ("min_bid", "bid_step"):
            _number(name, getattr(self, name), 0.0001, 1e4)
        _number("raises", self.raises, 0, 1)
        _number("click_rate_top", self.click_rate_top, 0, 1)
        _number("report_half_life", self.report_half_life, 0, 60)
        _number("day_over", self.day_over, 0, 10)
        for name in ("headlines", "descriptions"):
            _number(name, getattr(self, name), 1, 20)
        for name in ("keywords_per_group", "ads_per_group", "headline_characters",
                     "description_characters", "reports_back"):  # fmt: skip
            _number(name, getattr(self, name), 1, 100_000)
        _number("upload_rows", self.upload_rows, 1, 10_000_000)
        check_upload_columns(self.upload_columns)
        check_file_name(self.upload_name)

    def assumptions(self) -> dict[str, float]:
        """Return the assumptions that the platform decides, where they are not the usual."""
        decided = {_ASSUMED.get(name, name): getattr(self, name) for name in _DECIDES}
        return {name: value for name, value in decided.items() if value != TABLE[name].value}

    def as_dict(self) -> dict[str, Any]:
        """Return plain values, for a file or the store."""
        columns = [asdict(one) for one in self.upload_columns]
        return asdict(self) | {"matches": list(self.matches), "upload_columns": columns}

    def as_own(self) -> Profile:
        """Return it under a name of its own, where it has that of one that ships."""
        shipped = {Profile().name, *(one.name for one in PROFILES)}
        return replace(self, name=f"{self.name}, our own") if self.name in shipped else self


def profile_of(values: Mapping[str, Any] | None) -> Profile:
    """Return a profile from plain values; the usual one for none.

    Parameters
    ----------
    values : mapping or None
        By field of `Profile`.

    Raises
    ------
    BadValueError
        For an unknown field or a value out of its range.
    """
    if values is None:
        return Profile()
    known = {f.name for f in fields(Profile)}
    unknown = sorted(set(values) - known)
    if unknown:
        raise BadValueError("profile", "fields of a platform profile", ", ".join(unknown))
    given = dict(values)
    try:
        if "matches" in given:
            given["matches"] = tuple(given["matches"])
        if "upload_columns" in given:
            given["upload_columns"] = tuple(
                UploadColumn(**one) if isinstance(one, Mapping) else one
                for one in given["upload_columns"]
            )
        return Profile(**given)
    except TypeError as error:
        raise BadValueError("profile", "values of the right kind", str(error)) from error


def _number(name: str, value: Any, least: float, most: float) -> None:
    is_number = isinstance(value, int | float) and not isinstance(value, bool)
    if not (is_number and math.isfinite(value) and least <= value <= most):
        raise BadValueError(f"profile {name}", f"a number from {least:g} to {most:g}", value)


PROFILES: tuple[Profile, ...] = (
    Profile("Kestrel Search", shares_budgets=True, day_over=0.4),
    Profile(
        name="Harbour Market",
        pricing="pay_bid",
        min_bid=0.03,
        keywords_per_group=640,
        ads_per_group=2,
        headlines=1,
        headline_characters=55,
        description_characters=130,
        negative_close_forms=True,
        report_half_life=1.0,
        reports_back=90,
        upload_rows=5_000,
    ),
)
"""Two invented platforms: an auction, and a marketplace where a click costs what was bid."""
