"""What a tray is told and shows."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.plan.columns import CallName
from milkwort.api.plan.schemas import Numbers, Taken
from milkwort.core.words.match_types import Match

__all__ = ["ColumnChoice", "PastedText", "RefusedRow", "TrayRows", "TrayView"]


class ColumnChoice(Taken):
    """Which column holds what, from 0, and the first row of data, from 1."""

    columns: dict[str, int]
    first_row: int = Field(ge=1)
    sheet: str = Field(default="", max_length=200)
    period: Literal["month", "day"] = "month"
    basis: Literal["", "exact", "phrase", "broad"] = ""
    area: str = Field(default="", max_length=120)
    price: Literal["click", "sum"] = "click"
    shown_at_bid: float | None = Field(default=None, gt=0, le=1e9)
    price_rate: float | None = Field(default=None, gt=0, le=1e9)


class PastedText(Taken):
    """Rows pasted in."""

    text: str
    name: str = Field(default="pasted", max_length=200)


class RefusedRow(Given):
    """One row left out, and why."""

    row: int
    column: str
    value: str
    why: str


class TrayRows(Given):
    """Rows of the tray, by column; `status` is new, near, caught, changed or there."""

    row: list[int]
    text: list[str]
    match: list[Match]
    status: list[str]
    like: list[str]
    volume_low: Numbers
    volume_high: Numbers
    cpc_low: Numbers
    cpc_high: Numbers
    call: list[CallName]
    group: list[str]
    unpaid_rank: Numbers


class TrayView(Given):
    """A file on its way in."""

    key: str
    name: str
    separator: str
    decimal: str
    encoding: str
    headings: list[str]
    first_row: int
    columns: dict[str, int]
    fields: list[str]
    sample: list[list[str]]
    counts: dict[str, int]
    rows: TrayRows
    was: dict[int, list[float | None]]
    """Of a row with new figures: low and high volume, low and high price in use till now."""
    cleaned: dict[int, str]
    """Of a row whose text was cleaned: what stood there."""
    verdict: Literal["take", "keep", "mean"]
    """What the plan's rule of readings makes of new figures."""
    refused: list[RefusedRow]
    sheets: list[str]
    sheet: str
    period: Literal["month", "day"]
    basis: Literal["", "exact", "phrase", "broad"]
    area: str
    price: Literal["click", "sum"]
    shown_at_bid: float | None
    currency: str
    """What its prices are in, where it says so."""
    price_rate: float | None
    """Money of the plan in one of it; prices in another currency are left out without it."""
    more: bool = False
    quota_left: int | None = None
