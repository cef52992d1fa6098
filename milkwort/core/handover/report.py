"""The client's sheet as data: what every file of it says, in the order a client reads."""

from __future__ import annotations

import tomllib
from collections.abc import Iterator, Mapping
from dataclasses import replace
from datetime import date, timedelta
from functools import lru_cache
from pathlib import Path
from typing import Any

import numpy as np

from milkwort.core.arrays import Ints
from milkwort.core.assumptions import TABLE
from milkwort.core.brief.fields import FIELDS
from milkwort.core.handover.report_shape import (
    SECTIONS,
    Cell,
    Chart,
    Column,
    ForReport,
    Options,
    Other,
    Report,
    Section,
    Table,
)
from milkwort.core.handover.said import Kind, NumberStyle
from milkwort.core.market.standing import Stand
from milkwort.core.plan.run import run_plan
from milkwort.core.workings.keyword import keyword_workings

__all__ = ['day_said', 'report_of', 'words_of']  # fmt: skip


_SHORT = ("promise", "versions", "buy_now", "next_in_line", "too_dear", "steps")
_SHORT_ROWS = 8
_UNITS: dict[str, Kind] = {"money": "money", "share": "share", "factor": "count"}


@lru_cache(maxsize=8)
def words_of(language: str) -> dict[str, Any]:
    """Return the headings and sentences of a language.

    Parameters
    ----------
    language : str
        Such as ``en``; one that there are no words of is read as English.
    """
    return tomllib.loads(_files()[spoken(language)].read_text(encoding="utf-8"))


def spoken(language: str) -> str:
    """Return the code of the language a sheet is written in where one is asked for.

    Parameters
    ----------
    language : str
        Any text; one that there are no words of is read as English.
    """
    return language if language in _files() else "en"


@lru_cache(maxsize=1)
def _files() -> dict[str, Path]:
    return {path.stem: path for path in Path(__file__).with_name("words").glob("*.toml")}


def report_of(about: ForReport, options: Options | None = None) -> Report:
    """Return the client's sheet of a plan.

    Parameters
    ----------
    about : ForReport
    options : Options, optional
    """
    chosen = options or Options(style=NumberStyle(currency=about.result.brief.currency))
    maker = _Maker(about, chosen)
    wanted = [key for key in SECTIONS if key in chosen.sections]
    if chosen.short:
        wanted = [key for key in wanted if key in _SHORT]
    if not about.others:
        wanted = [key for key in wanted if key != "versions"]
    made = [getattr(maker, key)() for key in wanted]
    return Report(
        title=maker.words["title"].format(name=about.name),
        made=maker.words["made"].format(day=day_said(about.today)),
        letterhead=chosen.letterhead,
        note=chosen.note,
        style=chosen.style,
        sections=tuple(made),
    )


def day_said(day: date) -> str:
    """Return a day as a client reads it.

    Parameters
    ----------
    day : date
    """
    return f"{day.day} {day:%B %Y}"


class _Maker:
    """Makes each section of a sheet."""

    def __init__(self, about: ForReport, options: Options) -> None:
        self.about, self.options, self.words = about, options, words_of(options.language)
        self.result = about.result
        running = np.flatnonzero(np.isfinite(self.result.bid))
        spend = self.result.expected.spend
        self.running = running[np.argsort(-spend[running], kind="stable")]

    def money(self, value: float | None) -> str:
        return self.options.style.said(value, "money")

    def count(self, value: float | None) -> str:
        return self.options.style.said(value, "count")

    def promise(self) -> Section:
        words, totals, draws = self.words["promise"], self.result.totals, self.about.draws
        if totals.spend <= 0:
            return Section("promise", words["title"], (words["nobody"],))
        came, spent = draws.ranges["customers"], draws.ranges["spend"]
        lines = [words["money"].format(purse=self.money(self.result.brief.monthly_spend),
                                       spend=self.money(spent.middle))]  # fmt: skip
        if self.about.gross is not None:
            lines.append(words["gross"].format(gross=self.money(self.about.gross)))
        whole = self.options.style
        lines.append(words["customers"].format(
            low=whole.said(came.low, "whole"), high=whole.said(came.high, "whole"),
            middle=whole.said(came.middle, "whole"),
        ))  # fmt: skip
        lines.append(
            words["each"].format(
                each=self.money(totals.cost_per_customer),
                allowed=self.money(self.result.brief.worth.allowed),
            )
        )
        figures = self._figures()
        return Section("promise", words["title"], tuple(lines), (figures,))

    def versions(self) -> Section:
        words, heads, said = self.words["versions"], self.words["columns"], self.options.style.said
        own = Other(self.about.label or words["this"], self.result, self.about.draws)
        sides = [own, *self.about.others]
        columns = [Column("what", heads["what"], "text")]
        columns += [Column(str(at), side.label or words["this"], "text")
                    for at, side in enumerate(sides)]  # fmt: skip
        rows: list[tuple[Cell, ...]] = [
            (heads["purse"], *(self.money(s.result.brief.monthly_spend) for s in sides)),
        ]
        kinds: dict[str, Kind] = {"spend": "money", "clicks": "whole", "customers": "count"}
        for name, kind in kinds.items():
            ranges = [side.draws.ranges[name] for side in sides]
            rows.append((heads[name], *(said(getattr(s.result.totals, name), kind) for s in sides)))
            rows.append(("8 / 10", *(f"{said(r.low, kind)} – {said(r.high, kind)}"
                                     for r in ranges)))  # fmt: skip
        rows.append((heads["profit"], *(self.money(s.result.totals.profit) for s in sides)))
        table = Table(tuple(columns), tuple(rows))
        return Section("versions", words["title"], (words["about"],), (table,))

    def _figures(self) -> Table:
        heads, ranges = self.words["columns"], self.about.draws.ranges
        columns = (Column("what", heads["what"], "text"), Column("figure", heads["figure"], "text"),
                   Column("low", "8 / 10", "text"))  # fmt: skip
        said = self.options.style.said
        kinds: dict[str, Kind] = {"clicks": "whole", "customers": "count", "spend": "money"}
        rows = []
        for name, kind in kinds.items():
            found = ranges[name]
            rows.append((heads[name], said(getattr(self.result.totals, name), kind),
                         f"{said(found.low, kind)} – {said(found.high, kind)}"))  # fmt: skip
        return Table(columns, tuple(rows))

    def _keywords(self, rows: Ints, figures: Mapping[str, Any]) -> Table:
        """Return keywords with the figures that are chosen and known."""
        heads = self.words["columns"]
        kinds: dict[str, Kind] = {
            "group": "text", "searches": "whole", "bid": "money", "cpc": "money",
            "clicks": "count", "customers": "count", "spend": "money", "line": "money",
            "why": "text",
        }  # fmt: skip
        always = ("line", "why")
        keys = [k for k in kinds if k in figures and (k in self.options.columns or k in always)]
        columns = [Column("keyword", heads["keyword"], "text")]
        columns += [Column(key, heads[key], kinds[key]) for key in keys]
        most = _SHORT_ROWS if self.options.short else len(rows)
        shown = rows[:most]
        cells = tuple(
            (self.about.texts[row], *(_cell(figures[key][row]) for key in keys))
            for row in shown.tolist()
        )
        return Table(tuple(columns), cells, more=len(rows) - len(shown))

    def _group_names(self) -> dict[int, str]:
        numbers = self.result.table.group.tolist()
        return {row: self.about.groups[n] if 0 <= n < len(self.about.groups) else ""
                for row, n in enumerate(numbers)}  # fmt: skip

    def buy_now(self) -> Section:
        words, e = self.words["buy_now"], self.result.expected
        about = words["about"].format(count=self.options.style.said(len(self.running), "whole"),
                                      spend=self.money(float(e.spend.sum())))  # fmt: skip
        figures = {
            "group": self._group_names(), "searches": self.result.demand.searches,
            "bid": self.result.bid, "cpc": e.cpc, "clicks": e.clicks, "customers": e.customers,
            "spend": e.spend,
        }  # fmt: skip
        return Section(
            "buy_now", words["title"], (about,), (self._keywords(self.running, figures),)
        )

    def next_in_line(self) -> Section:
        words, outside = self.words["next_in_line"], self.result.not_kept
        rows = np.flatnonzero(np.isfinite(outside.bid))
        rows = rows[np.argsort(-outside.customers[rows], kind="stable")]
        figures = {
            "group": self._group_names(), "searches": self.result.demand.volume,
            "bid": outside.bid, "clicks": outside.clicks, "customers": outside.customers,
            "spend": outside.spend,
        }  # fmt: skip
        return Section("next_in_line", words["title"], (words["about"],),
                       (self._keywords(rows, figures),))  # fmt: skip

    def too_dear(self) -> Section:
        words, result = self.words["too_dear"], self.result
        beyond = result.standing.standing == Stand.BEYOND
        rows = np.flatnonzero(beyond & ~np.isfinite(result.bid))
        rows = rows[np.argsort(-np.nan_to_num(result.demand.volume[rows]), kind="stable")]
        words_why = self.words["why"]
        why = {row: words_why["dear" if result.demand.rate[row] > 0 else "never"]
               for row in rows.tolist()}  # fmt: skip
        figures = {"searches": result.demand.volume, "cpc": np.exp(result.prices.mu),
                   "line": result.standing.ceiling, "why": why}  # fmt: skip
        return Section("too_dear", words["title"], (words["about"],),
                       (self._keywords(rows, figures),))  # fmt: skip

    def blocked(self) -> Section:
        words, result = self.words["blocked"], self.result
        negatives = result.brief.negatives
        if not negatives:
            return Section("blocked", words["title"], (words["none"],))
        free = run_plan(replace(result.brief, negatives=()), result.table)
        wasted = np.nan_to_num(free.demand.spill) - np.nan_to_num(result.demand.spill)
        clicks = free.expected.clicks * np.divide(
            np.maximum(wasted, 0), free.demand.searches, out=np.zeros(len(wasted)),
            where=free.demand.searches > 0,
        )  # fmt: skip
        saved = float((clicks * free.expected.cpc).sum())
        heads = self.words["columns"]
        table = Table(
            (Column("text", heads["text"], "text"), Column("match", heads["match"], "text")),
            tuple((n.text, n.match) for n in negatives),
        )
        about = words["about"].format(spend=self.money(saved))
        return Section("blocked", words["title"], (about,), (table,))

    def year(self) -> Section:
        words, year, heads = self.words["year"], self.about.year, self.words["columns"]
        first = self.about.first_day
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
            spend=self.money(float(year.spend.sum())),
            customers=self.count(float(year.customers.sum())),
        )
        return Section("year", words["title"], (about,), (Table(columns, rows),), chart)

    def ads(self) -> Section:
        words, heads = self.words["ads"], self.words["columns"]
        if not self.about.ads:
            return Section("ads", words["title"], (words["none"],))
        columns = (Column("ad", heads["ad"], "text"), Column("text", heads["text"], "text"))
        rows = tuple((group, " · ".join(line for line in lines if line))
                     for group, lines in self.about.ads)  # fmt: skip
        return Section("ads", words["title"], (), (Table(columns, rows),))

    def assumed(self) -> Section:
        heads, sources = self.words["columns"], self.words["source"]
        columns = (Column("what", heads["what"], "text"), Column("figure", heads["figure"], "text"),
                   Column("source", heads["source"], "text"))  # fmt: skip
        rows: list[tuple[Cell, ...]] = []
        for name in ("sale_value", "gross_margin", "sales_per_customer", "rate_low", "rate_likely",
                     "rate_high", "monthly_spend"):  # fmt: skip
            one, value = FIELDS[name], self.about.values.get(name)
            if value is not None:
                kind: Kind = "share" if "share" in one.unit else "money"
                kind = "count" if one.unit == "sales" else kind
                source = "assumed" if name in self.about.not_entered else "brief"
                label = one.label.removeprefix("the ") + (
                    f", {name.split('_')[1]}" if name.startswith("rate_") else ""
                )
                rows.append((label, self.options.style.said(float(value), kind), sources[source]))
        changed = self.result.brief.assumed.changes
        for name in changed:
            one_assumed = TABLE[name]
            figure = f"{changed[name]:g} {one_assumed.unit}"
            rows.append((one_assumed.label, figure, sources["planner"]))
        return Section(
            "assumed", self.words["assumed"]["title"], (), (Table(columns, tuple(rows)),)
        )

    def worked(self) -> Section:
        words = self.words["worked"]
        tables = tuple(self._sum(words[key], row) for key, row in self._three())
        return Section("worked", words["title"], (), tables)

    def _three(self) -> Iterator[tuple[str, int]]:
        """Yield the keyword that spends most, the one that brings most a pound, the dearest out."""
        result = self.result
        if len(self.running):
            yield "spends_most", int(self.running[0])
            e = result.expected
            spend = e.spend[self.running]
            each = np.divide(e.customers[self.running], spend, out=np.zeros(len(spend)),
                             where=spend > 0)  # fmt: skip
            yield "brings_most", int(self.running[int(each.argmax())])
        out = np.flatnonzero(~np.isfinite(result.bid) & result.prices.known)
        if len(out):
            yield "dearest", int(out[int(result.prices.mu[out].argmax())])

    def _sum(self, title: str, row: int) -> Table:
        heads = self.words["columns"]
        rows: list[tuple[Cell, ...]] = []
        for section in keyword_workings(self.result, row)[:4]:
            rows.append((section.title, None))
            for line in section.lines:
                kind = _UNITS.get(line.unit, "count")
                said = line.text or self.options.style.said(line.value, kind)
                rows.append((line.label, said))
        columns = (Column("what", heads["what"], "text"), Column("figure", heads["figure"], "text"))
        return Table(columns, tuple(rows), title=f"{title}: {self.about.texts[row]}")

    def steps(self) -> Section:
        words, first = self.words["steps"], self.about.first_day
        over = date(first.year + first.month // 12, first.month % 12 + 1, 1) - timedelta(days=1)
        lines = [
            words["starts"].format(day=day_said(first)), words["first_look"], words["quiet"],
            words["terms"], words["bids"], words["month"].format(day=day_said(over)),
        ]  # fmt: skip
        return Section("steps", words["title"], tuple(lines))


def _cell(value: Any) -> Cell:
    if value is None or isinstance(value, str):
        return value
    return None if not np.isfinite(value) else float(value)
