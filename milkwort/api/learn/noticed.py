"""What is said about results as they come in, and as they stand together."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

import numpy as np

from milkwort.api.learn.in_force import SAME, InForce
from milkwort.api.learn.known import row_places
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.counted import counted
from milkwort.core.learn.noticed import days_without, sums_differ
from milkwort.formats.result_rows import ResultFile, places_of

__all__ = ["said_of_all", "said_of_arriving"]

_FEW = 0.2
"""Of the rows, under which keywords of the plan are too few for a file of its account."""
_SHOWN = 5
_UNTOLD = {
    "impressions": "by keyword without showings: searches and click rates are not judged by them.",
    "customers": "by keyword without customers: their clicks tell nothing of what sells.",
}


def said_of_arriving(plan: OpenPlan, file: ResultFile, before: InForce) -> list[str]:
    """Return whose account a file seems to be of, and what it changes of what was there."""
    said = list(file.remarks)
    if file.level in ("keyword", "term"):
        ours = int((places_of(file, *row_places(plan)) >= 0).sum())
        if ours < _FEW * len(file):
            said.append(f"Only {ours:,} of {counted(len(file), 'row')} are keywords of this plan: "
                        "is the file of another account?")  # fmt: skip
    held = before.level(file.level)
    return said + ([] if held is None else _changed(file, held))


def said_of_all(in_force: InForce) -> list[str]:
    """Return what is strange about the results that count."""
    rows = in_force.keyword
    if rows is None:
        return []
    gaps = days_without(rows.first, rows.last)
    said = [f"{counted(int(untold.sum()), 'row')} {_UNTOLD[name]}"
            for name, untold in rows.untold.items() if untold.any()]  # fmt: skip
    said += [f"No rows {_days(a, b)}." for a, b in gaps[:_SHOWN]]
    if len(gaps) > _SHOWN:
        said.append(f"And {counted(len(gaps) - _SHOWN, 'gap')} more.")
    for level in ("day", "campaign", "group"):
        other = in_force.level(level)
        # a file that tells visits of the site, or clicks alone, says nothing of money
        told = other is not None and other.cost.any()
        found = None if other is None or not told else sums_differ(
            rows.first, rows.last, rows.cost, other.first, other.last, other.cost
        )  # fmt: skip
        if found is not None:
            said.append(f"By {level} {found.other:,.2f} were spent {_days(found.first, found.last)}"
                        f", by keyword {found.one:,.2f}.")  # fmt: skip
    return said


def _changed(file: ResultFile, held: ResultFile) -> list[str]:
    names = SAME[file.level]
    known: dict[tuple[object, ...], list[int]] = {}
    for at, key in enumerate(_keys(held, names)):
        known.setdefault(key, []).append(at)
    same = {key for key in _keys(file, names) if key in known}
    if not same:
        return []
    was = np.array([at for key in same for at in known[key]], dtype=np.int64)
    now = np.array([at for at, key in enumerate(_keys(file, names)) if key in same], np.int64)
    customers = file.figures["customers"][now].sum() - held.figures["customers"][was].sum()
    money = file.cost[now].sum() - held.cost[was].sum()
    return [f"{counted(len(was), 'row')} that stood there before are now as this file has them: "
            f"{customers:+,.0f} customers, {money:+,.2f} of money."]  # fmt: skip


def _keys(file: ResultFile, names: Sequence[str]) -> list[tuple[object, ...]]:
    columns = [getattr(file, name) for name in names]
    return list(zip(*(c.tolist() if isinstance(c, np.ndarray) else c for c in columns),
                    strict=True))  # fmt: skip


def _days(first: int, last: int) -> str:
    a, b = date.fromordinal(first), date.fromordinal(last)
    if first == last:
        return f"on {a:%-d %B %Y}"
    year = "" if a.year == b.year else f" {a.year}"
    return f"from {a:%-d %B}{year} to {b:%-d %B %Y}"
