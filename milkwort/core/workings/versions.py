"""The arithmetic of what versions of a plan bring, and of how often one beats another."""

from __future__ import annotations

from calendar import month_name

from milkwort.core.plan.differences import Side
from milkwort.core.plan.versions import Apart, Standing, standing
from milkwort.core.plan.year import year_ahead
from milkwort.core.workings._sums import Line, Section
from milkwort.core.workings.purse import PURSE_FIGURES, purse_workings

__all__ = ["apart_workings", "standing_workings"]

_OF_YEAR = {"year_spend": "money", "year_customers": "count", "year_profit": "money"}


def standing_workings(side: Side, figure: str) -> list[Section]:
    """Return the arithmetic of one figure of a version.

    Parameters
    ----------
    side : Side
    figure : str
        A field of `Standing`.
    """
    if figure in PURSE_FIGURES:
        return purse_workings(side.result, figure)
    if figure in _OF_YEAR:
        return [_year(side, figure.removeprefix("year_"), _OF_YEAR[figure])]
    return [_counts(side, standing(side), figure)]


def _year(side: Side, figure: str, unit: str) -> Section:
    year = year_ahead(side.result, 1) if side.year is None else side.year.sums()
    values = getattr(year, figure)
    lines = [
        Line(month_name[month], value, unit)
        for month, value in zip(year.month.tolist(), values.tolist(), strict=True)
    ]
    return Section("Twelve months", [*lines, Line("in all", float(values.sum()), unit, "Σ",
                                                  result=True)])  # fmt: skip


def _counts(side: Side, there: Standing, figure: str) -> Section:
    table = side.result.table
    if figure == "purse":
        return Section("The purse", [Line("money a month", there.purse, "money",
                                          source="brief", result=True)])  # fmt: skip
    if figure == "revenue":
        return Section("What is taken in", [
            Line("customers a month", there.customers),
            Line("revenue a month", there.revenue, "money", "Σ customers · V·k", result=True),
        ])  # fmt: skip
    if figure == "searches":
        return Section("What is searched", [
            Line("keywords kept", float(there.kept)),
            Line("searches they have", there.searches, formula="Σ searches a month", result=True),
        ])  # fmt: skip
    kept = [
        Line("keywords in the plan", float(len(table))),
        Line("kept", float(there.kept), formula="by their calls", result=figure == "kept"),
    ]
    if figure == "kept":
        return Section("Keywords kept", kept)
    return Section("Keywords that run", [
        *kept,
        Line("kept without a bid", float(there.kept - there.running),
             formula="no step of theirs is worth its price, or the money went elsewhere"),
        Line("that run", float(there.running), result=True),
    ])  # fmt: skip


def apart_workings(count: int, found: Apart) -> list[Section]:
    """Return how often a version brings more customers than another, month by month.

    Parameters
    ----------
    count : int
        Months drawn, of the same luck for both.
    found : Apart
    """
    gained = found.by["customers"]
    profit = found.by["profit"]
    return [
        Section("The same months for both", [
            Line("months drawn", float(count)),
            Line("more customers", round(found.more * count)),
            Line("just as many", round(found.same * count)),
            Line("fewer", round(found.fewer * count)),
            Line("more customers", found.more, "share", "months ÷ all", result=True),
        ]),
        Section("Customers, the second less the first", [
            Line("one month in ten below", gained.low),
            Line("the middle one", gained.middle, result=True),
            Line("one month in ten above", gained.high),
        ]),
        Section("Profit, the second less the first", [
            Line("one month in ten below", profit.low, "money"),
            Line("the middle one", profit.middle, "money", result=True),
            Line("one month in ten above", profit.high, "money"),
            Line("more profit", found.more_profit, "share", "months ÷ all"),
        ]),
    ]  # fmt: skip
