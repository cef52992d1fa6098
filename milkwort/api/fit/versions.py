"""Versions of a plan: made, named, chosen, and set side by side."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict
from itertools import combinations
from typing import Annotated, Any

from fastapi import APIRouter, Query, Response

from milkwort.api.fit.versions_schemas import (
    CompareView,
    NewVersion,
    OddsView,
    VersionChange,
    VersionsView,
)
from milkwort.api.fit.year import year_of
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Job, Window, Work, sent
from milkwort.api.plan.columns import plain
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer, PlanId
from milkwort.api.plan.workspace import Workspace
from milkwort.core.errors import BadValueError
from milkwort.core.plan.differences import Difference, Side, differences
from milkwort.core.plan.draws import Range
from milkwort.core.plan.versions import apart, standing
from milkwort.store.versions import add_version, choose_version, family_of, name_version

router = APIRouter(tags=["versions"])

_SIDE_BY_SIDE = 4
_SHOWN = 300
"""Differences of one kind that are sent; the rest is counted."""

Others = Annotated[list[int], Query(alias="with", max_length=_SIDE_BY_SIDE - 1)]


@router.get("/plans/{plan_id}/versions", responses=shape_of(VersionsView))
def versions(plan_id: int, work: Work) -> Response:
    """List all versions that a plan stands among."""
    loaded = work.plan(plan_id)
    with work.database.read() as session:
        family = family_of(session, plan_id)
    return sent({"revision": loaded.record.revision, "versions": [asdict(v) for v in family]})


@router.post("/plans/{plan_id}/versions", status_code=201)
def make(plan_id: int, body: NewVersion, work: Work) -> PlanId:
    """Copy a plan as a version of it; the plan stays as it is."""
    made = work.made_beside(plan_id, lambda s: add_version(s, plan_id, body.label, body.reason))
    return PlanId(id=made)


@router.patch("/plans/{plan_id}/version", responses=shape_of(ChangeAnswer))
def name(plan_id: int, body: VersionChange, work: Work, window: Window = "") -> Response:
    """Call a version something else, or say another reason."""
    made = Decision("name the version", lambda c: name_version(c, body.label, body.reason))
    return sent(work.change(plan_id, lambda _: made, window=window))


@router.post("/plans/{plan_id}/choose", responses=shape_of(ChangeAnswer))
def choose(plan_id: int, work: Work, window: Window = "") -> Response:
    """Make a version the plan; the others stay."""
    return sent(
        work.change(
            plan_id, lambda _: Decision("make this version the plan", choose_version), window=window
        )
    )


@router.get("/plans/{plan_id}/compare", responses=shape_of(CompareView))
def compare(plan_id: int, work: Work, others: Others = []) -> Response:  # noqa: B006 -- read only
    """Set versions side by side: what each brings, and what differs from the first."""
    plans = family_plans(work, plan_id, others)
    sides = [side_of(plan) for plan in plans]
    return sent({
        "sides": [
            {
                "plan_id": plan.record.id,
                "revision": plan.record.revision,
                "label": plan.record.label,
                "currency": plan.record.brief.currency,
                "standing": asdict(standing(side)),
                "differences": _columns(differences(sides[0], side)),
            }
            for plan, side in zip(plans, sides, strict=True)
        ]
    })  # fmt: skip


@router.get("/plans/{plan_id}/compare/odds", responses=shape_of(OddsView))
def odds(plan_id: int, work: Work, others: Others = [], job: Job = "") -> Response:  # noqa: B006 -- read only
    """Draw versions with the same luck; null where one changed meanwhile."""
    plans = family_plans(work, plan_id, others)
    with work.jobs.under_way(plan_id, job) as progress:
        drawn = []
        for at, plan in enumerate(plans):

            def told(done: int, of: int, at: int = at) -> None:
                progress("months drawn", at * of + done, of * len(plans))

            found = work.drawing.drawn(plan.record.id, told)
            if found is None:
                return sent(None)
            drawn.append(found)
    return sent({
        "draws": drawn[0].draws.count,
        "sides": [
            {
                "plan_id": one.loaded.record.id,
                "revision": one.revision,
                "figures": {name: _range(r) for name, r in one.draws.ranges.items()},
            }
            for one in drawn
        ],
        "pairs": [
            {"first": one.loaded.record.id, "second": two.loaded.record.id}
            | {key: value for key, value in vars(found).items() if key != "by"}
            | {"by": {name: _range(r) for name, r in found.by.items()}}
            for one, two in combinations(drawn, 2)
            for found in [apart(one.draws, two.draws)]
        ],
    })  # fmt: skip


def family_plans(work: Workspace, plan_id: int, others: Sequence[int]) -> list[OpenPlan]:
    """Return a plan and some of its versions.

    Raises
    ------
    BadValueError
        For a plan that is none of its versions.
    """
    with work.database.read() as session:
        family = {one.id for one in family_of(session, plan_id)}
    strange = [other for other in others if other not in family]
    if strange:
        raise BadValueError("with", "versions of this plan", strange[0])
    return [work.plan(one) for one in dict.fromkeys((plan_id, *others))]


def side_of(plan: OpenPlan) -> Side:
    """Return a plan as it is set beside others."""
    structure = plan.sheet.structure
    return Side(
        plan.result,
        tuple(plan.sheet.labels),
        tuple(campaign.name for campaign in structure.campaigns),
        year_of(plan),
    )


def _columns(found: Sequence[Difference]) -> dict[str, Any]:
    of_kind: dict[str, int] = {}
    shown = []
    for one in found:
        of_kind[one.kind] = of_kind.get(one.kind, 0) + 1
        if of_kind[one.kind] <= _SHOWN:
            shown.append(one)
    names = ("kind", "what", "unit", "was", "now")
    return {name: [getattr(one, name) for one in shown] for name in names} | {"of_kind": of_kind}


def _range(r: Range) -> dict[str, float | None]:
    return {"low": plain(r.low), "middle": plain(r.middle), "high": plain(r.high)}
