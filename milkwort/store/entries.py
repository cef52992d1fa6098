"""Keywords and readings: as they are stored, and on their way in."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

__all__ = ["Arrival", "KeywordEntry", "ReadingEntry"]


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
    """A keyword as it is stored, with its reading in use; points at others by their ids."""

    text: str
    normalised: str
    match: str
    reading: ReadingEntry
    intent: str = "unknown"
    call: str = "none"
    reason: str = ""
    rate: float | None = None
    locked_bid: float | None = None
    last_cpc: float | None = None
    unpaid_rank: float | None = None
    paid_rank: float | None = None
    call_by: str = ""
    call_at: str = ""
    note: str = ""
    group_id: int | None = None
    offer_id: int | None = None
    key: str = ""


@dataclass(frozen=True)
class Arrival:
    """A keyword on its way in, with the names its source gives to what it belongs to.

    Attributes
    ----------
    entry : KeywordEntry
        A group or offer it names by id goes before any name.
    group, campaign, landing_page : str
        Empty where the source says nothing; the campaign is then the plan's first.
    offer : str
        Empty for the first offer.
    """

    entry: KeywordEntry
    group: str = ""
    campaign: str = ""
    landing_page: str = ""
    offer: str = ""
