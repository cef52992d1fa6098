"""A plan's keywords as they are planned with: read from the store, held as columns."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, fields, replace
from functools import cache
from typing import Any

import numpy as np
from sqlalchemy import Executable, bindparam, func, select, true
from sqlalchemy.orm import Session, aliased

from milkwort.core.arrays import Floats, Ints
from milkwort.core.errors import NotFoundError
from milkwort.core.market.demand import per_month
from milkwort.core.market.keyword_table import CALLS, TAUGHT, KeywordTable
from milkwort.core.words.intents import INTENTS
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.texts import joints_of
from milkwort.store import models
from milkwort.store.entries import KeywordEntry, ReadingEntry
from milkwort.store.journal import Touched
from milkwort.store.plans import PlanRecord
from milkwort.store.structure import Structure
from milkwort.store.taught import rate_of, reading_of

__all__ = ["Sheet", "load_sheet", "read_again", "with_brief", "with_locked"]

_AT_ONCE = 2000
_FEW = 20_000
"""Up to so many keywords are read again by id; more with all of the sheet."""
_IDS_AT_ONCE = 5000
_NO_MONTHS = (np.nan,) * 12
_HOW_MANY = select(func.count()).where(models.Keyword.plan_id == bindparam("plan"))
_OF_PRICE = ("cpc_low", "cpc_high", "competition", "area", "origin", "origin_row", "taught")
"""What is used of a reading that is in use for prices."""


@dataclass(frozen=True)
class Sheet:
    """All keywords of a plan, in the order they came; columns of one length.

    Attributes
    ----------
    ids : tuple of int
    entries : tuple of KeywordEntry
        As stored, with the reading in use.
    table : KeywordTable
        What the core plans with; groups and campaigns numbered as in `structure`.
    structure : Structure
    labels : tuple of str
        What each group of the structure is called where its campaign isn't seen.
    read_by : tuple
        What of the brief and the structure the table depends on.
    """

    ids: tuple[int, ...]
    entries: tuple[KeywordEntry, ...]
    table: KeywordTable
    structure: Structure
    labels: tuple[str, ...]
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

    def group_labels(self, rows: Iterable[int]) -> list[str]:
        """Return what the group of each of some keywords is called; empty for none."""
        numbers = self.table.group
        return [self.labels[numbers[row]] if numbers[row] >= 0 else "" for row in rows]


def load_sheet(session: Session, record: PlanRecord) -> Sheet:
    """Return the plan's keywords with the readings in use."""
    rows = session.execute(
        _question(), {"plan": record.id}, execution_options={"yield_per": _AT_ONCE}
    )
    ids, entries = [], []
    for row in rows:
        ids.append(row.id)
        entries.append(_entry(row))
    return _sheet(tuple(ids), tuple(entries), record)


def read_again(session: Session, sheet: Sheet, record: PlanRecord, touched: Touched) -> Sheet:
    """Return the sheet as it is after a change, reading only the keywords it touched.

    Parameters
    ----------
    session : Session
    sheet : Sheet
        As it was.
    record : PlanRecord
        As it is.
    touched : Touched
        What was written in between.
    """
    # what came or went is known before anything is read by id in vain
    many = session.scalar(_HOW_MANY, {"plan": record.id})
    if len(touched.keywords) > _FEW or many != len(sheet.ids):
        return load_sheet(session, record)
    place = {keyword_id: row for row, keyword_id in enumerate(sheet.ids)}
    wanted = sorted(touched.keywords)
    found: dict[int, KeywordEntry] = {}
    for at in range(0, len(wanted), _IDS_AT_ONCE):
        asked = {"plan": record.id, "ids": wanted[at : at + _IDS_AT_ONCE]}
        rows = session.execute(_question(by_id=True), asked)
        found |= {row.id: _entry(row) for row in rows}
    if found.keys() != touched.keywords or not touched.keywords <= place.keys():
        return load_sheet(session, record)  # keywords came or went
    changed = {place[i]: entry for i, entry in found.items() if sheet.entries[place[i]] != entry}
    if not changed:
        return with_brief(sheet, record)
    entries = list(sheet.entries)
    for row, entry in changed.items():
        entries[row] = entry
    if sheet.read_by != _read_by(record):
        return _sheet(sheet.ids, tuple(entries), record)
    places = np.array(sorted(changed), dtype=np.int64)
    some_rows = _table([entries[row] for row in places.tolist()], record)
    table = _patched(sheet.table, places, some_rows)
    return replace(sheet, entries=tuple(entries), table=table, structure=record.structure,
                   labels=tuple(record.structure.labels()))  # fmt: skip


def with_brief(sheet: Sheet, record: PlanRecord) -> Sheet:
    """Return the same keywords as columns under another brief or structure."""
    if sheet.read_by == _read_by(record):
        if sheet.structure is record.structure:
            return sheet
        labels = tuple(record.structure.labels())
        return replace(sheet, structure=record.structure, labels=labels)
    return _sheet(sheet.ids, sheet.entries, record)


def with_locked(sheet: Sheet, rows: Ints, bids: Floats) -> Sheet:
    """Return the same keywords with some bids locked, as if; NaN gives one back.

    A keyword that is given back takes its group's bid where that has one.
    """
    group_bid: dict[int | None, float | None] = {g.id: g.bid for g in sheet.structure.groups}
    own = [group_bid.get(sheet.entries[row].group_id) for row in rows.tolist()]
    back = np.array([np.nan if bid is None else bid for bid in own], dtype=np.float64)
    locked = sheet.table.locked_bid.copy()
    locked[rows] = np.where(np.isnan(bids), back, bids)
    return replace(sheet, table=replace(sheet.table, locked_bid=locked))


def _sheet(ids: tuple[int, ...], entries: tuple[KeywordEntry, ...], record: PlanRecord) -> Sheet:
    structure = record.structure
    return Sheet(ids, entries, _table(entries, record), structure, tuple(structure.labels()),
                 _read_by(record))  # fmt: skip


@cache
def _question(*, by_id: bool = False) -> Executable:
    """Return what is asked of the store, built once: of all keywords, or of some by id."""
    some = models.Keyword.id.in_(bindparam("ids", expanding=True)) if by_id else true()
    k, r, c, p = models.Keyword, models.Reading, models.Call, aliased(models.Reading)
    return (
        select(
            k.id, k.key, k.text, k.normalised, k.match, k.intent, k.rate, k.locked_bid,
            k.last_cpc, k.unpaid_rank, k.paid_rank, k.popularity, k.offer_id, k.ad_group_id, k.note,
            k.taught,
            r.volume_low, r.volume_high, r.cpc_low, r.cpc_high, r.competition, r.months, r.basis,
            r.area, r.period, r.shown_at_bid, r.origin, r.origin_row, r.id.label("reading_id"),
            r.taught.label("taught_reading"),
            c.call, c.reason, c.by, c.at, p.id.label("price_id"),
            *(getattr(p, name).label(f"price_{name}") for name in _OF_PRICE),
        )
        .where(k.plan_id == bindparam("plan"), some)
        .outerjoin(r, (r.keyword_id == k.id) & r.in_use)
        .outerjoin(p, (p.keyword_id == k.id) & p.prices_in_use)
        .outerjoin(c, c.keyword_id == k.id)
        .order_by(k.id)
    )  # fmt: skip


def _patched(table: KeywordTable, rows: Any, some: KeywordTable) -> KeywordTable:
    """Return a table with a few rows replaced; a column that stays is the very same array."""
    new: dict[str, Any] = {}
    for name in (f.name for f in fields(KeywordTable)):
        column, values = getattr(table, name), getattr(some, name)
        if isinstance(column, np.ndarray) and not np.array_equal(
            column[rows], values, equal_nan=column.dtype.kind == "f"
        ):
            new[name] = column.copy()
            new[name][rows] = values
    return replace(table, **new)


def _entry(row: Any) -> KeywordEntry:
    return KeywordEntry(
        text=row.text,
        normalised=row.normalised,
        match=row.match,
        intent=row.intent,
        call=row.call or "none",
        reason=row.reason or "",
        rate=row.rate,
        locked_bid=row.locked_bid,
        unpaid_rank=row.unpaid_rank,
        paid_rank=row.paid_rank,
        popularity=row.popularity,
        last_cpc=row.last_cpc,
        call_by=row.by or "",
        call_at=row.at or "",
        note=row.note or "",
        group_id=row.ad_group_id,
        offer_id=row.offer_id,
        key=row.key,
        reading=ReadingEntry(
            row.volume_low, row.volume_high, row.cpc_low, row.cpc_high, row.competition,
            tuple(row.months) if row.months else None, row.basis or "", row.area or "",
            row.period or "month", row.shown_at_bid, row.origin or "", row.origin_row,
            reading_of(row.taught_reading),
        ),
        taught=rate_of(row.taught),
        price_reading=_price_reading(row),
    )  # fmt: skip


def _price_reading(row: Any) -> ReadingEntry | None:
    """Return the reading in use for prices where it is another than that for searches."""
    if row.price_id is None or row.price_id == row.reading_id:
        return None
    values = {name: getattr(row, f"price_{name}") for name in _OF_PRICE}
    return ReadingEntry(**values | {"taught": reading_of(values["taught"])})


def _read_by(record: PlanRecord) -> tuple[Any, ...]:
    brief, structure = record.brief, record.structure
    return (
        brief.volume_basis, brief.assumed["month_days"], record.offer_ids,
        tuple(c.id for c in structure.campaigns),
        tuple((g.id, g.campaign_id, g.bid) for g in structure.groups),
    )  # fmt: skip


def _table(entries: Sequence[KeywordEntry], record: PlanRecord) -> KeywordTable:
    brief, structure = record.brief, record.structure
    holder = {c.id: at for at, c in enumerate(structure.campaigns)}
    number: dict[int | None, int] = {g.id: at for at, g in enumerate(structure.groups)}
    campaign = {g.id: holder[g.campaign_id] for g in structure.groups}
    group_bid: dict[int | None, float | None] = {g.id: g.bid for g in structure.groups}
    readings, prices = [e.reading for e in entries], [e.prices for e in entries]
    place: dict[int | None, int] = {offer: at for at, offer in enumerate(record.offer_ids)}

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
        cpc_low=floats(r.cpc_low for r in prices),
        cpc_high=floats(r.cpc_high for r in prices),
        rate=floats(e.rate for e in entries),
        group=ints(number.get(e.group_id, -1) for e in entries),
        locked_bid=floats(
            group_bid.get(e.group_id) if e.locked_bid is None else e.locked_bid for e in entries
        ),
        campaign=ints(campaign.get(e.group_id or 0, -1) for e in entries),
        offer=ints(place.get(e.offer_id, 0) for e in entries),
        months=np.array([r.months or _NO_MONTHS for r in readings], dtype=float).reshape(-1, 12),
        last_cpc=floats(e.last_cpc for e in entries),
        shown_at_bid=floats(r.shown_at_bid for r in readings),
        taught=_taught(entries),
        joints=joints_of(e.text for e in entries),
    )


def _taught(entries: Sequence[KeywordEntry]) -> Any:
    """Return what results left unsure of each keyword, as far as its figures are theirs."""
    found = np.full((len(entries), len(TAUGHT)), np.nan)
    for row, entry in enumerate(entries):
        volumes, prices, rate = entry.reading.taught, entry.prices.taught, entry.taught_rate
        if volumes is not None:
            found[row, [0, 1, 3, 4]] = (*volumes.own[:2], *volumes.group[:2])
        if prices is not None:
            found[row, [2, 5]] = prices.own[2], prices.group[2]
        if rate is not None:
            found[row, 6] = rate.clicks
    return found
