"""How long rivals' keywords and ads have been running, and with what figures."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import date

import numpy as np

from milkwort.core.gather.rivals import RivalRow

__all__ = ["RivalAd", "Sighting", "ads_seen", "month_of", "months_listed", "rivals_seen",
           "sightings", "standing_rows"]  # fmt: skip

_MOST_MONTHS = 24
"""So many months before the last are told apart; a strip of more can't be read."""


@dataclass(frozen=True)
class Sighting:
    """A keyword, an ad or a rival as it is seen; figures are those of its last days.

    Attributes
    ----------
    name : str
        The keyword, the ad or the rival.
    rivals : tuple of str
        In alphabetical order.
    days : int or None
        From the first sighting to the last, both counted; None without dates.
    running : bool
        Whether it was seen on the last day of the list.
    months : tuple of int
        Months in which it was seen (`month_of`), among those of `months_listed`.
    position : float or None
        Average place of the ad, weighted by clicks where they are known.
    clicks, monthly_cost : float or None
        A month, of all its rivals; None where nothing is known of it.
    clicks_share : float or None
        Part of these rivals' clicks that comes through it.
    ads, pages : tuple of str
        As they were first listed.
    """

    name: str
    rivals: tuple[str, ...]
    days: int | None
    running: bool
    months: tuple[int, ...]
    position: float | None
    clicks: float | None
    monthly_cost: float | None
    clicks_share: float | None
    ads: tuple[str, ...]
    pages: tuple[str, ...]


@dataclass(frozen=True)
class RivalAd:
    """One ad text with what it is shown for.

    Attributes
    ----------
    keywords : tuple of str
        Normalised, in alphabetical order.
    sighting : Sighting
        Named by the ad.
    """

    keywords: tuple[str, ...]
    sighting: Sighting


def month_of(day: int) -> int:
    """Return the number of the month that holds a day, twelve a year.

    Parameters
    ----------
    day : int
        Days since the first of January of the year 1, as `date.toordinal` counts.

    Returns
    -------
    int
    """
    there = date.fromordinal(day)
    return there.year * 12 + there.month - 1


def months_listed(rows: Sequence[RivalRow]) -> range:
    """Return the months a list tells of, the last two years of it at most.

    Parameters
    ----------
    rows : sequence of RivalRow
        Those without dates are left out.
    """
    dated = _spans(rows)
    if not dated:
        return range(0)
    last = month_of(max(last for _, last in dated))
    first = month_of(min(first for first, _ in dated))
    return range(max(first, last - _MOST_MONTHS + 1), last + 1)


def standing_rows(rows: Sequence[RivalRow]) -> list[RivalRow]:
    """Return each rival's rows of a keyword as it was seen last, undated ones with them.

    A list with a row a month says one keyword's money many times; only the last is what it
    costs a month.

    Parameters
    ----------
    rows : sequence of RivalRow
    """
    last: dict[tuple[str, str], int] = defaultdict(int)
    for row in rows:
        name = (row.rival, row.normalised)
        last[name] = max(last[name], row.last_seen or 0)
    return [r for r in rows if (r.last_seen or 0) == last[r.rival, r.normalised]]


def sightings(rows: Sequence[RivalRow], rival: str | None = None) -> list[Sighting]:
    """Say how long each keyword has been running and how, the longest first.

    What somebody has paid for month after month probably pays.

    Parameters
    ----------
    rows : sequence of RivalRow
        All that is listed: it says which day and which months are the last.
    rival : str, optional
        One rival's alone.
    """
    return _sightings(rows, lambda row: row.normalised, rival)


def ads_seen(rows: Sequence[RivalRow], rival: str | None = None) -> list[RivalAd]:
    """Return ads with the keywords each is shown for, the longest running first.

    Parameters
    ----------
    rows : sequence of RivalRow
        All that is listed; those without an ad text are left out.
    rival : str, optional
        One rival's alone.
    """
    shown_for: dict[str, set[str]] = defaultdict(set)
    for row in rows:
        if row.ad and row.normalised and rival in (None, row.rival):
            shown_for[row.ad].add(row.normalised)
    return [
        RivalAd(tuple(sorted(shown_for[seen.name])), seen)
        for seen in _sightings(rows, lambda row: row.ad, rival)
    ]


def rivals_seen(rows: Sequence[RivalRow]) -> list[Sighting]:
    """Return each rival as it is seen over all its keywords, named by it.

    Parameters
    ----------
    rows : sequence of RivalRow
    """
    return _sightings(rows, lambda row: row.rival)


def _sightings(
    rows: Sequence[RivalRow], name_of: Callable[[RivalRow], str], rival: str | None = None
) -> list[Sighting]:
    window = months_listed(rows)
    latest = max((r.last_seen or 0 for r in rows), default=0)
    rows = [r for r in rows if rival in (None, r.rival)]
    standing = standing_rows(rows)
    all_clicks: dict[str, float] = defaultdict(float)
    for row in standing:
        all_clicks[row.rival] += row.clicks or 0.0
    now = _by_name(standing, name_of)
    found = [
        _sighting(name, some, now.get(name, some), latest, window, all_clicks)
        for name, some in _by_name(rows, name_of).items()
    ]
    return sorted(found, key=lambda s: (-(s.days or 0), s.name))


def _by_name(
    rows: Sequence[RivalRow], name_of: Callable[[RivalRow], str]
) -> dict[str, list[RivalRow]]:
    found: dict[str, list[RivalRow]] = defaultdict(list)
    for row in rows:
        if name := name_of(row):
            found[name].append(row)
    return found


def _sighting(
    name: str,
    rows: Sequence[RivalRow],
    now: Sequence[RivalRow],
    latest: int,
    window: range,
    all_clicks: dict[str, float],
) -> Sighting:
    spans = _spans(rows)
    first, last = min((f for f, _ in spans), default=0), max((t for _, t in spans), default=0)
    rivals = tuple(sorted({r.rival for r in rows}))
    clicks = _sum([r.clicks for r in now])
    return Sighting(
        name=name,
        rivals=rivals,
        days=last - first + 1 if spans else None,
        running=bool(spans) and last >= latest,
        months=_months(spans, window),
        position=_position(now),
        clicks=clicks,
        monthly_cost=_sum([r.monthly_cost for r in now]),
        clicks_share=_clicks_share(now, clicks, sum(all_clicks[r] for r in rivals)),
        ads=tuple(dict.fromkeys(r.ad for r in rows if r.ad)),
        pages=tuple(dict.fromkeys(r.page for r in rows if r.page)),
    )


def _spans(rows: Sequence[RivalRow]) -> list[tuple[int, int]]:
    """Return first and last day of the rows that have both, days that a calendar holds."""
    end = date.max.toordinal()
    return [
        (r.first_seen, r.last_seen)
        for r in rows
        if r.first_seen and r.last_seen and 1 <= r.first_seen <= r.last_seen <= end
    ]


def _months(spans: Sequence[tuple[int, int]], window: range) -> tuple[int, ...]:
    seen: set[int] = set()
    for first, last in spans:
        from_month = max(month_of(first), window.start)
        seen.update(range(from_month, month_of(last) + 1))
    return tuple(sorted(seen))


def _position(rows: Sequence[RivalRow]) -> float | None:
    placed = [(r.position, r.clicks or 0.0) for r in rows if r.position is not None]
    if not placed:
        return None
    places, weights = np.array(placed).T
    return float(np.average(places, weights=weights if weights.sum() > 0 else None))


def _clicks_share(rows: Sequence[RivalRow], clicks: float | None, of_all: float) -> float | None:
    """Return a share from clicks where they are known, else as one rival's list says it."""
    if clicks is not None and of_all > 0:
        return clicks / of_all
    said = _sum([r.clicks_share for r in rows])
    return min(said, 1.0) if said is not None and len({r.rival for r in rows}) == 1 else None


def _sum(figures: Sequence[float | None]) -> float | None:
    known = [f for f in figures if f is not None]
    return sum(known) if known else None
