"""A tray's rows against the plan: new, near, caught, changed, there, refused."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

import numpy as np

from milkwort.api.gather.arrivals import reading_of_row
from milkwort.api.gather.trays import Tray
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.workspace import Workspace
from milkwort.core.gather.likeness import likeness
from milkwort.core.words.matching import index_of
from milkwort.core.words.negatives import stopped_by
from milkwort.core.words.texts import joints_of
from milkwort.formats.keyword_row import KeywordRow
from milkwort.formats.keyword_rows import FIELDS, SUMS
from milkwort.store.entries import KeywordEntry
from milkwort.store.readings import MEAN, NEWEST, OF

__all__ = ["SortedRows", "sort_rows", "tray_view"]

Identity = tuple[str, str]

_SAMPLE_ROWS = 6
_SEPARATORS = {",": "comma", ";": "semicolon", "\t": "tab"}


@dataclass
class SortedRows:
    """Rows of a tray by what would become of them.

    Attributes
    ----------
    new, caught : list of KeywordRow
        Not in the sheet; so but stopped by a negative.
    near : list of (identity, KeywordRow)
        Not in the sheet, but alike the keyword of that identity, there or in the tray.
    changed : list of (int, KeywordRow)
        Keyword's id, and its new figures.
    standing : list of (int, dict of str to float)
        Keyword's id, and what is new of its ranks and popularity.
    status, like : list of str
        In the tray's order; `like` names the keyword that a near one is alike.
    was : dict of int to list of float or None
        By place in the tray, of changed rows: low and high volume, low and high price so far.
    """

    new: list[KeywordRow] = field(default_factory=list)
    near: list[tuple[Identity, KeywordRow]] = field(default_factory=list)
    caught: list[KeywordRow] = field(default_factory=list)
    changed: list[tuple[int, KeywordRow]] = field(default_factory=list)
    standing: list[tuple[int, dict[str, float]]] = field(default_factory=list)
    status: list[str] = field(default_factory=list)
    like: list[str] = field(default_factory=list)
    was: dict[int, list[float | None]] = field(default_factory=dict)


def sort_rows(loaded: OpenPlan, tray: Tray) -> SortedRows:
    """Sort a tray's rows by what the plan has."""
    entries = loaded.sheet.entries
    known = {
        (e.normalised, e.match): (i, e) for i, e in zip(loaded.sheet.ids, entries, strict=True)
    }
    alike = {likeness(e.normalised, e.match): (e.text, (e.normalised, e.match)) for e in entries}
    stopped = _stopped(loaded, [r.normalised for r in tray.rows.taken])
    found = SortedRows()
    units = tray.file.units if tray.file else None
    for row, is_stopped in zip(tray.rows.taken, stopped, strict=True):
        there = known.get(row.identity)
        like = ""
        if there is not None:
            keyword, held = there
            said = reading_of_row(row, tray.name, units)
            standing = _standing(row, held)
            if standing:
                found.standing.append((keyword, standing))
            changed = (said.says_searches and said.searches != held.reading.searches) or (
                said.says_prices and said.prices != held.prices.prices
            )
            if changed:
                found.changed.append((keyword, row))
                found.was[len(found.status)] = [
                    held.reading.volume_low, held.reading.volume_high,
                    held.prices.cpc_low, held.prices.cpc_high,
                ]  # fmt: skip
            status = "changed" if standing or changed else "there"
        elif is_stopped:
            found.caught.append(row)
            status = "caught"
        else:
            key = likeness(row.normalised, row.match)
            other = alike.setdefault(key, (row.text, row.identity))
            if other[1] == row.identity:
                found.new.append(row)
                status = "new"
            else:
                found.near.append((other[1], row))
                like, status = other[0], "near"
        found.status.append(status)
        found.like.append(like)
    return found


def tray_view(work: Workspace, tray: Tray, key: str | None) -> dict[str, Any]:
    """Hold a tray and return what the screen shows of it."""
    key = work.trays.put(tray, key)
    rows = sort_rows(work.plan(tray.plan_id), tray)
    taken = tray.rows.taken
    counts = {name: rows.status.count(name) for name in ("new", "near", "caught", "changed",
                                                         "there")}  # fmt: skip
    return {
        "key": key,
        "name": tray.name,
        **_file_view(tray),
        "fields": [*FIELDS, *SUMS],
        "counts": counts | {"refused": len(tray.rows.refused)},
        "rows": {
            "row": [r.row for r in taken],
            "text": [r.text for r in taken],
            "match": [r.match for r in taken],
            "status": rows.status,
            "like": rows.like,
            "volume_low": [r.volume[0] if r.volume else None for r in taken],
            "volume_high": [r.volume[1] if r.volume else None for r in taken],
            "cpc_low": [r.cpc_low for r in taken],
            "cpc_high": [r.cpc_high for r in taken],
            "call": [r.call for r in taken],
            "group": [r.group for r in taken],
            "unpaid_rank": [r.unpaid_rank for r in taken],
        },
        "was": {str(at): figures for at, figures in rows.was.items()},
        "cleaned": {str(at): r.as_written for at, r in enumerate(taken) if r.as_written},
        "verdict": verdict_of(work.plan(tray.plan_id).record.reading_rule, tray.name),
        "refused": [r.as_dict() for r in tray.rows.refused],
    }


def _standing(row: KeywordRow, held: KeywordEntry) -> dict[str, float]:
    said = {name: getattr(row, name) for name in ("unpaid_rank", "paid_rank", "popularity")}
    return {n: v for n, v in said.items() if v is not None and v != getattr(held, n)}


def verdict_of(rule: str, origin: str) -> str:
    """Return what a plan's rule of readings makes of new figures from a source."""
    if rule == MEAN:
        return "mean"
    return "take" if rule in (NEWEST, OF + origin) else "keep"


def _file_view(tray: Tray) -> dict[str, Any]:
    if tray.file is None:
        return {
            "separator": "", "decimal": "", "encoding": "", "headings": [], "first_row": 1,
            "columns": {}, "sample": [], "sheets": [], "sheet": "", "period": "month",
            "basis": "", "area": "", "price": "click", "shown_at_bid": None, "currency": "",
            "price_rate": None,
        }  # fmt: skip
    table, guess, units = tray.file.head, tray.file.guess, tray.file.units
    first = guess.first_row - 1
    return {
        "separator": _SEPARATORS.get(table.separator, ""),
        "decimal": "point" if table.decimal == "." else "comma",
        "encoding": table.encoding,
        "headings": list(guess.headings),
        "first_row": guess.first_row,
        "columns": guess.columns,
        "sample": [list(row) for row in table.rows[first : first + _SAMPLE_ROWS]],
        "sheets": list(table.sheets),
        "sheet": table.sheet,
        "period": units.period,
        "basis": units.basis,
        "area": units.area,
        "price": units.price,
        "shown_at_bid": units.shown_at_bid,
        "currency": guess.currency,
        "price_rate": units.price_rate,
    }


def _stopped(loaded: OpenPlan, texts: list[str]) -> list[bool]:
    """Say which texts a negative of the whole plan stops."""
    brief = loaded.record.brief
    negatives = tuple(n for n in brief.negatives if n.level == "plan")
    if not negatives or not texts:
        return [False] * len(texts)
    joints = joints_of(n.text for n in negatives)
    index = index_of(tuple(texts), joints, brief.negative_close_forms)
    found = stopped_by(negatives, index, joints, brief.negative_close_forms)
    stopped = np.zeros(len(texts), dtype=bool)
    stopped[found.text] = True
    return [bool(s) for s in stopped]
