"""When a running plan is looked at, and at what."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime, time, timedelta

__all__ = ["Review", "reviews_of"]

_FIRST_HOUR = 9
_MONTHS = 3


@dataclass(frozen=True)
class Review:
    """One look at a running plan.

    Attributes
    ----------
    key : str
        What it is called wherever it is known again: the same look of the same plan.
    at : datetime
        Local to whoever looks.
    title, about : str
        What to look at, and where.
    """

    key: str
    at: datetime
    title: str
    about: str


def reviews_of(first_day: date, last_day: date | None = None) -> list[Review]:
    """Return the looks of the first three months, in the order of their days.

    An hour after it runs whether it is shown; terms every week; bids every two weeks, none in
    the first: there is too little to go by; the month's end.

    Parameters
    ----------
    first_day : date
    last_day : date, optional
        Nothing is looked at after it but the end itself.
    """
    start = datetime.combine(first_day, time(_FIRST_HOUR))
    found = [
        Review(
            "first",
            start + timedelta(hours=1),
            "First look: is it shown?",
            "Showings of every campaign, refused rows, money of the day (Hand over).",
        )
    ]
    weeks = _MONTHS * 31 // 7
    for week in range(1, weeks + 1):
        at = start + timedelta(weeks=week)
        found.append(
            Review(
                f"terms-{week}",
                at,
                "What people typed",
                "Block what wastes, keep what sells (Learn, terms).",
            )
        )
        if week % 2 == 0:
            found.append(
                Review(
                    f"bids-{week}",
                    at + timedelta(minutes=30),
                    "Bids",
                    "Stop, wait or raise, by evidence (Learn, keywords).",
                )
            )
    for month in range(1, _MONTHS + 1):
        ends = _month_after(first_day, month) - timedelta(days=1)
        found.append(
            Review(
                f"month-{month}",
                datetime.combine(ends, time(_FIRST_HOUR)),
                "The month’s end",
                "Set the month against its range, close it, make the next.",
            )
        )
    if last_day is not None:
        found = [one for one in found if one.at.date() <= last_day]
    return sorted(found, key=lambda one: one.at)


def _month_after(day: date, months: int) -> date:
    year, month = divmod(day.year * 12 + day.month - 1 + months, 12)
    return date(year, month + 1, 1)
