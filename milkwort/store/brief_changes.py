"""Changes of a brief: its fields, its offers, the planner's own assumptions."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from sqlalchemy import select

from milkwort.core.assumptions import Assumed
from milkwort.core.errors import BadValueError
from milkwort.store import models
from milkwort.store.briefs import (
    BRIEF_FIELDS,
    OFFER_FIELDS,
    PLAN_FIELDS,
    brief_of,
    further_offers,
)
from milkwort.store.journal import Change
from milkwort.store.plans import PlanRecord, load_plan

__all__ = ["change_assumptions", "change_brief"]


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
    brief_of(record.name, new | {"more_offers": further_offers(new)}, record.assumptions)
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
    for one, columns in zip(wanted, further_offers({"more_offers": wanted}), strict=True):
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
