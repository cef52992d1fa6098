"""What a plan may ask of the fit beside its purse."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, replace

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.brief.fields import check_field
from milkwort.core.errors import BadValueError

__all__ = ["Limits", "SpendLimit"]


@dataclass(frozen=True)
class SpendLimit:
    """Least and most money a month for one campaign."""

    least: float = 0.0
    most: float = math.inf

    def __post_init__(self) -> None:
        if not (math.isfinite(self.least) and self.least >= 0):
            raise BadValueError("least spend", "a sum of 0 or more", self.least)
        if not self.most >= self.least:
            raise BadValueError("most spend", f"a sum of at least {self.least:g}", self.most)


@dataclass(frozen=True)
class Limits:
    """Limits of the fit; each holds alone and together with the others.

    Attributes
    ----------
    max_keywords : int or None
        At most so many keywords run; None for no limit.
    min_clicks : float
        Least clicks a month for any keyword that runs.
    campaigns : mapping of int to SpendLimit
        By number of the campaign in the keyword table; those that limit nothing are left out.
    scouting : int or None
        The campaign of the low-bid scouting group.
    scouting_share : float
        Share of the purse set aside for it, 0 to 1; the others share the rest.
    """

    max_keywords: int | None = None
    min_clicks: float = 0.0
    campaigns: Mapping[int, SpendLimit] = field(default_factory=dict)
    scouting: int | None = None
    scouting_share: float = 0.0

    def __post_init__(self) -> None:
        check_field("max_keywords", self.max_keywords)
        check_field("min_clicks", self.min_clicks)
        if not 0 <= self.scouting_share <= 1:
            raise BadValueError("scouting_share", "a share from 0 to 1", self.scouting_share)
        # what neither asks for money nor bars any is no limit, and costs the fit nothing
        said = {c: one for c, one in self.campaigns.items() if one != SpendLimit()}
        object.__setattr__(self, "campaigns", said)

    @property
    def any(self) -> bool:
        """Whether anything but the purse limits the fit."""
        return bool(
            self.max_keywords is not None
            or self.min_clicks > 0
            or self.campaigns
            or self.scouting is not None
        )

    def most_of(self, campaigns: Ints) -> Floats:
        """Return the most money a month of some campaigns; infinite where none is said.

        Parameters
        ----------
        campaigns : Ints
            Numbers of campaigns, in any order; −1 for none.
        """
        held = self.campaigns
        return np.array([held[c].most if c in held else math.inf for c in campaigns.tolist()])

    def least_of(self, campaigns: Ints) -> Floats:
        """Return the least money a month of some campaigns, as `most_of` does; 0 where none."""
        held = self.campaigns
        return np.array([held[c].least if c in held else 0.0 for c in campaigns.tolist()])

    def over(self, part: float) -> Limits:
        """Return the limits of a month that is lived in part: its money and clicks are fewer.

        Parameters
        ----------
        part : float
            Share of the month's days.
        """
        if part == 1.0:
            return self
        # no limit stays none, also of a month of no days
        fewer = {c: replace(one, least=one.least * part,
                            most=one.most if math.isinf(one.most) else one.most * part)
                 for c, one in self.campaigns.items()}  # fmt: skip
        return replace(self, min_clicks=self.min_clicks * part, campaigns=fewer)
