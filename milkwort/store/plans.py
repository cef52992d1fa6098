"""Plans with their briefs: listed, made, copied, renamed, changed, removed."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict, dataclass, field
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from milkwort.core.assumptions import Assumed
from milkwort.core.brief import Brief
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store import models
from milkwort.store.briefs import (
    OFFER_FIELDS,
    PLAN_FIELDS,
    UNSAID_OF_OFFER,
    brief_of,
    offer_values,
)
from milkwort.store.journal import Change, now
from milkwort.store.negatives import list_negatives
from milkwort.store.own_ways import OwnWays, own_ways_of

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
    "remove_plan",
    "rename_plan",
]

BRIEF_FIELDS: tuple[str, ...] = ("offer_name", *OFFER_FIELDS, *PLAN_FIELDS, "more_offers")
"""What of a brief may be changed, by name."""

_START: dict[str, Any] = {
    "currency": "GBP", "monthly_spend": 300.0, "goal": "customers", "start_month": 1,
    "pricing": "pay_enough", "places": [], "volume_basis": "exact",
    "ceiling_rule": "break_even", "ceiling_value": None, "max_cpc": None,
    "may_pay_to_learn": False, "policy": "fitted", "flat_bid": None, "policy_share": None,
    "season": None, "gross_spend": None, "tax_share": 0.0, "fee": 0.0, "profile": None,
    "other_places": [], "max_keywords": None, "min_clicks": 0.0, "more_offers": [], "showing": None,
    "offer_name": "",
    "sale_value": 100.0, "gross_margin": 0.5, "sales_per_customer": 1.0, "rate_low": 0.01,
    "rate_likely": 0.02, "rate_high": 0.04, "close_low": None, "close_likely": None,
    "close_high": None,
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
    negative_owners : tuple of str
        Campaign or group of each negative of the brief; empty at plan level.
    reading_rule : str
        Which reading of a keyword is in use.
    own : OwnWays
        What the planner made of the tool for this plan.
    """

    id: int
    revision: int
    name: str
    values: dict[str, Any]
    unsaid: tuple[str, ...]
    assumptions: dict[str, float]
    brief: Brief
    negative_owners: tuple[str, ...] = ()
    reading_rule: str = "newest"
    own: OwnWays = field(default_factory=OwnWays)


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
    values = {name: getattr(plan, name) for name in PLAN_FIELDS}
    values |= {name: getattr(offer, name) for name in OFFER_FIELDS}
    values["offer_name"] = offer.name
    values["more_offers"] = [offer_values(one) for one in more]
    changed = session.scalars(select(models.Assumption).where(models.Assumption.plan_id == plan_id))
    assumptions = {a.name: a.value for a in changed}
    stored = list_negatives(session, plan_id)
    negatives = tuple(one.negative for one in stored)
    own = own_ways_of(plan)
    return PlanRecord(
        id=plan.id,
        revision=plan.revision,
        name=plan.name,
        values=values,
        unsaid=tuple(plan.unsaid),
        assumptions=assumptions,
        brief=brief_of(plan.name, values, assumptions, negatives, own.word_kinds),
        negative_owners=tuple(one.owner for one in stored),
        reading_rule=plan.reading_rule,
        own=own,
    )


def add_plan(
    session: Session,
    name: str,
    values: Mapping[str, Any] | None = None,
    assumptions: Mapping[str, float] | None = None,
    unsaid: tuple[str, ...] | None = None,
    own: Mapping[str, Any] | None = None,
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
    own : mapping, optional
        The planner's own ways, by the fields of `OwnWays`.
    """
    full = _START | dict(values or {})
    full["more_offers"] = [UNSAID_OF_OFFER | dict(one) for one in full["more_offers"]]
    brief_of(_checked_name(name), full, assumptions or {})
    if unsaid is None:
        unsaid = tuple(f for f in BRIEF_FIELDS if f not in (values or {}))
    plan = models.Plan(
        name=_checked_name(name),
        unsaid=list(unsaid),
        revision=1,
        created_at=now(),
        deleted_at=None,
        **{f: full[f] for f in PLAN_FIELDS},
        **(own or {}),
    )
    session.add(plan)
    session.flush()
    offer = {f: full[f] for f in OFFER_FIELDS}
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
    return add_plan(
        session, name, source.values, source.assumptions, source.unsaid, asdict(source.own)
    )


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
        fields["more_offers"] = [UNSAID_OF_OFFER | dict(one) for one in fields["more_offers"]]
    record = load_plan(change.session, change.plan_id)
    brief_of(record.name, record.values | dict(fields), record.assumptions)
    _, (offer, *more) = _rows(change.session, change.plan_id)
    of_plan: dict[str, Any] = {f: v for f, v in fields.items() if f in PLAN_FIELDS}
    of_plan["unsaid"] = [f for f in record.unsaid if f not in fields]
    change.update(models.Plan, {change.plan_id: of_plan})
    of_offer = {f: v for f, v in fields.items() if f in OFFER_FIELDS}
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
