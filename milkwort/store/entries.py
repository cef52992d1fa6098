"""Keywords and readings as they are stored."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

__all__ = ["KeywordEntry", "ReadingEntry"]


@dataclass(frozen=True)
class ReadingEntry:
    """One source's figures, to be stored; searches a period, money a click."""

    volume_low: float | None = None
    volume_high: float | None = None
    cpc_low: float | None = None
    cpc_high: float | None = None
    competition: float | None = None
    months: tuple[float, ...] | None = None
    basis: str = ""
    area: str = ""
    period: str = "month"
    origin: str = ""
    origin_row: int | None = None

    @property
    def figures(self) -> tuple[Any, ...]:
        """What two readings are compared by: everything but where they are from."""
        return (
            self.volume_low, self.volume_high, self.cpc_low, self.cpc_high, self.competition,
            self.months, self.basis, self.area, self.period,
        )  # fmt: skip


@dataclass(frozen=True)
class KeywordEntry:
    """A keyword to be stored, with its reading."""

    text: str
    normalised: str
    match: str
    reading: ReadingEntry
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
