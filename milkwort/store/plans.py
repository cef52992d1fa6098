"""Plans with their briefs: listed, made, copied, renamed, changed, removed."""

from __future__ import annotations

import datetime
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from milkwort.core.assumptions import RETIRED, Assumed
from milkwort.core.brief.brief import Brief
from milkwort.core.brief.fields import FIELDS
from milkwort.core.brief.platform import profile_of
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store import models
from milkwort.store.ads import StoredAd, list_ads
from milkwort.store.briefs import (
    OFFER_FIELDS,
    PLAN_FIELDS,
    STARTS_OF_OFFER,
    brief_of,
    offer_values,
)
from milkwort.store.journal import Change, now, undo
from milkwort.store.negatives import StoredNegative, list_negatives
from milkwort.store.own_ways import OwnWays, own_ways_of
from milkwort.store.structure import Structure, load_structure
from milkwort.store.taught import TaughtPlan

__all__ = [
    "BRIEF_FIELDS",
    "PlanLine",
    "PlanRecord",
    "add_client",
    "add_plan",
    "change_assumptions",
    "change_brief",
    "checked_name",
    "client_name_of",
    "client_of",
    "list_plans",
    "load_plan",
    "plans_of_client",
    "remove_plan",
    "rename_plan",
    "restore_plan",
]

BRIEF_FIELDS: tuple[str, ...] = ("offer_name", *OFFER_FIELDS, *PLAN_FIELDS, "more_offers")
"""What of a brief may be changed, by name."""

_START: dict[str, Any] = {f.name: f.start for f in FIELDS.values()} | {
    "offer_name": "",
    "more_offers": [],
}


@dataclass(frozen=True)
class PlanLine:
    """A plan as it stands in the list, with the client it is for.

    `is_plan` tells the one that counts from its other versions.
    """

    id: int
    client_id: int
    client: str
    version_of: int | None
    label: str
    is_plan: bool
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


def list_plans(session: Session) -> list[PlanLine]:
    """Return the plans that are not deleted, client by client, the oldest first."""
    p, c, k = models.Plan, models.Client, models.Keyword
    count = select(func.count(k.id)).where(k.plan_id == p.id).scalar_subquery()
    brief = p.__table__.columns
    rows: Iterable[Any] = session.execute(
        select(p.id, p.client_id, c.name, p.version_of, p.label, p.chosen, p.name,
               brief.currency, brief.monthly_spend, count, p.created_at)
        .join(c, c.id == p.client_id)
        .where(p.deleted_at.is_(None))
        .order_by(p.client_id, p.id)
    )  # fmt: skip
    found = list(rows)
    plans: dict[int, Any] = {}
    for row in found:  # of each family the one chosen last; before any was, the first
        root = row.version_of or row.id
        if root not in plans or row.chosen > plans[root].chosen:
            plans[root] = row
    ids = {row.id for row in plans.values()}
    return [
        PlanLine(row.id, row.client_id, row[2], row.version_of, row.label, row.id in ids, *row[6:])
        for row in found
    ]


def revisions_of(session: Session, plan_ids: Sequence[int]) -> dict[int, int]:
    """Return the revision of each of some plans, by id."""
    p = models.Plan
    rows = session.execute(select(p.id, p.revision).where(p.id.in_(plan_ids)))
    return {row.id: row.revision for row in rows}


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


def client_of(session: Session, plan_id: int) -> int:
    """Return the id of a plan's client.

    Raises
    ------
    NotFoundError
        Where there is no such plan.
    """
    found = session.scalar(select(models.Plan.client_id).where(models.Plan.id == plan_id))
    if found is None:
        raise NotFoundError(f"There is no plan {plan_id}.", "plan")
    return found


def client_name_of(session: Session, plan_id: int) -> str:
    """Return the name of a plan's client; errors as `client_of`."""
    c = models.Client
    named = select(c.name).where(c.id == client_of(session, plan_id))
    return session.scalars(named).one()


def plans_of_client(session: Session, client_id: int) -> list[int]:
    """Return the ids of a client's plans that are not deleted, rising."""
    p = models.Plan
    mine = select(p.id).where(p.client_id == client_id, p.deleted_at.is_(None))
    return list(session.scalars(mine.order_by(p.id)))


def add_client(session: Session, name: str) -> int:
    """Make a client and return its id."""
    client = models.Client(name=checked_name(name), created_at=now())
    session.add(client)
    session.flush()
    return client.id


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
    brief_of(checked_name(name), full | {"more_offers": _offers(full)}, assumptions or {})
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
    for one in (first, *_offers(full)):
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
    record = load_plan(change.session, change.plan_id)
    new = record.values | fields
    brief_of(record.name, new | {"more_offers": _offers(new)}, record.assumptions)
    of_plan: dict[str, Any] = {f: v for f, v in fields.items() if f in PLAN_FIELDS}
    of_plan["not_entered"] = [f for f in record.not_entered if f not in fields]
    change.update(models.Plan, {change.plan_id: of_plan})
    of_offer = {f: v for f, v in fields.items() if f in OFFER_FIELDS}
    if "offer_name" in fields:
        of_offer["name"] = fields["offer_name"]
    if of_offer:
        change.update(models.Offer, {record.offer_ids[0]: of_offer})
    if "more_offers" in fields:
        _change_offers(change, record, fields["more_offers"])


def _change_offers(change: Change, record: PlanRecord, wanted: Sequence[Mapping[str, Any]]) -> None:
    """Change, add and remove further offers; one that stays is the same row as before.

    An offer is known by its id, and where none is given by its name.
    """
    there = {one["id"]: one["name"] for one in record.values["more_offers"]}
    left = dict(there)
    stays: dict[int, dict[str, Any]] = {}
    new = []
    for one, columns in zip(wanted, _offers({"more_offers": wanted}), strict=True):
        known = one.get("id")
        if known is None:
            known = next((i for i, name in left.items() if name == one["name"]), None)
        if known is not None and left.pop(known, None) is not None:
            stays[known] = columns
        else:
            new.append({"plan_id": change.plan_id, **columns})
    change.update(models.Offer, stays)
    k = models.Keyword
    orphans = change.session.scalars(select(k.id).where(k.offer_id.in_(list(left))))
    change.update(k, {i: {"offer_id": None} for i in orphans})
    s = models.Spot
    spots = change.session.scalars(select(s.id).where(s.offer_id.in_(list(left))))
    change.update(s, {i: {"offer_id": None} for i in spots})
    change.delete(models.Offer, list(left))
    change.insert(models.Offer, new)


def _offers(values: Mapping[str, Any]) -> list[dict[str, Any]]:
    """Return further offers as their columns, without ids."""
    return [
        STARTS_OF_OFFER | {f: v for f, v in one.items() if f in ("name", *OFFER_FIELDS)}
        for one in values["more_offers"]
    ]


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
    gone = [n for n, v in values.items() if v is None and n in ids]
    change.delete(models.Assumption, [ids[n] for n in (*gone, *record.retired)])
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


def checked_name(name: str) -> str:
    """Return a plan's or client's name without needless spaces.

    Raises
    ------
    BadValueError
        Where it is empty or too long.
    """
    bare = " ".join(name.split())
    if not 1 <= len(bare) <= 120:
        raise BadValueError("name", "a name of 1 to 120 characters", name)
    return bare
