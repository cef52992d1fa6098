"""Evidence: how sure results make us that a keyword or a group misses or meets the rule.

A rate is a Beta distribution about what the brief assumes, corrected first by how the rest
of the plan and of the keyword's group did: a keyword's own results are left out, so that
nothing is counted twice. A group's own factor is a Gamma distribution.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import betainc, gammainc, ndtri

from milkwort.core.arrays import Floats, Ints
from milkwort.core.assumptions import Assumed
from milkwort.core.brief.worth import Conversion
from milkwort.core.errors import BadValueError
from milkwort.core.learn.results import Results

__all__ = [
    "VERDICTS", "Evidence", "GroupEvidence", "clicks_to_stop", "factor_weight", "group_evidence",
    "judge",
]  # fmt: skip

VERDICTS: tuple[str, ...] = ("stop", "wait", "raise", "no_prior")
_STOP, _WAIT, _RAISE, _NO_PRIOR = range(4)
_SEARCH_END = 1e7
_MOST_RATE = 1 - 1e-9
_P90 = float(ndtri(0.9))


@dataclass(frozen=True)
class Evidence:
    """What results say of each keyword; arrays of shape (n_keywords,).

    Attributes
    ----------
    plan_factor : Floats
        f, how the rest of the plan sold against what was assumed.
    group_factor : Floats
        g, how the rest of the keyword's group sold against the corrected rates.
    prior_rate : Floats
        Customers per click believed before its own results.
    rate : Floats
        The same after them: the posterior's mean.
    cpc : Floats
        Average money a click; NaN without clicks.
    missing : Floats
        Chance of a rate under what the rule needs; NaN without a price or a prior.
    losing : Floats
        Chance of a rate under break-even.
    verdict : Ints
        Position in `VERDICTS`.
    clicks_needed : Floats
        Further exposed clicks without a sale until the verdict is to stop; 0 where it is,
        inf where no number of them would say so.
    too_many : ndarray of bool
        Where more customers than clicks are reported, and as many as clicks are counted.
    """

    plan_factor: Floats
    group_factor: Floats
    prior_rate: Floats
    rate: Floats
    cpc: Floats
    missing: Floats
    losing: Floats
    verdict: Ints
    clicks_needed: Floats
    too_many: NDArray[np.bool_]


@dataclass(frozen=True)
class GroupEvidence:
    """What results say of each group; arrays of shape (n_groups,).

    Attributes
    ----------
    exposure, customers, spend : Floats
        Sums of its keywords that have a prior.
    factor : Floats
        Mean of its Gamma distribution.
    missing : Floats
        Chance that it costs more than its customers are allowed to.
    verdict : Ints
    """

    exposure: Floats
    customers: Floats
    spend: Floats
    factor: Floats
    missing: Floats
    verdict: Ints


def factor_weight(conversion: Conversion, assumed: Assumed) -> float:
    """Return the weight, in sales, of the forecast of a plan or group.

    Parameters
    ----------
    conversion : Conversion
        Of the offer with the most exposure.
    assumed : Assumed
    """
    # w = 1/s² within its bounds, s = ln(high/low)/2Φ⁻¹(0.9)
    least, most = assumed["factor_weight_least"], assumed["factor_weight_most"]
    if conversion.low <= 0 or conversion.high <= conversion.low:
        return least if conversion.low <= 0 else most
    spread = math.log(conversion.high / conversion.low) / (2 * _P90)
    return min(max(1 / spread**2, least), most)


def judge(
    results: Results,
    rate: Floats,
    allowed: Floats,
    contribution: Floats,
    group: Ints,
    reach: Floats,
    weight: float,
    assumed: Assumed,
) -> Evidence:
    """Say how sure the results make us of each keyword.

    Parameters
    ----------
    results : Results
    rate : Floats
        Customers per click assumed; 0 is no prior, and such a row stays out of every sum.
    allowed, contribution : Floats
        A and V·m·k, money a customer.
    group : Ints
        Ad group of each keyword, −1 for none: such a keyword has only the plan's factor.
    reach : Floats
        F at the bid that ran.
    weight : float
        w, of the forecast of a plan or group, in sales; see `factor_weight`.
    assumed : Assumed

    Returns
    -------
    Evidence

    Raises
    ------
    BadValueError
        For a rate that is no share, or a weight that is not above 0.
    """
    _check(rate, weight)
    n, x = results.counted_clicks, results.counted_customers
    plan_factor, group_factor = _factors(n, x, rate, group, weight)
    prior = np.minimum(rate * plan_factor * group_factor, _MOST_RATE)
    cpc = results.cpc
    known = (prior > 0) & np.isfinite(cpc)
    alpha = assumed["prior_weight"] * prior + x
    beta = assumed["prior_weight"] * (1 - prior) + n - x
    missing = _under(alpha, beta, cpc / allowed, known)
    losing = _under(alpha, beta, cpc / contribution, known)
    verdict = _verdicts(n, missing, prior > 0, reach < assumed["raise_reach"], assumed)
    needed = clicks_to_stop(n, alpha, beta, cpc / allowed, known, assumed)
    return Evidence(
        plan_factor=plan_factor,
        group_factor=group_factor,
        prior_rate=prior,
        rate=np.where(prior > 0, alpha / (alpha + beta), 0.0),
        cpc=cpc,
        missing=missing,
        losing=losing,
        verdict=verdict,
        clicks_needed=np.where(verdict == _STOP, 0.0, needed),
        too_many=results.too_many,
    )


def group_evidence(
    results: Results,
    rate: Floats,
    allowed: Floats,
    group: Ints,
    n_groups: int,
    weight: float,
    assumed: Assumed,
) -> GroupEvidence:
    """Say how sure the results make us of each group.

    Parameters
    ----------
    results : Results
    rate, allowed, group, weight
        As for `judge`; rates as assumed, the factor of the rest is put on here.
    n_groups : int
    assumed : Assumed

    Returns
    -------
    GroupEvidence

    Raises
    ------
    BadValueError
        As `judge` does.
    """
    _check(rate, weight)
    counts = rate > 0
    n, x = (np.where(counts, v, 0.0) for v in (results.counted_clicks, results.counted_customers))
    spend = np.where(counts, results.spend, 0.0)
    inside = group >= 0

    def sums(values: Floats) -> Floats:
        return np.bincount(group[inside], values[inside], minlength=n_groups).astype(np.float64)

    clicks, customers, due = sums(n), sums(x), sums(n * rate)
    # f from all that is not in the group
    rest = (weight + x.sum() - customers) / (weight + (n * rate).sum() - due)
    expected = rest * due
    # what was spent on exposed clicks: n·P, so that young clicks don't count alone
    price = np.nan_to_num(results.cpc)
    needed = sums(np.divide(n * price, allowed, out=np.zeros(len(n)), where=counts))
    # the group's factor is Gamma(w + Σx, w + f·Σ n·rate); it misses the rule under
    # Σ(n·P/A) / (f·Σ n·rate)
    shape, scale = weight + customers, weight + expected
    line = np.divide(needed, expected, out=np.full(n_groups, np.inf), where=expected > 0)
    missing = np.where(expected > 0, gammainc(shape, np.minimum(line * scale, 1e300)), np.nan)
    always = np.ones(n_groups, dtype=bool)
    verdict = _verdicts(clicks, missing, expected > 0, always, assumed)
    return GroupEvidence(clicks, customers, sums(spend), shape / scale, missing, verdict)


def _check(rate: Floats, weight: float) -> None:
    bad = ~(np.isfinite(rate) & (rate >= 0) & (rate <= 1))
    if bad.any():
        row = int(np.flatnonzero(bad)[0])
        raise BadValueError(f"rate, row {row + 1}", "a share from 0 to 1", rate[row])
    if not (math.isfinite(weight) and weight > 0):
        raise BadValueError("weight", "sales above 0", weight)


def _factors(
    n: Floats, x: Floats, rate: Floats, group: Ints, weight: float
) -> tuple[Floats, Floats]:
    """Return f and g of each keyword, its own results left out."""
    counts = rate > 0
    sold, due = np.where(counts, x, 0.0), np.where(counts, n * rate, 0.0)
    # f = (w + Σ_{j≠i} x) / (w + Σ_{j≠i} n·rate), g the same within the group on f·rate
    plan = (weight + sold.sum() - sold) / (weight + due.sum() - due)
    inside = group >= 0
    of_group = np.ones(len(n))
    if inside.any():
        held = group[inside]
        sold_in = np.bincount(held, sold[inside])[held] - sold[inside]
        due_in = np.bincount(held, due[inside])[held] - due[inside]
        of_group[inside] = (weight + sold_in) / (weight + plan[inside] * due_in)
    return plan, of_group


def _verdicts(
    n: Floats,
    missing: Floats,
    prior: NDArray[np.bool_],
    low_reach: NDArray[np.bool_],
    assumed: Assumed,
) -> Ints:
    enough = n >= assumed["least_evidence"]
    return np.select(
        [
            ~prior,
            enough & (missing >= assumed["stop_chance"]),
            enough & (missing <= assumed["raise_chance"]) & low_reach,
        ],
        [_NO_PRIOR, _STOP, _RAISE],
        default=_WAIT,
    ).astype(np.int64)


def _under(alpha: Floats, beta: Floats, line: Floats, known: NDArray[np.bool_]) -> Floats:
    chance = np.full(len(alpha), np.nan)
    chance[known] = betainc(alpha[known], beta[known], np.clip(line[known], 0.0, 1.0))
    return chance


def clicks_to_stop(
    n: Floats,
    alpha: Floats,
    beta: Floats,
    line: Floats,
    known: NDArray[np.bool_],
    assumed: Assumed,
) -> Floats:
    """Return the fewest further clicks without a sale at which the verdict is to stop.

    Parameters
    ----------
    n : Floats
        Exposed clicks so far.
    alpha, beta : Floats
        Of the rate's Beta distribution.
    line : Floats
        The rate that the rule needs.
    known : ndarray of bool
        Where there is a price and a prior.
    assumed : Assumed

    Returns
    -------
    Floats
        Infinite where no number of them would say so.
    """
    safe_line = np.clip(np.where(known, line, 0.5), 0.0, 1.0)
    a, b = np.where(known, alpha, 1.0), np.where(known, beta, 1.0)
    least = np.ceil(np.maximum(assumed["least_evidence"] - n, 0.0) - 1e-9)

    def stops(more: Floats) -> NDArray[np.bool_]:
        likely = betainc(a, b + more, safe_line) >= assumed["stop_chance"]
        return np.asarray(likely & (more >= least))

    # each row is searched for itself: `high` stops, `low` doesn't
    low, high = least - 1, least.copy()
    reached = stops(high)
    while not reached.all() and high.max() < _SEARCH_END:
        low = np.where(reached, low, high)
        high = np.where(reached, high, high * 2 + 1)
        reached = stops(high)
    while (apart := high - low > 1).any():
        middle = np.floor((low + high) / 2)
        yes = stops(middle)
        high, low = np.where(apart & yes, middle, high), np.where(apart & ~yes, middle, low)
    return np.where(known & reached, high, np.inf)
