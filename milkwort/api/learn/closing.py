"""Decisions by what results say: terms blocked or kept, keywords stopped, a month closed."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass, replace
from datetime import date
from typing import Any

import numpy as np

from milkwort.api.learn.known import Known
from milkwort.api.learn.view import verdict_rows
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.brief.worth import Offer
from milkwort.core.learn.learned import overall_factors
from milkwort.core.learn.narrowed import Narrowed, left_unsure, narrowed_offer
from milkwort.core.learn.terms import TermAdvice
from milkwort.core.words.foreign import is_item_code
from milkwort.core.words.negatives import Negative
from milkwort.core.words.texts import normalise
from milkwort.store.brief_changes import change_brief
from milkwort.store.entries import Arrival, KeywordEntry, ReadingEntry
from milkwort.store.journal import Change
from milkwort.store.keywords import add_keywords, add_readings, lock_bids, set_calls
from milkwort.store.models import Keyword, Plan
from milkwort.store.negatives import add_negatives
from milkwort.store.taught import TaughtPlan, TaughtRate, TaughtReading
from milkwort.store.uncorrected import uncorrected_brief

__all__ = ["TermWork", "corrected_figures", "stops_of", "teach", "term_work"]

_BY = "results"


@dataclass(frozen=True)
class TermWork:
    """What is to be done about some terms."""

    blocks: tuple[Negative, ...]
    keywords: tuple[tuple[Arrival, float], ...]
    kept: Mapping[int, float]
    """Bids by id of what stands in the sheet already, not kept."""

    @property
    def added(self) -> int:
        """How many keywords there are more."""
        return len(self.keywords) + len(self.kept)

    def do(self, change: Change) -> None:
        """Do it."""
        if self.blocks:
            add_negatives(change, self.blocks, _BY)
        if self.keywords:
            ids = add_keywords(change, [arrival for arrival, _ in self.keywords])
            set_calls(change, ids, "keep", "sold as a search term", _BY)
            lock_bids(change, {i: bid for i, (_, bid) in zip(ids, self.keywords, strict=True)})
        if self.kept:
            set_calls(change, list(self.kept), "keep", "sold as a search term", _BY)
            lock_bids(change, dict(self.kept))


def term_work(plan: OpenPlan, known: Known, places: Sequence[int], act: str) -> TermWork:
    """Return what is to be done about terms, by their place; what stands already is left out."""
    if known.terms is None or known.learned is None:
        return TermWork((), (), {})
    entries = zip(plan.sheet.ids, plan.sheet.entries, strict=True)
    there = {entry.normalised: (i, entry.call) for i, entry in entries if entry.match == "exact"}
    have = {(normalise(one.text), one.match) for one in plan.record.negatives}
    blocks: dict[tuple[str, str], Negative] = {}
    keywords: dict[str, tuple[Arrival, float]] = {}
    kept: dict[int, float] = {}
    for at in places:
        advice, text = known.learned.terms[at], known.terms.texts[at]
        wanted = advice.suggestion if act == "suggested" else act
        if act == "suggested" and wanted == "own_keyword" and is_item_code(text):
            continue  # the code of a thing is no keyword: it gets a spot
        if wanted == "own_keyword":
            arrival, bid = _keyword(plan, known, at, advice)
            stands, call = there.get(arrival.entry.normalised, (None, ""))
            if stands is None:
                keywords[arrival.entry.normalised] = (arrival, bid)
            elif call != "keep":
                kept[stands] = bid
        elif wanted != "wait":
            form = advice.form if advice.form and wanted != "block_text" else (text, "exact")
            key = (normalise(form[0]), form[1])
            if key not in have:
                blocks[key] = Negative(form[0], form[1])  # type: ignore[arg-type] # phrase or exact
    return TermWork(tuple(blocks.values()), tuple(keywords.values()), kept)


def _keyword(plan: OpenPlan, known: Known, at: int, advice: TermAdvice) -> tuple[Arrival, float]:
    assert known.terms is not None
    text, served = known.terms.texts[at], int(known.terms.keyword[at])
    structure = plan.sheet.structure
    campaigns = {c.id: c.name for c in structure.campaigns}
    place: dict[str, str] = {}
    if advice.group >= 0:
        group = structure.groups[advice.group]
        place = {"campaign": campaigns[group.campaign_id], "group": group.name}
    like = plan.sheet.entries[served].reading if served >= 0 else ReadingEntry()
    reading = ReadingEntry(cpc_low=like.cpc_low, cpc_high=like.cpc_high, origin=_origin(known))
    entry = KeywordEntry(text=text, normalised=normalise(text), match="exact", reading=reading,
                         intent=known.lexicon.intent(normalise(text)).intent)  # fmt: skip
    paid = float(known.terms.cost[at] / max(known.terms.clicks[at], 1.0))
    return Arrival(entry, **place), advice.bid if advice.bid is not None else round(paid, 2)


def stops_of(plan: OpenPlan, known: Known) -> list[int]:
    """Return the ids of kept keywords that evidence says to stop."""
    if known.learned is None:
        return []
    stops, _ = verdict_rows(plan, known.learned)
    return [plan.sheet.ids[row] for row in stops]


def corrected_figures(plan: OpenPlan, known: Known, change: Change) -> int:
    """Write what results say of searches, prices and rates; return of how many keywords.

    How readily a keyword is clicked has no figure of its own: it goes with its searches.
    """
    learned = known.learned
    assert learned is not None
    fixes, e, base, left = learned.corrections, learned.judged.evidence, known.base, left_of(known)
    assert base is not None
    demand = base.demand
    mixed = np.divide(demand.rate, demand.base_rate, out=np.ones(len(base.table)),
                      where=demand.base_rate > 0)  # fmt: skip
    rows = np.flatnonzero(plan.result.table.kept & np.isfinite(plan.result.bid)).tolist()
    readings: list[tuple[int, ReadingEntry]] = []
    rates: dict[int, dict[str, Any]] = {}
    for row in rows:
        entry = plan.sheet.entries[row]
        taught = TaughtReading(
            searches=float(fixes.searches.factor[row]),
            click_rate=float(fixes.click_rate.factor[row]),
            price=float(fixes.price.factor[row]),
            own=tuple(left.rows[row, :3].tolist()), group=tuple(left.rows[row, 3:6].tolist()),
        )  # fmt: skip
        readings.append((plan.sheet.ids[row], _reading(entry, taught, _origin(known))))
        on_enquiries = learned.judged.on_enquiries[row]
        if e.prior_rate[row] > 0 and not on_enquiries:
            learnt = float(np.clip(e.rate[row] / max(mixed[row], 1e-9), 0.0, 1.0))
            before = entry.rate if entry.taught_rate is None else entry.taught_rate.before
            rate = TaughtRate(learnt, before, float(left.rows[row, 6]))
            rates[plan.sheet.ids[row]] = {"rate": learnt, "taught": asdict(rate)}
    add_readings(change, readings)
    change.update(Keyword, rates)
    return len(readings)


def left_of(known: Known) -> Narrowed:
    """Return how unsure results leave a plan."""
    assert known.base is not None
    assert known.learned is not None
    return left_unsure(known.base, known.learned.corrections, known.learned.judged)


def teach(
    change: Change, plan: OpenPlan, known: Known, *, figures: bool, ranges: bool
) -> None:  # fmt: skip
    """Keep with a plan what was taken over of all its keywords together.

    Parameters
    ----------
    change : Change
    plan : OpenPlan
    known : Known
    figures : bool
        Whether its searches, prices and rates are corrected now.
    ranges : bool
        Whether the brief's rates stand nearer their likely ones, and months are drawn, as
        unsure as results leave them; the latter only where figures are taken over too.
    """
    assert known.learned is not None
    left, taught = left_of(known).plan, plan.record.taught or TaughtPlan()
    if figures:
        taught = replace(taught, held=overall_factors(known.learned))
    if figures and ranges:
        taught = replace(taught, searches=left.searches, click_rate=left.click_rate,
                         price=left.price)  # fmt: skip
    if ranges:
        taught = replace(taught, conversion=left.conversion)
        offers = [narrowed_offer(one, left.conversion)
                  for one in uncorrected_brief(plan.record).offers]  # fmt: skip
        more = [{**one, **_rates(offer)} for one, offer in
                zip(plan.record.values["more_offers"], offers[1:], strict=True)]  # fmt: skip
        change_brief(change, _rates(offers[0]) | ({"more_offers": more} if more else {}))
    change.update(Plan, {change.plan_id: {"taught": asdict(taught)}})


def _rates(offer: Offer) -> dict[str, float]:
    rates = {"rate": offer.conversion, "close": offer.close}
    return {f"{name}_{part}": getattr(rate, part) for name, rate in rates.items()
            if rate is not None for part in ("low", "high")}  # fmt: skip


def _reading(entry: KeywordEntry, taught: TaughtReading, origin: str) -> ReadingEntry:
    """Return the figures as results correct them, from what was read before any correction."""
    volumes, prices = entry.reading, entry.prices
    many = taught.volume / (1.0 if volumes.taught is None else volumes.taught.volume)
    price = taught.price / (1.0 if prices.taught is None else prices.taught.price)
    return replace(
        volumes, volume_low=_times(volumes.volume_low, many),
        volume_high=_times(volumes.volume_high, many),
        cpc_low=_times(prices.cpc_low, price), cpc_high=_times(prices.cpc_high, price),
        origin=origin, origin_row=None, taught=taught,
    )  # fmt: skip


def _times(value: float | None, factor: float) -> float | None:
    return None if value is None else value * factor


def _origin(known: Known) -> str:
    assert known.learned is not None
    return f"results to {known.learned.last.isoformat()}"


def next_month(day: date) -> date:
    """Return the first day of the month after a day's."""
    return date(day.year + day.month // 12, day.month % 12 + 1, 1)
