"""Why some days differ from what they are held against, over all the plans that ran on them."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from datetime import date

import numpy as np
from numpy.typing import NDArray

from milkwort.api.learn.known import Known, row_places
from milkwort.api.learn.ran import Span
from milkwort.api.plan.frozen import Planned
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.learn.difference import Difference
from milkwort.core.learn.learned import month_differs
from milkwort.core.learn.seen import ResultRows
from milkwort.formats.learn_headless import result_rows_of
from milkwort.formats.result_rows import places_of

__all__ = ["Held", "held_against", "late_of", "of_campaign", "rows_by", "spans_within", "sums_of"]

Which = Callable[[Planned], NDArray[np.bool_]]


@dataclass(frozen=True)
class Held:
    """Some days against the plan that ran on them."""

    plan: Planned
    customers: Difference
    spend: Difference


def spans_within(known: Known, first: date, last: date) -> list[Span]:
    """Return what some days, ends included, are held against."""
    return [
        replace(span, first=max(span.first, first), last=min(span.last, last))
        for span in known.spans if span.first <= last and span.last >= first
    ]  # fmt: skip


def rows_by(plan: OpenPlan, known: Known, span: Span) -> ResultRows:
    """Return the rows of a span's days, by the keywords of the plan that ran on them."""
    assert known.rows is not None
    # a window counts where it begins
    inside = np.flatnonzero((known.rows.first >= span.first.toordinal())
                            & (known.rows.first <= span.last.toordinal()))  # fmt: skip
    mine = known.rows.at(inside)
    if span.plan is plan:
        return result_rows_of(mine, known.keyword[inside])
    return result_rows_of(mine, places_of(mine, *row_places(span.plan)))


def held_against(plan: OpenPlan, known: Known, first: date, last: date) -> list[Held]:
    """Say why some days, ends included, are not as planned, plan by plan that ran on them."""
    learned = known.learned
    assert learned is not None
    found = []
    for span in spans_within(known, first, last):
        if span.plan is plan and (span.first, span.last) == (learned.first, learned.last):
            found.append(Held(plan, learned.customers, learned.spend))
            continue
        rows = rows_by(plan, known, span)
        differ = month_differs(span.plan.result, rows, learned.as_of, span.first, span.last)
        found.append(Held(span.plan, *differ))
    return found


def sums_of(
    held: Sequence[Held], which: Which | None = None
) -> tuple[dict[str, float], dict[str, float]]:
    """Return the parts of customers and of money, over all keywords or some of each plan."""
    customers: dict[str, float] = {}
    spend: dict[str, float] = {}
    for one in held:
        rows = None if which is None else which(one.plan)
        _add(customers, one.customers.sums("reported", rows))
        _add(spend, one.spend.sums("actual", rows))
    return customers, spend


def late_of(held: Sequence[Held]) -> float:
    """Return the customers that are still expected to be reported."""
    return -sum(float(one.customers.late.sum()) for one in held)


def of_campaign(key: str | None) -> Which:
    """Return which keywords of a plan a campaign holds, by its key; those of none for None."""

    def which(plan: Planned) -> NDArray[np.bool_]:
        keys = [campaign.key for campaign in plan.sheet.structure.campaigns]
        number = -1 if key is None else keys.index(key) if key in keys else -2
        found: NDArray[np.bool_] = plan.result.table.campaign == number
        return found

    return which


def _add(sums: dict[str, float], more: dict[str, float]) -> None:
    for name, value in more.items():
        sums[name] = sums.get(name, 0.0) + value
