"""Plans with their briefs: listed, made, copied, renamed, changed, removed."""

from __future__ import annotations

import datetime
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.assumptions import RETIRED
from milkwort.core.brief.brief import Brief
from milkwort.core.brief.fields import FIELDS
from milkwort.core.brief.platform import profile_of
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store import models
from milkwort.store.ads import StoredAd, list_ads
from milkwort.store.briefs import (
    BRIEF_FIELDS,
    OFFER_FIELDS,
    PLAN_FIELDS,
    brief_of,
    further_offers,
    offer_values,
)
from milkwort.store.journal import Change, now
from milkwort.store.negatives import StoredNegative, list_negatives
from milkwort.store.own_ways import OwnWays, own_ways_of
from milkwort.store.plan_list import add_client, checked_name
from milkwort.store.replay import undo
from milkwort.store.structure import Structure, load_structure
from milkwort.store.taught import TaughtPlan

__all__ = [
    "PlanRecord",
    "add_plan",
    "load_plan",
    "remove_plan",
    "rename_plan",
    "restore_plan",
]

_START: dict[str, Any] = {f.name: f.start for f in FIELDS.values()} | {
    "offer_name": "",
    "more_offers": [],
}


@dataclass(frozen=True)
class PlanRecord:
    """A plan with its brief.

    Attributes
    ----------
    id, client_id, revision : int
    version_of : int or None
        The plan this is a version of.
    closed_as : int or None
        The version that goes on from this one, whose month is over.
    name, label : str
    values : dict
        The brief by field, as `BRIEF_FIELDS` names them.
    not_entered : tuple of str
        Fields nobody has entered yet.
    assumptions : dict of str to float
        What the plan changed.
    retired : tuple of str
        Assumptions the plan once changed that the model no longer makes.
    brief : Brief
    offer_ids : tuple of int
        In the brief's order.
    structure : Structure
        Campaigns and groups; their places are their numbers in the brief.
    negatives : tuple of StoredNegative
        In the brief's order.
    ads : tuple of StoredAd
        In the order they were written.
    reading_rule : str
        Which reading of a keyword is in use.
    own : OwnWays
        What the planner made of the tool for this plan.
    taught : TaughtPlan or None
        What results taught; the brief has it too.
    """

    id: int
    client_id: int
    version_of: int | None
    closed_as: int | None
    label: str
    revision: int
    name: str
    values: dict[str, Any]
    not_entered: tuple[str, ...]
    assumptions: dict[str, float]
    retired: tuple[str, ...]
    brief: Brief
    offer_ids: tuple[int, ...]
    structure: Structure
    negatives: tuple[StoredNegative, ...]
    ads: tuple[StoredAd, ...]
    reading_rule: str
    own: OwnWays
    taught: TaughtPlan | None = None


def load_plan(session: Session, plan_id: int) -> PlanRecord:
    """Return one plan.

    Raises
    ------
    NotFoundError
        Where there is none, or it is deleted.
    BadValueError
        Where what is stored makes no plan.
    """
    plan, (offer, *more) = _rows(session, plan_id)
    if plan.deleted_at is not None:
        raise NotFoundError(f"Plan {plan_id} is deleted.", "plan")
    values = {name: getattr(plan, name) for name in PLAN_FIELDS}
    if values["profile"] is not None:  # one kept by an older Milkwort says less
        values["profile"] = profile_of(values["profile"]).as_dict()
    values |= {name: getattr(offer, name) for name in OFFER_FIELDS}
    values["offer_name"] = offer.name
    values["more_offers"] = [offer_values(one) for one in more]
    changed = session.execute(
        select(models.Assumption.name, models.Assumption.value)
        .where(models.Assumption.plan_id == plan_id)
        .order_by(models.Assumption.id)
    )
    stored = {row.name: row.value for row in changed}
    assumptions = {name: value for name, value in stored.items() if name not in RETIRED}
    negatives = tuple(list_negatives(session, plan_id))
    structure = load_structure(session, plan_id)
    offer_ids = (offer.id, *(one.id for one in more))
    own = own_ways_of(plan)
    taught = None if plan.taught is None else TaughtPlan(**plan.taught)
    brief = brief_of(
        plan.name, values, assumptions, negatives, own.word_kinds, structure, offer_ids
    )
    return PlanRecord(
        id=plan.id,
        client_id=plan.client_id,
        version_of=plan.version_of,
        closed_as=plan.closed_as,
        label=plan.label,
        revision=plan.revision,
        name=plan.name,
        values=values,
        not_entered=tuple(plan.not_entered),
        assumptions=assumptions,
        retired=tuple(name for name in stored if name in RETIRED),
        brief=brief if taught is None else replace(brief, taught=taught.of_brief),
        taught=taught,
        offer_ids=offer_ids,
        structure=structure,
        negatives=negatives,
        ads=tuple(list_ads(session, plan_id)),
        reading_rule=plan.reading_rule,
        own=own,
    )


def add_plan(
    session: Session,
    name: str,
    values: Mapping[str, Any] | None = None,
    assumptions: Mapping[str, float] | None = None,
    not_entered: tuple[str, ...] | None = None,
    *,
    client_id: int | None = None,
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
    not_entered : tuple of str, optional
        Fields nobody has entered; all of them where no values are given.
    client_id : int, optional
        Whose plan it is; a new client of the plan's name where left out.
    """
    full = _START | {"start_date": next_month()} | dict(values or {})
    brief_of(checked_name(name), full | {"more_offers": further_offers(full)}, assumptions or {})
    if not_entered is None:
        not_entered = tuple(f for f in BRIEF_FIELDS if f not in (values or {}))
    if client_id is not None and session.get(models.Client, client_id) is None:
        raise NotFoundError(f"There is no client {client_id}.", "client")
    plan = models.Plan(
        name=checked_name(name),
        client_id=client_id or add_client(session, name),
        label="",
        not_entered=list(not_entered),
        revision=1,
        created_at=now(),
        deleted_at=None,
        **{f: full[f] for f in PLAN_FIELDS},
    )
    session.add(plan)
    session.flush()
    first = {f: full[f] for f in OFFER_FIELDS} | {"name": full["offer_name"]}
    for one in (first, *further_offers(full)):
        session.add(models.Offer(plan_id=plan.id, **one))
        session.flush()
    for key, value in (assumptions or {}).items():
        session.add(models.Assumption(plan_id=plan.id, name=key, value=value))
    return plan.id


def next_month() -> str:
    """Return the first day of the month to come."""
    today = datetime.date.today()
    return datetime.date(today.year + today.month // 12, today.month % 12 + 1, 1).isoformat()


def rename_plan(change: Change, name: str) -> None:
    """Give the plan another name."""
    change.update(models.Plan, {change.plan_id: {"name": checked_name(name)}})


def remove_plan(change: Change) -> None:
    """Put the plan away; `restore_plan` brings it back."""
    change.update(models.Plan, {change.plan_id: {"deleted_at": now()}})


def restore_plan(session: Session, plan_id: int) -> None:
    """Bring a plan back that was put away.

    Raises
    ------
    NotFoundError
        Where there is no such plan.
    BadValueError
        Where it was not put away.
    """
    plan = session.get(models.Plan, plan_id)
    if plan is None:
        raise NotFoundError(f"There is no plan {plan_id}.", "plan")
    if plan.deleted_at is None:
        raise BadValueError("plan", "one that was deleted", plan.name)
    undo(session, plan_id)  # putting it away was its last change


def _rows(session: Session, plan_id: int) -> tuple[models.Plan, list[models.Offer]]:
    plan = session.get(models.Plan, plan_id, populate_existing=True)
    if plan is None:
        raise NotFoundError(f"There is no plan {plan_id}.", "plan")
    offers = session.scalars(
        select(models.Offer).where(models.Offer.plan_id == plan_id).order_by(models.Offer.id),
        execution_options={"populate_existing": True},
    ).all()
    return plan, list(offers)
