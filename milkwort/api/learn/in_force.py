"""Which results of a client count: the rows of all its imports as one."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from typing import Any

import numpy as np

from milkwort.api.learn.arriving import BY_HAND, SITE, TEXTS
from milkwort.api.plan.workspace import Workspace
from milkwort.core.arrays import Floats
from milkwort.core.learn.merged import coded, newest_rows
from milkwort.formats.result_rows import FIGURES, ResultFile, told_apart
from milkwort.store.models import ResultImport
from milkwort.store.results import columns_of, imports_of, result_import

__all__ = ["SAME", "InForce", "results_in_force"]

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
        held = work.memory.result_rows.get(client_id)
        if held is not None and held.imports == ids:
            return imports, held
        parts = {level: [columns_of(result_import(session, client_id, one.id))
                         for one in used if one.level == level] for level in _LEVELS}  # fmt: skip
    merged = {level: _merged(some, level) for level, some in parts.items() if some}
    as_of = max((date.fromisoformat(one.as_of) for one in used if one.level in _JUDGED),
                default=None)  # fmt: skip
    found = InForce(ids, merged, as_of)
    work.memory.result_rows.keep(client_id, found)
    return imports, found


def _merged(parts: Sequence[Columns], level: str) -> ResultFile:
    """Return the rows of several imports that count, the oldest import given first."""
    many = [len(part["row"]) for part in parts]
    names, codes = {}, {}
    for name in TEXTS:
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

    term, keyword, match, campaign, group, ref = (texts(name) for name in TEXTS)
    told, untold = told_apart({name: figures(name)[order] for name in FIGURES})
    return ResultFile(
        level=level, row=row[order], term=term, keyword=keyword, match=match, campaign=campaign,
        group=group, ref=ref, first=first[order], last=last[order],
        figures=told, untold=untold, refused=(),
    )  # fmt: skip
