"""The year that follows, and who does what when."""

from __future__ import annotations

from datetime import date, timedelta

from milkwort.core.handover.report.making import Making
from milkwort.core.handover.report.shape import Cell, Chart, Column, Section, Table
from milkwort.core.handover.report.words import day_said

__all__ = ["steps", "year"]


def year(of: Making) -> Section:
    """Return twelve months from the plan's first day, as a table and a picture.

    Parameters
    ----------
    of : Making
    """
    words, year, heads = of.words["year"], of.about.year, of.words["columns"]
    first = of.about.first_day
    months = [date(first.year + (first.month - 1 + n) // 12, (first.month - 1 + n) % 12 + 1, 1)
              for n in range(12)]  # fmt: skip
    labels = tuple(f"{month:%b %y}" for month in months)
    columns = (
        Column("month", heads["month"], "text"), Column("purse", heads["purse"], "money"),
        Column("spend", heads["spend"], "money"),
        Column("customers", heads["customers"], "count"),
        Column("profit", heads["profit"], "money"),
    )  # fmt: skip
    rows: tuple[tuple[Cell, ...], ...] = tuple(
        (labels[n], *(float(getattr(year, key)[n]) for key in
                      ("purse", "spend", "customers", "profit")))
        for n in range(12)
    )  # fmt: skip
    chart = Chart(labels, tuple(year.purse.tolist()), tuple(year.spend.tolist()),
                  heads["purse"], heads["spend"])  # fmt: skip
    about = words["about"].format(
        spend=of.money(float(year.spend.sum())),
        customers=of.count(float(year.customers.sum())),
    )
    return Section("year", words["title"], (about,), (Table(columns, rows),), chart)


def steps(of: Making) -> Section:
    """Return who looks at what, and when.

    Parameters
    ----------
    of : Making
    """
    words, first = of.words["steps"], of.about.first_day
    over = date(first.year + first.month // 12, first.month % 12 + 1, 1) - timedelta(days=1)
    lines = [
        words["starts"].format(day=day_said(first)), words["first_look"], words["quiet"],
        words["terms"], words["bids"], words["month"].format(day=day_said(over)),
    ]  # fmt: skip
    return Section("steps", words["title"], tuple(lines))
