"""What the ads of each group are made of and held against."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from milkwort.core.arrange.ads.drafts import DraftFor
from milkwort.core.arrange.ads.text import Fillings
from milkwort.core.arrange.main_words import MainWord
from milkwort.core.arrange.things import Thing, prices_of_things
from milkwort.core.arrays import Floats
from milkwort.core.brief.brief import Brief
from milkwort.core.brief.showing import Showing
from milkwort.core.brief.worth import Offer
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.texts import normalise

__all__ = ["GroupFacts", "facts_of_groups"]

_SIGNS = {"GBP": "£", "EUR": "€", "USD": "$", "JPY": "¥"}


@dataclass(frozen=True)
class GroupFacts:
    """One group, as its ads have to do with it.

    Attributes
    ----------
    words : sequence of MainWord
    keywords : tuple of str
        Its kept keywords as written, the most clicked first.
    fillings : Fillings
        What stands for the placeholders: places its keywords name before others, the offers
        they point to, what those sell for.
    showing : Showing
        Days and hours of its campaign.
    things : tuple of Thing
        That it shows and that can be delivered.
    """

    words: Sequence[MainWord]
    keywords: tuple[str, ...]
    fillings: Fillings
    showing: Showing
    things: tuple[Thing, ...] = ()

    def to_draft(self) -> DraftFor:
        """Return what a first draft is made of."""
        first = self.fillings.first
        return DraftFor(self.keywords, self.words, first("place") or "", first("offer") or "")


def facts_of_groups(
    result: PlanResult,
    written: Sequence[str],
    words: Sequence[Sequence[MainWord]],
    campaigns: Sequence[int],
    things: Mapping[int, Sequence[Thing]] | None = None,
) -> list[GroupFacts]:
    """Return what the ads of each group are made of, by its number.

    Parameters
    ----------
    result : PlanResult
    written : sequence of str
        The keywords as typed, by row.
    words : sequence of sequence of MainWord
        By group.
    campaigns : sequence of int
        Each group's campaign, by its number.
    things : mapping of int to sequence of Thing, optional
        What each group shows; what can't be delivered is left out.
    """
    table, brief = result.table, result.brief
    clicks, searches = np.nan_to_num(result.expected.clicks), np.nan_to_num(result.demand.own)
    rows: list[list[int]] = [[] for _ in words]
    for row in np.flatnonzero(table.kept & (table.group >= 0)).tolist():
        rows[int(table.group[row])].append(row)
    facts = []
    for at, (mine, own_words, campaign) in enumerate(zip(rows, words, campaigns, strict=True)):
        shown = tuple(t for t in (things or {}).get(at, ()) if t.deliverable)
        mine.sort(key=lambda row: (-clicks[row], -searches[row], row))
        terms = brief.own_terms.get(campaign)
        showing = terms.showing if terms is not None else None
        fillings = _fillings(result, mine, [written[row] for row in mine], clicks, shown)
        keywords = tuple(written[row] for row in mine)
        facts.append(GroupFacts(own_words, keywords, fillings, showing or brief.showing, shown))
    return facts


def _fillings(
    result: PlanResult,
    rows: Sequence[int],
    texts: Sequence[str],
    clicks: Floats,
    things: Sequence[Thing],
) -> Fillings:
    brief = result.brief
    offers = _offers(result, rows, clicks)
    # what a group shows has prices of its own; else what its offers sell for
    prices = prices_of_things(things) or [offer.sale_value for offer in offers]
    values = {
        "place": _places(brief, [result.table.texts[row] for row in rows]),
        "offer": tuple(t.name for t in things) or tuple(o.name for o in offers if o.name),
        "price": tuple(dict.fromkeys(_price(price, brief.currency) for price in prices)),
        "keyword": tuple(dict.fromkeys(texts)),
    }
    return Fillings(values)


def _offers(result: PlanResult, rows: Sequence[int], clicks: Floats) -> list[Offer]:
    """Return the offers of some keywords, the most clicked first; the plan's first for none."""
    weight: dict[int, float] = {}
    for row in rows:
        at = int(result.table.offer[row])
        weight[at] = weight.get(at, 0.0) + float(clicks[row])
    order = sorted(weight, key=lambda at: (-weight[at], at)) or [0]
    return [result.brief.offers[at] for at in order]


def _places(brief: Brief, texts: Sequence[str]) -> tuple[str, ...]:
    """Return the plan's places, those that the keywords name first."""
    padded = [f" {text} " for text in texts]
    often = {p: sum(f" {normalise(p)} " in text for text in padded) for p in brief.places}
    return tuple(sorted(brief.places, key=lambda p: -often[p]))


def _price(value: float, currency: str) -> str:
    figure = f"{value:,.0f}" if value == round(value) else f"{value:,.2f}"
    sign = _SIGNS.get(currency)
    return f"{sign}{figure}" if sign else f"{figure} {currency}"
