"""What the figures rest on: what was assumed, and three keywords worked out."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from milkwort.core.assumptions import TABLE
from milkwort.core.brief.fields import FIELDS
from milkwort.core.handover.report.making import Making
from milkwort.core.handover.report.shape import Cell, Column, Section, Table
from milkwort.core.handover.said import Kind
from milkwort.core.workings.keyword import keyword_workings

__all__ = ["assumed", "worked"]

_UNITS: dict[str, Kind] = {"money": "money", "share": "share", "factor": "count"}


def assumed(of: Making) -> Section:
    """Return what the brief says, and what was assumed where it says nothing.

    Parameters
    ----------
    of : Making
    """
    heads, sources = of.words["columns"], of.words["source"]
    columns = (Column("what", heads["what"], "text"), Column("figure", heads["figure"], "text"),
               Column("source", heads["source"], "text"))  # fmt: skip
    rows: list[tuple[Cell, ...]] = []
    for name in ("sale_value", "gross_margin", "sales_per_customer", "rate_low", "rate_likely",
                 "rate_high", "monthly_spend"):  # fmt: skip
        one, value = FIELDS[name], of.about.values.get(name)
        if value is not None:
            kind: Kind = "share" if "share" in one.unit else "money"
            kind = "count" if one.unit == "sales" else kind
            source = "assumed" if name in of.about.not_entered else "brief"
            label = one.label.removeprefix("the ") + (
                f", {name.split('_')[1]}" if name.startswith("rate_") else ""
            )
            rows.append((label, of.options.style.said(float(value), kind), sources[source]))
    changed = of.result.brief.assumed.changes
    for name in changed:
        one_assumed = TABLE[name]
        figure = f"{changed[name]:g} {one_assumed.unit}"
        rows.append((one_assumed.label, figure, sources["planner"]))
    return Section("assumed", of.words["assumed"]["title"], (), (Table(columns, tuple(rows)),))


def worked(of: Making) -> Section:
    """Return how three keywords come to their figures.

    Parameters
    ----------
    of : Making
    """
    words = of.words["worked"]
    tables = tuple(_sum(of, words[key], row) for key, row in _three(of))
    return Section("worked", words["title"], (), tables)


def _three(of: Making) -> Iterator[tuple[str, int]]:
    """Yield the keyword that spends most, the one that brings most a pound, the dearest out."""
    result = of.result
    if len(of.running):
        yield "spends_most", int(of.running[0])
        e = result.expected
        spend = e.spend[of.running]
        each = np.divide(e.customers[of.running], spend, out=np.zeros(len(spend)),
                         where=spend > 0)  # fmt: skip
        yield "brings_most", int(of.running[int(each.argmax())])
    out = np.flatnonzero(~np.isfinite(result.bid) & result.prices.known)
    if len(out):
        yield "dearest", int(out[int(result.prices.mu[out].argmax())])


def _sum(of: Making, title: str, row: int) -> Table:
    heads = of.words["columns"]
    rows: list[tuple[Cell, ...]] = []
    for section in keyword_workings(of.result, row)[:4]:
        rows.append((section.title, None))
        for line in section.lines:
            kind = _UNITS.get(line.unit, "count")
            said = line.text or of.options.style.said(line.value, kind)
            rows.append((line.label, said))
    columns = (Column("what", heads["what"], "text"), Column("figure", heads["figure"], "text"))
    return Table(columns, tuple(rows), title=f"{title}: {of.about.texts[row]}")
