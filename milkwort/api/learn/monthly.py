"""The client's monthly page: looked at, and taken away as a file."""

from __future__ import annotations

from datetime import date
from typing import Any, Literal

import numpy as np
from fastapi import APIRouter, Query, Response

from milkwort.api.handover.report import TYPES, file_of, options_of, page_of
from milkwort.api.http.shared import Work, download_of
from milkwort.api.learn.beside import hand_counts
from milkwort.api.learn.held import held_against, late_of, sums_of
from milkwort.api.learn.known import Known, known_of
from milkwort.api.learn.month import campaign_names
from milkwort.api.learn.view import held_factors, undecided, verdict_rows
from milkwort.api.learn.word import words_of_plan
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.workspace import Workspace
from milkwort.core.handover.report.shape import Report
from milkwort.core.learn.campaign_days import campaign_days
from milkwort.core.learn.learned import overall_factors
from milkwort.core.learn.monthly import ForMonth, Line, monthly_of, no_month
from milkwort.core.learn.pace import pace_of
from milkwort.formats.learn_headless import result_rows_of

router = APIRouter(tags=["learn"])


@router.get(
    "/plans/{plan_id}/learn/page.html",
    response_class=Response,
    responses={200: {"content": {"text/html": {"schema": {"type": "string"}}}}},
)
def look(plan_id: int, work: Work) -> Response:
    """Return the newest month's page as it will be printed, to be looked at."""
    plan, report = _made(work, plan_id)
    return page_of(work, plan, report)


@router.get(
    "/plans/{plan_id}/learn/page/{kind}",
    response_class=Response,
    responses=download_of(*TYPES.values()),
)
def take(
    plan_id: int,
    kind: Literal["html", "pdf", "xlsx", "csv"],
    work: Work,
    paper: Literal["a4", "us-letter"] | None = Query(default=None),
) -> Response:
    """Return the newest month's page as a file."""
    plan, report = _made(work, plan_id)
    return file_of(work, plan, report, kind, paper, "-month")


def _made(work: Workspace, plan_id: int) -> tuple[OpenPlan, Report]:
    plan = work.plan(plan_id)
    known = known_of(work, plan)
    if known.learned is None:
        return plan, no_month(plan.record.name, date.today(), options_of(plan))
    return plan, monthly_of(_about(work, plan, known), options_of(plan))


def _about(work: Workspace, plan: OpenPlan, known: Known) -> ForMonth:
    words = words_of_plan(work, plan.record.id)
    newest, learned = words.months[0], known.learned
    assert known.rows is not None
    assert learned is not None
    rows = result_rows_of(known.rows, known.keyword)
    inside = np.flatnonzero((rows.first >= newest.first.toordinal())
                            & (rows.last <= newest.last.toordinal()))  # fmt: skip
    end = newest.end
    came = newest.came
    terms = undecided(plan, known)
    held_to = held_against(plan, known, newest.first, newest.last)
    now = known.spans[-1].plan
    stops, raises = verdict_rows(plan, learned)
    held = held_factors(plan)
    return ForMonth(
        name=plan.record.name, first=newest.first, last=newest.last, end=end, today=date.today(),
        came=came, words=newest.words,
        pace=pace_of(now.result, came.spend, words.purse, newest.first, newest.last, end),
        allowed=plan.record.brief.worth.allowed,
        late=late_of(held_to),
        by_hand=hand_counts(known, newest.first, newest.last)[0],
        why=sums_of(held_to)[0],
        campaigns=_campaigns(plan, rows.at(inside)), keywords=_sold(plan, rows.at(inside)),
        factors={name: factor / held.get(name, 1.0)
                 for name, factor in overall_factors(learned).items()},
        terms=len(terms),
        terms_spend=0.0 if known.terms is None else float(known.terms.cost[terms].sum()),
        blocked=len(plan.record.brief.negatives), stops=len(stops), raises=len(raises),
    )  # fmt: skip


def _campaigns(plan: OpenPlan, rows: Any) -> list[Line]:
    found = campaign_days(plan.result, rows)
    return [
        Line(name, float(found.clicks[at]), float(found.spend[at]), float(found.customers[at]))
        for at, name in enumerate(campaign_names(plan, found))
    ]


def _sold(plan: OpenPlan, rows: Any) -> list[Line]:
    """Return the keywords that sold, most customers first."""
    n, mine = len(plan.result.table), rows.at(np.flatnonzero(rows.keyword >= 0))
    clicks, spend, customers = (
        np.bincount(mine.keyword, column, minlength=n)
        for column in (mine.clicks, mine.cost, mine.customers)
    )
    order = np.lexsort((spend, -customers))
    return [
        Line(plan.sheet.entries[row].text, float(clicks[row]), float(spend[row]),
             float(customers[row]))
        for row in order.tolist() if customers[row] > 0
    ]  # fmt: skip
