"""What a planner knows, and tells when an account is opened: the world is drawn about it."""

from __future__ import annotations

from dataclasses import dataclass, field

__all__ = ["INTENT_RATES", "Known", "KnownKeyword", "KnownOffer"]

INTENT_RATES = {"buy": 1.0, "compare": 0.7, "unknown": 0.8, "learn": 0.25, "firm": 0.15, "job": 0.0}
"""How well each intent sells against a buying one, where the planner says nothing of it."""

_FLAT_DAY = (1 / 24,) * 24
_FLAT_WEEK = (1.0,) * 7
_FLAT_YEAR = (1.0,) * 12


@dataclass(frozen=True)
class KnownOffer:
    """Customers per click as low, likely and high; of those who enquire, the share that buys."""

    low: float
    likely: float
    high: float
    close: float | None = None


@dataclass(frozen=True)
class KnownKeyword:
    """One text the planner knows of.

    Attributes
    ----------
    text : str
        Normalised.
    searches : float
        A month of the mean year, for the very text, in the area.
    searches_low, searches_high : float or None
        Ends of the range it was given as.
    price_low, price_high : float or None
        Money a click, at the percentiles of `Known`.
    intent : str
    offer : int
        Place in `Known.offers`.
    months : tuple of 12 floats or None
        Month index, mean 1.
    own_place : bool
        Whether it names a place of the planner's own.
    rate : float or None
        Customers a click, where the planner knows it better than by intent.
    """

    text: str
    searches: float
    searches_low: float | None = None
    searches_high: float | None = None
    price_low: float | None = None
    price_high: float | None = None
    intent: str = "unknown"
    offer: int = 0
    months: tuple[float, ...] | None = None
    own_place: bool = False
    rate: float | None = None


@dataclass(frozen=True)
class Known:
    """Everything the planner told.

    Attributes
    ----------
    offers : tuple of KnownOffer
    keywords : tuple of KnownKeyword
        Each text once.
    low_percentile, high_percentile : float
        Of the prices it takes to win a click.
    click_rate_top, click_rate_bottom : float
        At the top; and at the bottom, as a share of it.
    season : tuple of 12 floats
        Month index where a keyword has none.
    hours : tuple of 24 floats
        How a day's searches fall on its hours; sum 1.
    weekdays : tuple of 7 floats
        Monday first, mean 1.
    intent_rates : dict of str to float
    """

    offers: tuple[KnownOffer, ...]
    keywords: tuple[KnownKeyword, ...]
    low_percentile: float = 0.25
    high_percentile: float = 0.75
    click_rate_top: float = 0.06
    click_rate_bottom: float = 0.35
    season: tuple[float, ...] = _FLAT_YEAR
    hours: tuple[float, ...] = _FLAT_DAY
    weekdays: tuple[float, ...] = _FLAT_WEEK
    intent_rates: dict[str, float] = field(default_factory=lambda: dict(INTENT_RATES))
