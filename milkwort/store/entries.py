"""Keywords and readings: as they are stored, and on their way in."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from milkwort.store.taught import TaughtRate, TaughtReading

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
    shown_at_bid: float | None = None
    origin: str = ""
    origin_row: int | None = None
    taught: TaughtReading | None = None

    @property
    def searches(self) -> tuple[Any, ...]:
        """What it says of searches: all that is used together."""
        return (self.volume_low, self.volume_high, self.months, self.basis, self.area,
                self.period, self.shown_at_bid)  # fmt: skip

    @property
    def prices(self) -> tuple[Any, ...]:
        """What it says of the price of a click."""
        return (self.cpc_low, self.cpc_high, self.competition, self.area)

    @property
    def says_searches(self) -> bool:
        """Whether it says how many search."""
        return self.volume_low is not None or self.volume_high is not None

    @property
    def says_prices(self) -> bool:
        """Whether it says what a click costs."""
        return bool(self.cpc_low or self.cpc_high)

    @property
    def source(self) -> str:
        """Where it is from, as it is shown."""
        return self.origin + (f", row {self.origin_row}" if self.origin_row else "")


@dataclass(frozen=True)
class KeywordEntry:
    """A keyword as it is stored, with its readings in use; points at others by their ids.

    Attributes
    ----------
    reading : ReadingEntry
        In use for searches, and for prices too unless `price_reading` is another.
    price_reading : ReadingEntry or None
    """

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
    popularity: float | None = None
    call_by: str = ""
    call_at: str = ""
    note: str = ""
    group_id: int | None = None
    offer_id: int | None = None
    key: str = ""
    price_reading: ReadingEntry | None = None
    taught: TaughtRate | None = None

    @property
    def taught_rate(self) -> TaughtRate | None:
        """What results made of its rate, while that stands."""
        return self.taught if self.taught is not None and self.taught.rate == self.rate else None

    @property
    def prices(self) -> ReadingEntry:
        """The reading in use for prices."""
        return self.price_reading or self.reading

    @property
    def source(self) -> str:
        """Where its figures are from, as it is shown."""
        if self.price_reading is None:
            return self.reading.source
        said = [self.reading.source, f"prices of {self.price_reading.source}"]
        return ", ".join(part for part in said if part)


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
