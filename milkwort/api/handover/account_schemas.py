"""What a real account's file takes and gives."""

from __future__ import annotations

from pydantic import Field

from milkwort.api.http.described import Given
from milkwort.api.plan.schemas import Taken
from milkwort.formats.account_file import Role

__all__ = ["AccountColumns", "AccountFileView"]


class AccountColumns(Taken):
    """Which column holds what, the first being 0."""

    columns: dict[Role, int] = Field(max_length=4)


class AccountRow(Given):
    """One row that is not as planned: as it is, and as it is to be."""

    row: int
    text: str
    match: str
    bid: float | None
    planned_bid: float | None
    runs: bool | None
    planned_runs: bool


class AccountFileView(Given):
    """An account's file held against the plan."""

    name: str
    headings: list[str]
    columns: dict[Role, int]
    rows: int
    same: int
    changes: list[AccountRow]
    changed: int
    strangers: int
    stranger_names: list[str]
    missing: int
    missing_names: list[str]
