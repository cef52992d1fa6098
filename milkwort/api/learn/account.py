"""A running account looked over: what results show, with conflicts and last checks."""

from __future__ import annotations

from typing import Any

import numpy as np
from fastapi import APIRouter, Response

from milkwort.api.handover.routes import checks_of
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Work, sent
from milkwort.api.learn.known import known_of
from milkwort.api.learn.month import campaign_names, month_rows
from milkwort.api.learn.schemas import LookedOver
from milkwort.api.learn.view import stopped_terms
from milkwort.core.learn.campaign_days import campaign_days
from milkwort.core.learn.look_over import Account, look_over
from milkwort.formats.learn_headless import result_rows_of

router = APIRouter(tags=["learn"])


@router.get("/plans/{plan_id}/learn/account", responses=shape_of(LookedOver))
def looked_over(plan_id: int, work: Work) -> Response:
    """Return what stands out in the account: most money first, then checks in order of harm."""
    plan = work.plan(plan_id)
    known = known_of(work, plan)
    found: list[dict[str, Any]] = []
    if known.learned is not None and known.rows is not None:
        rows = result_rows_of(known.rows, known.keyword)
        days = campaign_days(plan.result, month_rows(known, rows))
        places = [" / ".join(pair) if any(pair) else "" for pair in
                  zip(known.rows.campaign, known.rows.group, strict=True)]  # fmt: skip
        account = Account(
            rows=rows, places=places, texts=[entry.text for entry in plan.sheet.entries],
            groups=plan.sheet.labels, group=plan.result.table.group, campaigns=days,
            campaign_names=campaign_names(plan, days), terms=known.terms,
            stopped=np.array(stopped_terms(plan, known), dtype=bool),
            allowed=plan.record.brief.worth.allowed,
        )  # fmt: skip
        found = [vars(one) for one in look_over(account, known.learned)]
    found += [
        {"code": check.code, "text": check.text, "stage": check.stage, "money": None,
         "names": check.names}
        for check in checks_of(work, plan)
    ]  # fmt: skip
    return sent({"revision": plan.record.revision, "found": found})
