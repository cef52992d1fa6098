"""A brief as values by field, and back."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from milkwort.core.assumptions import Assumed
from milkwort.core.brief.brief import Brief, Policy
from milkwort.core.brief.campaigns import OwnTerms
from milkwort.core.brief.fields import FIELDS, OF_OFFER, OF_PLAN, BriefField, parts_of
from milkwort.core.brief.holidays import check_holidays_of
from milkwort.core.brief.limits import Limits
from milkwort.core.brief.platform import profile_of
from milkwort.core.brief.showing import showing_of_values, values_of_showing
from milkwort.core.brief.spots import Spot
from milkwort.core.brief.worth import CeilingRule, Conversion, Offer
from milkwort.core.errors import BadValueError
from milkwort.core.words.negatives import Negative

__all__ = ["Beside", "brief_of_values", "purse_of", "sum_for", "values_of_brief"]


@dataclass(frozen=True)
class Beside:
    """What a brief stands on beside its fields.

    Attributes
    ----------
    assumptions : mapping
        What the plan changed, by name.
    negatives : sequence of Negative
    word_kinds : mapping
        Kind of a word, where the planner said one.
    limits : Limits
        Those of campaigns.
    own_terms : mapping of int to OwnTerms
        Of campaigns, by number.
    spots : tuple of Spot
    policies : mapping of int to mapping
        Ways of groups that bid their own way, by number: name, flat_bid, share.
    """

    assumptions: Mapping[str, float]
    negatives: Sequence[Negative] = ()
    word_kinds: Mapping[str, str] | None = None
    limits: Limits = field(default_factory=Limits)
    own_terms: Mapping[int, OwnTerms] = field(default_factory=dict)
    spots: tuple[Spot, ...] = ()
    policies: Mapping[int, Mapping[str, Any]] = field(default_factory=dict)


def brief_of_values(name: str, values: Mapping[str, Any], beside: Beside) -> Brief:
    """Return the brief that values make, checked.

    Parameters
    ----------
    name : str
    values : mapping
        By field, as the table of fields names them; `offer_name`; `more_offers`, each with
        `name` and the fields of an offer.
    beside : Beside

    Raises
    ------
    BadValueError
        Where a value is out of its range.
    """
    check_holidays_of(values["holidays_of"])
    profile = profile_of(values["profile"])
    offers = [_offer(values, values["offer_name"])]
    offers += [_offer(one, one["name"]) for one in values["more_offers"]]
    _check_names(offers)
    parts = parts_of({f.name: values[f.name] for f in OF_PLAN})
    return Brief(
        **parts
        | {
            "name": name,
            "monthly_spend": purse_of(values),
            "offer": offers[0],
            "more_offers": tuple(offers[1:]),
            "ceiling": CeilingRule(**parts["ceiling"]),
            "policy": Policy(**parts["policy"]),
            "limits": replace(beside.limits, **parts["limits"]),
            "season": parts["season"] or None,
            "assumed": Assumed(profile.assumptions() | dict(beside.assumptions)),
            "negatives": tuple(beside.negatives),
            "negative_close_forms": profile.negative_close_forms,
            "showing": showing_of_values(values["showing"]),
            "own_terms": beside.own_terms,
            "spots": beside.spots,
            "own_policies": {
                # what holds for all bids by a method holds for these
                group: Policy(**parts["policy"] | dict(own))
                for group, own in beside.policies.items()
            },
            "word_kinds": tuple((beside.word_kinds or {}).items()),
        }
    )


def values_of_brief(brief: Brief, start_date: str) -> dict[str, Any]:
    """Return a brief as values by field, the opposite of `brief_of_values`.

    Parameters
    ----------
    brief : Brief
    start_date : str
        First day, as ISO 8601 has it.
    """
    return {
        **{f.name: _at(brief, f) for f in FIELDS.values() if f.at},
        "start_date": start_date,
        "showing": None if brief.showing.always else values_of_showing(brief.showing),
        "offer_name": brief.offer.name,
        "more_offers": [
            {"name": one.name} | {f.name: _at(replace(brief, offer=one), f) for f in OF_OFFER}
            for one in brief.more_offers
        ],
    }


def purse_of(values: Mapping[str, Any]) -> float:
    """Return what is left for clicks of the monthly sum: less its tax, less the fee.

    Parameters
    ----------
    values : mapping
        The brief by field.

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
    """Return the monthly sum that leaves a purse, by its field: the opposite of `purse_of`.

    Parameters
    ----------
    values : mapping
        The brief by field.
    purse : float
        Money a month for clicks.
    """
    if values["gross_spend"] is None:
        return {"monthly_spend": purse}
    return {"gross_spend": round(purse * (1 + values["tax_share"]) + values["fee"], 2)}


def _at(brief: Brief, one: BriefField) -> Any:
    """Return what a brief says in a field: None where a part on the way is left open."""
    value: Any = brief
    for key in one.at.split("."):
        value = getattr(value, key, None)
    return list(value) if isinstance(value, tuple) else value


def _check_names(offers: Sequence[Offer]) -> None:
    names = [o.name.casefold() for o in offers]
    if len(offers) > 1 and (len(set(names)) < len(names) or "" in names):
        raise BadValueError("offer name", "a name of its own for each offer", ", ".join(names))


def _offer(values: Mapping[str, Any], name: str) -> Offer:
    parts = parts_of({f.name: values[f.name] for f in OF_OFFER})["offer"]
    return Offer(
        **parts
        | {
            "name": name,
            "conversion": Conversion(**parts["conversion"]),
            "close": _close(parts["close"]),
        }
    )


def _close(ends: Mapping[str, float | None]) -> Conversion | None:
    """Return the close rate; an end that is not said is the likely one."""
    likely = ends["likely"]
    if likely is None:
        return None
    low, high = (likely if end is None else end for end in (ends["low"], ends["high"]))
    return Conversion(low, likely, high)
