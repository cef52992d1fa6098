"""A whole plan as JSON that loads back to an equal plan."""

from __future__ import annotations

from typing import Any

import orjson
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from milkwort.core.errors import BadValueError, TooLargeError
from milkwort.formats.text_table import MAX_BYTES

__all__ = [
    "FORMAT",
    "KeywordDocument",
    "NegativeDocument",
    "PlanDocument",
    "read_plan_json",
    "write_plan_json",
]

FORMAT = "milkwort-plan-1"


class KeywordDocument(BaseModel):
    """One keyword with its reading in use; searches a period, money a click."""

    model_config = ConfigDict(extra="forbid")

    text: str
    match: str = "exact"
    intent: str = "unknown"
    call: str = "none"
    reason: str = ""
    group: str = ""
    rate: float | None = None
    locked_bid: float | None = None
    unpaid_rank: float | None = None
    paid_rank: float | None = None
    offer: str = ""
    campaign: str = ""
    landing_page: str = ""
    call_by: str = ""
    call_at: str = ""
    note: str = ""
    volume_low: float | None = None
    volume_high: float | None = None
    cpc_low: float | None = None
    cpc_high: float | None = None
    competition: float | None = None
    months: list[float] | None = None
    basis: str = ""
    area: str = ""
    period: str = "month"
    origin: str = ""
    origin_row: int | None = None


class NegativeDocument(BaseModel):
    """A negative keyword."""

    model_config = ConfigDict(extra="forbid")

    text: str
    match: str = "phrase"
    level: str = "plan"
    owner: str = ""


class PlanDocument(BaseModel):
    """A plan: its brief by field, what it changed of the assumptions, and its keywords."""

    model_config = ConfigDict(extra="forbid")

    format: str = FORMAT
    name: str
    brief: dict[str, Any]
    unsaid: list[str] = Field(default_factory=list)
    assumptions: dict[str, float] = Field(default_factory=dict)
    own: dict[str, Any] = Field(default_factory=dict)
    keywords: list[KeywordDocument] = Field(default_factory=list)
    negatives: list[NegativeDocument] = Field(default_factory=list)


def write_plan_json(document: PlanDocument) -> bytes:
    """Return the document as indented JSON."""
    return orjson.dumps(document.model_dump(), option=orjson.OPT_INDENT_2)


def read_plan_json(data: bytes) -> PlanDocument:
    """Read a plan.

    Raises
    ------
    TooLargeError
        Past 20 MB.
    BadValueError
        Where the file is no plan of this format; says which part.
    """
    if len(data) > MAX_BYTES:
        raise TooLargeError("plan: expected at most 20 MB", "plan")
    try:
        document = PlanDocument.model_validate(orjson.loads(data))
    except orjson.JSONDecodeError as error:
        raise BadValueError("plan", "a JSON file", str(error)) from error
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(part) for part in first["loc"]) or "plan"
        got = first.get("input")
        raise BadValueError(
            where, first["msg"], "a table" if isinstance(got, dict) else got
        ) from error
    if document.format != FORMAT:
        raise BadValueError("format", FORMAT, document.format)
    return document
