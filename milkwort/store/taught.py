"""What results taught, as it is kept: beside a plan's figures, so that these can be had back.

A month that is closed writes corrected figures; corrections always start from uncorrected
ones. So each corrected figure says by what it was corrected, and holds only while it stands:
another reading, or another rate, is as it was entered.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from milkwort.core.brief.taught import Taught

__all__ = ["TaughtPlan", "TaughtRate", "TaughtReading", "rate_of", "reading_of"]


@dataclass(frozen=True)
class TaughtReading:
    """Factors that a reading was corrected by, and spreads that are left, log units.

    Attributes
    ----------
    searches, click_rate, price : float
        What was read, times these, is what stands; clicks are planned as searches.
    own, group : tuple of 3 floats
        Spreads of the keyword and of its group: of searches, click rate and price.
    """

    searches: float
    click_rate: float
    price: float
    own: tuple[float, ...]
    group: tuple[float, ...]

    @property
    def volume(self) -> float:
        """By what its searches were corrected."""
        return self.searches * self.click_rate


@dataclass(frozen=True)
class TaughtRate:
    """A keyword's rate as results have it.

    Attributes
    ----------
    rate : float
        What was written; another rate in its place was entered since.
    before : float or None
        Its own rate without results; none where the brief's applied.
    clicks : float
        Exposed clicks it rests on.
    """

    rate: float
    before: float | None
    clicks: float


@dataclass(frozen=True)
class TaughtPlan:
    """What results taught of all keywords together; what was not taken over is as it was.

    Attributes
    ----------
    searches, click_rate, price : float or None
        Spreads that are left, log units; None where the first ones stand.
    conversion : float
        Share of the spread of the brief's rates that is left.
    held : mapping of str to float
        Factors of the whole plan by input, which its figures hold already.
    """

    searches: float | None = None
    click_rate: float | None = None
    price: float | None = None
    conversion: float = 1.0
    held: Mapping[str, float] = field(default_factory=dict)

    @property
    def of_brief(self) -> Taught | None:
        """As the core has it; None where months are drawn as they were at first."""
        if self.searches is None or self.click_rate is None or self.price is None:
            return None
        return Taught(self.searches, self.click_rate, self.price, self.conversion)


def reading_of(stored: Mapping[str, Any] | None) -> TaughtReading | None:
    """Return what is kept beside a reading."""
    if stored is None:
        return None
    return TaughtReading(
        stored["searches"], stored["click_rate"], stored["price"], tuple(stored["own"]),
        tuple(stored["group"]),
    )  # fmt: skip


def rate_of(stored: Mapping[str, Any] | None) -> TaughtRate | None:
    """Return what is kept beside a keyword's rate."""
    return None if stored is None else TaughtRate(**stored)
