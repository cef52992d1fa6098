"""A plan's keywords with their readings, groups and calls."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.brief import MATCHES, Brief
from milkwort.core.demand import per_month
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.core.keyword_table import CALLS, INTENTS, KeywordTable
from milkwort.core.words import joints_of
from milkwort.store import models
from milkwort.store.journal import Change, now

__all__ = [
    "KeywordEntry",
    "ReadingEntry",
    "Sheet",
    "add_keywords",
    "add_readings",
    "copy_keywords",
    "load_sheet",
    "lock_bids",
    "remove_keywords",
    "set_calls",
    "set_ranks",
    "with_brief",
    "with_calls",
    "with_locked_bids",
]

_FEW = 500
"""Up to so many keywords are asked for by id; more are picked out of all."""

_NO_MONTHS = (np.nan,) * 12

GENERAL_GROUP = "General"
"""Where a keyword goes that no group was named for."""


@dataclass(frozen=True)
class ReadingEntry:
    """One source's figures, to be stored; searches a period, money a click."""

    volume_low: float | None = None
    volume_high: float | None = None
    cpc_low: float | None = None
    cpc_high: float | None = None
    competition: float | None = None
    months: tuple[float, ...] | None = None
    basis: str = ""
    area: str = ""
    period: str = "month"
    origin: str = ""
    origin_row: int | None = None

    @property
    def figures(self) -> tuple[Any, ...]:
        """What two readings are compared by: everything but where they are from."""
        return (
            self.volume_low, self.volume_high, self.cpc_low, self.cpc_high, self.competition,
            self.months, self.basis, self.area, self.period,
        )  # fmt: skip


@dataclass(frozen=True)
class KeywordEntry:
    """A keyword to be stored, with its reading."""

    text: str
    normalised: str
    match: str
    reading: ReadingEntry
    intent: str = "unknown"
    call: str = "none"
    reason: str = ""
    group: str = ""
    rate: float | None = None
    locked_bid: float | None = None
    unpaid_rank: float | None = None
    paid_rank: float | None = None
    offer: str = ""


@dataclass(frozen=True)
class Sheet:
    """All keywords of a plan, in the order they came; columns of one length.

    Attributes
    ----------
    ids : tuple of int
    entries : tuple of KeywordEntry
        As stored, with the reading in use.
    table : KeywordTable
        What the core plans with.
    groups : tuple of str
        Name of each group number in the table.
    read_by : tuple
        What of the brief the table depends on.
    """

    ids: tuple[int, ...]
    entries: tuple[KeywordEntry, ...]
    table: KeywordTable
    groups: tuple[str, ...]
    read_by: tuple[Any, ...]

    def rows_of(self, ids: Iterable[int]) -> list[int]:
        """Return the places of some keywords.

        Raises
        ------
        NotFoundError
            For an id that is not in the plan.
        """
        place = {keyword_id: row for row, keyword_id in enumerate(self.ids)}
        rows = [place.get(i, -1) for i in ids]
        if -1 in rows:
            raise NotFoundError("A keyword is no longer in the plan.", "keyword")
        return rows


def load_sheet(session: Session, plan_id: int, brief: Brief) -> Sheet:
    """Return the plan's keywords with the readings in use."""
    k, r, c, g = models.Keyword, models.Reading, models.Call, models.AdGroup
    rows = session.execute(
        select(
            k.id, k.text, k.normalised, k.match, k.intent, k.rate, k.locked_bid, k.unpaid_rank,
            k.paid_rank, k.offer, r.volume_low, r.volume_high, r.cpc_low, r.cpc_high, r.competition,
            r.months, r.basis, r.area, r.period, r.origin, r.origin_row, c.call, c.reason,
            g.name.label("group"),
        )
        .where(k.plan_id == plan_id)
        .outerjoin(r, (r.keyword_id == k.id) & r.in_use)
        .outerjoin(c, c.keyword_id == k.id)
        .outerjoin(g, g.id == k.ad_group_id)
        .order_by(k.id)
    ).all()  # fmt: skip
    entries = tuple(_entry(row) for row in rows)
    groups = tuple(sorted({e.group for e in entries if e.group}))
    ids = tuple(row.id for row in rows)
    return Sheet(ids, entries, _table(entries, groups, brief), groups, _read_by(brief))


def with_brief(sheet: Sheet, brief: Brief) -> Sheet:
    """Return the same keywords as columns under another brief."""
    if sheet.read_by == _read_by(brief):
        return sheet
    table = _table(sheet.entries, sheet.groups, brief)
    return replace(sheet, table=table, read_by=_read_by(brief))


def with_calls(sheet: Sheet, rows: Sequence[int], call: str, reason: str) -> Sheet:
    """Return the sheet with some rows called."""
    entries = list(sheet.entries)
    for row in rows:
        entries[row] = replace(entries[row], call=call, reason=reason if call != "none" else "")
    table = sheet.table.with_calls(np.array(rows, dtype=np.int64), call)
    return replace(sheet, entries=tuple(entries), table=table)


def with_locked_bids(sheet: Sheet, rows: Sequence[int], bid: float | None) -> Sheet:
    """Return the sheet with a bid by hand in some rows."""
    entries = list(sheet.entries)
    for row in rows:
        entries[row] = replace(entries[row], locked_bid=bid)
    bids = sheet.table.locked_bid.copy()
    bids[list(rows)] = np.nan if bid is None else bid
    table = replace(sheet.table, locked_bid=bids)
    return replace(sheet, entries=tuple(entries), table=table)


def add_keywords(change: Change, entries: Sequence[KeywordEntry]) -> list[int]:
    """Store keywords with their readings, groups and calls; return their ids."""
    plan_id = change.plan_id
    group_ids = _group_ids(change, {e.group or GENERAL_GROUP for e in entries})
    ids = change.insert(
        models.Keyword,
        [
            {
                "plan_id": plan_id, "text": e.text, "normalised": e.normalised,
                "match": e.match, "intent": e.intent, "rate": e.rate,
                "ad_group_id": group_ids[e.group or GENERAL_GROUP], "locked_bid": e.locked_bid,
                "unpaid_rank": e.unpaid_rank, "paid_rank": e.paid_rank, "offer": e.offer,
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
            _call(plan_id, i, e.call, e.reason, "file")
            for i, e in zip(ids, entries, strict=True)
            if e.call != "none"
        ],
    )
    return ids


def add_readings(change: Change, readings: Sequence[tuple[int, ReadingEntry]]) -> None:
    """Store new readings of known keywords and take them into use; the old ones stay."""
    ids = [keyword_id for keyword_id, _ in readings]
    in_use = change.session.scalars(
        select(models.Reading.id).where(
            models.Reading.plan_id == change.plan_id, models.Reading.in_use,
            models.Reading.keyword_id.in_(ids),
        )
    )  # fmt: skip
    change.update(models.Reading, {i: {"in_use": False} for i in in_use})
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


def _read_by(brief: Brief) -> tuple[Any, ...]:
    return (brief.volume_basis, brief.assumed["month_days"], *(o.name for o in brief.offers))


def _group_ids(change: Change, names: set[str]) -> dict[str, int]:
    known = change.session.execute(
        select(models.AdGroup.name, models.AdGroup.id).where(
            models.AdGroup.plan_id == change.plan_id
        )
    )
    ids: dict[str, int] = {row.name: row.id for row in known}
    missing = sorted(names - set(ids))
    if missing:
        campaign = change.session.scalar(
            select(models.Campaign.id).where(models.Campaign.plan_id == change.plan_id).limit(1)
        )
        if campaign is None:
            row = {"plan_id": change.plan_id, "name": "Search"}
            (campaign,) = change.insert(models.Campaign, [row])
        made = change.insert(
            models.AdGroup,
            [
                {"plan_id": change.plan_id, "campaign_id": campaign, "name": name}
                for name in missing
            ],
        )
        ids |= dict(zip(missing, made, strict=True))
    return ids


def _reading(plan_id: int, keyword_id: int, entry: ReadingEntry) -> dict[str, Any]:
    values = dict(vars(entry))
    values["months"] = list(entry.months) if entry.months else None
    return {
        "plan_id": plan_id, "keyword_id": keyword_id, "in_use": True, "read_at": now(), **values,
    }  # fmt: skip


def _call(plan_id: int, keyword_id: int, call: str, reason: str, by: str) -> dict[str, Any]:
    return {
        "plan_id": plan_id, "keyword_id": keyword_id, "call": call, "reason": reason, "by": by,
        "at": now(),
    }  # fmt: skip


def _entry(row: Any) -> KeywordEntry:
    return KeywordEntry(
        text=row.text,
        normalised=row.normalised,
        match=row.match,
        intent=row.intent,
        call=row.call or "none",
        reason=row.reason or "",
        group=row.group or "",
        rate=row.rate,
        locked_bid=row.locked_bid,
        unpaid_rank=row.unpaid_rank,
        paid_rank=row.paid_rank,
        offer=row.offer or "",
        reading=ReadingEntry(
            row.volume_low, row.volume_high, row.cpc_low, row.cpc_high, row.competition,
            tuple(row.months) if row.months else None, row.basis or "", row.area or "",
            row.period or "month", row.origin or "", row.origin_row,
        ),
    )  # fmt: skip


def _table(entries: Sequence[KeywordEntry], groups: Sequence[str], brief: Brief) -> KeywordTable:
    number = {name: i for i, name in enumerate(groups)} | {"": -1}
    readings = [e.reading for e in entries]
    place = {offer.name: at for at, offer in enumerate(brief.offers)}

    def ints(values: Iterable[int]) -> Any:
        return np.fromiter(values, dtype=np.int64, count=len(entries))

    def floats(values: Iterable[float | None]) -> Any:
        return np.array([np.nan if v is None else v for v in values], dtype=np.float64)

    def searches(volume: float | None, period: str) -> float | None:
        return None if volume is None else per_month(volume, period, brief.assumed)

    return KeywordTable(
        texts=tuple(e.normalised for e in entries),
        match=ints(MATCHES.index(e.match) for e in entries),
        basis=ints(MATCHES.index(r.basis or brief.volume_basis) for r in readings),
        intent=ints(INTENTS.index(e.intent) for e in entries),
        call=ints(CALLS.index(e.call) for e in entries),
        volume_low=floats(searches(r.volume_low, r.period) for r in readings),
        volume_high=floats(searches(r.volume_high, r.period) for r in readings),
        cpc_low=floats(r.cpc_low for r in readings),
        cpc_high=floats(r.cpc_high for r in readings),
        rate=floats(e.rate for e in entries),
        group=ints(number[e.group] for e in entries),
        locked_bid=floats(e.locked_bid for e in entries),
        campaign=np.full(len(entries), -1, dtype=np.int64),
        offer=ints(place.get(e.offer, 0) for e in entries),
        months=np.array([r.months or _NO_MONTHS for r in readings], dtype=float).reshape(-1, 12),
        last_cpc=np.full(len(entries), np.nan),
        joints=joints_of(e.text for e in entries),
    )
