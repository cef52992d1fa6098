"""The months of a plan so far: what each brought, what was changed, and what that did."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date
from typing import Any

import numpy as np

from milkwort.api.learn.before import bids_of
from milkwort.api.learn.known import InForce, results_in_force, row_places
from milkwort.api.learn.word import months_seen, planned_by
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.workspace import Workspace
from milkwort.core.learn.history import RanMonth, what_changed
from milkwort.core.learn.seen import ResultRows, seen_by
from milkwort.formats.learn_headless import result_rows_of
from milkwort.formats.result_rows import places_of
from milkwort.store.versions import family_of

__all__ = ["history_of"]

_MOST_MONTHS = 24


def history_of(work: Workspace, plan: OpenPlan) -> list[dict[str, Any]]:
    """Return the months that are seen, the newest first, each with what was changed for it."""
    _, in_force = results_in_force(work, plan.record.client_id)
    if in_force.keyword is None or in_force.as_of is None:
        return []
    with work.database.read() as session:
        family = family_of(session, plan.record.id)
    found: list[dict[str, Any]] = []
    last: tuple[OpenPlan, date, date] | None = None
    for first, end in months_seen(in_force)[-_MOST_MONTHS:]:
        month = work.plan(planned_by(family, first).id)
        changed = [] if last is None else _changed(in_force, last, (month, first, end))
        found.append(_line(in_force, month, first, end) | {"changes": changed})
        last = month, first, end
    return found[::-1]


def _line(in_force: InForce, month: OpenPlan, first: date, last: date) -> dict[str, Any]:
    ran = _ran(in_force, month, month, first, last)
    every = _days(in_force, month, first, last)
    return {
        "first": first.isoformat(), "last": last.isoformat(), "version": month.record.label,
        "purse": month.record.brief.monthly_spend, "running": int(np.isfinite(ran.bid).sum()),
        "negatives": len(month.record.brief.negatives), "clicks": float(every.clicks.sum()),
        "spend": float(every.cost.sum()), "customers": float(every.customers.sum()),
    }  # fmt: skip


def _changed(
    in_force: InForce, before: tuple[OpenPlan, date, date], after: tuple[OpenPlan, date, date]
) -> list[dict[str, Any]]:
    """Return what was changed between two months, of the keywords the later one has."""
    of = after[0]
    return [asdict(one) for one in what_changed(
        _ran(in_force, before[0], of, *before[1:]), _ran(in_force, of, of, *after[1:])
    )]  # fmt: skip


def _ran(in_force: InForce, month: OpenPlan, of: OpenPlan, first: date, last: date) -> RanMonth:
    """Return the bids of a month and its results, by the keywords of a plan."""
    assert in_force.as_of is not None
    rows = _days(in_force, of, first, last)
    seen = seen_by(rows, len(of.sheet.entries), in_force.as_of.toordinal(), of.record.brief.assumed)
    return RanMonth((last - first).days + 1, bids_of(month, of), seen.clicks, seen.cost,
                    seen.customers)  # fmt: skip


def _days(in_force: InForce, of: OpenPlan, first: date, last: date) -> ResultRows:
    """Return the result rows of some days; a window counts where it begins."""
    file = in_force.keyword
    assert file is not None
    inside = np.flatnonzero((file.first >= first.toordinal()) & (file.first <= last.toordinal()))
    mine = file.at(inside)
    return result_rows_of(mine, places_of(mine, *row_places(of)))
