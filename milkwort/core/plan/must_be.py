"""What would have to be true: how far each input may fall before a plan stops paying."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from typing import Literal, get_args

import numpy as np
from scipy.special import ndtr, ndtri

from milkwort.core.arrays import Floats
from milkwort.core.brief.worth import allowed_cost
from milkwort.core.market.prices import at_bid
from milkwort.core.plan._happened import running
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.spots import spot_choices
from milkwort.core.plan.spreads import spreads_of

__all__ = ["INPUTS", "Input", "MustBe", "Turn", "must_be"]

Input = Literal["conversion", "prices", "searches", "click rate", "sale value", "margin"]
INPUTS: tuple[Input, ...] = get_args(Input)

_FARTHEST = 6.0
"""Inputs are moved at most e to this power, up or down."""
_GRID = 60
_HALVINGS = 44
_P90 = float(ndtri(0.9))
_ONE = 1.0
"""Fewer customers a month than this are as good as none."""


@dataclass(frozen=True)
class Turn:
    """The value of one input at which something turns.

    Attributes
    ----------
    times : float or None
        The input over what the plan assumes; None where no value does it.
    chance : float or None
        How likely the draws think a value beyond it is, on the far side of today's; None
        where the input is not drawn, or no value does it.
    """

    times: float | None
    chance: float | None


@dataclass(frozen=True)
class MustBe:
    """One input, moved by itself with every bid as it is.

    Attributes
    ----------
    input : Input
    now : float or None
        What the plan assumes: customers a click, money a sale, a share; None where it is many
        figures (prices, searches, click rates), moved alike.
    rule, even, nothing : Turn
        Where the plan just meets its rule, breaks even, brings under one customer a month.
    """

    input: Input
    now: float | None
    rule: Turn
    even: Turn
    nothing: Turn


@dataclass(frozen=True)
class _Sums:
    """A month's sums: what it costs, brings, and may cost at most by the rule."""

    spend: float
    customers: float
    allowed: float
    contribution: float


def must_be(result: PlanResult) -> list[MustBe]:
    """Return, for each input, the values at which the plan turns.

    Parameters
    ----------
    result : PlanResult

    Returns
    -------
    list of MustBe
        Empty where nothing runs.
    """
    month = _Month(result)
    if month.at(1.0, "searches").spend <= 0:
        return []
    offer = result.brief.offer
    now: dict[str, float] = {
        "conversion": offer.rate.likely,
        "sale value": offer.sale_value,
        "margin": offer.gross_margin,
    }
    found = []
    for name in INPUTS:
        turns = [
            _turn(partial(_over, month, says, name), result, name)
            for says in (_over_rule, _over_even, _over_nothing)
        ]
        found.append(MustBe(name, now.get(name), *turns))
    return found


def _over(month: _Month, says: Callable[[_Sums], float], name: Input, times: float) -> float:
    return says(month.at(times, name))


def _over_rule(sums: _Sums) -> float:
    return sums.allowed - sums.spend


def _over_even(sums: _Sums) -> float:
    return sums.contribution - sums.spend


def _over_nothing(sums: _Sums) -> float:
    return sums.customers - _ONE


class _Month:
    """The expected month with one input moved."""

    def __init__(self, result: PlanResult) -> None:
        self.result, self.rows = result, running(result)
        self.spots = spot_choices(result.brief)
        spots = [spot.offer for spot in result.brief.spots]
        self.offers = np.concatenate((result.table.offer[self.rows], spots)).astype(np.int64)

        self._held = self._market(1.0)

    def _market(self, price: float) -> tuple[Floats, Floats]:
        """Return clicks and spend of each row at so many times its price, before pacing."""
        result, rows = self.result, self.rows
        at = at_bid(
            result.bid[rows],
            result.prices.mu[rows] + math.log(price),
            result.prices.sigma[rows],
            result.demand.click_weight[rows],
            result.demand.click_weight[rows],
            result.brief.pricing,
            result.brief.assumed,
        )
        shown = result.spots.clicks / max(result.expected.pace, 1e-12)
        return (np.concatenate((at.clicks, shown)),
                np.concatenate((at.spend, shown * self.spots.price * price)))  # fmt: skip

    def at(self, times: float, name: Input) -> _Sums:
        """Return the sums with one input so many times what it is."""
        more = times if name in ("searches", "click rate") else 1.0
        rate = times if name == "conversion" else 1.0
        clicks, spend = self._market(times) if name == "prices" else self._held
        wanted = float(spend.sum()) * more
        purse = self.result.brief.monthly_spend
        pace = min(1.0, purse / wanted) if wanted > 0 else 1.0
        rates = np.concatenate((self.result.demand.rate[self.rows], self.spots.rate))
        customers = clicks * (more * pace) * np.minimum(rates * rate, 1.0)
        allowed, contribution = self._worth(times, name)
        return _Sums(
            spend=wanted * pace,
            customers=float(customers.sum()),
            allowed=float(customers @ allowed),
            contribution=float(customers @ contribution),
        )

    def _worth(self, times: float, name: Input) -> tuple[Floats, Floats]:
        """Return what each row's customer may cost, and leaves; money."""
        brief = self.result.brief
        sale = times if name == "sale value" else 1.0
        kept = times if name in ("sale value", "margin") else 1.0
        pairs = [
            (allowed_cost(w.contribution * kept, w.revenue * sale, brief.ceiling),
             w.contribution * kept)
            for w in brief.worths
        ]  # fmt: skip
        allowed, contribution = np.array(pairs).T
        return allowed[self.offers], contribution[self.offers]


def _turn(over: Callable[[float], float], result: PlanResult, name: Input) -> Turn:
    """Return the value nearest to today's at which a sum turns from above 0 to below, or back."""
    now = over(1.0) >= 0
    step, most = _FARTHEST / _GRID, _farthest_up(result, name)
    for number in range(_GRID):
        for way in (-1.0, 1.0):
            inner, outer = way * number * step, way * (number + 1) * step
            if way > 0 and inner >= most:
                continue
            outer = min(outer, most)
            if (over(math.exp(outer)) >= 0) != now:
                times = math.exp(_halved(over, inner, outer, now))
                return Turn(times, _chance(result, name, times))
    return Turn(None, None)


def _farthest_up(result: PlanResult, name: Input) -> float:
    """Return how far up an input can go, in log units: no share is above 1."""
    share = {"margin": result.brief.offer.gross_margin,
             "conversion": result.brief.offer.rate.likely}.get(name, 0.0)  # fmt: skip
    return -math.log(share) if share > 0 else _FARTHEST


def _halved(over: Callable[[float], float], inner: float, outer: float, now: bool) -> float:
    for _ in range(_HALVINGS):
        middle = (inner + outer) / 2
        if (over(math.exp(middle)) >= 0) == now:
            inner = middle
        else:
            outer = middle
    return outer


def _chance(result: PlanResult, name: Input, times: float) -> float | None:
    """Return how likely an input lies beyond a value, as the draws spread it."""
    z = math.log(times)
    if name == "conversion":
        rate = result.brief.offer.rate
        if rate.likely <= 0:
            return None
        end = rate.high if z > 0 else rate.low
        spread = abs(math.log(max(end, 1e-12) / rate.likely)) / _P90
    else:
        plan = spreads_of(result).plan
        shared = {"prices": plan.price, "searches": plan.searches, "click rate": plan.click_rate}
        if name not in shared:
            return None
        spread = float(shared[name])
    if spread <= 0:
        return 0.0
    return float(ndtr(-abs(z) / spread))
