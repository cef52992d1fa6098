"""What a caller tells when it opens an account, as the market keeps it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from typing import Any

from milkwort.core.words.texts import normalise
from milkwort.standins.market.errors import MarketError
from milkwort.standins.market.known import Known, KnownKeyword, KnownOffer
from milkwort.standins.market.schemas import Opening

__all__ = ["MOST_SEARCHES", "known_of"]

MOST_SEARCHES = 30_000_000
"""Every search is lived one by one: a day of a million is what a small machine can bear."""


def known_of(body: Opening) -> Known:
    """Return what a planner told, checked as a whole; MarketError 422 where it doesn't hold."""
    texts = [normalise(k.text) for k in body.keywords]
    twice = next((t for t, many in Counter(texts).items() if many > 1), None)
    if twice is not None:
        raise MarketError(422, "keyword_twice", f'Expected each text once, got "{twice}" again.',
                          "keywords")  # fmt: skip
    if "" in texts:
        raise MarketError(422, "name_missing", "Expected texts of at least one word.", "keywords")
    if any(k.offer >= len(body.offers) for k in body.keywords):
        raise MarketError(422, "offer_unknown", "Expected an offer that was told.", "keywords")
    if sum(k.searches for k in body.keywords) > MOST_SEARCHES:
        message = f"Expected at most {MOST_SEARCHES:,} searches a month in all."
        raise MarketError(422, "too_many_searches", message, "keywords")
    if not body.low_percentile < body.high_percentile:
        raise MarketError(422, "bad_value", "Expected the low percentile under the high one.",
                          "low_percentile")  # fmt: skip
    keywords = tuple(
        KnownKeyword(**k.model_dump() | {"text": text, "months": _index(k.months)})
        for k, text in zip(body.keywords, texts, strict=True)
    )
    given: dict[str, Any] = {}
    if (season := _index(body.season)) is not None:
        given["season"] = season
    if (weekdays := _index(body.weekdays)) is not None:
        given["weekdays"] = weekdays
    if body.hours is not None and sum(body.hours) > 0:
        given["hours"] = tuple(h / sum(body.hours) for h in body.hours)
    return Known(
        offers=tuple(KnownOffer(**o.model_dump()) for o in body.offers), keywords=keywords,
        low_percentile=body.low_percentile, high_percentile=body.high_percentile,
        click_rate_top=body.click_rate_top, click_rate_bottom=body.click_rate_bottom,
        intent_rates=body.intent_rates, **given,
    )  # fmt: skip


def _index(values: Sequence[float] | None) -> tuple[float, ...] | None:
    """Return figures as an index with mean 1; None where there are none."""
    if values is None or not sum(values) > 0 or min(values) < 0:
        return None
    return tuple(v * len(values) / sum(values) for v in values)
