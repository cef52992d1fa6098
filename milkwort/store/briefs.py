"""Briefs between the store's rows and the core."""

from __future__ import annotations

import datetime
import math
from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

from milkwort.core.brief.brief import Brief
from milkwort.core.brief.campaigns import OwnTerms
from milkwort.core.brief.fields import MOST_MONEY, OF_OFFER, OF_PLAN
from milkwort.core.brief.limits import Limits, SpendLimit
from milkwort.core.brief.spots import Spot
from milkwort.core.brief.values import Beside, brief_of_values
from milkwort.core.errors import BadValueError
from milkwort.core.words.negatives import Negative
from milkwort.store import models
from milkwort.store.negatives import StoredNegative
from milkwort.store.structure import Structure

__all__ = [
    "BRIEF_FIELDS",
    "OFFER_FIELDS",
    "PLAN_FIELDS",
    "STARTS_OF_OFFER",
    "brief_of",
    "further_offers",
    "offer_values",
]

OFFER_FIELDS = tuple(f.name for f in OF_OFFER)
PLAN_FIELDS = tuple(f.name for f in OF_PLAN)
STARTS_OF_OFFER = {f.name: f.start for f in OF_OFFER if not f.required}
BRIEF_FIELDS: tuple[str, ...] = ("offer_name", *OFFER_FIELDS, *PLAN_FIELDS, "more_offers")
"""What of a brief may be changed, by name."""

NO_STRUCTURE = Structure()


def brief_of(
    name: str,
    values: Mapping[str, Any],
    assumptions: Mapping[str, float],
    negatives: Sequence[StoredNegative] = (),
    word_kinds: Mapping[str, str] | None = None,
    structure: Structure = NO_STRUCTURE,
    offer_ids: Sequence[int] = (),
) -> Brief:
    """Return the brief that stored values make, checked.

    Parameters
    ----------
    name : str
    values : mapping
        By field, as `PLAN_FIELDS` and `OFFER_FIELDS` name them.
    assumptions : mapping
        What the plan changed.
    negatives : sequence of StoredNegative
    word_kinds : mapping, optional
        Kind of a word, where the planner said one.
    structure : Structure
        Campaigns, groups and spots; their places are their numbers in the core.
    offer_ids : sequence of int
        In the brief's order, for what points at an offer.

    Raises
    ------
    BadValueError
        Where a value is out of its range.
    """
    _first_day(values["start_date"])
    _check_year(values)
    own = {at: c.own_terms for at, c in enumerate(structure.campaigns) if c.own_terms != OwnTerms()}
    beside = Beside(
        assumptions,
        (*_numbered(negatives, structure), *_of_lists(structure)),
        word_kinds,
        _limits(structure),
        own,
        _spots(structure, offer_ids),
        _policies(structure),
    )
    return brief_of_values(name, values, beside)


def _of_lists(structure: Structure) -> tuple[Negative, ...]:
    """Return the negatives of the lists that the plan uses: they act in the whole of it."""
    return tuple(negative for pinned in structure.lists for negative in pinned.negatives)


def _spots(structure: Structure, offer_ids: Sequence[int]) -> tuple[Spot, ...]:
    """Return spots as the core has them: campaigns and offers by their numbers."""
    campaigns = {c.id: at for at, c in enumerate(structure.campaigns)}
    offers: dict[int | None, int] = {offer: at for at, offer in enumerate(offer_ids)}
    return tuple(
        replace(one.spot, campaign=campaigns[one.campaign_id], offer=offers.get(one.offer_id, 0))
        for one in structure.spots
    )


def _policies(structure: Structure) -> dict[int, Mapping[str, Any]]:
    """Return where bids come from in groups that say so, or whose campaign does, by number."""
    of_campaign = {c.id: c.policy for c in structure.campaigns}
    own = {at: g.policy or of_campaign[g.campaign_id] for at, g in enumerate(structure.groups)}
    return {at: policy for at, policy in own.items() if policy is not None}


def _limits(structure: Structure) -> Limits:
    """Return the limits of campaigns, by their numbers."""
    campaigns = {
        at: SpendLimit(c.least_spend, math.inf if c.most_spend is None else c.most_spend)
        for at, c in enumerate(structure.campaigns)
        if c.least_spend > 0 or c.most_spend is not None
    }
    scouts = [(at, c.scouting_share) for at, c in enumerate(structure.campaigns)
              if c.scouting_share is not None]  # fmt: skip
    scouting, share = scouts[0] if scouts else (None, None)
    return Limits(campaigns=campaigns, scouting=scouting, scouting_share=share or 0.0)


def _numbered(negatives: Sequence[StoredNegative], structure: Structure) -> tuple[Negative, ...]:
    """Return negatives as the core has them: campaigns and groups by their numbers."""
    campaigns = {c.id: at for at, c in enumerate(structure.campaigns)}
    groups = {g.id: at for at, g in enumerate(structure.groups)}
    made = []
    for n in negatives:
        number = -1
        if n.owner.group_id is not None:
            number = groups[n.owner.group_id]
        elif n.owner.campaign_id is not None:
            number = campaigns[n.owner.campaign_id]
        made.append(Negative(n.text, n.match, n.owner.level, number))
    return tuple(made)


def _first_day(day: str) -> None:
    try:
        datetime.date.fromisoformat(day)
    except (TypeError, ValueError):
        raise BadValueError("start_date", "a day such as 2027-03-01", day) from None


def _check_year(values: Mapping[str, Any]) -> None:
    """Refuse a last day that is no day or comes before the first, and months that are no sums."""
    last, months = values["last_day"], values["year_months"]
    if last:
        try:
            datetime.date.fromisoformat(last)
        except ValueError:
            raise BadValueError("last_day", "a day such as 2027-11-30, or none", last) from None
        if last < values["start_date"]:
            raise BadValueError("last_day", f"a day from {values['start_date']} on", last)
    if months is not None and not (
        len(months) == 12 and all(0 <= money <= MOST_MONEY for money in months)
    ):
        expected = f"twelve sums from 0 to {MOST_MONEY:g}"
        raise BadValueError("year_months", expected, ", ".join(map(str, months)))


def offer_values(row: models.Offer) -> dict[str, Any]:
    """Return a stored offer as plain values."""
    return {"id": row.id, "name": row.name, **{n: getattr(row, n) for n in OFFER_FIELDS}}


def further_offers(values: Mapping[str, Any]) -> list[dict[str, Any]]:
    """Return further offers as their columns, without ids."""
    return [
        STARTS_OF_OFFER | {f: v for f, v in one.items() if f in ("name", *OFFER_FIELDS)}
        for one in values["more_offers"]
    ]
