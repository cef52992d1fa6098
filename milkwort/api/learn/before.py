"""What a plan's evidence rests on beyond its own month: the months before, at their bids."""

from __future__ import annotations

from datetime import date, timedelta

import numpy as np

from milkwort.api.learn.ran import WhatRan, bids_sent
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.workspace import Workspace
from milkwort.core.arrays import Floats
from milkwort.core.errors import MilkwortError
from milkwort.core.learn.learned import Before
from milkwort.core.learn.ran import Ran
from milkwort.core.learn.seen import ResultRows
from milkwort.core.plan.run import PlanResult, run_plan
from milkwort.store.closed import closed_before
from milkwort.store.uncorrected import is_corrected, uncorrected_brief, uncorrected_table

__all__ = ["base_of", "before_of"]


def base_of(plan: OpenPlan) -> PlanResult:
    """Return a plan with uncorrected inputs; the very plan where nothing was corrected."""
    if not is_corrected(plan.record, plan.sheet):
        return plan.result
    return run_plan(uncorrected_brief(plan.record), uncorrected_table(plan.sheet))


def before_of(work: Workspace, plan: OpenPlan, rows: ResultRows, ran: WhatRan) -> Before:
    """Return a plan's results with the bids that ran: as they were handed over, where they were.

    Parameters
    ----------
    work : Workspace
    plan : OpenPlan
    rows : ResultRows
        Of all days; their keywords are rows of the plan's table.
    ran : WhatRan
    """
    last = date.fromordinal(int(rows.last.max()))
    own = _first_day(plan)
    spans = [Ran(max(own, date.min), max(last, own), plan.result.bid)]
    for start, month in _closed_before(work, plan):
        spans.insert(0, Ran(start, spans[0].first - timedelta(1), _bids_of(month, plan)))
    return Before(base_of(plan), rows, _as_sent(work, plan, spans, ran))


def _as_sent(work: Workspace, plan: OpenPlan, spans: list[Ran], ran: WhatRan) -> list[Ran]:
    """Return spans with what was handed over in the place of what a version says."""
    keys = [entry.key for entry in plan.sheet.entries]
    found = []
    for span in spans:
        for first, last, run in ran.parts(span.first, span.last):
            bid = span.bid if run is None else bids_sent(work, run, keys)
            found.append(Ran(first, last, bid))
    return found


def _closed_before(work: Workspace, plan: OpenPlan) -> list[tuple[date, OpenPlan]]:
    """Return the closed months of a plan's family that began before it did, the last first.

    One that can't be opened any more is left out: its days count as run at the bids after it.
    Of two that began on one day the one made last ran.
    """
    with work.database.read() as session:
        ids = closed_before(session, plan.record.id, str(plan.record.values["start_date"]))
    found: dict[date, OpenPlan] = {}
    for plan_id in ids:
        try:
            month = work.plan(plan_id)
        except MilkwortError:
            continue
        found.setdefault(_first_day(month), month)
    return list(found.items())


def _bids_of(month: OpenPlan, plan: OpenPlan) -> Floats:
    """Return what each of a plan's keywords bid in another month; NaN for one it hadn't."""
    bids = dict(zip((e.key for e in month.sheet.entries), month.result.bid.tolist(), strict=True))
    return np.array([bids.get(e.key, np.nan) for e in plan.sheet.entries], dtype=np.float64)


def _first_day(plan: OpenPlan) -> date:
    return date.fromisoformat(str(plan.record.values["start_date"]))
