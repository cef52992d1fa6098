"""Sift: the sheet by theme."""

from __future__ import annotations

from typing import Any

import numpy as np
from fastapi import APIRouter, Response

from milkwort.api.http.described import Given, shape_of
from milkwort.api.http.shared import Work, sent
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.arrange.grouping import Groups
from milkwort.core.sift.themes import themes_of

router = APIRouter(tags=["sift"])

_KEPT = 8
_found: dict[int, tuple[tuple[str, ...], Any, Groups]] = {}
"""The last themes by plan: they follow from its texts and its words alone."""


class ThemesView(Given):
    """The themes of a sheet: what each is called, and the place of each row's."""

    names: list[str]
    of_row: list[int]


@router.get("/plans/{plan_id}/sift/themes", responses=shape_of(ThemesView))
def themes(plan_id: int, work: Work) -> Response:
    """Return the theme of each keyword, in the sheet's order."""
    found = _themes(work.plan(plan_id))
    return sent({"names": list(found.labels), "of_row": found.of_row})


def _themes(plan: OpenPlan) -> Groups:
    texts, lexicon = plan.sheet.table.texts, plan.written.lexicon
    held = _found.get(plan.record.id)
    if held is not None and held[0] == texts and held[1] is lexicon:
        return held[2]
    made = themes_of(texts, np.nan_to_num(plan.result.demand.own), lexicon)
    while len(_found) >= _KEPT:
        _found.pop(next(iter(_found)), None)
    _found[plan.record.id] = (texts, lexicon, made)
    return made
