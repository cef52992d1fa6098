"""A plan's keywords as they are planned with: read from the store, held as columns."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.brief import MATCHES, Brief
from milkwort.core.demand import per_month
from milkwort.core.errors import NotFoundError
from milkwort.core.keyword_table import CALLS, INTENTS, KeywordTable
from milkwort.core.words import joints_of
from milkwort.store import models
from milkwort.store.entries import KeywordEntry, ReadingEntry
from milkwort.store.journal import now

__all__ = ["Sheet", "load_sheet", "with_brief", "with_calls", "with_locked_bids"]

_AT_ONCE = 2000
_NO_MONTHS = (np.nan,) * 12


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
    groups, campaigns : tuple of str
        Name of each group and campaign number in the table.
    read_by : tuple
        What of the brief the table depends on.
    """

    ids: tuple[int, ...]
    entries: tuple[KeywordEntry, ...]
    table: KeywordTable
    groups: tuple[str, ...]
    campaigns: tuple[str, ...]
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
    campaign = models.Campaign
    rows = session.execute(
        select(
            k.id, k.text, k.normalised, k.match, k.intent, k.rate, k.locked_bid, k.unpaid_rank,
            k.paid_rank, k.offer, k.note, r.volume_low, r.volume_high, r.cpc_low, r.cpc_high,
            r.competition, r.months, r.basis, r.area, r.period, r.origin, r.origin_row, c.call,
            c.reason, c.by, c.at,
            g.name.label("group"), g.landing_page, campaign.name.label("campaign"),
        )
        .where(k.plan_id == plan_id)
        .outerjoin(r, (r.keyword_id == k.id) & r.in_use)
        .outerjoin(c, c.keyword_id == k.id)
        .outerjoin(g, g.id == k.ad_group_id)
        .outerjoin(campaign, campaign.id == g.campaign_id)
        .order_by(k.id)
        .execution_options(yield_per=_AT_ONCE)
    )  # fmt: skip
    ids, entries = [], []
    for row in rows:
        ids.append(row.id)
        entries.append(_entry(row))
    groups = tuple(sorted({e.group for e in entries if e.group}))
    campaigns = tuple(sorted({e.campaign for e in entries if e.campaign}))
    table = _table(entries, groups, campaigns, brief)
    return Sheet(tuple(ids), tuple(entries), table, groups, campaigns, _read_by(brief))


def with_brief(sheet: Sheet, brief: Brief) -> Sheet:
    """Return the same keywords as columns under another brief."""
    if sheet.read_by == _read_by(brief):
        return sheet
    table = _table(sheet.entries, sheet.groups, sheet.campaigns, brief)
    return replace(sheet, table=table, read_by=_read_by(brief))


def with_calls(
    sheet: Sheet, rows: Sequence[int], call: str, reason: str, by: str = "hand"
) -> Sheet:
    """Return the sheet with some rows called."""
    entries = list(sheet.entries)
    said = (reason, by, now()) if call != "none" else ("", "", "")
    for row in rows:
        entries[row] = replace(
            entries[row], call=call, reason=said[0], call_by=said[1], call_at=said[2]
        )
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
        campaign=row.campaign or "",
        landing_page=row.landing_page or "",
        call_by=row.by or "",
        call_at=row.at or "",
        note=row.note or "",
        reading=ReadingEntry(
            row.volume_low, row.volume_high, row.cpc_low, row.cpc_high, row.competition,
            tuple(row.months) if row.months else None, row.basis or "", row.area or "",
            row.period or "month", row.origin or "", row.origin_row,
        ),
    )  # fmt: skip


def _read_by(brief: Brief) -> tuple[Any, ...]:
    return (brief.volume_basis, brief.assumed["month_days"], *(o.name for o in brief.offers))


def _table(
    entries: Sequence[KeywordEntry],
    groups: Sequence[str],
    campaigns: Sequence[str],
    brief: Brief,
) -> KeywordTable:
    number = {name: i for i, name in enumerate(groups)} | {"": -1}
    holder = {name: i for i, name in enumerate(campaigns)} | {"": -1}
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
        campaign=ints(holder[e.campaign] for e in entries),
        offer=ints(place.get(e.offer, 0) for e in entries),
        months=np.array([r.months or _NO_MONTHS for r in readings], dtype=float).reshape(-1, 12),
        last_cpc=np.full(len(entries), np.nan),
        joints=joints_of(e.text for e in entries),
    )
