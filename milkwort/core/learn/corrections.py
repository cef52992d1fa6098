"""Plan against actual: what the assumptions should have been, shrunk by how much is known."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.special import pdtr

from milkwort.core.arrays import Floats
from milkwort.core.assumptions import Assumed
from milkwort.core.errors import BadValueError

__all__ = [
    "ClickRates",
    "Correction",
    "Month",
    "click_rates",
    "corrections_of",
    "site_wide_cost",
]

_LOW_CHANCE = 0.05
"""A click rate is called low where so few clicks would come by chance this seldom."""


@dataclass(frozen=True)
class Month:
    """Sums of one window, planned or actual.

    Attributes
    ----------
    impressions, clicks, customers : float
    spend : float
        Money.
    """

    impressions: float
    clicks: float
    spend: float
    customers: float

    def __post_init__(self) -> None:
        for name, value in vars(self).items():
            if not (np.isfinite(value) and value >= 0):
                raise BadValueError(name, "a number of 0 or more", value)


@dataclass(frozen=True)
class Correction:
    """One correction offered.

    Attributes
    ----------
    name : str
        ``price``, ``click_rate``, ``conversion`` or ``demand``.
    raw : float or None
        Actual over forecast; None where one of them is 0.
    factor : float
        The same, shrunk toward 1 by its evidence.
    evidence : float
        What it was judged on: clicks, expected clicks, expected customers or impressions.
    weight : float
        How much of that would count half.
    """

    name: str
    raw: float | None
    factor: float
    evidence: float
    weight: float


@dataclass(frozen=True)
class ClickRates:
    """Whether click rates are too low; arrays of shape (n_keywords,).

    Attributes
    ----------
    judged : ndarray of bool
        Enough showings or clicks to say.
    ratio : Floats
        Actual over expected clicks; NaN without showings.
    low : ndarray of bool
        Judged, and so few clicks would seldom come by chance.
    """

    judged: np.ndarray[tuple[int], np.dtype[np.bool_]]
    ratio: Floats
    low: np.ndarray[tuple[int], np.dtype[np.bool_]]


def corrections_of(planned: Month, actual: Month, assumed: Assumed) -> list[Correction]:
    """Compare a window with its forecast.

    Each factor is (w + what came) over (w + what was expected of what came before it): the
    click rate is held against the showings there really were, the conversion against the
    real clicks, so that one miss is not blamed on two inputs.

    Parameters
    ----------
    planned, actual : Month
        Of the same window.
    assumed : Assumed

    Returns
    -------
    list of Correction
        Price, click rate, conversion, demand. They are offered; nothing is applied.
    """
    rate = _over(planned.customers, planned.clicks)
    shown = _over(planned.clicks, planned.impressions)
    cpc, planned_cpc = _over(actual.spend, actual.clicks), _over(planned.spend, planned.clicks)
    clicks_weight = assumed["judge_clicks"]
    found = []
    if cpc is not None and planned_cpc:
        ratio = cpc / planned_cpc
        factor = (clicks_weight + actual.clicks * ratio) / (clicks_weight + actual.clicks)
        found.append(Correction("price", ratio, factor, actual.clicks, clicks_weight))
    if shown is not None:
        expected = actual.impressions * shown
        found.append(_shrunk("click_rate", actual.clicks, expected, clicks_weight))
    if rate is not None:
        expected = actual.clicks * rate
        found.append(
            _shrunk("conversion", actual.customers, expected, assumed["factor_weight_least"])
        )
    weight = assumed["judge_impressions"]
    found.append(_shrunk("demand", actual.impressions, planned.impressions, weight))
    return found


def click_rates(
    impressions: Floats, clicks: Floats, expected_rate: Floats, assumed: Assumed
) -> ClickRates:
    """Judge click rates, each only past enough showings or clicks.

    Parameters
    ----------
    impressions, clicks : Floats
    expected_rate : Floats
        Clicks per impression forecast at the present bid.
    assumed : Assumed
    """
    judged = (impressions > assumed["judge_impressions"]) | (clicks > assumed["judge_clicks"])
    expected = impressions * expected_rate
    ratio = np.divide(clicks, expected, out=np.full(len(clicks), np.nan), where=expected > 0)
    chance = pdtr(clicks, np.maximum(expected, 1e-12))
    return ClickRates(judged, ratio, judged & (ratio < 1) & (chance < _LOW_CHANCE))


def site_wide_cost(spend: float, visits: float) -> float | None:
    """Return the ad spend per visit of the whole site, money; None without visits.

    Parameters
    ----------
    spend : float
        On ads, money.
    visits : float
        Of any origin, over the same days.
    """
    return _over(spend, visits)


def _shrunk(name: str, came: float, expected: float, weight: float) -> Correction:
    return Correction(
        name, _over(came, expected), (weight + came) / (weight + expected), expected, weight
    )


def _over(a: float, b: float) -> float | None:
    return a / b if b > 0 else None
