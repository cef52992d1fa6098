"""What each ad group holds and does: sums of its keywords."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.errors import BadValueError
from milkwort.core.plan.run import PlanResult

__all__ = ["GroupFigures", "group_figures"]


@dataclass(frozen=True)
class GroupFigures:
    """Columns of one length, a place a group.

    Attributes
    ----------
    keywords, kept, running : Ints, shape (n_groups,)
        How many there are; of them kept; of them with a bid.
    searches : Floats, shape (n_groups,)
        Own searches a month of the kept ones.
    clicks, spend, customers : Floats, shape (n_groups,)
        Of this plan, a month.
    """

    keywords: Ints
    kept: Ints
    running: Ints
    searches: Floats
    clicks: Floats
    spend: Floats
    customers: Floats


def group_figures(result: PlanResult, groups: int) -> GroupFigures:
    """Sum a plan's figures by the group numbers of its table.

    Parameters
    ----------
    result : PlanResult
    groups : int
        How many groups there are; keywords of none (-1) are left out.

    Raises
    ------
    BadValueError
        Where a keyword's group number is above them.
    """
    of_row, kept = result.table.group, result.table.kept
    if len(of_row) and of_row.max() >= groups:
        raise BadValueError("groups", f"more than {of_row.max()}", groups)
    runs = kept & np.isfinite(result.bid)
    e = result.expected

    def counted(rows: np.ndarray[tuple[int], np.dtype[np.bool_]]) -> Ints:
        return np.bincount(of_row[rows & (of_row >= 0)], minlength=groups).astype(np.int64)

    def summed(values: Floats) -> Floats:
        rows = kept & (of_row >= 0)
        some = np.bincount(of_row[rows], np.nan_to_num(values[rows]), minlength=groups)
        return np.asarray(some, dtype=np.float64)

    return GroupFigures(
        keywords=counted(np.ones(len(of_row), dtype=np.bool_)),
        kept=counted(kept),
        running=counted(runs),
        searches=summed(result.demand.own),
        clicks=summed(e.clicks),
        spend=summed(e.spend),
        customers=summed(e.customers),
    )
