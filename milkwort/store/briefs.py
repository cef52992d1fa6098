"""Briefs between the store's fields and the core."""

from __future__ import annotations

import datetime
import math
from collections.abc import Mapping, Sequence
from dataclasses import asdict
from typing import Any, cast

from milkwort.core.assumptions import Assumed
from milkwort.core.brief.brief import Brief, Goal, Match, Policy, PolicyName, Pricing
from milkwort.core.brief.limits import Limits, SpendLimit
from milkwort.core.brief.platform import profile_of
from milkwort.core.brief.showing import ALWAYS, Showing
from milkwort.core.brief.worth import CeilingRule, Conversion, Offer, RuleName
from milkwort.core.errors import BadValueError
from milkwort.core.words.negatives import Negative
from milkwort.store import models
from milkwort.store.groups import Structure
from milkwort.store.negatives import StoredNegative

__all__ = [
    "OFFER_FIELDS",
    "PLAN_FIELDS",
    "UNSAID_OF_OFFER",
    "brief_of",
    "offer_values",
    "plan_values",
    "purse_of",
    "sum_for",
]

OFFER_FIELDS = (
    "sale_value", "gross_margin", "sales_per_customer", "rate_low", "rate_likely", "rate_high",
    "close_low", "close_likely", "close_high",
)  # fmt: skip
PLAN_FIELDS = (
    "currency", "monthly_spend", "goal", "start_date", "pricing", "places", "volume_basis",
    "ceiling_rule", "ceiling_value", "max_cpc", "may_pay_to_learn", "policy", "flat_bid",
    "policy_share", "season", "gross_spend", "tax_share", "fee", "profile", "other_places",
    "max_keywords", "min_clicks", "showing", "cap_clicks", "odd_step",
)  # fmt: skip
UNSAID_OF_OFFER: dict[str, Any] = {
    "sales_per_customer": 1.0, "close_low": None, "close_likely": None, "close_high": None,
}  # fmt: skip


NO_STRUCTURE = Structure()


def brief_of(
    name: str,
    values: Mapping[str, Any],
    assumptions: Mapping[str, float],
    negatives: Sequence[StoredNegative] = (),
    word_kinds: Mapping[str, str] | None = None,
    structure: Structure = NO_STRUCTURE,
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
        Campaigns and groups, whose places are their numbers in the core.

    Raises
    ------
    BadValueError
        Where a value is out of its range.
    """
    profile = profile_of(values["profile"])
    _first_day(values["start_date"])
    offers = [_offer(values, values["offer_name"])]
    offers += [_offer(one, one["name"]) for one in values["more_offers"]]
    _check_names(offers)
    return Brief(
        name=name,
        currency=values["currency"],
        monthly_spend=purse_of(values),
        offer=offers[0],
        more_offers=tuple(offers[1:]),
        ceiling=CeilingRule(
            cast(RuleName, values["ceiling_rule"]),
            values["ceiling_value"],
            values["max_cpc"],
            values["may_pay_to_learn"],
        ),
        goal=cast(Goal, values["goal"]),
        pricing=cast(Pricing, values["pricing"]),
        places=tuple(values["places"]),
        volume_basis=cast(Match, values["volume_basis"]),
        policy=Policy(
            cast(PolicyName, values["policy"]),
            values["flat_bid"],
            values["policy_share"],
            values["cap_clicks"],
            values["odd_step"],
        ),
        assumed=Assumed(profile.assumptions() | dict(assumptions)),
        negatives=_numbered(negatives, structure),
        negative_close_forms=profile.negative_close_forms,
        limits=_limits(values, structure),
        season=tuple(values["season"]) if values["season"] else None,
        showing=_showing(values.get("showing")),
        word_kinds=tuple((word_kinds or {}).items()),
        other_places=tuple(values["other_places"]),
    )


def _limits(values: Mapping[str, Any], structure: Structure) -> Limits:
    """Return the plan's limits, those of campaigns by their numbers."""
    campaigns = {
        at: SpendLimit(c.least_spend, math.inf if c.most_spend is None else c.most_spend)
        for at, c in enumerate(structure.campaigns)
        if c.least_spend > 0 or c.most_spend is not None
    }
    scouts = [(at, c.scouting_share) for at, c in enumerate(structure.campaigns)
              if c.scouting_share is not None]  # fmt: skip
    scouting, share = scouts[0] if scouts else (None, None)
    return Limits(values["max_keywords"], values["min_clicks"], campaigns, scouting, share or 0.0)


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


def purse_of(values: Mapping[str, Any]) -> float:
    """Return what is left for clicks of the monthly sum: less its tax, less the fee.

    Raises
    ------
    BadValueError
        For a tax or a fee that leaves nothing to count with.
    """
    gross, tax, fee = values["gross_spend"], values["tax_share"], values["fee"]
    if gross is None:
        return float(values["monthly_spend"])
    if not 0 <= tax < 10:
        raise BadValueError("tax", "a share from 0 to under 10 (1,000 %)", tax)
    if not (fee >= 0 and fee <= gross):
        raise BadValueError("fee", f"a sum from 0 to the monthly sum of {gross:g}", fee)
    return float(max(gross - fee, 0.0) / (1 + tax))


def sum_for(values: Mapping[str, Any], purse: float) -> dict[str, float]:
    """Return the monthly sum that leaves a purse, by its field: the opposite of `purse_of`."""
    if values["gross_spend"] is None:
        return {"monthly_spend": purse}
    return {"gross_spend": round(purse * (1 + values["tax_share"]) + values["fee"], 2)}


def _showing(values: Mapping[str, Any] | None) -> Showing:
    if values is None:
        return ALWAYS
    unknown = sorted(set(values) - set(Showing.__dataclass_fields__))
    if unknown:
        raise BadValueError("showing", "days, hours, zone and share", ", ".join(unknown))
    return Showing(**{**values, "days": tuple(values.get("days", ALWAYS.days))})


def _check_names(offers: Sequence[Offer]) -> None:
    names = [o.name.casefold() for o in offers]
    if len(offers) > 1 and (len(set(names)) < len(names) or "" in names):
        raise BadValueError("offer name", "a name of its own for each offer", ", ".join(names))


def _offer(values: Mapping[str, Any], name: str) -> Offer:
    close = None
    likely = values["close_likely"]
    if likely is not None:
        ends = (values["close_low"], values["close_high"])
        low, high = (likely if end is None else end for end in ends)
        close = Conversion(low, likely, high)
    return Offer(
        sale_value=values["sale_value"],
        gross_margin=values["gross_margin"],
        sales_per_customer=values["sales_per_customer"],
        conversion=Conversion(values["rate_low"], values["rate_likely"], values["rate_high"]),
        close=close,
        name=name,
    )


def offer_values(row: models.Offer) -> dict[str, Any]:
    """Return a stored offer as plain values."""
    return {"id": row.id, "name": row.name, **{n: getattr(row, n) for n in OFFER_FIELDS}}


def plan_values(brief: Brief, start_date: str) -> dict[str, Any]:
    """Return a brief as stored values, the opposite of `brief_of`."""
    offer = brief.offer
    return {
        "currency": brief.currency, "monthly_spend": brief.monthly_spend, "goal": brief.goal,
        "start_date": start_date, "pricing": brief.pricing, "places": list(brief.places),
        "volume_basis": brief.volume_basis, "ceiling_rule": brief.ceiling.rule,
        "ceiling_value": brief.ceiling.value, "max_cpc": brief.ceiling.max_cpc,
        "may_pay_to_learn": brief.ceiling.may_pay_to_learn, "policy": brief.policy.name,
        "flat_bid": brief.policy.flat_bid, "policy_share": brief.policy.share,
        "cap_clicks": brief.policy.cap_clicks, "odd_step": brief.policy.odd_step,
        "season": list(brief.season) if brief.season else None,
        "showing": None if brief.showing.always else _showing_values(brief.showing),
        "max_keywords": brief.limits.max_keywords, "min_clicks": brief.limits.min_clicks,
        "more_offers": [_offer_record(one) for one in brief.more_offers],
        "offer_name": offer.name,
        **{f: v for f, v in _offer_record(offer).items() if f != "name"},
    }  # fmt: skip


def _showing_values(showing: Showing) -> dict[str, Any]:
    return asdict(showing) | {"days": list(showing.days)}


def _offer_record(offer: Offer) -> dict[str, Any]:
    close = offer.close
    return {
        "name": offer.name, "sale_value": offer.sale_value, "gross_margin": offer.gross_margin,
        "sales_per_customer": offer.sales_per_customer, "rate_low": offer.conversion.low,
        "rate_likely": offer.conversion.likely, "rate_high": offer.conversion.high,
        "close_low": close.low if close else None,
        "close_likely": close.likely if close else None,
        "close_high": close.high if close else None,
    }  # fmt: skip
