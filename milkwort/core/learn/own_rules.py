"""A planner's own rules of thumb, with their honest price."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats
from milkwort.core.errors import BadValueError
from milkwort.core.learn.results import Results

__all__ = ["OwnRule", "RuleOutcome", "apply_rule", "false_cut_chance"]


@dataclass(frozen=True)
class OwnRule:
    """A planner's rule of thumb: so many clicks and no sale, then cut.

    Attributes
    ----------
    clicks : float
        At least so many clicks.
    spend : float
        And at least so much money.
    bid : float
        What the bid is cut to, money a click.
    """

    clicks: float
    spend: float = 0.0
    bid: float = 0.05

    def __post_init__(self) -> None:
        for name, value in vars(self).items():
            if not (math.isfinite(value) and value >= 0):
                raise BadValueError(f"own rule, {name}", "a number of 0 or more", value)


@dataclass(frozen=True)
class RuleOutcome:
    """Which keywords a rule cuts, and how often it would cut a good one.

    Attributes
    ----------
    cuts : ndarray of bool, shape (n_keywords,)
    false_cut : Floats, shape (n_keywords,)
        Chance that a keyword that converts as assumed is cut all the same.
    """

    cuts: NDArray[np.bool_]
    false_cut: Floats


def apply_rule(rule: OwnRule, results: Results, rate: Floats) -> RuleOutcome:
    """Say which keywords a planner's own rule cuts, with its honest price.

    Parameters
    ----------
    rule : OwnRule
    results : Results
    rate : Floats
        Customers per click assumed.
    """
    told = (results.exposure > 0) | (results.clicks == 0)
    cuts = told & (results.clicks >= rule.clicks) & (results.customers == 0)
    cuts &= results.spend >= rule.spend
    return RuleOutcome(cuts, false_cut_chance(rate, rule.clicks))


def false_cut_chance(rate: Floats, clicks: float) -> Floats:
    """Return the chance that a keyword of some rate sells nothing in so many clicks.

    Parameters
    ----------
    rate : ndarray of shape (n_keywords,)
        Customers a click.
    clicks : float
        After which the rule cuts.

    Returns
    -------
    ndarray of shape (n_keywords,)
        Chance from 0 to 1, ``(1 − rate)^clicks``.
    """
    # (1 − rate)^n
    with np.errstate(divide="ignore", invalid="ignore"):
        return np.where(clicks > 0, np.exp(clicks * np.log1p(-np.asarray(rate))), 1.0)
