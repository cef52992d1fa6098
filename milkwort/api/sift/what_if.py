"""Something tried before it is kept: an assumption, a field of the brief, the line moved."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from fastapi import APIRouter, Response

from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.api.plan.summary import purse_block
from milkwort.api.sift.schemas import LineChange, LineOrder, WhatIf, WhatIfAnswer
from milkwort.core.brief.brief import Brief
from milkwort.core.market.standing import Stand
from milkwort.core.plan.run import run_plan
from milkwort.core.plan.the_line import price_that_admits, rule_that_admits
from milkwort.store.brief_changes import change_brief
from milkwort.store.briefs import brief_of
from milkwort.store.sheet import with_brief

router = APIRouter(tags=["sift"])


@router.post("/plans/{plan_id}/try", responses=shape_of(WhatIfAnswer))
def attempt(plan_id: int, body: WhatIf, work: Work) -> Response:
    """Work the plan out as if, and return its purse; nothing is kept."""
    loaded = work.plan(plan_id)
    brief = _brief(loaded, body)
    sheet = with_brief(loaded.sheet, replace(loaded.record, brief=brief))
    result = run_plan(brief, sheet.table, loaded.result)
    beyond = int((result.standing.standing == Stand.BEYOND).sum())
    return sent(
        {
            "purse": purse_block(result, sheet),
            "ceiling_rule": brief.ceiling.rule,
            "ceiling_value": brief.ceiling.value,
            "max_cpc": brief.ceiling.max_cpc,
            "beyond": beyond,
        }
    )


@router.post("/plans/{plan_id}/sift/line", responses=shape_of(ChangeAnswer))
def move_line(plan_id: int, body: LineChange, work: Work, window: Window = "") -> Response:
    """Change the rule behind the ceilings so that a keyword just comes to the line."""

    def decide(plan: OpenPlan) -> Decision:
        fields = _moved(plan, body.id, body.by)
        return Decision("move the line", lambda c: change_brief(c, fields))

    return sent(work.change(plan_id, decide, window=window))


def _moved(loaded: OpenPlan, keyword: int, by: LineOrder) -> dict[str, Any]:
    """Return the fields of the brief that put the line under a keyword."""
    (row,) = loaded.sheet.rows_of([keyword])
    if by == "price":
        return {"max_cpc": price_that_admits(loaded.result, row)}
    rule = rule_that_admits(loaded.result, row)
    return {"ceiling_rule": rule.rule, "ceiling_value": rule.value}


def _brief(loaded: OpenPlan, body: WhatIf) -> Brief:
    record = loaded.record
    fields = body.brief.given() if body.brief else {}
    if body.line is not None:
        fields |= _moved(loaded, body.line, body.by)
    changed = record.assumptions | {k: v for k, v in body.assumptions.items() if v is not None}
    for name, value in body.assumptions.items():
        if value is None:
            changed.pop(name, None)
    return brief_of(
        record.name, record.values | fields, changed, record.negatives, record.own.word_kinds,
        record.structure, record.offer_ids,
    )  # fmt: skip
