"""The year ahead: twelve months, their ranges, the days of each."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date
from typing import Annotated

import numpy as np
from fastapi import APIRouter, Path, Response

from milkwort.api.fit.year_schemas import MonthChange, MonthView, YearRanges, YearView
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Job, Window, Work, sent
from milkwort.api.plan.columns import plain
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.routes import workings_answer
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.api.sift.workings_schemas import Workings
from milkwort.core.arrays import Floats
from milkwort.core.brief.values import sum_for
from milkwort.core.errors import NothingUsableError
from milkwort.core.plan.calendar import months_from
from milkwort.core.plan.cents import in_cents
from milkwort.core.plan.days import month_days
from milkwort.core.plan.draws import Range
from milkwort.core.plan.one_month import is_fitted
from milkwort.core.plan.shift import with_month
from milkwort.core.plan.spread import best_spread
from milkwort.core.plan.year import YearAhead
from milkwort.core.plan.year_draws import draw_year
from milkwort.core.workings.month import month_workings
from milkwort.store.brief_changes import change_brief

__all__ = ["router", "year_of"]

router = APIRouter(tags=["year"])

MonthNumber = Annotated[int, Path(ge=0, le=11)]


def year_of(plan: OpenPlan) -> YearAhead:
    """Return the year ahead as a plan's brief has it."""
    values = plan.record.values
    last = values["last_day"]
    months = months_from(
        date.fromisoformat(str(values["start_date"])), date.fromisoformat(last) if last else None
    )
    return YearAhead(
        plan.result, months, purse=values["year_purse"], refit=values["year_refit"],
        own=values["year_months"],
    )  # fmt: skip


@router.get("/plans/{plan_id}/year", responses=shape_of(YearView))
def view(plan_id: int, work: Work) -> Response:
    """Return the twelve months ahead."""
    plan = work.plan(plan_id)
    ahead = year_of(plan)
    found = ahead.sums()
    # each month to the cent, and the year as the sum of what the months show
    whole = ("spend", "revenue", "profit", "market")
    money = {name: np.round(getattr(found, name), 2) for name in whole}
    money["purse"] = in_cents(found.purse)
    money["gross"] = np.round([sum_of(plan, purse) for purse in money["purse"].tolist()], 2)
    sums = {name: round(float(column.sum()), 2) for name, column in money.items()}
    customers = float(found.customers.sum())
    return sent({
        "revision": plan.record.revision,
        "kind": plan.record.values["year_purse"],
        "refit": plan.record.values["year_refit"],
        "can_refit": is_fitted(plan.result),
        "first": [day.isoformat() for day in ahead.months.first],
        "days": found.days, "index": found.index, **money,
        "clicks": found.clicks, "customers": found.customers,
        "cost_per_customer": _each(found.spend, found.customers),
        "sums": {
            **{name: value for name, value in sums.items() if name != "market"},
            "clicks": float(found.clicks.sum()), "customers": customers,
            "cost_per_customer": sums["spend"] / customers if customers > 0 else None,
        },
    })  # fmt: skip


def sum_of(plan: OpenPlan, purse: float) -> float:
    """Return what a client pays in a month whose purse it is: with its fee and tax."""
    return next(iter(sum_for(plan.record.values, purse).values())) if purse > 0 else 0.0


def _each(spend: Floats, customers: Floats) -> list[float | None]:
    return [s / c if c > 0 else None for s, c in
            zip(spend.tolist(), customers.tolist(), strict=True)]  # fmt: skip


@router.get("/plans/{plan_id}/year/ranges", responses=shape_of(YearRanges))
def ranges(plan_id: int, work: Work, job: Job = "") -> Response:
    """Draw the twelve months; null where the plan changed meanwhile."""
    plan = work.plan(plan_id)
    ahead = year_of(plan)
    with work.jobs.under_way(plan_id, job) as progress:

        def told(months: int) -> bool:
            progress("months drawn", months, 12)
            return not work.drawing.ended and work.plan(plan_id) is plan

        drawn = work.drawing.aside(lambda: draw_year(ahead, work.settings.draws // 2, told=told))
    if drawn is None:
        return sent(None)
    return sent({
        "revision": plan.record.revision,
        "draws": drawn.count,
        "months": [{name: _range(r) for name, r in month.items()} for month in drawn.months],
        "year": {name: _range(r) for name, r in drawn.year.items()},
    })  # fmt: skip


def _range(r: Range) -> dict[str, float | None]:
    return {"low": plain(r.low), "middle": plain(r.middle), "high": plain(r.high)}


@router.get("/plans/{plan_id}/year/months/{month}", responses=shape_of(MonthView))
def days(plan_id: int, month: MonthNumber, work: Work) -> Response:
    """Return one month by its days."""
    plan = work.plan(plan_id)
    ahead = year_of(plan)
    there = ahead.month(month)
    found = month_days(there, ahead.months.dates(month))
    campaigns = plan.sheet.structure.campaigns
    return sent({
        "revision": plan.record.revision,
        "month": month,
        "first": ahead.months.first[month].isoformat(),
        "dates": [day.isoformat() for day in found.dates],
        "spend": found.spend,
        "purse": float(in_cents(ahead.purse)[month]),
        "total": round(float(found.spend.sum()), 2),
        "week": found.week,
        "campaigns": [
            asdict(one) | {
                "campaign_id": campaigns[one.campaign].id if one.campaign >= 0 else None,
                "campaign": campaigns[one.campaign].name if one.campaign >= 0 else "No campaign",
            }
            for one in found.campaigns
        ],
        "budgets": round(sum(one.daily for one in found.campaigns) * len(found.dates), 2),
        "lost": sum(one.lost for one in found.campaigns),
        "lost_shared": found.lost_shared,
    })  # fmt: skip


@router.get("/plans/{plan_id}/year/months/{month}/workings", responses=shape_of(Workings))
def workings(plan_id: int, month: MonthNumber, work: Work) -> Response:
    """Return how one month comes about."""
    plan = work.plan(plan_id)
    ahead = year_of(plan)
    sections = month_workings(ahead, month, plan.record.values["year_purse"])
    title = ahead.months.first[month].strftime("%B %Y")
    return sent(workings_answer(plan.record.revision, title, "", [], sections))


@router.post("/plans/{plan_id}/year/month", responses=shape_of(ChangeAnswer))
def put_month(plan_id: int, body: MonthChange, work: Work, window: Window = "") -> Response:
    """Give one month another sum."""

    def decide(plan: OpenPlan) -> Decision:
        ahead = year_of(plan)
        moved = with_month(in_cents(ahead.purse), body.month, body.money, keep_sum=body.keep_sum,
                           lived=ahead.months.days > 0)  # fmt: skip
        fields = {"year_purse": "own", "year_months": moved.tolist()}
        name = ahead.months.first[body.month].strftime("%B")
        return Decision(f"the money of {name}", lambda c: change_brief(c, fields))

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/year/best", responses=shape_of(ChangeAnswer))
def spread(plan_id: int, work: Work, window: Window = "") -> Response:
    """Spread the year's money as it brings most: with equal return at the margin."""

    def decide(plan: OpenPlan) -> Decision:
        if not is_fitted(plan.result):
            raise NothingUsableError("The best spread needs fitted bids; these follow a method.")
        ahead = year_of(plan)
        money = best_spread(ahead, float(in_cents(ahead.purse).sum()))
        fields = {"year_purse": "own", "year_months": money.tolist(), "year_refit": True}
        return Decision("the best spread of the year", lambda c: change_brief(c, fields))

    return sent(work.change(plan_id, decide, window=window))
