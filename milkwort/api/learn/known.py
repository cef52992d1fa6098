"""A plan held against the results of its client: read once for each set of imports."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

import numpy as np
from sqlalchemy.orm import Session

from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.workspace import Workspace
from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.arrays import Ints
from milkwort.core.learn.learned import Learned, learned_of
from milkwort.core.learn.merged import newest_rows
from milkwort.core.learn.terms import TermRows
from milkwort.core.words.lexicon import Lexicon
from milkwort.formats.learn_headless import result_rows_of, term_rows_of
from milkwort.formats.result_rows import FIGURES, ResultFile, places_of
from milkwort.store.models import ResultImport
from milkwort.store.results import Arriving, columns_of, imports_of, result_import

__all__ = ["Known", "arriving_of", "arriving_of_columns", "known_of"]

_LEVELS = ("keyword", "term")
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
    """

    imports: list[ResultImport]
    rows: ResultFile | None
    keyword: Ints
    terms: TermRows | None
    learned: Learned | None
    lexicon: Lexicon


def arriving_of(file: ResultFile, source: str, as_of: date | None = None) -> Arriving:
    """Return results as they are kept."""
    columns: dict[str, Any] = {name: getattr(file, name) for name in _TEXTS}
    columns |= {"row": file.row, "first": file.first, "last": file.last}
    columns |= {name: [None if np.isnan(v) else v for v in file.figures[name].tolist()]
                for name in FIGURES}  # fmt: skip
    last = date.fromordinal(int(file.last.max()))
    return Arriving(source, file.level, date.fromordinal(int(file.first.min())), last,
                    max(as_of or last, last), columns)  # fmt: skip


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


def known_of(work: Workspace, plan: OpenPlan) -> Known:
    """Return what the results in force say of a plan; kept until either has changed."""
    with work.database.read() as session:
        imports = imports_of(session, plan.record.client_id)
        used = [one for one in imports[::-1] if one.in_force and one.level in _LEVELS]
        key = (plan.record.revision, tuple(one.id for one in used))
        held = work.learnt.get(plan.record.id)
        if held is not None and held[0] == key:
            known: Known = held[1]
            return known
        in_force = _in_force(work, session, plan, used)
    known = _known(plan, imports, in_force)
    work.learnt[plan.record.id] = (key, known)
    return known


@dataclass(frozen=True)
class _InForce:
    """Rows that count, merged; None where there are none of a level."""

    keyword: ResultFile | None
    term: ResultFile | None
    as_of: date


def _in_force(
    work: Workspace, session: Session, plan: OpenPlan, used: Sequence[ResultImport]
) -> _InForce | None:
    """Return the rows that count for a plan; read anew only where other imports do."""
    if not used:
        return None
    since = plan.record.values["start_date"] if plan.record.version_of is not None else None
    key = (tuple(one.id for one in used), since)
    held = work.result_rows.get(plan.record.id)
    if held is not None and held[0] == key:
        found: _InForce = held[1]
        return found
    client = plan.record.client_id
    parts = {level: [columns_of(result_import(session, client, one.id))
                     for one in used if one.level == level] for level in _LEVELS}  # fmt: skip
    keyword, term = (
        _merged(_since(some, plan), level) if some else None for level, some in parts.items()
    )
    found = _InForce(keyword, term, date.fromisoformat(max(one.as_of for one in used)))
    work.result_rows[plan.record.id] = (key, found)
    return found


def _known(plan: OpenPlan, imports: list[ResultImport], in_force: _InForce | None) -> Known:
    lexicon = lexicon_of(plan.record.brief)
    rows = None if in_force is None else in_force.keyword
    if in_force is None or rows is None or not len(rows):
        return Known(imports, None, np.zeros(0, dtype=np.int64), None, None, lexicon)
    places, typed = _places(plan), in_force.term
    keyword = places_of(rows, *places)
    terms = None
    if typed is not None and len(typed):
        terms = term_rows_of(typed, places_of(typed, *places), in_force.as_of.toordinal(),
                             plan.record.brief.assumed)  # fmt: skip
    seen = result_rows_of(rows, keyword)
    learned = learned_of(plan.result, lexicon, seen, in_force.as_of, terms)
    return Known(imports, rows, keyword, terms, learned, lexicon)


def _since(parts: Sequence[Columns], plan: OpenPlan) -> Sequence[Columns]:
    """Return the rows from a version's own first day on: what came before is in its figures."""
    if plan.record.version_of is None:
        return parts
    first = date.fromisoformat(str(plan.record.values["start_date"])).toordinal()
    found = []
    for part in parts:
        kept = [at for at, day in enumerate(part["first"]) if day >= first]
        found.append({name: [column[at] for at in kept] for name, column in part.items()})
    return found


def _places(plan: OpenPlan) -> tuple[dict[str, int], dict[tuple[str, str], int]]:
    entries = plan.sheet.entries
    refs = {entry.key: row for row, entry in enumerate(entries)}
    rows = {(entry.normalised, entry.match): row for row, entry in enumerate(entries)}
    return refs, rows


def _merged(parts: Sequence[Columns], level: str) -> ResultFile:
    """Return the rows of several imports that count, the oldest import given first."""
    names = ("first", "last", "ref", level, "match", *(("keyword",) if level == "term" else ()))
    keys = [list(zip(*(part[name] for name in names), strict=True)) for part in parts]
    # in an order of their own, so that sums are the same whichever came first
    taken = sorted(newest_rows(keys), key=lambda at: (keys[at[0]][at[1]], at))

    def column(name: str) -> list[Any]:
        held = [part[name] for part in parts]
        return [held[number][row] for number, row in taken]

    figures = {
        name: np.array([np.nan if v is None else v for v in column(name)], dtype=np.float64)
        for name in FIGURES
    }
    row, first, last = (np.array(column(n), dtype=np.int64) for n in ("row", "first", "last"))
    term, keyword, match, campaign, group, ref = (column(name) for name in _TEXTS)
    return ResultFile(level=level, row=row, term=term, keyword=keyword, match=match,
                      campaign=campaign, group=group, ref=ref, first=first, last=last,
                      figures=figures, refused=())  # fmt: skip
