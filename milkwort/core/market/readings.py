"""Several sources of one keyword: their mean, and how far they disagree."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from milkwort.core.assumptions import Assumed
from milkwort.core.market.demand import coverage, likely_volume, per_month
from milkwort.core.market.keyword_table import blank_table
from milkwort.core.market.showings import reach_counted
from milkwort.core.words.match_types import MATCHES

__all__ = ["Disagreement", "Figures", "disagreement", "mean_of"]

_HALF_A_SEARCH = 0.5
_NEXT_TO_NOTHING = 1e-9


@dataclass(frozen=True)
class Figures:
    """What one source says of a keyword.

    Attributes
    ----------
    volume_low, volume_high : float or None
        Searches a period; equal for a figure.
    cpc_low, cpc_high : float or None
        Money a click.
    months : tuple of 12 floats or None
    period : str
        ``month`` or ``day``.
    basis : str
        The match type it counted.
    shown_at_bid : float or None
        The bid at which the volume counts showings; None where it counts searches.
    """

    volume_low: float | None = None
    volume_high: float | None = None
    cpc_low: float | None = None
    cpc_high: float | None = None
    months: tuple[float, ...] | None = None
    period: str = "month"
    basis: str = "exact"
    shown_at_bid: float | None = None


@dataclass(frozen=True)
class Disagreement:
    """The greatest over the least of what sources say; None where fewer than two say it.

    Attributes
    ----------
    volume, price : float or None
        1 or more; volumes brought to one basis and period first.
    """

    volume: float | None
    price: float | None


def mean_of(figures: Sequence[Figures], words: int, assumed: Assumed) -> Figures:
    """Return the mean of several readings of one keyword.

    Geometric, since volumes and prices differ by factors; a source that says nothing of a
    figure doesn't count for it.

    Parameters
    ----------
    figures : sequence of Figures
    words : int
        Number of words of the keyword.
    assumed : Assumed

    Returns
    -------
    Figures
        Searches a month for the very text; the season is the mean of those that have one.
    """
    prices = _prices(figures)
    alike = [_volumes(f, words, assumed, prices) for f in figures]
    seasons = [f.months for f in figures if f.months]
    return Figures(
        volume_low=_middle([v[0] for v in alike if v]),
        volume_high=_middle([v[1] for v in alike if v]),
        cpc_low=prices[0],
        cpc_high=prices[1],
        months=tuple(np.mean(seasons, axis=0).tolist()) if seasons else None,
    )


def disagreement(figures: Sequence[Figures], words: int, assumed: Assumed) -> Disagreement:
    """Say how far sources of one keyword are apart.

    Parameters
    ----------
    figures : sequence of Figures
    words : int
        Number of words of the keyword.
    assumed : Assumed
    """
    middle = _prices(figures)
    volumes = [
        float(likely_volume(np.array(v[0]), np.array(v[1])))
        for f in figures
        if (v := _volumes(f, words, assumed, middle))
    ]
    prices = [_middle([p for p in (f.cpc_low, f.cpc_high) if p]) for f in figures]
    return Disagreement(_spread(volumes), _spread([p for p in prices if p is not None]))


def _prices(figures: Sequence[Figures]) -> tuple[float | None, float | None]:
    return (
        _middle([f.cpc_low for f in figures if f.cpc_low]),
        _middle([f.cpc_high for f in figures if f.cpc_high]),
    )


def _volumes(
    f: Figures, words: int, assumed: Assumed, prices: tuple[float | None, float | None]
) -> tuple[float, float] | None:
    """Return the ends of a volume as searches a month for the very text.

    Showings are brought to searches by the source's own prices, else by all sources';
    where these say nothing of the searches, the source says nothing.
    """
    if f.volume_low is None or f.volume_high is None:
        return None
    basis = np.array([MATCHES.index(f.basis)])
    counted = float(coverage(basis, np.array([words]), assumed)[0])
    if f.shown_at_bid is not None:
        price = (f.cpc_low, f.cpc_high) if f.cpc_low or f.cpc_high else prices
        one = replace(
            blank_table(["a"]),
            cpc_low=np.array([price[0] or np.nan]),
            cpc_high=np.array([price[1] or np.nan]),
            shown_at_bid=np.array([f.shown_at_bid]),
        )
        counted *= float(reach_counted(one, assumed)[0])
        if math.isnan(counted):
            return None
    low, high = (per_month(v, f.period, assumed) / counted for v in (f.volume_low, f.volume_high))
    return low, high


def _middle(values: Sequence[float | None]) -> float | None:
    some = [v for v in values if v is not None]
    if not some:
        return None
    if max(some) == 0:
        return 0.0
    return math.exp(sum(math.log(max(v, _least(some))) for v in some) / len(some))


def _spread(values: Sequence[float]) -> float | None:
    if len(values) < 2:
        return None
    return max(values) / max(min(values), _least(values)) if max(values) > 0 else 1.0


def _least(values: Sequence[float]) -> float:
    """Return what a 0 counts as beside other figures: half a search, or next to no money."""
    return _HALF_A_SEARCH if max(values) >= 1 else _NEXT_TO_NOTHING
