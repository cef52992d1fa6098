"""What a campaign says for itself, where the plan would say it for all."""

from __future__ import annotations

import math
from dataclasses import dataclass

from milkwort.core.brief.showing import Showing
from milkwort.core.errors import BadValueError

__all__ = ["OwnTerms"]


@dataclass(frozen=True)
class OwnTerms:
    """A campaign's own area and hours.

    Attributes
    ----------
    area_share : float or None
        Share of the area that its volumes count; None for the plan's. A keyword that names
        one of the plan's own places keeps a share of 1 either way.
    showing : Showing or None
        Its days and hours; None for the plan's.
    """

    area_share: float | None = None
    showing: Showing | None = None

    def __post_init__(self) -> None:
        share = self.area_share
        if share is not None and not (math.isfinite(share) and 0 <= share <= 1):
            raise BadValueError("area share of a campaign", "a share from 0 to 1", share)
