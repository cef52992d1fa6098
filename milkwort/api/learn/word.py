"""Our word: what was promised of each month, and whether it held."""

from __future__ import annotations

from calendar import monthrange
from dataclasses import dataclass, replace
from datetime import date, timedelta
from typing import Any

import numpy as np

from milkwort.api.learn.held import rows_by, spans_within
from milkwort.api.learn.in_force import InForce, results_in_force
from milkwort.api.learn.known import Known, row_places
from milkwort.api.learn.ran import Span, WhatRan, ran_of, sent_plan, what_ran
from milkwort.api.plan.frozen import Planned
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.workspace import Workspace
from milkwort.core.errors import StoppedError
from milkwort.core.learn.came import Came, came_between
from milkwort.core.learn.our_word import PROMISED, SoFar, Word, month_so_far, word_of
from milkwort.core.learn.seen import ResultRows
from milkwort.formats.learn_headless import result_rows_of
from milkwort.formats.result_rows import places_of
from milkwort.store.versions import Version, family_of

__all__ = [
    "MonthWord", "Words", "months_seen", "planned_by", "range_of_customers", "so_far_item",
    "word_item", "words_of_plan",
]  # fmt: skip

_MOST_MONTHS = 24
_WITHOUT_SALES = ("clicks", "spend")
"""What can be held against a month of which nobody says who bought."""
_GLANCED = 400
"""Draws where a plan is only glanced at."""
_MARKS = 4
"""Of a month, at which its range is drawn."""


@dataclass(frozen=True)
class MonthWord:
    """A month, or the part of it that is seen, and what was promised of it.

    Attributes
    ----------
    first, last : date
        The days that were seen.
    version : str
        The version that planned it; empty for the first one.
    afterwards : bool
        Whether the plan begins only after it, so that its range is no promise.
    end : date
        The month's last day.
    came : Came
    words : tuple of Word
    """

    first: date
    last: date
    version: str
    afterwards: bool
    end: date
    came: Came
    words: tuple[Word, ...]


@dataclass(frozen=True)
class Words:
    """Everything that was promised.

    Attributes
    ----------
    months : tuple of MonthWord
        The newest first.
    so_far : SoFar or None
        Of the newest month; None where nothing is seen.
    purse : float
        Money of that month.
    """

    months: tuple[MonthWord, ...]
    so_far: SoFar | None
    purse: float


def words_of_plan(work: Workspace, plan_id: int) -> Words:
    """Return what was promised of the months that are seen; drawn where it isn't known yet.

    Raises
    ------
    StoppedError
        Where the program is being ended meanwhile.
    """
    plan = work.plan(plan_id)
    _, in_force = results_in_force(work, plan.record.client_id)
    with work.database.read() as session:
        family = family_of(session, plan_id)
    what = what_ran(work, plan_id)
    key = (in_force.imports, tuple((one.id, one.revision) for one in family), plan_id, what)
    held = work.memory.words_given.get(plan_id)
    if held is not None and held[0] == key:
        known: Words = held[1]
        return known
    ran = _Ran(work, family, what)
    found: Words = work.drawing.aside(lambda: _drawn(plan, ran, in_force))
    work.memory.words_given.keep(plan_id, (key, found))
    return found


def range_of_customers(work: Workspace, plan: OpenPlan, known: Known) -> tuple[float, float, float]:
    """Return customers of the newest month so far, and 8 draws of 10 for its days."""
    assert known.rows is not None
    assert known.learned is not None
    last, as_of = known.learned.last, known.learned.as_of
    first = max(last.replace(day=1), known.learned.first)
    planned = spans_within(known, first, last)[0].plan
    rows = rows_by(plan, known, Span(first, last, planned))
    came = came_between(rows, planned.result.worth.contribution,
                        planned.record.brief.worth.contribution, first, last)  # fmt: skip
    words = work.drawing.aside(lambda: word_of(
        planned.result, first, last, as_of, came, count=_GLANCED,
        still_wanted=lambda: not work.drawing.ended,
    ))  # fmt: skip
    if words is None:
        raise StoppedError("The program is being ended.", "glance")
    given = words[PROMISED.index("customers")].given
    return came.customers, given.low, given.high


def word_item(one: MonthWord) -> dict[str, Any]:
    """Return a month as it is sent."""
    return {
        "first": one.first.isoformat(), "last": one.last.isoformat(), "version": one.version,
        "afterwards": one.afterwards, "ended": one.last == one.end,
        "figures": [
            {
                "figure": word.figure, "low": _plain(word.given.low),
                "middle": _plain(word.given.middle), "high": _plain(word.given.high),
                "actual": word.actual, "held": word.held, "fewer": word.fewer, "more": word.more,
            }
            for word in one.words
        ],
    }  # fmt: skip


def so_far_item(so_far: SoFar | None) -> dict[str, Any] | None:
    """Return the range of a month so far as it is sent."""
    if so_far is None:
        return None
    return {
        "days": [day.isoformat() for day in so_far.days],
        **{name: [{"low": one.low, "middle": one.middle, "high": one.high} for one in ranges]
           for name, ranges in so_far.ranges.items()},
    }  # fmt: skip


@dataclass(frozen=True)
class _Held:
    """A plan that a day is held against, and what tells it from every other that ever stood."""

    plan: Planned
    identity: tuple[int, ...]


@dataclass(frozen=True)
class _Ran:
    """Everything that ran of a plan and its versions."""

    work: Workspace
    family: list[Version]
    what: WhatRan

    def on(self, day: date) -> _Held:
        """Return the plan of a day: as it was handed over and ran, else the version's."""
        run = self.what.on(day)
        sent = None if run is None else sent_plan(self.work, run)
        if run is not None and sent is not None:
            return _Held(sent, (run.id,))
        plan = self.work.plan(planned_by(self.family, day).id)
        return _Held(plan, (plan.record.id, plan.record.revision))

    def still_wanted(self) -> bool:
        """Say whether the program goes on."""
        return not self.work.drawing.ended


def _drawn(plan: OpenPlan, ran: _Ran, in_force: InForce) -> Words:
    if in_force.keyword is None or in_force.as_of is None:
        return Words((), None, plan.record.brief.monthly_spend)
    months = []
    for start, end in months_seen(in_force)[-_MOST_MONTHS:]:
        months.append(_month_once(ran, in_force, start, end))
    newest = months[-1]
    mine = ran.on(newest.first)
    whole = _end_of(newest.first)
    seen = newest.last.day - newest.first.day + 1
    so_far = _so_far_once(ran, mine, newest.first, whole, seen)
    share = (whole.day - newest.first.day + 1) / whole.day
    return Words(tuple(months[::-1]), so_far, mine.plan.record.brief.monthly_spend * share)


def _so_far_once(ran: _Ran, held: _Held, first: date, last: date, seen: int) -> SoFar | None:
    """Return the range of a month's days as they pass, and of those that are seen."""
    whole = last.day - first.day + 1
    marks = sorted({*(round(whole * n / _MARKS) for n in range(1, _MARKS + 1)), seen})
    key = (first, last, tuple(marks), held.identity)
    known: SoFar | None = ran.work.memory.months_held.get(key)
    if known is None:
        known = month_so_far(held.plan.result, first, last, marks, still_wanted=ran.still_wanted)
        if known is not None:
            ran.work.memory.months_held.keep(key, known)
    return known


def _month_once(ran: _Ran, in_force: InForce, first: date, last: date) -> MonthWord:
    """Return a month, drawn once for the plan that ran in it and the results that count.

    A change of the plan leaves the months of other versions, and what was sent, as they are.
    """
    held = ran.on(first)
    key = (in_force.imports, first, last, held.identity)
    known: MonthWord | None = ran.work.memory.months_held.get(key)
    if known is None:
        known = _month(ran, held.plan, in_force, first, last)
        ran.work.memory.months_held.keep(key, known)
    return known


def _month(ran: _Ran, plan: Planned, in_force: InForce, first: date, last: date) -> MonthWord:
    assert in_force.keyword is not None
    assert in_force.as_of is not None
    keyword = places_of(in_force.keyword, *row_places(plan))
    rows = result_rows_of(in_force.keyword, keyword)
    came = came_between(rows, plan.result.worth.contribution,
                        plan.record.brief.worth.contribution, first, last)  # fmt: skip
    came = _with_hand(came, in_force, plan, first, last)
    words = word_of(plan.result, first, last, in_force.as_of, came,
                    count=ran.work.settings.draws, still_wanted=ran.still_wanted)  # fmt: skip
    if words is None:
        raise StoppedError("The program is being ended.", "our word")
    if _sales_untold(rows, first, last) and came.customers == 0:
        words = tuple(word for word in words if word.figure in _WITHOUT_SALES)
    afterwards = str(plan.record.values["start_date"]) > last.isoformat()
    return MonthWord(first, last, plan.record.label, afterwards, _end_of(first), came, words)


def _sales_untold(rows: ResultRows, first: date, last: date) -> bool:
    """Say whether no row of a month tells whether anybody bought."""
    if rows.sold_told is None:
        return False
    inside = (rows.last >= first.toordinal()) & (rows.first <= last.toordinal())
    return bool(inside.any()) and not rows.sold_told[inside].any()


def _with_hand(came: Came, in_force: InForce, plan: Planned, first: date, last: date) -> Came:
    """Return what came with the customers that somebody counted."""
    if in_force.by_hand is None:
        return came
    counted, brief = in_force.by_hand, plan.record.brief
    value, customers = counted.figures["value"], counted.figures["customers"]
    # a count that says what they bought for leaves the margin of that
    each = np.where(np.isfinite(value) & (customers > 0),
                    value * brief.offer.gross_margin / np.maximum(customers, 1e-12),
                    brief.worth.contribution)  # fmt: skip
    rows = result_rows_of(counted, np.arange(len(counted)))
    more = came_between(rows, each, brief.worth.contribution, first, last)
    return replace(came, customers=came.customers + more.customers, value=came.value + more.value)


def planned_by(family: list[Version], day: date) -> Version:
    """Return the version that planned a day: the last begun by then that ran."""
    ran = ran_of(family)
    begun = [one for one in ran if one.start_date <= day.isoformat()]
    return max(begun, key=lambda one: (one.start_date, one.id)) if begun else ran[0]


def months_seen(in_force: InForce) -> list[tuple[date, date]]:
    """Return the days of each calendar month that results by keyword are of."""
    rows = in_force.keyword
    if rows is None:
        return []
    at = date.fromordinal(int(rows.first.min()))
    last = date.fromordinal(int(rows.last.max()))
    found = []
    while at <= last:
        end = min(_end_of(at), last)
        found.append((at, end))
        at = end + timedelta(1)
    return found


def _end_of(day: date) -> date:
    return day.replace(day=monthrange(day.year, day.month)[1])


def _plain(value: float) -> float | None:
    return float(value) if np.isfinite(value) else None
