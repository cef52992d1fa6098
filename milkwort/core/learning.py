"""Evidence: how sure results make us that a keyword or a group misses or meets the rule.

A rate is a Beta distribution about what the brief assumes, corrected first by how the
whole plan and the keyword's group did; a group's own factor is a Gamma distribution.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import betainc, gammainc

from milkwort.core.assumptions import Assumed
from milkwort.core.keyword_table import Floats, Ints
from milkwort.core.results import Results

__all__ = ["VERDICTS", "Evidence", "GroupEvidence", "group_evidence", "judge"]

VERDICTS: tuple[str, ...] = ("stop", "wait", "raise", "no_prior")
_STOP, _WAIT, _RAISE, _NO_PRIOR = range(4)
_SEARCH_END = 1e7
_MOST_RATE = 1 - 1e-9


@dataclass(frozen=True)
class Evidence:
    """What results say of each keyword; arrays of shape (n_keywords,).

    Attributes
    ----------
    plan_factor : float
        How the whole plan sold against what was assumed.
    group_factor : Floats
        How the keyword's group sold against the corrected rates.
    prior_rate : Floats
        Customers per click believed before its own results.
    cpc : Floats
        Average money a click; NaN without clicks.
    missing : Floats
        Chance of a rate under what the rule needs; NaN without a price or a prior.
    losing : Floats
        Chance of a rate under break-even.
    verdict : Ints
        Position in `VERDICTS`.
    clicks_needed : Floats
        Further clicks without a sale until the verdict is to stop; 0 where it is, inf
        where no number of them would say so.
    """

    plan_factor: float
    group_factor: Floats
    prior_rate: Floats
    cpc: Floats
    missing: Floats
    losing: Floats
    verdict: Ints
    clicks_needed: Floats


@dataclass(frozen=True)
class GroupEvidence:
    """What results say of each group; arrays of shape (n_groups,).

    Attributes
    ----------
    clicks, customers, spend : Floats
        Sums of its keywords.
    factor : Floats
        Mean of its Gamma distribution.
    missing : Floats
        Chance that it costs more than its customers are allowed to.
    verdict : Ints
    """

    clicks: Floats
    customers: Floats
    spend: Floats
    factor: Floats
    missing: Floats
    verdict: Ints


def judge(
    results: Results,
    rate: Floats,
    allowed: Floats,
    contribution: Floats,
    group: Ints,
    reach: Floats,
    assumed: Assumed,
) -> Evidence:
    """Say how sure the results make us of each keyword.

    Parameters
    ----------
    results : Results
    rate : Floats
        Customers per click assumed; 0 is no prior.
    allowed, contribution : Floats
        A and V·m·k, money a customer.
    group : Ints
        Ad group of each keyword, −1 for none: such a keyword has only the plan's factor.
    reach : Floats
        F at the present bid.
    assumed : Assumed

    Returns
    -------
    Evidence
    """
    n, x = results.clicks, results.customers
    weight = assumed["plan_weight"]
    # factor of the plan (3 + Σx) / (3 + Σ n·rate), of a group the same against corrected rates
    plan_factor = float((weight + x.sum()) / (weight + (n * rate).sum()))
    corrected = rate * plan_factor
    factor = _group_factor(n, x, corrected, group, weight)
    prior = np.minimum(corrected * factor, _MOST_RATE)
    cpc = np.divide(results.spend, n, out=np.full(len(n), np.nan), where=n > 0)
    known = (prior > 0) & np.isfinite(cpc)
    alpha, beta = assumed["prior_weight"] * prior + x, assumed["prior_weight"] * (1 - prior) + n - x
    missing = _under(alpha, beta, cpc / allowed, known)
    losing = _under(alpha, beta, cpc / contribution, known)
    enough = n >= assumed["least_evidence"]
    verdict = np.select(
        [
            prior <= 0,
            enough & (missing >= assumed["stop_chance"]),
            enough & (missing <= assumed["raise_chance"]) & (reach < assumed["raise_reach"]),
        ],
        [_NO_PRIOR, _STOP, _RAISE],
        default=_WAIT,
    ).astype(np.int64)
    needed = _clicks_needed(n, alpha, beta, cpc / allowed, known, assumed)
    return Evidence(
        plan_factor=plan_factor,
        group_factor=factor,
        prior_rate=prior,
        cpc=cpc,
        missing=missing,
        losing=losing,
        verdict=verdict,
        clicks_needed=np.where(verdict == _STOP, 0.0, needed),
    )


def group_evidence(
    results: Results, rate: Floats, allowed: Floats, group: Ints, n_groups: int, assumed: Assumed
) -> GroupEvidence:
    """Say how sure the results make us of each group.

    Parameters
    ----------
    results : Results
    rate, allowed, group
        As for `judge`; rates as assumed, the plan's factor is put on here.
    n_groups : int
    assumed : Assumed

    Returns
    -------
    GroupEvidence
    """
    weight = assumed["plan_weight"]
    n, x = results.clicks, results.customers
    plan_factor = (weight + x.sum()) / (weight + (n * rate).sum())
    inside = group >= 0

    def sums(values: Floats) -> Floats:
        return np.bincount(group[inside], values[inside], minlength=n_groups).astype(np.float64)

    clicks, customers, spend = sums(n), sums(x), sums(results.spend)
    expected = sums(n * rate * plan_factor)
    needed = sums(np.divide(results.spend, allowed))
    shape, scale = weight + customers, weight + expected
    # the group's factor is Gamma(3 + Σx, 3 + Σ n·rate); it meets the rule where
    # factor · Σ n·rate reaches Σ spend / A
    line = np.divide(needed, expected, out=np.full(n_groups, np.inf), where=expected > 0)
    missing = np.where(expected > 0, gammainc(shape, np.minimum(line * scale, 1e300)), np.nan)
    enough = clicks >= assumed["least_evidence"]
    verdict = np.select(
        [
            expected <= 0,
            enough & (missing >= assumed["stop_chance"]),
            enough & (missing <= assumed["raise_chance"]),
        ],
        [_NO_PRIOR, _STOP, _RAISE],
        default=_WAIT,
    ).astype(np.int64)
    return GroupEvidence(clicks, customers, spend, shape / scale, missing, verdict)


def _group_factor(n: Floats, x: Floats, rate: Floats, group: Ints, weight: float) -> Floats:
    inside = group >= 0
    factor = np.ones(len(n))
    if inside.any():
        sold = np.bincount(group[inside], x[inside])
        expected = np.bincount(group[inside], (n * rate)[inside])
        factor[inside] = ((weight + sold) / (weight + expected))[group[inside]]
    return factor


def _under(alpha: Floats, beta: Floats, line: Floats, known: NDArray[np.bool_]) -> Floats:
    chance = np.full(len(alpha), np.nan)
    chance[known] = betainc(alpha[known], beta[known], np.clip(line[known], 0.0, 1.0))
    return chance


def _clicks_needed(
    n: Floats,
    alpha: Floats,
    beta: Floats,
    line: Floats,
    known: NDArray[np.bool_],
    assumed: Assumed,
) -> Floats:
    """Return the fewest further clicks without a sale at which the verdict is to stop."""
    least = np.maximum(assumed["least_evidence"] - n, 0.0)
    safe_line = np.clip(np.where(known, line, 0.5), 0.0, 1.0)
    a, b = np.where(known, alpha, 1.0), np.where(known, beta, 1.0)

    def stops(more: Floats) -> NDArray[np.bool_]:
        return np.asarray(betainc(a, b + more, safe_line) >= assumed["stop_chance"])

    needed = _fewest(least, stops)
    return np.where(known, needed, np.inf)


def _fewest(least: Floats, stops: Callable[[Floats], NDArray[np.bool_]]) -> Floats:
    """Return the fewest whole clicks from `least` on that stop; inf past ten million."""
    low, high = np.ceil(least) - 1, np.ceil(least)
    reached = stops(high)
    while not reached.all() and high.max() < _SEARCH_END:
        low = np.where(reached, low, high)
        high = np.where(reached, high, high * 2 + 1)
        reached = stops(high)
    while (high - low > 1).any():
        middle = np.floor((low + high) / 2)
        yes = stops(middle)
        high, low = np.where(yes, middle, high), np.where(yes, low, middle)
    return np.where(reached, high, np.inf)
