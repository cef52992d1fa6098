"""Faults that can be switched on, so that what speaks to the market learns to bear them."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from typing import Any

from milkwort.standins.market.luck import key_of, mixed, uniform

__all__ = ["Faults", "chance_of"]


@dataclass(frozen=True)
class Faults:
    """All off by default; shares are chances from 0 to 1.

    Attributes
    ----------
    refuse_rows : float
        Share of the rows of a sheet refused for no reason of theirs, each time it comes.
    slow_ms : float
        Every answer takes so much longer.
    unavailable : float
        Chance of 503 with Retry-After in place of an answer.
    throttle_per_minute : int
        Calls a minute; past it 429 with Retry-After. 0 for no bound.
    cut_after : float
        Chance that the work is done and the connection cut before the answer.
    lose_reply : int
        The reply sheet is not there for so many asks.
    deliver_twice : bool
        Every upload is taken in twice.
    clock_jump : float
        Chance that a day is missing from results until it is asked for again.
    half_failed : bool
        Every second row of a sheet is refused the first time it comes.
    """

    refuse_rows: float = 0.0
    slow_ms: float = 0.0
    unavailable: float = 0.0
    throttle_per_minute: int = 0
    cut_after: float = 0.0
    lose_reply: int = 0
    deliver_twice: bool = False
    clock_jump: float = 0.0
    half_failed: bool = False

    def as_dict(self) -> dict[str, Any]:
        """Return plain values."""
        return asdict(self)


def chance_of(seed: int, *about: str | int) -> float:
    """Return a number between 0 and 1 that hangs on the seed and what it is about."""
    parts = [key_of(one) if isinstance(one, str) else one for one in about]
    return float(uniform(mixed(seed, "fault", *parts))[0])
