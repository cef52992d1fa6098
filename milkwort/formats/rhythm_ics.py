"""Looks at a running plan as a calendar that any program takes in."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime, timedelta

from milkwort.core.handover.rhythm import Review

__all__ = ["rhythm_ics"]

_LASTS = timedelta(minutes=30)


def rhythm_ics(name: str, key: str, reviews: Sequence[Review], stamp: datetime) -> bytes:
    """Return reviews as iCalendar; taken in again, they take the place of those of before.

    Parameters
    ----------
    name : str
        Of the plan.
    key : str
        By which the plan is known again.
    reviews : sequence of Review
    stamp : datetime
        When the calendar is made.
    """
    from icalendar import Calendar, Event

    calendar = Calendar()
    calendar.add("prodid", "-//Milkwort//rhythm//EN")
    calendar.add("version", "2.0")
    for review in reviews:
        event = Event()
        event.add("uid", f"{key}-{review.key}@milkwort")
        event.add("dtstamp", stamp.astimezone(UTC))
        event.add("dtstart", review.at)
        event.add("dtend", review.at + _LASTS)
        event.add("summary", f"{name}: {review.title}")
        event.add("description", review.about)
        calendar.add_component(event)
    made: bytes = calendar.to_ical()
    return made
