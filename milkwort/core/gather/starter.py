"""A set of keywords to start with: the few that together bring most."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.brief.brief import Brief
from milkwort.core.errors import BadValueError
from milkwort.core.market.keyword_table import CALLS, KeywordTable
from milkwort.core.plan.run import run_plan

__all__ = ["StarterSet", "starter_set"]


@dataclass(frozen=True)
class StarterSet:
    """Keywords to start with, what brings most first; arrays of shape (n_picked,).

    Attributes
    ----------
    rows : Ints
    customers, spend : Floats
        A month, were just these kept.
    total_customers, total_spend : float
    bound : float
        Of the goal: no set of so many brings more.
    """

    rows: Ints
    customers: Floats
    spend: Floats
    total_customers: float
    total_spend: float
    bound: float


def starter_set(brief: Brief, table: KeywordTable, most: int) -> StarterSet:
    """Pick at most so many keywords by what they bring, of all that were not dropped.

    Parameters
    ----------
    brief : Brief
    table : KeywordTable
    most : int
        1 or more.

    Raises
    ------
    BadValueError
        For a number under 1.
    """
    if most < 1:
        raise BadValueError("starter set", "1 keyword or more", most)
    gone = np.isin(table.call, (CALLS.index("drop"), CALLS.index("block")))
    calls = np.where(gone, table.call, CALLS.index("keep"))
    limits = replace(brief.limits, max_keywords=most)
    result = run_plan(replace(brief, limits=limits), replace(table, call=calls))
    rows = np.flatnonzero(result.fit.steps[: len(result.table)] > 0)
    order = rows[np.argsort(-result.expected.customers[rows], kind="stable")]
    return StarterSet(
        rows=order,
        customers=result.expected.customers[order],
        spend=result.expected.spend[order],
        total_customers=result.totals.customers,
        total_spend=result.totals.spend,
        bound=result.fit.bound,
    )
