"""The Arrange stage: ad groups, ready structures, conflicts."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, get_args

import numpy as np
from fastapi import APIRouter, Response

from milkwort.api.arrange_schemas import (
    ArrangeView,
    GroupEdit,
    KeywordMove,
    StructureChoice,
    StructureItem,
)
from milkwort.api.columns import tidy
from milkwort.api.loaded import Loaded
from milkwort.api.schemas import ChangeAnswer, shape_of
from milkwort.api.shared import Window, Work, sent
from milkwort.core import conflicts as core_conflicts
from milkwort.core.errors import BadValueError
from milkwort.core.group_figures import group_figures, shared_words
from milkwort.core.structures import KINDS, StructureName, arrange, lexicon_of
from milkwort.store.edits import duplicate_as
from milkwort.store.groups import (
    GroupRecord,
    Placement,
    edit_group,
    list_groups,
    place_keywords,
)
from milkwort.store.journal import Change
from milkwort.store.keywords import set_calls
from milkwort.store.past_lists import load_past

router = APIRouter(tags=["arrange"])


@router.get("/plans/{plan_id}/arrange", responses=shape_of(ArrangeView))
def view(plan_id: int, work: Work) -> Response:
    """Return the plan's ad groups with what they hold and do, and its conflicts."""
    loaded = work.plan(plan_id)
    with work.database.begin() as session:
        groups = list_groups(session, plan_id)
        past = load_past(session, plan_id, "terms")
    sold = [row.text for row in (past.rows if past else ()) if row.customers]
    return sent(
        {
            "revision": loaded.record.revision,
            "groups": _columns(loaded, groups),
            "alone": int((loaded.sheet.table.group < 0).sum()),
            "conflicts": _conflicts(loaded, sold),
        }
    )


@router.get("/plans/{plan_id}/arrange/structures")
def structures(plan_id: int, work: Work) -> list[StructureItem]:
    """Return what each ready structure would make of the kept keywords."""
    loaded = work.plan(plan_id)
    items = []
    for kind in get_args(StructureName):
        made = _made(loaded, kind)
        items.append(
            StructureItem(
                kind=kind, says=KINDS[kind], campaigns=sorted({p.campaign for p in made.places}),
                groups=len(made.places), moves=made.moves, adds=len(made.twins),
            )
        )  # fmt: skip
    return items


@router.post("/plans/{plan_id}/arrange/structure", responses=shape_of(ChangeAnswer))
def take_structure(
    plan_id: int, body: StructureChoice, work: Work, window: Window = ""
) -> Response:
    """Arrange the kept keywords by a ready structure; undo puts them back."""
    loaded = work.plan(plan_id)
    made = _made(loaded, body.kind)

    def do(change: Change) -> None:
        entries = [loaded.sheet.entries[row] for row in made.twins]
        added = duplicate_as(change, entries, "phrase") if entries else []
        if added:
            set_calls(change, added, "keep", "", "structure")
        of_twin: dict[str, list[int]] = {}
        for group, keyword in zip(made.twin_groups, added, strict=True):
            of_twin.setdefault(group, []).append(keyword)
        place_keywords(
            change,
            [Placement(p.campaign, p.group, [*p.ids, *of_twin.get(p.group, [])])
             for p in made.places],
        )  # fmt: skip

    return sent(work.change(plan_id, f"arrange by {body.kind}", do, window=window))


@router.post("/plans/{plan_id}/arrange/move", responses=shape_of(ChangeAnswer))
def move(plan_id: int, body: KeywordMove, work: Work, window: Window = "") -> Response:
    """Put keywords into a group."""
    loaded = work.plan(plan_id)
    loaded.sheet.rows_of(body.ids)
    group = " ".join(body.group.split())
    if not group:
        raise BadValueError("group", "a name", body.group)
    with work.database.begin() as session:
        known = list_groups(session, plan_id)
    campaign = body.campaign or next(
        (g.campaign for g in known if g.name == group), known[0].campaign if known else "Search"
    )
    many = f"{len(body.ids):,} keywords" if len(body.ids) > 1 else "1 keyword"
    return sent(
        work.change(
            plan_id, f"move {many} to {group}",
            lambda c: place_keywords(c, [Placement(campaign, group, body.ids)]), window=window,
        )
    )  # fmt: skip


@router.post("/plans/{plan_id}/arrange/groups/{group_id}", responses=shape_of(ChangeAnswer))
def edit(plan_id: int, group_id: int, body: GroupEdit, work: Work, window: Window = "") -> Response:
    """Name a group, or say which page its ads lead to."""
    return sent(
        work.change(
            plan_id, "change an ad group",
            lambda c: edit_group(c, group_id, name=body.name, page=body.page), window=window,
        )
    )  # fmt: skip


@dataclass(frozen=True)
class _Made:
    """A structure on its way to the store: places by name, and exact rows to repeat as phrase."""

    places: list[Placement]
    twins: list[int]
    twin_groups: list[str]
    moves: int


def _made(loaded: Loaded, kind: StructureName) -> _Made:
    sheet = loaded.sheet
    rows = np.flatnonzero(sheet.table.kept)
    brief = loaded.record.brief
    made = arrange(
        kind, brief, sheet.table.at(rows), np.nan_to_num(loaded.result.demand.own[rows]),
        lexicon=lexicon_of(brief),
    )  # fmt: skip
    names = _different(made.campaigns, made.groups)
    of_group: list[list[int]] = [[] for _ in made.groups]
    moves = 0
    for row, number in zip(rows.tolist(), made.of_row.tolist(), strict=True):
        of_group[number].append(sheet.ids[row])
        held = sheet.entries[row]
        there = (made.campaigns[made.groups[number][0]], names[number])
        moves += (held.campaign, held.group) != there
    used = {int(g) for g in made.twin_group}
    places = [
        Placement(made.campaigns[made.groups[at][0]], names[at], ids)
        for at, ids in enumerate(of_group)
        if ids or at in used
    ]
    twins = [int(rows[t]) for t in made.twins]
    return _Made(places, twins, [names[int(g)] for g in made.twin_group], moves)


def _different(campaigns: tuple[str, ...], groups: tuple[tuple[int, str], ...]) -> list[str]:
    """Return the groups' names, each once in the plan: one that repeats says its campaign."""
    seen: set[str] = set()
    names = []
    for campaign, name in groups:
        own = name if name not in seen else f"{name}, {campaigns[campaign].lower()}"
        seen.add(own)
        names.append(own)
    return names


def _columns(loaded: Loaded, groups: list[GroupRecord]) -> dict[str, Any]:
    sheet = loaded.sheet
    figures = group_figures(loaded.result, len(sheet.groups))
    place = {name: at for at, name in enumerate(sheet.groups)}
    texts: dict[str, list[str]] = {}
    for entry in sheet.entries:
        texts.setdefault(entry.group, []).append(entry.normalised)
    lexicon = lexicon_of(loaded.record.brief)
    # a group that holds nothing has no number in the table
    at = np.array([place.get(g.name, len(sheet.groups)) for g in groups], dtype=np.int64)

    def column(values: Any) -> Any:
        return np.append(values, values.dtype.type(0))[at] if len(at) else values[:0]

    return {
        "id": [g.id for g in groups],
        "name": [g.name for g in groups],
        "campaign": [g.campaign for g in groups],
        "page": [g.page for g in groups],
        "keywords": column(figures.keywords),
        "kept": column(figures.kept),
        "running": column(figures.running),
        "searches": tidy(column(figures.searches)),
        "clicks": tidy(column(figures.clicks)),
        "spend": tidy(column(figures.spend)),
        "customers": tidy(column(figures.customers)),
        "words": [
            [
                {"word": word, "keywords": held}
                for word, held in shared_words(texts.get(g.name, []), lexicon)
            ]
            for g in groups
        ],
    }


def _conflicts(loaded: Loaded, sold: list[str]) -> list[dict[str, Any]]:
    sheet = loaded.sheet
    return [
        {
            "kind": c.kind,
            "says": core_conflicts.KINDS[c.kind],
            "negative": c.negative,
            "count": c.count,
            "ids": [sheet.ids[row] for row in c.rows],
            "texts": [sheet.entries[row].text for row in c.rows],
            "searches": c.searches,
            "customers": c.customers,
            "spend": c.spend,
            "terms": list(c.terms),
        }
        for c in core_conflicts.conflicts_of(loaded.result, sold)
    ]
