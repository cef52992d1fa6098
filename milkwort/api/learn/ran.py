"""Which plan a day's results are held against: what was handed over and ran, else the version."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np

from milkwort.api.plan.frozen import Frozen, Planned, frozen
from milkwort.api.plan.workspace import Workspace
from milkwort.core.arrays import Floats
from milkwort.core.errors import MilkwortError
from milkwort.store.hand_overs import Run, forecast_sent, runs_of, state_of, thawed
from milkwort.store.versions import Version, family_of

__all__ = [
    "Span", "WhatRan", "all_bids_sent", "bids_sent", "ran_of", "sent_plan", "spans_of", "what_ran",
]  # fmt: skip


@dataclass(frozen=True)
class Span:
    """Days that are held against the same plan.

    Attributes
    ----------
    first, last : date
        Ends included.
    plan : Planned
    sent : str or None
        When what ran was handed over; None where nothing that was handed over ran.
    read : bool
        Whether what was handed over can still be read; the plan stands in for it where not.
    """

    first: date
    last: date
    plan: Planned
    sent: str | None = None
    read: bool = True


@dataclass(frozen=True)
class WhatRan:
    """What ran of a plan and its versions: the newest of what was handed over and what began.

    Attributes
    ----------
    runs : tuple of Run
        What was handed over and ran, by first day.
    starts : tuple of (date, int)
        First days of the versions that ran, each with its plan's id: a version whose month
        begins takes the place of what another handed over, until it is handed over itself.
    """

    runs: tuple[Run, ...]
    starts: tuple[tuple[date, int], ...]

    def on(self, day: date) -> Run | None:
        """Return what was handed over and ran on a day; None where a version did."""
        at = bisect_right([run.first for run in self.runs], day)
        if not at:
            return None
        run = self.runs[at - 1]
        since = any(run.first < start <= day and of != run.plan_id for start, of in self.starts)
        return None if since else run

    def parts(self, first: date, last: date) -> list[tuple[date, date, Run | None]]:
        """Return some days, ends included, in parts on which the same ran."""
        every = {run.first for run in self.runs} | {start for start, _ in self.starts}
        starts = [first, *sorted(day for day in every if first < day <= last)]
        ends = [start - timedelta(1) for start in starts[1:]] + [last]
        found: list[tuple[date, date, Run | None]] = []
        for start, end in zip(starts, ends, strict=True):
            run = self.on(start)
            if found and found[-1][2] is run:
                found[-1] = (found[-1][0], end, run)
            else:
                found.append((start, end, run))
        return found


def what_ran(work: Workspace, plan_id: int) -> WhatRan:
    """Return what ran of a plan and its versions."""
    with work.database.read() as session:
        family = family_of(session, plan_id)
        runs = tuple(runs_of(session, [one.id for one in family]))
    starts = [(date.fromisoformat(one.start_date), one.id) for one in ran_of(family)]
    return WhatRan(runs, tuple(starts))


def ran_of(family: Sequence[Version]) -> Sequence[Version]:
    """Return the versions that ran: closed or the plan; others only stand beside, compared."""
    return [one for one in family if one.closed or one.is_plan] or family


def spans_of(work: Workspace, plan: Planned, ran: WhatRan, first: date, last: date) -> list[Span]:
    """Return some days of a plan, ends included, each with the plan it is held against."""
    spans = []
    for start, end, run in ran.parts(first, last):
        sent = None if run is None else sent_plan(work, run)
        at = None if run is None else run.at
        spans.append(Span(start, end, sent or plan, at, read=run is None or sent is not None))
    return spans


def sent_plan(work: Workspace, run: Run) -> Frozen | None:
    """Return a plan as it was handed over; None where that can't be read any more."""
    held: Frozen | None = work.memory.sent_plans.get(run.id)
    if held is not None:
        return held
    with work.database.read() as session:
        kept = thawed(session, run.plan_id, run.id)
    try:
        made = frozen(state_of(kept))
    except MilkwortError:
        return None
    work.memory.sent_plans.keep(run.id, made)
    return made


def bids_sent(work: Workspace, run: Run, keys: Sequence[str]) -> Floats:
    """Return what each keyword bid when it was sent; NaN for one that wasn't to run."""
    bids = all_bids_sent(work, run)
    return np.array([bids.get(key, np.nan) for key in keys], dtype=np.float64)


def all_bids_sent(work: Workspace, run: Run) -> dict[str, float]:
    """Return what was bid, by keyword's key, of all that ran as it was sent."""
    with work.database.read() as session:
        forecast = forecast_sent(thawed(session, run.plan_id, run.id))
    bids = zip(forecast.get("ref", []), forecast.get("bid", []), strict=True)
    return {key: bid for key, bid in bids if bid is not None}
