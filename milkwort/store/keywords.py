"""Changes of a plan's keywords, their readings, groups and calls."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from collections.abc import Set as AbstractSet
from dataclasses import asdict, dataclass
from typing import Any

import numpy as np
from sqlalchemy import bindparam, select
from sqlalchemy.orm import Session

from milkwort.core.errors import BadValueError
from milkwort.core.market.keyword_table import CALLS
from milkwort.store import models
from milkwort.store.entries import Arrival, KeywordEntry, ReadingEntry
from milkwort.store.groups import plan_places
from milkwort.store.journal import Change, Prepared, Reserve, now, prepare
from milkwort.store.structure import FIRST_CAMPAIGN, GENERAL_GROUP, Place, Structure, load_structure

__all__ = [
    "PreparedKeywords",
    "add_keywords",
    "add_readings",
    "lock_bids",
    "offer_ids",
    "prepare_keywords",
    "remove_keywords",
    "set_calls",
    "set_last_cpc",
    "set_standing",
]

_FEW = 500
"""Up to so many keywords are asked for by id; more are picked out of all."""
_C = models.Call
_CALLS = select(_C.keyword_id, _C.id, _C.call, _C.reason, _C.by).where(
    _C.plan_id == bindparam("plan")
)
_CALLS_BY_ID = _CALLS.where(_C.keyword_id.in_(bindparam("ids", expanding=True)))


def add_keywords(change: Change, arrivals: Sequence[Arrival]) -> list[int]:
    """Store keywords with their readings, groups and calls; return their ids."""
    structure = load_structure(change.session, change.plan_id)
    offers = offer_ids(change.session, change.plan_id)
    rows = prepare_keywords(change.reserve, change.plan_id, structure, offers, arrivals)
    for made in rows.in_order:
        change.put(made)
    return rows.keywords.ids


@dataclass(frozen=True)
class PreparedKeywords:
    """New keywords with all that belongs to them, ready to be written."""

    places: list[Prepared]
    keywords: Prepared
    readings: Prepared
    calls: Prepared

    @property
    def in_order(self) -> list[Prepared]:
        """All rows, what is pointed at before what points at it."""
        return [*self.places, self.keywords, self.readings, self.calls]


def prepare_keywords(
    reserve: Reserve,
    plan_id: int,
    structure: Structure,
    offers: Mapping[str, int],
    arrivals: Sequence[Arrival],
) -> PreparedKeywords:
    """Give keywords on their way in their rows.

    Parameters
    ----------
    reserve : callable
    plan_id : int
    structure : Structure
        The plan's campaigns and groups as they stand.
    offers : mapping of str to int
        Ids of the plan's offers by name.
    arrivals : sequence of Arrival
    """
    first = structure.campaigns[0].name if structure.campaigns else FIRST_CAMPAIGN
    places = [
        None if a.entry.group_id is not None
        else Place(a.campaign or first, a.group or GENERAL_GROUP, a.landing_page)
        for a in arrivals
    ]  # fmt: skip
    group_at, new_places = plan_places(
        reserve, plan_id, structure, [place for place in places if place is not None]
    )
    rows = []
    for a, place in zip(arrivals, places, strict=True):
        e = a.entry
        rows.append({
            "plan_id": plan_id, "key": e.key, "text": e.text, "normalised": e.normalised,
            "match": e.match, "intent": e.intent, "rate": e.rate,
            "ad_group_id": e.group_id if place is None else group_at[place],
            "locked_bid": e.locked_bid, "last_cpc": e.last_cpc, "unpaid_rank": e.unpaid_rank,
            "paid_rank": e.paid_rank, "popularity": e.popularity, "note": e.note,
            "offer_id": e.offer_id or offers.get(a.offer),
            "taught": None if e.taught is None else asdict(e.taught),
        })  # fmt: skip
    keywords = prepare(reserve, models.Keyword, rows)
    both = list(zip(keywords.ids, arrivals, strict=True))
    readings = [row for i, a in both for row in _readings(plan_id, i, a.entry)]
    calls = [
        _call(plan_id, i, e.call, e.reason, e.call_by or "file", e.call_at)
        for i, e in ((i, a.entry) for i, a in both)
        if e.call != "none"
    ]
    return PreparedKeywords(
        new_places, keywords,
        prepare(reserve, models.Reading, readings), prepare(reserve, models.Call, calls),
    )  # fmt: skip


def offer_ids(session: Session, plan_id: int) -> dict[str, int]:
    """Return the ids of a plan's offers by name."""
    o = models.Offer
    rows = session.execute(select(o.name, o.id).where(o.plan_id == plan_id))
    return {row.name: row.id for row in rows if row.name}


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
        Whether what they say is used from now on, or only stands beside: one that says
        nothing of prices leaves those in use alone, and so with searches.
    """
    rows = [
        _reading(change.plan_id, i, r, in_use and r.says_searches, in_use and r.says_prices)
        for i, r in readings
    ]
    for part in ("in_use", "prices_in_use"):
        anew = {row["keyword_id"] for row in rows if row[part]}
        used = _in_use(change, part, anew)
        change.update(models.Reading, {i: {part: False} for i in used})
    change.insert(models.Reading, rows)


def set_calls(change: Change, ids: Sequence[int], call: str, reason: str, by: str) -> None:
    """Call keywords, each once however often it is named; `none` takes their calls back.

    Raises
    ------
    BadValueError
        For an unknown call.
    """
    if call not in CALLS:
        raise BadValueError("call", "one of " + ", ".join(CALLS), call)
    there = _calls_of(change, ids)
    same = {i for i, (_, *now_) in there.items() if now_ == [call, reason, by]}
    anew = [i for i in dict.fromkeys(ids) if i not in same]
    change.delete(models.Call, [there[i][0] for i in anew if i in there])
    if call != "none":
        change.insert(models.Call, [_call(change.plan_id, i, call, reason, by) for i in anew])


def lock_bids(change: Change, bids: dict[int, float | None]) -> None:
    """Set bids by hand, money a click; None gives a keyword back to the policy."""
    for bid in bids.values():
        if bid is not None and not (np.isfinite(bid) and bid >= 0):
            raise BadValueError("bid", "a price of 0 or more", bid)
    change.update(models.Keyword, {i: {"locked_bid": b} for i, b in bids.items()})


def set_standing(change: Change, known: Mapping[int, Mapping[str, float]]) -> None:
    """Set ranks and popularity of keywords, those that are said of each."""
    change.update(models.Keyword, {i: dict(values) for i, values in known.items()})


def set_last_cpc(change: Change, prices: Mapping[int, float]) -> None:
    """Set the average price last paid for a click, money."""
    change.update(models.Keyword, {i: {"last_cpc": p} for i, p in prices.items()})


def remove_keywords(change: Change, ids: Sequence[int]) -> None:
    """Take keywords out of the plan, with their readings and calls."""
    for model in (models.Call, models.Reading):
        change.delete(model, _of_keywords(change, model, ids))
    change.delete(models.Keyword, list(ids))


def _calls_of(change: Change, ids: Sequence[int]) -> dict[int, tuple[int, str, str, str]]:
    """Return the call's id, and what, why and by whom, of each keyword that is called."""
    few, wanted = len(ids) <= _FEW, set(ids)
    asked = {"plan": change.plan_id} | ({"ids": list(ids)} if few else {})
    rows = change.session.execute(_CALLS_BY_ID if few else _CALLS, asked)
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


def _in_use(change: Change, part: str, keywords: AbstractSet[int]) -> list[int]:
    """Return the ids of the readings of keywords that are in use for searches, or for prices."""
    r = models.Reading
    mine = select(r.id, r.keyword_id).where(r.plan_id == change.plan_id, getattr(r, part))
    return [i for i, keyword in change.session.execute(mine) if keyword in keywords]


def _readings(plan_id: int, keyword_id: int, entry: KeywordEntry) -> list[dict[str, Any]]:
    """Return the readings in use of a new keyword: one, or one for searches and one for prices."""
    prices = entry.price_reading
    rows = [_reading(plan_id, keyword_id, entry.reading, True, prices is None)]
    if prices is not None:
        rows.append(_reading(plan_id, keyword_id, prices, False, True))
    return rows


def _reading(
    plan_id: int, keyword_id: int, entry: ReadingEntry, searches: bool, prices: bool
) -> dict[str, Any]:
    values = dict(vars(entry))
    values["months"] = list(entry.months) if entry.months else None
    values["taught"] = None if entry.taught is None else asdict(entry.taught)
    return {
        "plan_id": plan_id, "keyword_id": keyword_id, "in_use": searches,
        "prices_in_use": prices, "read_at": now(), **values,
    }  # fmt: skip


def _call(
    plan_id: int, keyword_id: int, call: str, reason: str, by: str, at: str = ""
) -> dict[str, Any]:
    return {
        "plan_id": plan_id, "keyword_id": keyword_id, "call": call, "reason": reason, "by": by,
        "at": at or now(),
    }  # fmt: skip
