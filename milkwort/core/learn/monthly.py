"""The client's monthly page as data: what was spent, what came, what was learnt, what is next."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

from milkwort.core.handover.report.shape import Column, Options, Report, Section, Table
from milkwort.core.handover.report.words import day_said, words_of
from milkwort.core.handover.said import Kind
from milkwort.core.learn.came import Came
from milkwort.core.learn.our_word import Word
from milkwort.core.learn.pace import Pace

__all__ = ["ForMonth", "Line", "monthly_of", "no_month"]

_KINDS: Mapping[str, Kind] = {
    "clicks": "whole", "spend": "money", "customers": "count", "cost_per_customer": "money",
    "profit": "money",
}  # fmt: skip
_BEST = 10


@dataclass(frozen=True)
class Line:
    """A keyword or a campaign: its name, clicks, money, customers."""

    name: str
    clicks: float
    spend: float
    customers: float


@dataclass(frozen=True)
class ForMonth:
    """What a monthly page is made of.

    Attributes
    ----------
    name : str
        Of the plan.
    first, last, end : date
        The days that are seen, and the month's last one.
    today : date
    came : Came
        Of those days.
    words : sequence of Word
        What was said before of each figure.
    pace : Pace
    allowed : float
        Money that a customer may cost.
    late, by_hand : float
        Customers still to be reported, and counted by hand.
    why : mapping of str to float
        Customers: planned, each part, and what was reported.
    campaigns, keywords : sequence of Line
        Those that spent, and those that sold, most first.
    factors : mapping of str to float
        Seen over planned, by input.
    terms, blocked, stops, raises : int
        Texts to be decided; words blocked; keywords that evidence stops and raises.
    terms_spend : float
        Money spent on those texts.
    """

    name: str
    first: date
    last: date
    end: date
    today: date
    came: Came
    words: Sequence[Word]
    pace: Pace
    allowed: float
    late: float
    by_hand: float
    why: Mapping[str, float]
    campaigns: Sequence[Line]
    keywords: Sequence[Line]
    factors: Mapping[str, float]
    terms: int
    terms_spend: float
    blocked: int
    stops: int
    raises: int


def monthly_of(about: ForMonth, options: Options) -> Report:
    """Return a month's page for the client.

    Parameters
    ----------
    about : ForMonth
    options : Options
        Its style, letter-head and note; a page has always the same sections.
    """
    maker = _Maker(about, options)
    sections = (maker.came(), maker.word(), maker.why(), maker.best(), maker.learnt(), maker.next())
    words = words_of(options.language)
    return Report(
        title=words["monthly"]["title"].format(name=about.name, month=f"{about.last:%B %Y}"),
        made=words["made"].format(day=day_said(about.today)),
        letterhead=options.letterhead, note=options.note, style=options.style,
        sections=sections,
    )  # fmt: skip


def no_month(name: str, today: date, options: Options) -> Report:
    """Return the page of a plan that has no results yet.

    Parameters
    ----------
    name : str
        Of the plan.
    today : date
    options : Options
    """
    words = words_of(options.language)
    empty = words["monthly"]["empty"]
    return Report(
        title=words["title"].format(name=name), made=words["made"].format(day=day_said(today)),
        letterhead=options.letterhead, note=options.note, style=options.style,
        sections=(Section("came", empty["title"], (empty["about"],)),),
    )  # fmt: skip


class _Maker:
    """Makes each section of a page."""

    def __init__(self, about: ForMonth, options: Options) -> None:
        self.about, self.said = about, options.style.said
        self.words: dict[str, Any] = words_of(options.language)["monthly"]
        self.heads = self.words["columns"]

    def came(self) -> Section:
        words, about, said = self.words["came"], self.about, self.said
        came = about.came
        lines = [words["spent"].format(
            first=day_said(about.first), last=day_said(about.last), spend=said(came.spend, "money"),
            purse=said(about.pace.purse, "money"), clicks=said(came.clicks, "whole"),
        )]  # fmt: skip
        found = next((word for word in about.words if word.figure == "customers"), None)
        lines += [words["untold"]] if found is None else self._sold(found)
        table = self._lines("campaign", about.campaigns)
        return Section("came", words["title"], tuple(lines), (table,))

    def _sold(self, found: Word) -> list[str]:
        words, about, said = self.words["came"], self.about, self.said
        lines = [words["customers"].format(
            customers=said(about.came.customers, "whole"), low=said(found.given.low, "whole"),
            high=said(found.given.high, "whole"),
        )]  # fmt: skip
        lines.append(self._chance(found))
        if about.by_hand:
            lines.append(words["by_hand"].format(count=said(about.by_hand, "whole")))
        each = about.came.cost_per_customer
        lines.append(words["nobody"] if each is None else words["each"].format(
            each=said(each, "money"), allowed=said(about.allowed, "money")))  # fmt: skip
        if about.late > 0:
            lines.append(words["late"].format(late=said(about.late, "count")))
        return lines

    def _chance(self, found: Word) -> str:
        words = self.words["came"]
        if found.held:
            return str(words["held"])
        few = found.fewer < found.more
        share = self.said(found.fewer if few else found.more, "share")
        return str(words["fewer" if few else "more"].format(share=share))

    def _lines(self, head: str, lines: Sequence[Line]) -> Table:
        columns = (Column(head, self.heads[head], "text"), *(
            Column(key, self.heads[key], "money" if key == "spend" else "whole")
            for key in ("clicks", "spend", "customers")
        ))  # fmt: skip
        rows = tuple((one.name, one.clicks, one.spend, one.customers) for one in lines)
        return Table(columns, rows)

    def word(self) -> Section:
        words, heads, said = self.words["word"], self.heads, self.said
        columns = (Column("figure", heads["figure"], "text"), Column("said", heads["said"], "text"),
                   Column("came", heads["came"], "text"), Column("held", "", "text"))  # fmt: skip
        rows = []
        for word in self.about.words:
            kind = _KINDS[word.figure]
            given = f"{said(word.given.low, kind)} – {said(word.given.high, kind)}"
            held = words["held" if word.held else "not_held"]
            rows.append((heads[word.figure], given, said(word.actual, kind), held))
        return Section("word", words["title"], (words["about"],), (Table(columns, tuple(rows)),))

    def why(self) -> Section:
        words, heads = self.words["why"], self.heads
        columns = (Column("figure", heads["figure"], "text"),
                   Column("customers", heads["customers"], "count"))  # fmt: skip
        rows = tuple((words[name], float(value)) for name, value in self.about.why.items())
        return Section("why", words["title"], (words["about"],), (Table(columns, rows),))

    def best(self) -> Section:
        words, some = self.words["best"], self.about.keywords
        if not some:
            return Section("best", words["title"], (words["none"],))
        table = self._lines("keyword", some[:_BEST])
        return Section("best", words["title"], (words["about"],), (table,))

    def learnt(self) -> Section:
        words, about, said = self.words["learnt"], self.about, self.said
        lines = [words[name].format(factor=said(factor, "share"))
                 for name, factor in about.factors.items()]  # fmt: skip
        if about.terms:
            spend = said(about.terms_spend, "money")
            lines.append(self._counted(words, "terms", about.terms).replace("{spend}", spend))
        if about.blocked:
            lines.append(self._counted(words, "blocked", about.blocked))
        return Section("learnt", words["title"], tuple(lines))

    def _counted(self, words: dict[str, str], name: str, count: int) -> str:
        said = words.get(f"{name}_one", words[name]) if count == 1 else words[name]
        return said.replace("{count}", self.said(count, "whole"))

    def next(self) -> Section:
        words, about, said = self.words["next"], self.about, self.said
        lines = []
        if about.last < about.end:
            out = about.pace.out
            end, left = day_said(about.end), said(about.pace.left, "money")
            lines.append(words["open"].format(end=end, left=left) if out is None else
                         words["out"].format(end=end, day=day_said(out)))  # fmt: skip
        for name in ("stops", "raises"):
            if getattr(about, name):
                lines.append(self._counted(words, name, getattr(about, name)))
        begins = date.fromordinal(about.end.toordinal() + 1)
        lines.append(words["starts"].format(day=day_said(begins)))
        return Section("next", words["title"], tuple(lines))
