"""A plan held against the results of its client: read once for each set of imports."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from typing import Any

import numpy as np

from milkwort.api.learn.before import before_of
from milkwort.api.learn.ran import Span, WhatRan, spans_of, what_ran
from milkwort.api.plan.frozen import Planned
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.workspace import Workspace
from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.arrays import Floats, Ints
from milkwort.core.errors import BadValueError
from milkwort.core.learn.learned import Learned, learned_of
from milkwort.core.learn.merged import coded, newest_rows
from milkwort.core.learn.terms import TermRows
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.lexicon import Lexicon
from milkwort.formats.learn_headless import result_rows_of, term_rows_of
from milkwort.formats.result_rows import BESIDE, FIGURES, ResultFile, places_of
from milkwort.store.models import ResultImport
from milkwort.store.results import Arriving, columns_of, imports_of, result_import

__all__ = [
    "BY_HAND", "SAME", "SITE", "InForce", "Known", "arriving_of", "arriving_of_columns",
    "hand_count", "known_of", "results_in_force", "row_places", "site_count",
]  # fmt: skip

BY_HAND = "by hand"
"""Level of customers that somebody counted: a campaign's, of a window."""
SITE = "site"
"""Level of what the whole site saw, ads or not."""
_JUDGED = ("keyword", "term")
"""Levels that evidence is taken from; the others are held against them."""
_LEVELS = (*_JUDGED, "group", "campaign", "day", BY_HAND, SITE)
SAME: Mapping[str, tuple[str, ...]] = {
    "keyword": ("first", "last", "ref", "keyword", "match"),
    "term": ("first", "last", "ref", "term", "match", "keyword"),
    "group": ("first", "last", "campaign", "group"),
    "campaign": ("first", "last", "campaign"),
    "day": ("first", "last"),
    BY_HAND: ("first", "last", "ref", "campaign"),
    SITE: ("first", "last"),
}
"""By which a row of a later import stands in the place of an earlier one's."""
Columns = Mapping[str, list[Any]]
_TEXTS = ("term", "keyword", "match", "campaign", "group", "ref")


@dataclass(frozen=True)
class Known:
    """What is known of a plan by its results.

    Attributes
    ----------
    imports : list of ResultImport
        All of them, the newest first.
    rows : ResultFile or None
        Keyword rows in force, merged; None where there are none.
    keyword : Ints
        Row of the plan's table of each; −1 for none.
    terms : TermRows or None
    learned : Learned or None
    lexicon : Lexicon
    counted : ResultFile or None
        Customers that were counted by hand.
    site : tuple of ResultFile
        What the whole site saw; of a day that somebody counted, not what a file says.
    base : PlanResult or None
        The plan with uncorrected inputs, where there is anything to learn.
    spans : tuple of Span
        The plan's days that are seen, each with what it is held against.
    """

    imports: list[ResultImport]
    rows: ResultFile | None
    keyword: Ints
    terms: TermRows | None
    learned: Learned | None
    lexicon: Lexicon
    counted: ResultFile | None = None
    site: tuple[ResultFile, ...] = ()
    base: PlanResult | None = None
    spans: tuple[Span, ...] = ()


def arriving_of(file: ResultFile, source: str, as_of: date | None = None) -> Arriving:
    """Return results as they are kept."""
    columns: dict[str, Any] = {name: getattr(file, name) for name in _TEXTS}
    columns |= {"row": file.row, "first": file.first, "last": file.last}
    columns |= {name: _said(file.figures[name]) for name in FIGURES
                if name not in BESIDE or np.isfinite(file.figures[name]).any()}  # fmt: skip
    last = date.fromordinal(int(file.last.max()))
    return Arriving(source, file.level, date.fromordinal(int(file.first.min())), last,
                    max(as_of or last, last), columns)  # fmt: skip


def _said(figures: Floats) -> list[float | None]:
    """Return figures as they are kept: what was not said as None."""
    kept = figures.astype(object)
    kept[np.isnan(figures)] = None
    said: list[float | None] = kept.tolist()
    return said


def arriving_of_columns(
    columns: Mapping[str, list[Any]], level: str, source: str, last: date
) -> Arriving:
    """Return rows by column, their days as text, as results that are kept."""
    n = len(columns["day"])
    days = [date.fromisoformat(day).toordinal() for day in columns["day"]]
    kept: dict[str, Any] = {name: columns.get(name) or [""] * n for name in _TEXTS}
    kept |= {"row": list(range(2, n + 2)), "first": days, "last": days}
    kept |= {name: columns.get(name) or [None] * n for name in FIGURES}
    kept["credit"] = [0.0] * n
    return Arriving(source, level, date.fromordinal(min(days)), date.fromordinal(max(days)), last,
                    kept)  # fmt: skip


def hand_count(
    campaign: str, key: str, since: date, until: date, customers: float, value: float | None = None
) -> Arriving:
    """Return customers that somebody counted, of a campaign and window, as they are kept.

    Parameters
    ----------
    campaign, key : str
        What the campaign is called, and what it is known by; empty for all campaigns.
    since, until : date
        Ends included.
    customers : float
    value : float or None
        Money they bought for; None where nobody said.

    Raises
    ------
    BadValueError
        Where the window ends before it begins.
    """
    source = f"counted by hand: {campaign or 'all campaigns'}"
    texts = {"campaign": campaign, "ref": key}
    return _counted(source, BY_HAND, since, until, texts, {"customers": customers, "value": value})


def site_count(since: date, until: date, visits: float | None, unpaid: float | None) -> Arriving:
    """Return what the whole site saw in a window, as it is kept.

    Parameters
    ----------
    since, until : date
        Ends included.
    visits, unpaid : float or None
        Visits of any origin, and customers who came without an ad; None where nobody said.

    Raises
    ------
    BadValueError
        Where the window ends before it begins, or nothing is said.
    """
    if visits is None and unpaid is None:
        raise BadValueError("visits", "visits, or customers without an ad", "neither")
    return _counted("the whole site", SITE, since, until, {}, {"visits": visits, "unpaid": unpaid})


def _counted(
    source: str, level: str, since: date, until: date, texts: Mapping[str, str],
    figures: Mapping[str, float | None],
) -> Arriving:  # fmt: skip
    if until < since:
        raise BadValueError("until", f"a day from {since} on", str(until))
    columns: dict[str, Any] = {name: [texts.get(name, "")] for name in _TEXTS}
    columns |= {name: [None] for name in FIGURES if name not in BESIDE}
    columns |= {"row": [1], "first": [since.toordinal()], "last": [until.toordinal()]}
    columns |= {name: [0.0] for name in ("impressions", "clicks", "cost", "credit", "customers")}
    columns |= {name: [value] for name, value in figures.items() if value is not None}
    return Arriving(source, level, since, until, until, columns)


def known_of(work: Workspace, plan: OpenPlan) -> Known:
    """Return what the results in force say of a plan; kept until either has changed."""
    imports, in_force = results_in_force(work, plan.record.client_id)
    ran = what_ran(work, plan.record.id)
    key = (plan.record.revision, in_force.imports, ran)
    held = work.learnt.get(plan.record.id)
    if held is not None and held[0] == key:
        known: Known = held[1]
        return known
    known = _known(work, plan, imports, in_force, ran)
    work.learnt.keep(plan.record.id, (key, known))
    return known


@dataclass(frozen=True)
class InForce:
    """Rows of a client that count, merged.

    Attributes
    ----------
    imports : tuple of int
        What they are of.
    rows : mapping of str to ResultFile
        By level.
    as_of : date or None
        Up to which is reported.
    """

    imports: tuple[int, ...]
    rows: Mapping[str, ResultFile] = field(default_factory=dict)
    as_of: date | None = None

    def level(self, name: str) -> ResultFile | None:
        """Return the rows of a level; None where there are none."""
        return self.rows.get(name)

    @property
    def keyword(self) -> ResultFile | None:
        """Rows by keyword."""
        return self.level("keyword")

    @property
    def term(self) -> ResultFile | None:
        """Rows by search term."""
        return self.level("term")

    @property
    def by_hand(self) -> ResultFile | None:
        """Customers that somebody counted."""
        return self.level(BY_HAND)


def results_in_force(work: Workspace, client_id: int) -> tuple[list[ResultImport], InForce]:
    """Return all imports of a client, newest first, and the rows that count.

    Rows are read anew only where other imports count than before.
    """
    with work.database.read() as session:
        imports = imports_of(session, client_id)
        used = [one for one in imports[::-1] if one.in_force and one.level in _LEVELS]
        ids = tuple(one.id for one in used)
        held = work.result_rows.get(client_id)
        if held is not None and held.imports == ids:
            return imports, held
        parts = {level: [columns_of(result_import(session, client_id, one.id))
                         for one in used if one.level == level] for level in _LEVELS}  # fmt: skip
    merged = {level: _merged(some, level) for level, some in parts.items() if some}
    as_of = max((date.fromisoformat(one.as_of) for one in used if one.level in _JUDGED),
                default=None)  # fmt: skip
    found = InForce(ids, merged, as_of)
    work.result_rows.keep(client_id, found)
    return imports, found


def _known(
    work: Workspace, plan: OpenPlan, imports: list[ResultImport], in_force: InForce,
    ran: WhatRan,
) -> Known:  # fmt: skip
    lexicon = lexicon_of(plan.record.brief)
    rows, typed = _since(in_force.keyword, plan), in_force.term
    if in_force.as_of is None or rows is None or in_force.keyword is None:
        return Known(imports, None, np.zeros(0, dtype=np.int64), None, None, lexicon)
    places = row_places(plan)
    keyword = places_of(rows, *places)
    terms = None
    if typed is not None:
        terms = term_rows_of(typed, places_of(typed, *places), in_force.as_of.toordinal(),
                             plan.record.brief.assumed)  # fmt: skip
    seen = result_rows_of(rows, keyword)
    every = in_force.keyword
    all_days = seen if every is rows else result_rows_of(every, places_of(every, *places))
    before = before_of(work, plan, all_days, ran)
    learned = learned_of(plan.result, lexicon, seen, in_force.as_of, terms, before=before)
    counted, site = _since(in_force.by_hand, plan), _site(in_force, plan)
    spans = tuple(spans_of(work, plan, ran, learned.first, learned.last))
    return Known(imports, rows, keyword, terms, learned, lexicon, counted, site, before.base,
                 spans)  # fmt: skip


def _site(in_force: InForce, plan: OpenPlan) -> tuple[ResultFile, ...]:
    """Return what the whole site saw; of a day that somebody counted, not what a file says."""
    counted, filed = _since(in_force.level(SITE), plan), _since(in_force.level("day"), plan)
    if counted is not None and filed is not None:
        apart = (filed.first[:, None] > counted.last) | (filed.last[:, None] < counted.first)
        filed = filed.at(np.flatnonzero(apart.all(axis=1)))
    return tuple(part for part in (counted, filed) if part is not None)


def _since(rows: ResultFile | None, plan: OpenPlan) -> ResultFile | None:
    """Return the rows from a version's own first day on: a month is held against its own plan."""
    if rows is None or plan.record.version_of is None:
        return rows
    first = date.fromisoformat(str(plan.record.values["start_date"])).toordinal()
    found = rows.at(np.flatnonzero(rows.first >= first))
    return found if len(found) else None


def row_places(plan: Planned) -> tuple[dict[str, int], dict[tuple[str, str], int]]:
    """Return the rows of a plan's table by key, and by text and match."""
    entries = plan.sheet.entries
    refs = {entry.key: row for row, entry in enumerate(entries)}
    rows = {(entry.normalised, entry.match): row for row, entry in enumerate(entries)}
    return refs, rows


def _merged(parts: Sequence[Columns], level: str) -> ResultFile:
    """Return the rows of several imports that count, the oldest import given first."""
    many = [len(part["row"]) for part in parts]
    names, codes = {}, {}
    for name in _TEXTS:
        names[name], codes[name] = coded([text for part in parts for text in part[name]])

    def figures(name: str) -> Floats:
        # what was not said is None, which becomes NaN
        return np.concatenate([
            np.array(part[name], dtype=np.float64) if part.get(name) else np.full(n, np.nan)
            for part, n in zip(parts, many, strict=True)
        ])  # fmt: skip

    row, first, last = (figures(name).astype(np.int64) for name in ("row", "first", "last"))
    about = codes | {"first": first, "last": last}
    order = newest_rows([about[name] for name in SAME[level]],
                        np.repeat(np.arange(len(parts)), many))  # fmt: skip

    def texts(name: str) -> list[str]:
        once: list[str] = names[name]
        return [once[at] for at in codes[name][order].tolist()]

    term, keyword, match, campaign, group, ref = (texts(name) for name in _TEXTS)
    return ResultFile(
        level=level, row=row[order], term=term, keyword=keyword, match=match, campaign=campaign,
        group=group, ref=ref, first=first[order], last=last[order],
        figures={name: figures(name)[order] for name in FIGURES}, refused=(),
    )  # fmt: skip
