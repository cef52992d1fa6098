"""The months of a plan so far: what each brought, what was changed, and what that did."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass
from datetime import date
from typing import Any

import numpy as np

from milkwort.api.learn.in_force import InForce, results_in_force
from milkwort.api.learn.known import row_places
from milkwort.api.learn.ran import all_bids_sent, what_ran
from milkwort.api.learn.word import months_seen, planned_by
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.workspace import Workspace
from milkwort.core.arrays import Floats
from milkwort.core.learn.history import RanMonth, what_changed
from milkwort.core.learn.seen import ResultRows, Seen, seen_by
from milkwort.formats.learn_headless import result_rows_of
from milkwort.formats.result_rows import places_of
from milkwort.store.versions import family_of

__all__ = ["history_of"]

_MOST_MONTHS = 24


@dataclass(frozen=True)
class _Month:
    """A month that is seen: the plan of it, its days, and its results by the plan's keywords.

    Attributes
    ----------
    bids : dict of str to float
        By the keys of keywords that ran: what was handed over and ran on most of its days, else
        the plan's own.
    """

    plan: OpenPlan
    first: date
    last: date
    rows: ResultRows
    seen: Seen
    bids: dict[str, float]

    def ran(self, keys: Sequence[str]) -> RanMonth:
        """Return bids and results by the keys of keywords, also of those it hadn't."""
        own = {entry.key: row for row, entry in enumerate(self.plan.sheet.entries)}
        row = np.array([own.get(key, -1) for key in keys], dtype=np.int64)

        def by_key(column: Floats, otherwise: float) -> Floats:
            return np.append(column, otherwise)[row]

        seen = self.seen
        bid = np.array([self.bids.get(key, np.nan) for key in keys], dtype=np.float64)
        return RanMonth(
            (self.last - self.first).days + 1, bid,
            by_key(seen.clicks, 0.0), by_key(seen.cost, 0.0), by_key(seen.customers, 0.0),
        )  # fmt: skip

    @property
    def keys(self) -> list[str]:
        """Of its keywords."""
        return [entry.key for entry in self.plan.sheet.entries]


def history_of(work: Workspace, plan: OpenPlan) -> list[dict[str, Any]]:
    """Return the months that are seen, the newest first, each with what was changed for it."""
    _, in_force = results_in_force(work, plan.record.client_id)
    if in_force.keyword is None or in_force.as_of is None:
        return []
    with work.database.read() as session:
        family = family_of(session, plan.record.id)
    found: list[dict[str, Any]] = []
    before: _Month | None = None
    for first, last in months_seen(in_force)[-_MOST_MONTHS:]:
        month = _month(work, in_force, work.plan(planned_by(family, first).id), first, last)
        found.append(_line(month) | {"changes": [] if before is None else _changed(before, month)})
        before = month
    return found[::-1]


def _month(work: Workspace, in_force: InForce, plan: OpenPlan, first: date, last: date) -> _Month:
    file = in_force.keyword
    assert file is not None
    assert in_force.as_of is not None
    # a window counts where it begins
    inside = np.flatnonzero((file.first >= first.toordinal()) & (file.first <= last.toordinal()))
    mine = file.at(inside)
    rows = result_rows_of(mine, places_of(mine, *row_places(plan)))
    seen = seen_by(rows, len(plan.sheet.entries), in_force.as_of.toordinal(),
                   plan.record.brief.assumed)  # fmt: skip
    return _Month(plan, first, last, rows, seen, _bids(work, plan, first, last))


def _bids(work: Workspace, plan: OpenPlan, first: date, last: date) -> dict[str, float]:
    parts = what_ran(work, plan.record.id).parts(first, last)
    *_, sent = max(parts, key=lambda part: part[1] - part[0])
    if sent is not None:
        return all_bids_sent(work, sent)
    bids = zip((e.key for e in plan.sheet.entries), plan.result.bid.tolist(), strict=True)
    return {key: bid for key, bid in bids if np.isfinite(bid)}


def _line(month: _Month) -> dict[str, Any]:
    record, rows = month.plan.record, month.rows
    return {
        "first": month.first.isoformat(), "last": month.last.isoformat(),
        "version": record.label, "purse": record.brief.monthly_spend,
        "running": len(month.bids),
        "negatives": len(record.brief.negatives), "clicks": float(rows.clicks.sum()),
        "spend": float(rows.cost.sum()), "customers": float(rows.customers.sum()),
    }  # fmt: skip


def _changed(before: _Month, after: _Month) -> list[dict[str, Any]]:
    """Return what was changed between two months, also of keywords only one of them had."""
    keys = list(dict.fromkeys([*before.keys, *after.keys]))
    return [asdict(one) for one in what_changed(before.ran(keys), after.ran(keys))]
