"""How sure a forecast is: the month drawn, what moves it, what would have to be true."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from fastapi import APIRouter, Response

from milkwort.api.fit.sure_schemas import HowSureView
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Job, Work, sent
from milkwort.api.plan.columns import plain
from milkwort.api.plan.drawing import Drawn
from milkwort.core.plan.budget_use import BudgetUse, budget_use
from milkwort.core.plan.dots import MONTHS_A_DOT, dots_of
from milkwort.core.plan.draws import GroupDoubt
from milkwort.core.plan.must_be import MustBe, Turn, must_be
from milkwort.core.plan.odds import odds_of
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.spreads import spreads_of

router = APIRouter(tags=["fit"])

_GROUPS = 12
_SPREAD = {
    "searches": "draw_searches", "variants": "draw_variants", "prices": "draw_price",
    "click rate": "draw_click_rate", "conversion": "",
}  # fmt: skip
"""The assumption that says how far an input is spread; the brief says that of conversion."""
_TAUGHT = {"searches": "searches", "prices": "price", "click rate": "click_rate"}
"""Inputs that are spread as results leave them, once they were taken over."""


@router.get("/plans/{plan_id}/how-sure", responses=shape_of(HowSureView))
def how_sure(plan_id: int, work: Work, job: Job = "") -> Response:
    """Draw the month and say how sure it is; null where the plan changed meanwhile."""
    with work.jobs.under_way(plan_id, job) as progress:
        drawn = work.drawing.drawn(plan_id, lambda done, of: progress("months drawn", done, of))
        if drawn is None:
            return sent(None)

        def still_wanted() -> bool:
            progress("what would use the money", 0, 1)
            return not work.drawing.ended

        use = work.drawing.aside(lambda: budget_use(drawn.loaded.result, drawn.draws, still_wanted))
    return sent(_view(drawn, use))


def _view(drawn: Drawn, use: BudgetUse) -> dict[str, Any]:
    result, draws = drawn.loaded.result, drawn.draws
    return {
        "revision": drawn.revision,
        "draws": draws.count,
        "months_a_dot": MONTHS_A_DOT,
        "figures": {
            name: {
                "expected": plain(getattr(result.totals, name)),
                **{end: plain(getattr(found, end)) for end in ("low", "middle", "high")},
                "dots": [plain(dot) for dot in dots_of(draws.figures[name]).tolist()],
            }
            for name, found in draws.ranges.items()
        },
        "odds": [asdict(odd) for odd in odds_of(result, draws)],
        "moves": [
            {
                "input": name, "customers_low": swing.customers[0],
                "customers_high": swing.customers[1], "profit_low": swing.profit[0],
                "profit_high": swing.profit[1], **_spread_of(result, name),
            }
            for name, swing in draws.moves.items()
        ],
        "must": [_must(one) for one in must_be(result)],
        "groups": [_doubt(drawn, one) for one in draws.groups[:_GROUPS]],
        "use": {
            "purse": use.purse, "low": use.spend.low, "middle": use.spend.middle,
            "high": use.spend.high, "spent": use.spent, "cut": use.cut,
            "not_searched": use.not_searched, "not_planned": use.not_planned,
            "remedies": [asdict(remedy) for remedy in use.remedies],
        },
    }  # fmt: skip


def _spread_of(result: PlanResult, name: str) -> dict[str, Any]:
    """Return how far an input is spread, and the assumption that says so, if one does."""
    if result.brief.taught is not None and name in _TAUGHT:
        return {"assumption": "", "spread": float(getattr(spreads_of(result).plan, _TAUGHT[name]))}
    said = _SPREAD[name]
    return {"assumption": said, "spread": result.brief.assumed[said] if said else None}


def _must(one: MustBe) -> dict[str, Any]:
    def turn(at: Turn) -> dict[str, Any]:
        value = None if at.times is None or one.now is None else one.now * at.times
        return {"times": at.times, "value": value, "chance": at.chance}

    return {"input": one.input, "now": one.now, "rule": turn(one.rule), "even": turn(one.even),
            "nothing": turn(one.nothing)}  # fmt: skip


def _doubt(drawn: Drawn, one: GroupDoubt) -> dict[str, Any]:
    sheet = drawn.loaded.sheet
    if one.spot is not None:
        group, name = None, sheet.structure.spots[one.spot].spot.name
    elif one.group is None or one.group < 0:
        group, name = None, "No group"
    else:
        group, name = sheet.structure.groups[one.group].id, sheet.labels[one.group]
    return {"key": doubt_key(drawn, one), "group_id": group, "name": name, "share": one.share,
            **asdict(one.customers)}  # fmt: skip


def doubt_key(drawn: Drawn, one: GroupDoubt) -> str:
    """Return what the doubt of one group or spot is known by, whatever it is called."""
    structure = drawn.loaded.sheet.structure
    if one.spot is not None:
        return structure.spots[one.spot].key
    if one.group is None or one.group < 0:
        return ""
    return structure.groups[one.group].key
