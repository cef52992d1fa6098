"""Arrange: ready structures, what each would bring for the same money, and taking one."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import get_args

import numpy as np
from fastapi import APIRouter, Response

from milkwort.api.arrange.structures_schemas import (
    StructureAsked,
    StructureChoice,
    StructureFit,
    StructureItem,
    StructureLimits,
    StructuresView,
)
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.routes import workings_answer
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.api.sift.workings_schemas import Workings
from milkwort.core.arrange.proposals import Proposal, proposal_of
from milkwort.core.arrange.structures import (
    STRUCTURE_KINDS,
    Structure,
    StructureName,
    arrange,
    lexicon_of,
    moves_of,
    named_so,
)
from milkwort.core.arrays import Ints
from milkwort.core.errors import NothingUsableError
from milkwort.core.workings.arranged import proposal_workings
from milkwort.store import models
from milkwort.store.edits import duplicate_as
from milkwort.store.groups import make_places, place_keywords
from milkwort.store.journal import Change
from milkwort.store.keywords import lock_bids, set_calls
from milkwort.store.structure import Place

router = APIRouter(tags=["arrange"])

_USUAL_MOST = 20


@router.post("/plans/{plan_id}/arrange/structures", responses=shape_of(StructuresView))
def structures(plan_id: int, body: StructureAsked, work: Work) -> Response:
    """Return what each ready structure would make of the kept keywords; nothing is changed."""
    plan = work.plan(plan_id)
    items = []
    for kind in get_args(StructureName):
        made = _made(plan, kind, body)
        items.append(
            StructureItem(
                kind=kind, says=STRUCTURE_KINDS[kind],
                campaigns=sorted({p.campaign for p in made.places}),
                groups=len(made.places), moves=made.moves, adds=len(made.twins),
                largest=made.largest,
            )
        )  # fmt: skip
    profile, totals = plan.written.profile, plan.result.totals
    table = plan.sheet.table
    view = StructuresView(
        revision=plan.record.revision,
        items=items,
        limits=StructureLimits(
            most=body.most or min(_USUAL_MOST, profile.keywords_per_group),
            keywords_per_group=profile.keywords_per_group, platform=profile.name,
        ),
        now=StructureFit(
            revision=plan.record.revision, customers=totals.customers, spend=totals.spend,
            clicks=totals.clicks, running=totals.keywords,
            groups=len(np.unique(table.group[table.kept & (table.group >= 0)])),
            to_write=len(plan.written.without), bids_set=0,
        ),
    )  # fmt: skip
    return sent(view.model_dump())


@router.post("/plans/{plan_id}/arrange/structures/fit", responses=shape_of(StructureFit))
def fitted(plan_id: int, body: StructureChoice, work: Work) -> Response:
    """Fit one structure for the same money; nothing is changed."""
    plan = work.plan(plan_id)
    made = _made(plan, body.kind, body)
    found = _proposal(plan, made, body)
    totals = found.result.totals
    return sent(
        StructureFit(
            revision=plan.record.revision, customers=totals.customers, spend=totals.spend,
            clicks=totals.clicks, running=totals.keywords, groups=found.groups,
            to_write=found.to_write, bids_set=len(found.locked),
        ).model_dump()
    )  # fmt: skip


@router.post("/plans/{plan_id}/arrange/structures/workings", responses=shape_of(Workings))
def traced(plan_id: int, body: StructureChoice, work: Work) -> Response:
    """Return how one structure comes to what it asks for and brings; nothing is changed."""
    plan = work.plan(plan_id)
    found = _proposal(plan, _made(plan, body.kind, body), body)
    sections = proposal_workings(plan.result, found)
    title, revision = STRUCTURE_KINDS[body.kind], plan.record.revision
    return sent(workings_answer(revision, title, "proposed, not taken", [], sections))


@router.post("/plans/{plan_id}/arrange/structure", responses=shape_of(ChangeAnswer))
def take_structure(
    plan_id: int, body: StructureChoice, work: Work, window: Window = ""
) -> Response:
    """Arrange the kept keywords by a ready structure; undo puts them back.

    Groups and campaigns that are left empty stay until they are removed; locked groups are
    left alone.
    """

    def decide(plan: OpenPlan) -> Decision:
        made = _made(plan, body.kind, body)
        bids = _proposal(plan, made, body).locked if body.lower != "neither" else {}
        of_sheet = {
            plan.sheet.ids[row]: bid for row, bid in bids.items() if row < len(plan.sheet.ids)
        }
        first_twin = len(plan.sheet.ids)

        def do(change: Change) -> None:
            ids = make_places(change, made.places)
            place_keywords(change, {keyword: ids[place] for place, some in made.places.items()
                                    for keyword in some})  # fmt: skip
            added = duplicate_as(change, [plan.sheet.entries[row] for row in made.twins], "phrase")
            set_calls(change, added, "keep", "", "structure")
            of_twins = zip(added, made.twin_places, strict=True)
            place_keywords(change, {keyword: ids[place] for keyword, place in of_twins})
            twins = {ids[place]: {"blocks_twins": True} for place in made.twin_places}
            change.update(models.AdGroup, twins)
            new = {added[row - first_twin]: bid for row, bid in bids.items() if row >= first_twin}
            lock_bids(change, {**of_sheet, **new})

        return Decision(f"arrange by {body.kind}", do)

    return sent(work.change(plan_id, decide, window=window))


@dataclass(frozen=True)
class _Made:
    """A structure on its way to the store.

    Attributes
    ----------
    structure : Structure
    rows : Ints
        Which rows of the sheet it arranges.
    places : dict of Place to list of int
        Ids of the keywords that belong there.
    twins : list of int
        Exact rows to be repeated as phrase.
    twin_places : list of Place
    moves : int
        Keywords that are elsewhere now.
    largest : int
        Keywords of its fullest group.
    """

    structure: Structure
    rows: Ints
    places: dict[Place, list[int]]
    twins: list[int]
    twin_places: list[Place]
    moves: int
    largest: int


def _made(plan: OpenPlan, kind: StructureName, asked: StructureAsked) -> _Made:
    sheet, brief = plan.sheet, plan.record.brief
    rows = _rows(plan, asked.group_ids)
    most = asked.most or min(_USUAL_MOST, plan.written.profile.keywords_per_group)
    made = arrange(
        kind, brief, sheet.table.at(rows), np.nan_to_num(plan.result.demand.own[rows]),
        most=most, lexicon=lexicon_of(brief), brands=named_so(brief, "own", brief.name),
        rivals=named_so(brief, "rival"),
        phrase_texts={e.normalised for e in sheet.entries if e.match == "phrase"},
    )  # fmt: skip
    held = _places(plan)
    entries = [sheet.entries[row] for row in rows.tolist()]
    moves = moves_of(made, [held.get(entry.group_id) for entry in entries])
    places: dict[Place, list[int]] = {}
    for row, place in zip(rows.tolist(), moves.place_of_row, strict=True):
        places.setdefault(Place(*place), []).append(sheet.ids[row])
    twin_places = [Place(*place) for place in moves.twin_places]
    for one in twin_places:
        places.setdefault(one, [])
    sizes = np.bincount(np.concatenate((made.of_row, made.twin_group)), minlength=1)
    return _Made(made, rows, places, rows[made.twins].tolist(), twin_places, moves.moved,
                 int(sizes.max()) if len(rows) else 0)  # fmt: skip


def _rows(plan: OpenPlan, group_ids: Sequence[int]) -> Ints:
    """Return the kept rows that may be arranged: of the groups named, none of a locked one."""
    table, groups = plan.sheet.table, plan.sheet.structure.groups
    wanted = {plan.group_number(i) for i in group_ids}
    locked = [at for at, group in enumerate(groups) if group.locked]
    free = table.kept & ~np.isin(table.group, locked)
    if wanted:
        free &= np.isin(table.group, list(wanted))
    rows = np.flatnonzero(free)
    if wanted and not len(rows):
        raise NothingUsableError("None of these groups holds a kept keyword that may move.")
    return rows


def _proposal(plan: OpenPlan, made: _Made, choice: StructureChoice) -> Proposal:
    held = _places(plan)
    groups = plan.sheet.structure.groups
    with_ad = {held[one.group_id] for one in plan.record.ads}
    return proposal_of(
        plan.result, made.structure, made.rows, [held[g.id] for g in groups], with_ad,
        campaigns=[c.name for c in plan.sheet.structure.campaigns], lower=choice.lower,
        by=choice.by,
    )  # fmt: skip


def _places(plan: OpenPlan) -> dict[int | None, tuple[str, str]]:
    structure = plan.sheet.structure
    campaigns = {c.id: c.name for c in structure.campaigns}
    return {g.id: (campaigns[g.campaign_id], g.name) for g in structure.groups}
