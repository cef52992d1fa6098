"""A plan's inputs without what results corrected: what corrections start from."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.brief.brief import Brief
from milkwort.core.brief.worth import Offer
from milkwort.core.learn.narrowed import widened_offer
from milkwort.core.market.keyword_table import KeywordTable
from milkwort.store.plans import PlanRecord
from milkwort.store.sheet import Sheet

__all__ = ["applied_factors", "is_corrected", "uncorrected_brief", "uncorrected_table"]


def is_corrected(record: PlanRecord, sheet: Sheet) -> bool:
    """Say whether anything of a plan stands as results corrected it."""
    return record.taught is not None or bool(np.isfinite(sheet.table.taught).any())


def uncorrected_brief(record: PlanRecord) -> Brief:
    """Return the brief with its rates as unsure as they were before results told of them."""
    brief, taught = record.brief, record.taught
    if taught is None:
        return brief

    def widened(offer: Offer) -> Offer:
        return widened_offer(offer, taught.conversion)

    more = tuple(widened(offer) for offer in brief.more_offers)
    return replace(brief, offer=widened(brief.offer), more_offers=more, taught=None)


def uncorrected_table(sheet: Sheet) -> KeywordTable:
    """Return the keywords with searches, prices and rates as they were before corrections."""
    table = sheet.table
    searches, click_rate, price = applied_factors(sheet)
    many = searches * click_rate
    rates = [(e.rate if e.taught_rate is None else e.taught_rate.before) for e in sheet.entries]
    return replace(
        table, volume_low=table.volume_low / many, volume_high=table.volume_high / many,
        cpc_low=table.cpc_low / price, cpc_high=table.cpc_high / price,
        rate=_floats(np.nan if rate is None else rate for rate in rates),
        taught=np.full(table.taught.shape, np.nan),
    )  # fmt: skip


def applied_factors(sheet: Sheet) -> tuple[Floats, Floats, Floats]:
    """Return by what each keyword's searches, click rate and price stand corrected; 1 where not."""
    volumes = [entry.reading.taught for entry in sheet.entries]
    prices = [entry.prices.taught for entry in sheet.entries]
    return (
        _floats(1.0 if t is None else t.searches for t in volumes),
        _floats(1.0 if t is None else t.click_rate for t in volumes),
        _floats(1.0 if t is None else t.price for t in prices),
    )


def _floats(values: Iterable[float]) -> Floats:
    return np.fromiter(values, dtype=np.float64)
