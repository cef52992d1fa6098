"""Plans with their briefs: listed, made, copied, renamed, changed, removed."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, cast

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from milkwort.core.assumptions import Assumed
from milkwort.core.brief import Brief, Goal, Match, Policy, PolicyName, Pricing
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.core.limits import Limits
from milkwort.core.negatives import Negative
from milkwort.core.platform import profile_of
from milkwort.core.worth import CeilingRule, Conversion, Offer, RuleName
from milkwort.store import models
from milkwort.store.journal import Change, now
from milkwort.store.negatives import load_negatives

__all__ = [
    "BRIEF_FIELDS",
    "PlanLine",
    "PlanRecord",
    "add_plan",
    "change_assumptions",
    "change_brief",
    "copy_plan",
    "list_plans",
    "load_plan",
    "plan_values",
    "remove_plan",
    "rename_plan",
]

_OFFER_FIELDS = (
    "sale_value", "gross_margin", "sales_per_customer", "rate_low", "rate_likely", "rate_high",
    "close_low", "close_likely", "close_high",
)  # fmt: skip
_PLAN_FIELDS = (
    "currency", "monthly_spend", "goal", "start_month", "pricing", "places", "volume_basis",
    "ceiling_rule", "ceiling_value", "max_cpc", "may_pay_to_learn", "policy", "flat_bid",
    "policy_share", "season", "gross_spend", "tax_share", "fee", "profile", "other_places",
    "max_keywords", "min_clicks",
)  # fmt: skip
BRIEF_FIELDS: tuple[str, ...] = ("offer_name", *_OFFER_FIELDS, *_PLAN_FIELDS, "more_offers")
"""What of a brief may be changed, by name."""

_START: dict[str, Any] = {
    "currency": "GBP", "monthly_spend": 300.0, "goal": "customers", "start_month": 1,
    "pricing": "pay_enough", "places": [], "volume_basis": "exact",
    "ceiling_rule": "break_even", "ceiling_value": None, "max_cpc": None,
    "may_pay_to_learn": False, "policy": "fitted", "flat_bid": None, "policy_share": None,
    "season": None, "gross_spend": None, "tax_share": 0.0, "fee": 0.0, "profile": None,
    "other_places": [], "max_keywords": None, "min_clicks": 0.0, "more_offers": [],
    "offer_name": "",
    "sale_value": 100.0, "gross_margin": 0.5, "sales_per_customer": 1.0, "rate_low": 0.01,
    "rate_likely": 0.02, "rate_high": 0.04, "close_low": None, "close_likely": None,
    "close_high": None,
}  # fmt: skip


_UNSAID_OF_OFFER: dict[str, Any] = {
    "sales_per_customer": 1.0, "close_low": None, "close_likely": None, "close_high": None,
}  # fmt: skip


@dataclass(frozen=True)
class PlanLine:
    """A plan as it stands in the list."""

    id: int
    name: str
    currency: str
    monthly_spend: float
    keywords: int
    created_at: str


@dataclass(frozen=True)
class PlanRecord:
    """A plan with its brief.

    Attributes
    ----------
    id, revision : int
    name : str
    values : dict
        The brief by field, as `BRIEF_FIELDS` names them.
    unsaid : tuple of str
        Fields nobody has entered yet.
    assumptions : dict of str to float
        What the plan changed.
    brief : Brief
    """

    id: int
    revision: int
    name: str
    values: dict[str, Any]
    unsaid: tuple[str, ...]
    assumptions: dict[str, float]
    brief: Brief


def list_plans(session: Session) -> list[PlanLine]:
    """Return the plans that are not deleted, the oldest first."""
    count = (
        select(func.count(models.Keyword.id))
        .where(models.Keyword.plan_id == models.Plan.id)
        .scalar_subquery()
    )
    rows = session.execute(
        select(models.Plan, count).where(models.Plan.deleted_at.is_(None)).order_by(models.Plan.id)
    )
    return [PlanLine(p.id, p.name, p.currency, p.monthly_spend, n, p.created_at) for p, n in rows]


def load_plan(session: Session, plan_id: int) -> PlanRecord:
    """Return one plan.

    Raises
    ------
    NotFoundError
        Where there is none, or it is deleted.
    """
    plan, (offer, *more) = _rows(session, plan_id)
    if plan.deleted_at is not None:
        raise NotFoundError(f"Plan {plan_id} is deleted.", "plan")
    values = {name: getattr(plan, name) for name in _PLAN_FIELDS}
    values |= {name: getattr(offer, name) for name in _OFFER_FIELDS}
    values["offer_name"] = offer.name
    values["more_offers"] = [_offer_values(one) for one in more]
    changed = session.scalars(select(models.Assumption).where(models.Assumption.plan_id == plan_id))
    assumptions = {a.name: a.value for a in changed}
    return PlanRecord(
        id=plan.id,
        revision=plan.revision,
        name=plan.name,
        values=values,
        unsaid=tuple(plan.unsaid),
        assumptions=assumptions,
        brief=brief_of(plan.name, values, assumptions, load_negatives(session, plan_id)),
    )


def brief_of(
    name: str,
    values: Mapping[str, Any],
    assumptions: Mapping[str, float],
    negatives: tuple[Negative, ...] = (),
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


def _offer_values(row: models.Offer) -> dict[str, Any]:
    return {"name": row.name, **{name: getattr(row, name) for name in _OFFER_FIELDS}}


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
        "max_keywords": brief.limits.max_keywords, "min_clicks": brief.limits.min_clicks,
        "more_offers": [_offer_record(one) for one in brief.more_offers],
        "offer_name": offer.name,
        **{f: v for f, v in _offer_record(offer).items() if f != "name"},
    }  # fmt: skip


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


def add_plan(
    session: Session,
    name: str,
    values: Mapping[str, Any] | None = None,
    assumptions: Mapping[str, float] | None = None,
    unsaid: tuple[str, ...] | None = None,
) -> int:
    """Make a plan and return its id.

    Parameters
    ----------
    session : Session
    name : str
    values : mapping, optional
        The brief by field; the usual start where left out.
    assumptions : mapping, optional
        What differs from the table.
    unsaid : tuple of str, optional
        Fields nobody has entered; all of them where no values are given.
    """
    full = _START | dict(values or {})
    full["more_offers"] = [_UNSAID_OF_OFFER | dict(one) for one in full["more_offers"]]
    brief_of(_checked_name(name), full, assumptions or {})
    if unsaid is None:
        unsaid = tuple(f for f in BRIEF_FIELDS if f not in (values or {}))
    plan = models.Plan(
        name=_checked_name(name),
        unsaid=list(unsaid),
        revision=1,
        created_at=now(),
        deleted_at=None,
        **{f: full[f] for f in _PLAN_FIELDS},
    )
    session.add(plan)
    session.flush()
    offer = {f: full[f] for f in _OFFER_FIELDS}
    session.add(models.Offer(plan_id=plan.id, name=full["offer_name"], **offer))
    session.flush()
    for one in full["more_offers"]:
        session.add(models.Offer(plan_id=plan.id, **one))
        session.flush()
    for key, value in (assumptions or {}).items():
        session.add(models.Assumption(plan_id=plan.id, name=key, value=value))
    return plan.id


def copy_plan(session: Session, plan_id: int, name: str) -> int:
    """Make a copy of a plan's brief under a new name; its sheet is copied by `keywords`."""
    source = load_plan(session, plan_id)
    return add_plan(session, name, source.values, source.assumptions, source.unsaid)


def rename_plan(change: Change, name: str) -> None:
    """Give the plan another name."""
    change.update(models.Plan, {change.plan_id: {"name": _checked_name(name)}})


def remove_plan(change: Change) -> None:
    """Delete the plan; undoing brings it back."""
    change.update(models.Plan, {change.plan_id: {"deleted_at": now()}})


def change_brief(change: Change, fields: Mapping[str, Any]) -> None:
    """Change fields of the brief; what was assumed in them counts as entered from now on.

    Raises
    ------
    BadValueError
        For an unknown field, or where the brief would be out of range.
    """
    unknown = sorted(set(fields) - set(BRIEF_FIELDS))
    if unknown:
        raise BadValueError("brief", "fields of a brief", ", ".join(unknown))
    fields = dict(fields)
    if "more_offers" in fields:
        fields["more_offers"] = [_UNSAID_OF_OFFER | dict(one) for one in fields["more_offers"]]
    record = load_plan(change.session, change.plan_id)
    brief_of(record.name, record.values | dict(fields), record.assumptions)
    _, (offer, *more) = _rows(change.session, change.plan_id)
    of_plan: dict[str, Any] = {f: v for f, v in fields.items() if f in _PLAN_FIELDS}
    of_plan["unsaid"] = [f for f in record.unsaid if f not in fields]
    change.update(models.Plan, {change.plan_id: of_plan})
    of_offer = {f: v for f, v in fields.items() if f in _OFFER_FIELDS}
    if "offer_name" in fields:
        of_offer["name"] = fields["offer_name"]
    if of_offer:
        change.update(models.Offer, {offer.id: of_offer})
    if "more_offers" in fields:
        change.delete(models.Offer, [one.id for one in more])
        change.insert(
            models.Offer, [{"plan_id": change.plan_id, **one} for one in fields["more_offers"]]
        )


def change_assumptions(change: Change, values: Mapping[str, float | None]) -> None:
    """Set assumptions of the plan; None puts the default back.

    Raises
    ------
    BadValueError
        For an unknown name, or a value out of its range.
    """
    record = load_plan(change.session, change.plan_id)
    merged = record.assumptions | {k: v for k, v in values.items() if v is not None}
    Assumed({k: v for k, v in merged.items() if values.get(k, v) is not None})
    rows = change.session.scalars(
        select(models.Assumption).where(models.Assumption.plan_id == change.plan_id)
    )
    ids = {row.name: row.id for row in rows}
    change.delete(models.Assumption, [ids[n] for n, v in values.items() if v is None and n in ids])
    change.update(
        models.Assumption,
        {ids[n]: {"value": v} for n, v in values.items() if v is not None and n in ids},
    )
    change.insert(
        models.Assumption,
        [
            {"plan_id": change.plan_id, "name": n, "value": v}
            for n, v in values.items()
            if v is not None and n not in ids
        ],
    )


def _rows(session: Session, plan_id: int) -> tuple[models.Plan, list[models.Offer]]:
    plan = session.get(models.Plan, plan_id, populate_existing=True)
    if plan is None:
        raise NotFoundError(f"There is no plan {plan_id}.", "plan")
    offers = session.scalars(
        select(models.Offer).where(models.Offer.plan_id == plan_id).order_by(models.Offer.id),
        execution_options={"populate_existing": True},
    ).all()
    return plan, list(offers)


def _checked_name(name: str) -> str:
    bare = " ".join(name.split())
    if not 1 <= len(bare) <= 120:
        raise BadValueError("name", "a name of 1 to 120 characters", name)
    return bare
