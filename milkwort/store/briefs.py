"""Briefs between the store's fields and the core."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import asdict
from typing import Any, cast

from milkwort.core.assumptions import Assumed
from milkwort.core.brief import Brief, Goal, Match, Policy, PolicyName, Pricing
from milkwort.core.errors import BadValueError
from milkwort.core.limits import Limits
from milkwort.core.negatives import Negative
from milkwort.core.platform import profile_of
from milkwort.core.showing import ALWAYS, Showing
from milkwort.core.worth import CeilingRule, Conversion, Offer, RuleName
from milkwort.store import models

__all__ = [
    "OFFER_FIELDS",
    "PLAN_FIELDS",
    "UNSAID_OF_OFFER",
    "brief_of",
    "offer_values",
    "plan_values",
    "purse_of",
]

OFFER_FIELDS = (
    "sale_value", "gross_margin", "sales_per_customer", "rate_low", "rate_likely", "rate_high",
    "close_low", "close_likely", "close_high",
)  # fmt: skip
PLAN_FIELDS = (
    "currency", "monthly_spend", "goal", "start_month", "pricing", "places", "volume_basis",
    "ceiling_rule", "ceiling_value", "max_cpc", "may_pay_to_learn", "policy", "flat_bid",
    "policy_share", "season", "gross_spend", "tax_share", "fee", "profile", "other_places",
    "max_keywords", "min_clicks", "showing",
)  # fmt: skip
UNSAID_OF_OFFER: dict[str, Any] = {
    "sales_per_customer": 1.0, "close_low": None, "close_likely": None, "close_high": None,
}  # fmt: skip


def brief_of(
    name: str,
    values: Mapping[str, Any],
    assumptions: Mapping[str, float],
    negatives: tuple[Negative, ...] = (),
    word_kinds: Mapping[str, str] | None = None,
) -> Brief:
    """Return the brief that stored values make, checked.

    Raises
    ------
    BadValueError
        Where a value is out of its range.
    """
    profile = profile_of(values["profile"])
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
            cast(PolicyName, values["policy"]), values["flat_bid"], values["policy_share"]
        ),
        assumed=Assumed(profile.assumptions() | dict(assumptions)),
        negatives=negatives,
        negative_close_forms=profile.negative_close_forms,
        limits=Limits(values["max_keywords"], values["min_clicks"]),
        season=tuple(values["season"]) if values["season"] else None,
        showing=_showing(values.get("showing")),
        word_kinds=tuple((word_kinds or {}).items()),
        other_places=tuple(values["other_places"]),
    )


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
    return {"name": row.name, **{name: getattr(row, name) for name in OFFER_FIELDS}}


def plan_values(brief: Brief, start_month: int = 1) -> dict[str, Any]:
    """Return a brief as stored values, the opposite of `brief_of`."""
    offer = brief.offer
    return {
        "currency": brief.currency, "monthly_spend": brief.monthly_spend, "goal": brief.goal,
        "start_month": start_month, "pricing": brief.pricing, "places": list(brief.places),
        "volume_basis": brief.volume_basis, "ceiling_rule": brief.ceiling.rule,
        "ceiling_value": brief.ceiling.value, "max_cpc": brief.ceiling.max_cpc,
        "may_pay_to_learn": brief.ceiling.may_pay_to_learn, "policy": brief.policy.name,
        "flat_bid": brief.policy.flat_bid, "policy_share": brief.policy.share,
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
