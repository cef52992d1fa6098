"""What an account takes: the limits it was opened with."""

from __future__ import annotations

from dataclasses import dataclass

__all__ = ["Limits"]


@dataclass(frozen=True)
class Limits:
    """The limits of an account, as its planner's platform profile says them."""

    pricing: str = "pay_enough"
    matches: tuple[str, ...] = ("exact", "phrase", "broad")
    min_bid: float = 0.05
    bid_step: float = 0.01
    raises: float = 0.0
    keywords_per_group: int = 150
    ads_per_group: int = 7
    headlines: int = 3
    descriptions: int = 1
    headline_characters: int = 36
    description_characters: int = 110
    written_ads: bool = True
    refused_characters: str = "<>|\\^~#$_"
    close_forms: bool = True
    negative_close_forms: bool = False
    upload_rows: int = 20_000
    day_over: float = 0.0
