"""A plan held against the results of its client: read once for each set of imports."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from datetime import date

import numpy as np

from milkwort.api.learn.arriving import SITE
from milkwort.api.learn.before import before_of
from milkwort.api.learn.in_force import InForce, results_in_force
from milkwort.api.learn.ran import Span, WhatRan, spans_of, what_ran
from milkwort.api.plan.frozen import Planned
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.workspace import Workspace
from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.arrays import Ints
from milkwort.core.learn.learned import Learned, learned_of
from milkwort.core.learn.terms import TermRows
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.lexicon import Lexicon
from milkwort.formats.learn_headless import result_rows_of, term_rows_of
from milkwort.formats.result_rows import ResultFile, places_of
from milkwort.store.models import ResultImport

__all__ = ["Known", "known_of", "row_places"]


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


def known_of(work: Workspace, plan: OpenPlan) -> Known:
    """Return what the results in force say of a plan; kept until either has changed."""
    imports, in_force = results_in_force(work, plan.record.client_id)
    ran = what_ran(work, plan.record.id)
    key = (plan.record.revision, in_force.imports, ran)
    held = work.memory.learnt.get(plan.record.id)
    if held is not None and held[0] == key:
        known: Known = held[1]
        return known
    known = _known(work, plan, imports, in_force, ran)
    work.memory.learnt.keep(plan.record.id, (key, known))
    return known


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
    """Return the rows of a plan's table by key, and by text and match.

    A text that stands there once is known without its match type too.
    """
    entries = plan.sheet.entries
    refs = {entry.key: row for row, entry in enumerate(entries)}
    rows = {(entry.normalised, entry.match): row for row, entry in enumerate(entries)}
    often = Counter(entry.normalised for entry in entries)
    rows |= {(entry.normalised, ""): row for row, entry in enumerate(entries)
             if often[entry.normalised] == 1}  # fmt: skip
    return refs, rows
