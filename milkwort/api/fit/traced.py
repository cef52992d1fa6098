"""Workings of what Fit shows beside bids: of draws, and of versions side by side."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Annotated, Literal

from fastapi import APIRouter, Query, Response

from milkwort.api.fit.how_sure import doubt_key
from milkwort.api.fit.versions import family_plans, side_of
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Work, sent
from milkwort.api.plan.drawing import Drawn
from milkwort.api.plan.routes import workings_answer
from milkwort.api.sift.workings_schemas import Workings
from milkwort.core.errors import NotFoundError
from milkwort.core.plan.budget_use import budget_use
from milkwort.core.plan.must_be import must_be
from milkwort.core.plan.odds import odds_of
from milkwort.core.plan.versions import apart
from milkwort.core.workings.keyword import Section
from milkwort.core.workings.sure import (
    doubt_workings,
    drawn_workings,
    move_workings,
    must_workings,
    odd_workings,
    use_workings,
)
from milkwort.core.workings.versions import apart_workings, standing_workings

router = APIRouter(tags=["fit"])

Traced = Literal["month", "odd", "move", "must", "doubt", "use"]
Standing = Literal[
    "purse", "spend", "clicks", "customers", "cost_per_customer", "revenue", "profit", "searches",
    "kept", "running", "year_spend", "year_customers", "year_profit",
]  # fmt: skip
Name = Annotated[str, Query(max_length=400)]

_FIGURES = {
    "clicks": "Clicks a month", "spend": "Spend a month", "customers": "Customers a month",
    "cost_per_customer": "What a customer costs", "revenue": "Revenue a month",
    "profit": "Profit a month",
}  # fmt: skip
_STANDING = _FIGURES | {
    "purse": "Purse a month", "searches": "Searches a month", "kept": "Keywords kept",
    "running": "Keywords that run", "year_spend": "Spend in twelve months",
    "year_customers": "Customers in twelve months", "year_profit": "Profit in twelve months",
}  # fmt: skip
Told = tuple[str, list[Section]]


@router.get("/plans/{plan_id}/how-sure/workings/{of}", responses=shape_of(Workings, or_none=True))
def sure(plan_id: int, of: Traced, work: Work, name: Name = "") -> Response:
    """Return how one figure of How sure comes about; null where the plan changed meanwhile."""
    drawn = work.drawing.drawn(plan_id)
    if drawn is None:
        return sent(None)
    found = _TOLD[of](drawn, name)
    if found is None:
        raise NotFoundError("This is nothing that the draws of this plan say.", "name")
    about = f"{drawn.draws.count:,} months drawn"
    return sent(workings_answer(drawn.revision, found[0], about, [], found[1]))


def _month(drawn: Drawn, name: str) -> Told | None:
    if name not in _FIGURES:
        return None
    return _FIGURES[name], drawn_workings(drawn.loaded.result, drawn.draws, name)


def _odd(drawn: Drawn, name: str) -> Told | None:
    for odd in odds_of(drawn.loaded.result, drawn.draws):
        if odd.says == name:
            return f"{odd.says[:1].upper()}{odd.says[1:]}", odd_workings(odd, drawn.draws)
    return None


def _move(drawn: Drawn, name: str) -> Told | None:
    if name not in drawn.draws.moves:
        return None
    return f"What moves it: {name}", move_workings(drawn.loaded.result, drawn.draws, name)


def _must(drawn: Drawn, name: str) -> Told | None:
    for one in must_be(drawn.loaded.result):
        if one.input == name:
            return f"What would have to be true: {name}", must_workings(one)
    return None


def _doubt(drawn: Drawn, name: str) -> Told | None:
    for one in drawn.draws.groups:
        if doubt_key(drawn, one) == name:
            return "Where the doubt lies", doubt_workings(one, drawn.draws)
    return None


def _use(drawn: Drawn, _: str) -> Told:
    use = budget_use(drawn.loaded.result, drawn.draws, lambda: False)
    return "What of the purse will go", use_workings(use)


_TOLD: Mapping[Traced, Callable[[Drawn, str], Told | None]] = {
    "month": _month, "odd": _odd, "move": _move, "must": _must, "doubt": _doubt, "use": _use,
}  # fmt: skip


@router.get("/plans/{plan_id}/standing/{figure}/workings", responses=shape_of(Workings))
def standing(plan_id: int, figure: Standing, work: Work) -> Response:
    """Return how one figure of a version comes about, as it stands beside others."""
    plan = work.plan(plan_id)
    sections = standing_workings(side_of(plan), figure)
    name = plan.record.label
    return sent(workings_answer(plan.record.revision, _STANDING[figure], name, [], sections))


@router.get(
    "/plans/{plan_id}/compare/{other_id}/workings", responses=shape_of(Workings, or_none=True)
)
def beats(plan_id: int, other_id: int, work: Work) -> Response:
    """Return how often another version brings more; null where one changed meanwhile."""
    family_plans(work, plan_id, [other_id])
    first, second = work.drawing.drawn(plan_id), work.drawing.drawn(other_id)
    if first is None or second is None:
        return sent(None)
    sections = apart_workings(first.draws.count, apart(first.draws, second.draws))
    return sent(workings_answer(first.revision, "How often it brings more",
                                "both met the same luck", [], sections))  # fmt: skip
