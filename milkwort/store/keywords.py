"""Changes of a plan's keywords, their readings, groups and calls."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np
from sqlalchemy import select

from milkwort.core.errors import BadValueError
from milkwort.core.keyword_table import CALLS
from milkwort.store import models
from milkwort.store.entries import KeywordEntry, ReadingEntry
from milkwort.store.journal import Change, now
from milkwort.store.sheet import Sheet

__all__ = [
    "add_keywords",
    "add_readings",
    "copy_keywords",
    "group_id_of",
    "lock_bids",
    "remove_keywords",
    "set_calls",
    "set_ranks",
]

_FEW = 500
"""Up to so many keywords are asked for by id; more are picked out of all."""

GENERAL_GROUP = "General"
"""Where a keyword goes that no group was named for."""
FIRST_CAMPAIGN = "Search"
"""Where a group goes that no campaign was named for."""


def add_keywords(change: Change, entries: Sequence[KeywordEntry]) -> list[int]:
    """Store keywords with their readings, groups and calls; return their ids."""
    plan_id = change.plan_id
    group_ids = _group_ids(change, entries)
    ids = change.insert(
        models.Keyword,
        [
            {
                "plan_id": plan_id, "text": e.text, "normalised": e.normalised,
                "match": e.match, "intent": e.intent, "rate": e.rate,
                "ad_group_id": group_ids[e.group or GENERAL_GROUP], "locked_bid": e.locked_bid,
                "unpaid_rank": e.unpaid_rank, "paid_rank": e.paid_rank, "offer": e.offer,
                "note": e.note,
            }
            for e in entries
        ],
    )  # fmt: skip
    change.insert(
        models.Reading, [_reading(plan_id, i, e.reading) for i, e in zip(ids, entries, strict=True)]
    )
    change.insert(
        models.Call,
        [
            _call(plan_id, i, e.call, e.reason, e.call_by or "file", e.call_at)
            for i, e in zip(ids, entries, strict=True)
            if e.call != "none"
        ],
    )
    return ids


def add_readings(
    change: Change, readings: Sequence[tuple[int, ReadingEntry]], *, in_use: bool = True
) -> None:
    """Store new readings of known keywords; the old ones stay.

    Parameters
    ----------
    change : Change
    readings : sequence of (int, ReadingEntry)
        Keyword's id, and what a source says of it.
    in_use : bool
        Whether they are used from now on, or only stand beside.
    """
    if not in_use:
        rows = [_reading(change.plan_id, i, r) | {"in_use": False} for i, r in readings]
        change.insert(models.Reading, rows)
        return
    ids = [keyword_id for keyword_id, _ in readings]
    used = change.session.scalars(
        select(models.Reading.id).where(
            models.Reading.plan_id == change.plan_id, models.Reading.in_use,
            models.Reading.keyword_id.in_(ids),
        )
    )  # fmt: skip
    change.update(models.Reading, {i: {"in_use": False} for i in used})
    change.insert(models.Reading, [_reading(change.plan_id, i, r) for i, r in readings])


def set_calls(change: Change, ids: Sequence[int], call: str, reason: str, by: str) -> None:
    """Call keywords; `none` takes their calls back.

    Raises
    ------
    BadValueError
        For an unknown call.
    """
    if call not in CALLS:
        raise BadValueError("call", "one of " + ", ".join(CALLS), call)
    there = _calls_of(change, ids)
    same = {i for i, (_, *now_) in there.items() if now_ == [call, reason, by]}
    anew = [i for i in ids if i not in same]
    change.delete(models.Call, [there[i][0] for i in anew if i in there])
    if call != "none":
        change.insert(models.Call, [_call(change.plan_id, i, call, reason, by) for i in anew])


def lock_bids(change: Change, bids: dict[int, float | None]) -> None:
    """Set bids by hand, money a click; None gives a keyword back to the policy."""
    for bid in bids.values():
        if bid is not None and not (np.isfinite(bid) and bid >= 0):
            raise BadValueError("bid", "a price of 0 or more", bid)
    change.update(models.Keyword, {i: {"locked_bid": b} for i, b in bids.items()})


def set_ranks(change: Change, ranks: dict[int, float | None]) -> None:
    """Set the unpaid ranks of keywords."""
    change.update(models.Keyword, {i: {"unpaid_rank": r} for i, r in ranks.items()})


def remove_keywords(change: Change, ids: Sequence[int]) -> None:
    """Take keywords out of the plan, with their readings and calls."""
    for model in (models.Call, models.Reading):
        change.delete(model, _of_keywords(change, model, ids))
    change.delete(models.Keyword, list(ids))


def copy_keywords(change: Change, source: Sheet) -> None:
    """Store another plan's sheet in this one."""
    add_keywords(change, source.entries)


def group_id_of(change: Change, name: str) -> int:
    """Return the id of an ad group by name, made where it is missing."""
    blank = KeywordEntry("", "", "exact", ReadingEntry(), group=name)
    return _group_ids(change, [blank])[name or GENERAL_GROUP]


def _calls_of(change: Change, ids: Sequence[int]) -> dict[int, tuple[int, str, str, str]]:
    """Return the call's id, and what, why and by whom, of each keyword that is called."""
    c = models.Call
    mine = select(c.keyword_id, c.id, c.call, c.reason, c.by).where(c.plan_id == change.plan_id)
    if len(ids) <= _FEW:
        mine = mine.where(c.keyword_id.in_(ids))
    wanted = set(ids)
    rows = change.session.execute(mine)
    return {row[0]: (row[1], row[2], row[3], row[4]) for row in rows if row[0] in wanted}


def _of_keywords(
    change: Change, model: type[models.Call] | type[models.Reading], ids: Sequence[int]
) -> list[int]:
    """Return the ids of what belongs to some keywords."""
    mine = select(model.id, model.keyword_id).where(model.plan_id == change.plan_id)
    if len(ids) <= _FEW:
        mine = mine.where(model.keyword_id.in_(ids))
    wanted = set(ids)
    return [i for i, keyword_id in change.session.execute(mine) if keyword_id in wanted]


def _group_ids(change: Change, entries: Sequence[KeywordEntry]) -> dict[str, int]:
    """Return the id of each named group, made with its campaign where it is missing."""
    g = models.AdGroup
    known = change.session.execute(select(g.name, g.id).where(g.plan_id == change.plan_id))
    ids: dict[str, int] = {row.name: row.id for row in known}
    first = {e.group or GENERAL_GROUP: e for e in reversed(entries)}
    missing = sorted(set(first) - set(ids))
    if missing:
        campaigns = _campaign_ids(change, {first[name].campaign for name in missing})
        rows = [
            {"plan_id": change.plan_id, "campaign_id": campaigns[first[name].campaign],
             "name": name, "landing_page": first[name].landing_page}
            for name in missing
        ]  # fmt: skip
        ids |= dict(zip(missing, change.insert(g, rows), strict=True))
    return ids


def _campaign_ids(change: Change, names: set[str]) -> dict[str, int]:
    """Return the id of each named campaign; no name is the plan's first one."""
    c = models.Campaign
    known = change.session.execute(
        select(c.name, c.id).where(c.plan_id == change.plan_id).order_by(c.id)
    )
    ids: dict[str, int] = {row.name: row.id for row in known}
    wanted = {name or next(iter(ids), FIRST_CAMPAIGN) for name in names}
    missing = sorted(wanted - set(ids))
    rows = [{"plan_id": change.plan_id, "name": name} for name in missing]
    ids |= dict(zip(missing, change.insert(c, rows), strict=True))
    return ids | {"": ids[next(iter(ids))]}


def _reading(plan_id: int, keyword_id: int, entry: ReadingEntry) -> dict[str, Any]:
    values = dict(vars(entry))
    values["months"] = list(entry.months) if entry.months else None
    return {
        "plan_id": plan_id, "keyword_id": keyword_id, "in_use": True, "read_at": now(), **values,
    }  # fmt: skip


def _call(
    plan_id: int, keyword_id: int, call: str, reason: str, by: str, at: str = ""
) -> dict[str, Any]:
    return {
        "plan_id": plan_id, "keyword_id": keyword_id, "call": call, "reason": reason, "by": by,
        "at": at or now(),
    }  # fmt: skip
