"""How readily keywords were clicked, held against what their bids were to bring."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import pdtr

from milkwort.core.arrays import Floats
from milkwort.core.assumptions import Assumed
from milkwort.core.learn.corrections import Segment, clicks_due
from milkwort.core.plan.run import PlanResult

__all__ = ["ClickRates", "click_rates", "clicked_of"]

_LOW_CHANCE = 0.05
"""A click rate is called low where so few clicks would come by chance this seldom."""


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

    judged: NDArray[np.bool_]
    ratio: Floats
    low: NDArray[np.bool_]


def clicked_of(result: PlanResult, segments: Sequence[Segment]) -> ClickRates:
    """Judge the click rates of a plan's days.

    Parameters
    ----------
    result : PlanResult
        Whose market and click rates are expected.
    segments : sequence of Segment
        A bid that was raised since is not asked to explain the clicks of the one before.
    """
    expected, came = clicks_due(result, segments, result.prices.mu)
    ran = [np.where(np.isfinite(s.bid), s.seen.impressions, 0.0) for s in segments]
    return click_rates(np.sum(ran, axis=0), came, expected, result.brief.assumed)


def click_rates(
    impressions: Floats, clicks: Floats, expected: Floats, assumed: Assumed
) -> ClickRates:
    """Judge click rates, each only past enough showings or clicks.

    Parameters
    ----------
    impressions, clicks : Floats
    expected : Floats
        Clicks, of those impressions.
    assumed : Assumed
    """
    judged = (impressions > assumed["judge_impressions"]) | (clicks > assumed["judge_clicks"])
    ratio = np.divide(clicks, expected, out=np.full(len(clicks), np.nan), where=expected > 0)
    chance = pdtr(clicks, np.maximum(expected, 1e-12))
    return ClickRates(judged, ratio, judged & (ratio < 1) & (chance < _LOW_CHANCE))
