"""What an ad platform must be able to do; the practice market is one, a real one another.

To add one, write a class with these methods. Whatever may be sent twice takes a `once` key:
the same key never does a thing again.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from typing import Any, Protocol

from milkwort.core.errors import PlannerError

__all__ = [
    "SHEET_ORDER", "AdPlatform", "ClockState", "OpenAccount", "PlatformError", "ReplyRow",
    "Uploaded", "table_rows",
]  # fmt: skip

SHEET_ORDER: tuple[str, ...] = ("campaigns", "groups", "keywords", "negatives", "ads", "spots")
"""Sheets in the order in which they are sent: what is pointed at goes first."""

Row = Mapping[str, Any]


class PlatformError(PlannerError):
    """The platform could not be reached, or would not do what it was asked.

    Parameters
    ----------
    message : str
        What happened, and what to do.
    platform_code : str
        The platform's own word for it; empty where it didn't answer.
    """

    code = "platform"

    def __init__(self, message: str, platform_code: str = "") -> None:
        super().__init__(message, "platform")
        self.platform_code = platform_code


@dataclass(frozen=True)
class OpenAccount:
    """An account as the platform knows it, with the key that opens it."""

    id: str
    key: str


@dataclass(frozen=True)
class ReplyRow:
    """The platform's answer to one row of a sheet.

    Attributes
    ----------
    row : int
        Of the sheet, its heading being 1.
    state : str
        ``taken``, ``warned`` or ``refused``.
    code, message, field, old, new, ref : str
    """

    row: int
    state: str
    code: str
    message: str
    field: str = ""
    old: str = ""
    new: str = ""
    ref: str = ""


@dataclass(frozen=True)
class Uploaded:
    """How far an upload is; `state` is ``waiting``, ``processing`` or ``done``."""

    number: int
    state: str
    rows: int
    read: int
    taken: int = 0
    warned: int = 0
    refused: int = 0


@dataclass(frozen=True)
class ClockState:
    """How far the clock of a simulated platform is; `today` is lived next."""

    state: str
    wanted: int
    done: int
    today: date


@dataclass(frozen=True)
class ResultTable:
    """Results by day of the click, a list a row, by their heads."""

    heads: Sequence[str]
    rows: Sequence[Sequence[Any]] = field(default_factory=list)


class AdPlatform(Protocol):
    """A platform to hand over to. Every call raises `PlatformError` where it can't be done."""

    simulated: bool

    def open_account(self, opening: Mapping[str, Any], once: str) -> OpenAccount:
        """Open an account."""

    def state(self, account: OpenAccount) -> Mapping[str, Any]:
        """Return how an account stands."""

    def upload(self, account: OpenAccount, kind: str, sheet: bytes, once: str) -> int:
        """Send a sheet, CSV; return the number it is known by."""

    def uploaded(self, account: OpenAccount, number: int) -> Uploaded:
        """Return how far a sheet is taken in."""

    def reply(self, account: OpenAccount, number: int) -> list[ReplyRow]:
        """Return the answer to each row of a sheet."""

    def live(self, account: OpenAccount, kind: str) -> list[dict[str, Any]]:
        """Return what is live, under the headings of its sheet."""

    def results(
        self, account: OpenAccount, level: str, since: date | None, until: date | None
    ) -> ResultTable:
        """Return what came of it by day, at the level of day, campaign, group, keyword or term."""

    def pass_days(self, account: OpenAccount, days: int, once: str) -> ClockState:
        """Let days pass, on a simulated platform."""

    def clock(self, account: OpenAccount) -> ClockState:
        """Return how far they are."""

    def stop_clock(self, account: OpenAccount) -> ClockState:
        """Let no further day pass."""


def table_rows(table: ResultTable) -> list[dict[str, Any]]:
    """Return a table of results as a dictionary a row.

    Parameters
    ----------
    table : ResultTable
    """
    return [dict(zip(table.heads, row, strict=True)) for row in table.rows]


Told = Callable[[str, int, int], None]
"""Told what is done, how much, and of how much."""
