"""Platform profiles: the rules of an ad platform that a plan must keep to."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import asdict, dataclass, fields
from typing import Any

from milkwort.core.brief.kinds import PRICINGS, Pricing
from milkwort.core.errors import BadValueError
from milkwort.core.words.match_types import MATCHES, Match

__all__ = ["PROFILES", "Profile", "profile_of"]


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
    headline_characters, description_characters : int
        At most.
    refused_characters : str
        Characters it takes in no keyword.
    negative_close_forms : bool
        Whether a negative's plural stops its singular too.
    """

    name: str = "Usual auction"
    pricing: Pricing = "pay_enough"
    matches: tuple[Match, ...] = ("exact", "phrase", "broad")
    min_bid: float = 0.05
    bid_step: float = 0.01
    raises: float = 0.0
    keywords_per_group: int = 200
    ads_per_group: int = 10
    headline_characters: int = 30
    description_characters: int = 90
    refused_characters: str = "!@%,*^~;={}<>\\|"
    negative_close_forms: bool = False

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
        for name in ("keywords_per_group", "ads_per_group", "headline_characters",
                     "description_characters"):  # fmt: skip
            _number(name, getattr(self, name), 1, 100_000)

    def assumptions(self) -> dict[str, float]:
        """Return the assumptions that the platform decides, where they are not the usual."""
        decided = {"min_bid": self.min_bid, "bid_step": self.bid_step,
                   "platform_raise": self.raises}  # fmt: skip
        usual = {"min_bid": 0.05, "bid_step": 0.01, "platform_raise": 0.0}
        return {name: value for name, value in decided.items() if value != usual[name]}

    def as_dict(self) -> dict[str, Any]:
        """Return plain values, for a file or the store."""
        return asdict(self) | {"matches": list(self.matches)}


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
        return Profile(**given)
    except TypeError as error:
        raise BadValueError("profile", "values of the right kind", str(error)) from error


def _number(name: str, value: Any, least: float, most: float) -> None:
    is_number = isinstance(value, int | float) and not isinstance(value, bool)
    if not (is_number and math.isfinite(value) and least <= value <= most):
        raise BadValueError(f"profile {name}", f"a number from {least:g} to {most:g}", value)


PROFILES: tuple[Profile, ...] = (
    Profile("Kestrel Search"),
    Profile(
        name="Harbour Market",
        pricing="pay_bid",
        matches=("exact", "phrase", "broad"),
        min_bid=0.02,
        raises=0.0,
        keywords_per_group=1000,
        ads_per_group=1,
        headline_characters=60,
        description_characters=140,
        negative_close_forms=True,
    ),
)
"""Two invented platforms: an auction, and a marketplace where a click costs what was bid."""
