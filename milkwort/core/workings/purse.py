"""The arithmetic behind each figure of the purse."""

from __future__ import annotations

from collections.abc import Callable

from milkwort.core.arrays import Floats
from milkwort.core.plan.run import PlanResult
from milkwort.core.workings._sums import Line, Section, pace_lines

__all__ = ["PURSE_FIGURES", "purse_workings"]


def purse_workings(result: PlanResult, figure: str) -> list[Section]:
    """Return the arithmetic of one figure of the purse.

    Parameters
    ----------
    result : PlanResult
    figure : str
        From `PURSE_FIGURES`.
    """
    return [_SECTIONS[figure](result)]


def _spend(result: PlanResult) -> Section:
    totals, purse = result.totals, result.brief.monthly_spend
    cpc = totals.spend / totals.clicks if totals.clicks else None
    return Section("What the month costs", [
        Line("the purse", purse, "money", source="brief"),
        Line("keywords that run", float(totals.keywords)),
        Line("average price of a click", cpc, "money", "spend ÷ clicks"),
        *_of_spots(result, result.spots.spend, "money"),
        *pace_lines(result),
        Line("spend a month", totals.spend, "money", "Σ clicks · price", result=True),
        Line("left", max(purse - totals.spend, 0.0), "money"),
    ])  # fmt: skip


def _clicks(result: PlanResult) -> Section:
    totals = result.totals
    return Section("Where the clicks come from", [
        Line("searches the kept keywords have", totals.searches),
        Line("impressions won", totals.impressions, formula="Σ searches · reach"),
        *_of_spots(result, result.spots.clicks, "count"),
        *pace_lines(result),
        Line("clicks a month", totals.clicks, formula="Σ searches · reach · click rate",
             result=True),
    ])  # fmt: skip


def _customers(result: PlanResult) -> Section:
    totals = result.totals
    rate = totals.customers / totals.clicks if totals.clicks else None
    return Section("Who buys", [
        Line("clicks of all that runs", totals.clicks),
        *_of_spots(result, result.spots.customers, "count"),
        Line("customers per click, weighted by clicks", rate, "share", "customers ÷ clicks"),
        Line("customers a month", totals.customers, formula="Σ clicks · rate", result=True),
    ])  # fmt: skip


def _cost_per_customer(result: PlanResult) -> Section:
    totals = result.totals
    return Section("What a customer costs", [
        Line("spend a month", totals.spend, "money"),
        Line("customers a month", totals.customers),
        Line("cost per customer", totals.cost_per_customer, "money", "spend ÷ customers",
             result=True),
        Line("your rule allows", result.brief.worth.allowed, "money", source="brief"),
    ])  # fmt: skip


def _profit(result: PlanResult) -> Section:
    totals, worth = result.totals, result.brief.worth
    return Section("What stays after the ads", [
        Line("customers a month", totals.customers),
        Line("× contribution of a customer", worth.contribution, "money", "V · m · k"),
        Line("− spend", totals.spend, "money"),
        Line("profit a month", totals.profit, "money", "customers · V·m·k − spend", result=True),
    ])  # fmt: skip


def _next_unit(result: PlanResult) -> Section:
    fitted, goal = result.fit, result.brief.goal
    lines = [
        Line(f"best {goal} at the purse", fitted.bound, formula="relaxation"),
        Line(
            f"{goal} of one more unit of money",
            fitted.next_unit,
            formula="relaxation(purse + 1) − relaxation(purse)",
            result=True,
        ),
    ]
    if fitted.next_unit <= 0:
        lines.append(Line("why", text="no further step is worth its price under your rule"))
    elif goal == "customers":
        lines.append(
            Line("that is, per customer", 1 / fitted.next_unit, "money", "1 ÷ customers a unit")
        )
    lines.append(Line("how near to the best", fitted.gap, "share", "(bound − value) ÷ bound"))
    return Section("The next unit of money", lines)


def _of_spots(result: PlanResult, values: Floats, unit: str) -> list[Line]:
    """Return what of a sum is from places without a keyword; nothing where none runs."""
    if not result.spots.steps.any():
        return []
    return [Line("of it on spots, which have no keyword", float(values.sum()), unit)]


_SECTIONS: dict[str, Callable[[PlanResult], Section]] = {
    "spend": _spend, "clicks": _clicks, "customers": _customers,
    "cost_per_customer": _cost_per_customer, "profit": _profit, "next_unit": _next_unit,
}  # fmt: skip
PURSE_FIGURES: tuple[str, ...] = tuple(_SECTIONS)
"""What the purse shows."""
