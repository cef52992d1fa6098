"""Versions of a plan side by side: what each brings, and how often one beats another."""

from __future__ import annotations

from dataclasses import dataclass

from milkwort.core.plan.differences import Side
from milkwort.core.plan.draws import FIGURES, Draws, Range, range_of
from milkwort.core.plan.year import year_ahead

__all__ = ["Apart", "Standing", "apart", "standing"]


@dataclass(frozen=True)
class Standing:
    """What one version brings, expected.

    Attributes
    ----------
    purse, spend, revenue, profit : float
        Money a month.
    clicks, customers, searches : float
        A month.
    cost_per_customer : float or None
    kept, running : int
        Keywords that are kept, and of them those that run.
    year_spend, year_customers, year_profit : float
        Twelve months of the same purse and bids.
    """

    purse: float
    spend: float
    clicks: float
    customers: float
    cost_per_customer: float | None
    revenue: float
    profit: float
    searches: float
    kept: int
    running: int
    year_spend: float
    year_customers: float
    year_profit: float


def standing(side: Side) -> Standing:
    """Return what one version brings.

    Parameters
    ----------
    side : Side
    """
    result, totals = side.result, side.result.totals
    year = year_ahead(result, 1) if side.year is None else side.year.sums()
    return Standing(
        purse=result.brief.monthly_spend,
        spend=totals.spend,
        clicks=totals.clicks,
        customers=totals.customers,
        cost_per_customer=totals.cost_per_customer,
        revenue=totals.revenue,
        profit=totals.profit,
        searches=totals.searches,
        kept=int(result.table.kept.sum()),
        running=totals.keywords,
        year_spend=float(year.spend.sum()),
        year_customers=float(year.customers.sum()),
        year_profit=float(year.profit.sum()),
    )


@dataclass(frozen=True)
class Apart:
    """How two versions do in the same months, luck included.

    Attributes
    ----------
    more, fewer, same : float
        Share of the months in which the second brings more customers than the first, fewer,
        or just as many; they add up to 1.
    more_profit : float
        Share in which it leaves more profit.
    by : dict of str to Range
        The second less the first, by `FIGURES` without the cost per customer.
    """

    more: float
    fewer: float
    same: float
    more_profit: float
    by: dict[str, Range]


def apart(first: Draws, second: Draws) -> Apart:
    """Set the draws of two versions against each other, month by month.

    Parameters
    ----------
    first, second : Draws
        Of the same seed and count.
    """
    gained = second.customers - first.customers
    names = [name for name in FIGURES if name != "cost_per_customer"]
    return Apart(
        more=float((gained > 0).mean()),
        fewer=float((gained < 0).mean()),
        same=float((gained == 0).mean()),
        more_profit=float((second.figures["profit"] > first.figures["profit"]).mean()),
        by={name: range_of(second.figures[name] - first.figures[name]) for name in names},
    )
