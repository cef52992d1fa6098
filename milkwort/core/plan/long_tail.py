"""The long tail: keywords too thin to be judged alone, summed."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from milkwort.core.plan.run import PlanResult

__all__ = ["LongTail", "long_tail"]


@dataclass(frozen=True)
class LongTail:
    """Thin keywords together; clicks, money and customers a month.

    Attributes
    ----------
    keywords, kept : int
    clicks, spend, customers : float
        Of those that are kept.
    more_spend, more_customers : float
        What those not kept would add at the present next unit of money.
    """

    keywords: int
    kept: int
    clicks: float
    spend: float
    customers: float
    more_spend: float
    more_customers: float


def long_tail(result: PlanResult) -> LongTail:
    """Sum the keywords that are thin but in a market: under a click a month at the ceiling.

    Parameters
    ----------
    result : PlanResult
    """
    thin = result.standing.thin & result.prices.known & (np.nan_to_num(result.demand.likely) > 0)
    kept, other = thin & result.table.kept, thin & ~result.table.kept
    e, outside = result.expected, result.not_kept
    return LongTail(
        keywords=int(thin.sum()),
        kept=int(kept.sum()),
        clicks=float(e.clicks[kept].sum()),
        spend=float(e.spend[kept].sum()),
        customers=float(e.customers[kept].sum()),
        more_spend=float(np.nan_to_num(outside.spend[other]).sum()),
        more_customers=float(np.nan_to_num(outside.customers[other]).sum()),
    )
