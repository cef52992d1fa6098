"""Any list as it is shown, as a file."""

from __future__ import annotations

from typing import Annotated, Literal

from fastapi import APIRouter, Response
from pydantic import Field

from milkwort.api.http.shared import attached, download_of
from milkwort.api.plan.schemas import Taken
from milkwort.formats.shown_table import shown_csv, shown_xlsx

router = APIRouter(tags=["lists"])

_MAKERS = {"csv": shown_csv, "xlsx": shown_xlsx}
_TYPES = {
    "csv": "text/csv; charset=utf-8",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
}

ListCell = Annotated[str, Field(max_length=5_000)] | float | None


class ShownList(Taken):
    """A list by columns: what stands over each, and its cells from top to bottom."""

    name: str = Field(max_length=200)
    heads: list[Annotated[str, Field(max_length=200)]] = Field(min_length=1, max_length=100)
    columns: list[list[ListCell]] = Field(min_length=1, max_length=100)
    kind: Literal["csv", "xlsx"]


@router.post("/lists", response_class=Response, responses=download_of(*_TYPES.values()))
def as_file(body: ShownList) -> Response:
    """Return the list as a file; texts that a spreadsheet would run are made harmless."""
    content = _MAKERS[body.kind](body.heads, body.columns)
    return attached(content, _TYPES[body.kind], f"{body.name}.{body.kind}")
