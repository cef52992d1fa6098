"""Days and hours of showing, and the share of a week's searches they hold."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import asdict, dataclass
from typing import Any

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.assumptions import Assumed
from milkwort.core.errors import BadValueError

__all__ = [
    "ALWAYS", "DAY_NAMES", "Showing", "hours_of_day", "showing_of_values", "shown_share",
    "values_of_showing", "week_of",
]  # fmt: skip

DAY_NAMES = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
_QUARTERS = ("night", "morning", "afternoon", "evening")
_WEEKEND = 5


@dataclass(frozen=True)
class Showing:
    """When ads are shown.

    Attributes
    ----------
    days : tuple of 7 bools
        Monday first.
    from_hour, to_hour : int
        From the start of one hour to the start of the other, 0 to 24; past midnight where
        the second is not after the first.
    zone : str
        The time zone they are meant in, as an IANA name; empty for the planner's own.
    share : float or None
        Share of the searches that falls in these hours, where the planner knows it.
    """

    days: tuple[bool, ...] = (True,) * 7
    from_hour: int = 0
    to_hour: int = 24
    zone: str = ""
    share: float | None = None

    def __post_init__(self) -> None:
        if len(self.days) != len(DAY_NAMES) or not any(self.days):
            raise BadValueError("days of showing", "at least one of seven days", list(self.days))
        if not (0 <= self.from_hour <= 23 and 1 <= self.to_hour <= 24):
            raise BadValueError("hours of showing", "from 0 to 23, to 1 to 24",
                                f"{self.from_hour} to {self.to_hour}")  # fmt: skip
        if self.share is not None and not (math.isfinite(self.share) and 0 < self.share <= 1):
            raise BadValueError("share of searches shown", "a share above 0, up to 1", self.share)

    @property
    def always(self) -> bool:
        """Whether no hour of the week is left out."""
        return all(self.days) and self.from_hour == 0 and self.to_hour == 24 and self.share is None


ALWAYS = Showing()


def showing_of_values(values: Mapping[str, Any] | None) -> Showing:
    """Return days and hours of showing from plain values; always for None.

    Parameters
    ----------
    values : mapping or None
        By field of `Showing`.

    Raises
    ------
    BadValueError
        For an unknown field, or one out of its range.
    """
    if values is None:
        return ALWAYS
    unknown = sorted(set(values) - set(Showing.__dataclass_fields__))
    if unknown:
        raise BadValueError("showing", "days, hours, zone and share", ", ".join(unknown))
    return Showing(**{**values, "days": tuple(values.get("days", ALWAYS.days))})


def values_of_showing(showing: Showing) -> dict[str, Any]:
    """Return days and hours as plain values, the opposite of `showing_of_values`.

    Parameters
    ----------
    showing : Showing
    """
    return asdict(showing) | {"days": list(showing.days)}


def hours_of_day(assumed: Assumed) -> Floats:
    """Return how a day's searches fall on its hours.

    Parameters
    ----------
    assumed : Assumed
        Searches by quarter of the day.

    Returns
    -------
    Floats, shape (24,)
        Sum 1, even within each quarter of the day.
    """
    quarters = np.array([assumed[f"searches_{name}"] for name in _QUARTERS])
    if quarters.sum() <= 0:
        return np.full(24, 1 / 24)
    return np.repeat(quarters / quarters.sum() / 6, 6)


def shown_share(showing: Showing, assumed: Assumed) -> float:
    """Return the share of a week's searches that falls in the hours of showing.

    Parameters
    ----------
    showing : Showing
    assumed : Assumed
        Searches by quarter of the day, and of a weekend day against a weekday.

    Returns
    -------
    float
        Above 0, up to 1; the planner's own figure where one is set.
    """
    if showing.share is not None:
        return showing.share
    # share = Σ_days shown · weight / Σ_days weight · Σ_hours shown
    return float(week_of(showing, assumed).sum())


def week_of(showing: Showing, assumed: Assumed) -> Floats:
    """Return how a week's searches fall on the hours of showing.

    Parameters
    ----------
    showing : Showing
    assumed : Assumed

    Returns
    -------
    Floats, shape (7, 24)
        Monday first; shares of the whole week, 0 in hours that are not shown.
    """
    weight = np.ones(len(DAY_NAMES))
    weight[_WEEKEND:] = assumed["weekend_searches"]
    of_days = np.where(showing.days, weight, 0.0) / weight.sum()
    hour = np.arange(24)
    if showing.from_hour < showing.to_hour:
        shown = (hour >= showing.from_hour) & (hour < showing.to_hour)
    else:
        shown = (hour >= showing.from_hour) | (hour < showing.to_hour)
    return np.asarray(of_days[:, None] * np.where(shown, hours_of_day(assumed), 0.0))
