"""Words of time in an ad, held against the days and hours in which it is shown."""

from __future__ import annotations

from milkwort.core.brief.showing import DAY_NAMES, Showing
from milkwort.core.words.texts import normalise

__all__ = ["against_hours"]

_WEEK = frozenset(range(7))
_DAY = frozenset(range(24))
_WEEKEND = frozenset({5, 6})
_EVENING = frozenset(range(18, 22))
_NIGHT = frozenset({22, 23, 0, 1, 2, 3, 4, 5})

_SAID: dict[str, tuple[frozenset[int], frozenset[int]]] = {
    "24 hour": (_WEEK, _DAY), "24 hours": (_WEEK, _DAY), "24 7": (_WEEK, _DAY),
    "24h": (_WEEK, _DAY), "day and night": (_WEEK, _DAY), "round the clock": (_WEEK, _DAY),
    "any time": (_WEEK, _DAY), "anytime": (_WEEK, _DAY), "night and day": (_WEEK, _DAY),
    "all night": (_WEEK, _NIGHT), "at night": (_WEEK, _NIGHT), "evening": (frozenset(), _EVENING),
    "evenings": (frozenset(), _EVENING), "tonight": (frozenset(), _EVENING),
    "weekend": (_WEEKEND, frozenset()), "weekends": (_WEEKEND, frozenset()),
    "every day": (_WEEK, frozenset()), "all week": (_WEEK, frozenset()),
    "7 days": (_WEEK, frozenset()), "seven days": (_WEEK, frozenset()),
    **{
        name: (frozenset({day}), frozenset())
        for day, day_name in enumerate(DAY_NAMES)
        for name in (day_name.lower(), f"{day_name.lower()}s")
    },
}  # fmt: skip
"""What an ad may say of time, with the days and hours in which it must be shown for it."""


def against_hours(text: str, showing: Showing) -> tuple[str, ...]:
    """Return the words of time in a text that the hours of showing contradict.

    Parameters
    ----------
    text : str
        As it appears.
    showing : Showing
        Of the ad's campaign.

    Returns
    -------
    tuple of str
        Normalised runs of words, longer ones before those within them.
    """
    padded = f" {normalise(text)} "
    shown = _hours(showing)
    days = frozenset(day for day, is_on in enumerate(showing.days) if is_on)
    return tuple(
        said
        for said, (needs_days, needs_hours) in _SAID.items()
        if f" {said} " in padded and not (needs_days <= days and needs_hours <= shown)
    )


def _hours(showing: Showing) -> frozenset[int]:
    start, end = showing.from_hour, showing.to_hour
    if start < end:
        return frozenset(range(start, end))
    return frozenset((*range(start, 24), *range(end)))
