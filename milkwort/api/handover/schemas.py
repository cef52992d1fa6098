"""What Hand over takes and gives."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from milkwort.api.plan.schemas import Taken
from milkwort.api.plan.summary_schemas import Summary

__all__ = [
    "CheckItem",
    "HandOverItem",
    "HandOverMade",
    "HandOverRequest",
    "HandOverView",
    "UploadLine",
]


class HandOverRequest(Taken):
    """Which file to make."""

    kind: Literal["csv", "xlsx", "json"]


class HandOverItem(BaseModel):
    """A frozen copy of what was sent."""

    id: int
    kind: str
    filename: str
    at: str
    revision: int
    rows: int
    sha256: str


class UploadLine(BaseModel):
    """One row of the upload sheet; bid is money a click, null where it doesn't run."""

    campaign: str
    group: str
    keyword: str
    match: str
    bid: float | None
    ref: str


class CheckItem(BaseModel):
    """One thing to look at before launch."""

    text: str
    stage: str


class HandOverView(BaseModel):
    """The upload sheet as it stands, what to look at, and what went before."""

    revision: int
    rows: list[UploadLine]
    checks: list[CheckItem]
    sent: list[HandOverItem]


class HandOverMade(BaseModel):
    """A hand-over and the plan's summary after it."""

    made: HandOverItem
    summary: Summary
