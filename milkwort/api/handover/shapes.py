"""What upload sheets look like for the plan's platform: kept with its profile."""

from __future__ import annotations

from dataclasses import replace

from fastapi import APIRouter, Response

from milkwort.api.handover.files import columns_held
from milkwort.api.handover.schemas import SheetShape
from milkwort.api.handover.sheets import SHEETS
from milkwort.api.http.described import shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.core.brief.upload_shape import (
    FILE_NAME,
    ColumnChange,
    columns_of_sheet,
    with_changes,
    with_sheet_columns,
)
from milkwort.core.errors import BadValueError
from milkwort.store.brief_changes import change_brief

router = APIRouter(tags=["hand over"])


@router.post("/plans/{plan_id}/hand-over/shape", responses=shape_of(ChangeAnswer))
def put_shape(plan_id: int, body: SheetShape, work: Work, window: Window = "") -> Response:
    """Say what upload sheets look like for the plan's platform, and how files are named."""
    sheet = body.sheet
    if sheet is None and (body.columns or body.as_it_comes):
        raise BadValueError("sheet", "the sheet whose columns these are", "none")

    changes = [ColumnChange(**one.model_dump()) for one in body.columns]

    def decide(plan: OpenPlan) -> Decision:
        profile = plan.written.profile.as_own()
        if sheet is not None:
            columns = profile.upload_columns
            if body.as_it_comes:
                columns = tuple(one for one in columns if one.sheet != sheet)
            if changes:
                now = columns_of_sheet(sheet, columns_held(SHEETS[sheet](plan)), columns)
                columns = with_sheet_columns(columns, sheet, with_changes(now, changes))
            profile = replace(profile, upload_columns=columns)
        if body.file_name is not None:
            profile = replace(profile, upload_name=body.file_name or FILE_NAME)
        values = profile.as_dict()
        return Decision("shape of upload sheets", lambda c: change_brief(c, {"profile": values}))

    return sent(work.change(plan_id, decide, window=window))
