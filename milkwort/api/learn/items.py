"""Item codes among what people typed: one that sold gets a spot of its own, others bid less."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from milkwort.api.learn.known import Known
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.counted import counted
from milkwort.core.errors import BadValueError
from milkwort.core.learn.items import ItemAdvice, advise_items
from milkwort.core.words.texts import normalise
from milkwort.store.entries import Arrival, KeywordEntry, ReadingEntry
from milkwort.store.groups import add_campaign
from milkwort.store.journal import Change
from milkwort.store.keywords import add_keywords
from milkwort.store.spots import put_spot, spots_by_code
from milkwort.store.structure import FIRST_CAMPAIGN

__all__ = ["items_decision"]


@dataclass(frozen=True)
class _Item:
    """A code with what is known of it: the thing it stands for, and the spot it has."""

    advice: ItemAdvice
    thing: str
    spot_id: int | None
    spot_price: float


def items_decision(plan: OpenPlan, known: Known, terms: Sequence[str]) -> Decision:
    """Return what gives codes that sold a spot, and lets those that never sold bid less.

    Raises
    ------
    BadValueError
        Where a term is no code that people typed, or nothing is to be done.
    """
    items = _items(plan, known, terms)
    new = [one for one in items if one.advice.sold and one.spot_id is None]
    lower = [one for one in items if not one.advice.sold and one.spot_id is not None]
    if not new and not lower:
        wanted = "codes that sold and have no spot, or spots that never sold"
        raise BadValueError("terms", wanted, terms[0])
    names = _names(plan, new)

    def do(change: Change) -> None:
        campaigns = plan.sheet.structure.campaigns
        first = campaigns[0].id if campaigns else None
        for one in new:
            if first is None:
                first = add_campaign(change, FIRST_CAMPAIGN)
            put_spot(change, _spot(plan, one, first))
        for one in lower:
            put_spot(change, {"price": one.advice.lower(one.spot_price)}, one.spot_id)
        add_keywords(change, names)

    said = [counted(len(new), "spot") + " of item codes"] if new else []
    said += [f"a lower price for {counted(len(lower), 'spot')}"] if lower else []
    return Decision(" and ".join(said), do)


def _items(plan: OpenPlan, known: Known, terms: Sequence[str]) -> list[_Item]:
    if known.terms is None or known.learned is None:
        raise BadValueError("terms", "terms in a report that is in force", "none")
    days = (known.learned.as_of - known.learned.since).days + 1
    advised = {one.code: one for one in advise_items(plan.result, known.terms, days)}
    things = {normalise(one.thing.code): one.thing.name for one in plan.sheet.structure.things}
    spots = spots_by_code(plan.sheet.structure.spots)
    found = []
    for term in dict.fromkeys(normalise(term) for term in terms):
        if term not in advised:
            raise BadValueError("terms", "item codes that people typed", term)
        spot = spots.get(term)
        found.append(_Item(advised[term], things.get(term, ""), None if spot is None else spot.id,
                           0.0 if spot is None else spot.spot.price))  # fmt: skip
    return found


def _spot(plan: OpenPlan, one: _Item, first: int) -> dict[str, Any]:
    table, structure, row = plan.result.table, plan.sheet.structure, one.advice.keyword
    number = int(table.campaign[row]) if row >= 0 else -1
    offer = plan.sheet.entries[row].offer_id if row >= 0 else None
    return {
        "name": f"{one.advice.code} {one.thing}".strip(), "pays": "click",
        "price": one.advice.price, "clicks": one.advice.clicks, "offer_id": offer,
        "campaign_id": structure.campaigns[number].id if number >= 0 else first,
    }  # fmt: skip


def _names(plan: OpenPlan, items: Sequence[_Item]) -> list[Arrival]:
    """Return what the things are called as keywords to be called, those that aren't there."""
    there = {entry.normalised for entry in plan.sheet.entries}
    names = {normalise(one.thing): one.thing for one in items if one.thing}
    return [
        Arrival(KeywordEntry(name, bare, "exact", ReadingEntry(origin="item codes that sold")))
        for bare, name in names.items()
        if bare and bare not in there
    ]
