"""The whole run: a brief and its keywords become a plan.

What `milkwort plan` and the server both call.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.brief.brief import Brief
from milkwort.core.brief.worth import WorthColumns, worth_columns
from milkwort.core.fit.attention import AttentionPoint, attention
from milkwort.core.fit.fit import Fit, Problem, fit
from milkwort.core.fit.frontier import Frontier, frontier
from milkwort.core.fit.unmet import Unmet, unmet_of
from milkwort.core.fit.would_bring import would_bring
from milkwort.core.market.demand import Demand, demand_if_kept, demand_of
from milkwort.core.market.forecast import Expected, Totals, expect, totals_of
from milkwort.core.market.keyword_table import KeywordTable
from milkwort.core.market.prices import Prices, at_bid, prices_of
from milkwort.core.market.serving import Serving
from milkwort.core.market.standing import Standing, ceiling_of, standing_of
from milkwort.core.plan._checks import check_table
from milkwort.core.plan.bidding import Market, bids_of, fixed_steps, hand_steps
from milkwort.core.plan.spots import (
    SpotChoices,
    SpotForecast,
    spot_choices,
    spot_forecast,
    with_spots,
)

__all__ = [
    "NotKept",
    "PlanResult",
    "attention_of",
    "frontier_of",
    "run_plan",
]


@dataclass(frozen=True)
class NotKept:
    """What keywords outside the plan would bring; arrays of shape (n_keywords,).

    Attributes
    ----------
    bid : Floats
        Money a click; NaN where it is kept, or would not run.
    clicks, spend, customers : Floats
        What it would add a month at the present next unit of money; 0 where kept.
    """

    bid: Floats
    clicks: Floats
    spend: Floats
    customers: Floats


@dataclass(frozen=True)
class PlanResult:
    """Everything one run of a plan says.

    Attributes
    ----------
    brief : Brief
    table : KeywordTable
    demand : Demand
    prices : Prices
    worth : WorthColumns
        What a customer of each keyword's offer is worth.
    standing : Standing
    bid : Floats, shape (n_keywords,)
        Money a click; NaN where a keyword doesn't run.
    expected : Expected
    totals : Totals
    problem : Problem
        What the fit was asked.
    fit : Fit
        The best bids, whether or not the policy uses them.
    not_kept : NotKept
    spots : SpotForecast
        What the fit takes of the brief's spots, in their order.
    """

    brief: Brief
    table: KeywordTable
    demand: Demand
    prices: Prices
    worth: WorthColumns
    standing: Standing
    bid: Floats
    expected: Expected
    totals: Totals
    problem: Problem
    fit: Fit
    not_kept: NotKept
    spots: SpotForecast

    @property
    def may_run(self) -> NDArray[np.bool_]:
        """Which rows of the problem may run: keywords that serve searches, and every spot."""
        return _may_run(self.demand, self.problem.spots)

    @property
    def serving(self) -> Serving:
        """Who serves which search."""
        return self.demand.serving

    @property
    def by_method(self) -> bool:
        """Whether one method for the whole plan says the bids, not the fit."""
        return self.brief.policy.name != "fitted" and not self.brief.own_policies

    @property
    def unmet(self) -> tuple[Unmet, ...]:
        """Limits that the plan's bids don't keep, and by how much."""
        return self.broken() if self.by_method else self.fit.unmet

    def broken(self) -> tuple[Unmet, ...]:
        """Hold the bids as they stand against the limits."""
        steps = np.round(np.nan_to_num(self.bid) / self.brief.assumed["bid_step"])
        return unmet_of(
            self.problem,
            np.concatenate((steps.astype(np.int64), self.spots.steps)),
            np.concatenate((self.expected.spend, self.spots.spend)),
        )

    @property
    def value(self) -> float:
        """The goal that the plan's bids reach, a month."""
        return self.totals.goal(self.brief.goal)

    @property
    def bound(self) -> float:
        """No fitted bids bring more than this."""
        return max(self.fit.bound, self.value)


def run_plan(brief: Brief, table: KeywordTable, before: PlanResult | None = None) -> PlanResult:
    """Plan a month.

    Parameters
    ----------
    brief : Brief
    table : KeywordTable
        May be empty, or hold keywords without volume or price: these are not forecast.
    before : PlanResult, optional
        Of an earlier run of nearly the same plan; what did not change since is taken over.

    Returns
    -------
    PlanResult
        The same with or without `before`.

    Raises
    ------
    BadValueError
        Where a figure is out of its range, naming its row and column.
    """
    check_table(brief, table)
    demand = demand_of(brief, table)
    prices = prices_of(table.cpc_low, table.cpc_high, table.group, brief.assumed)
    worth = worth_columns(brief.worths, table.offer)
    standing = standing_of(brief, demand, prices, worth.allowed)
    market = Market(brief, table, demand, prices, standing)
    hand = hand_steps(brief, table, demand, prices)
    locked = fixed_steps(market, hand)
    problem = _problem(brief, table, demand, prices, worth, standing.ceiling, locked)
    choices = spot_choices(brief)
    problem = _with_spots(problem, brief, choices)
    may_run = _may_run(demand, len(choices))
    fitted = fit(problem, may_run, None if before is None else before.fit.choices)
    bid = bids_of(market, fitted, hand)
    taken = fitted.steps[len(table) :]
    beside = float(spot_forecast(brief, choices, taken, 1.0).spend.sum())
    expected = expect(brief, demand, prices, bid, worth, beside=beside)
    spots = spot_forecast(brief, choices, taken, expected.pace)
    return PlanResult(
        brief=brief,
        table=table,
        demand=demand,
        prices=prices,
        worth=worth,
        standing=standing,
        bid=bid,
        expected=expected,
        totals=with_spots(totals_of(demand, expected, bid), spots),
        problem=problem,
        fit=fitted,
        not_kept=_not_kept(brief, table, demand, prices, worth, fitted),
        spots=spots,
    )


def frontier_of(result: PlanResult) -> Frontier:
    """Return the goal a month for every purse, best bids throughout.

    Parameters
    ----------
    result : PlanResult

    Returns
    -------
    Frontier
        Purse and spend in money a month, value in the unit of the goal.
    """
    return frontier(result.problem, result.may_run, result.fit)


def attention_of(result: PlanResult) -> list[AttentionPoint]:
    """Return the best goal a month with at most so many keywords.

    Parameters
    ----------
    result : PlanResult
    """
    return attention(result.problem, result.may_run, result.fit)


def _problem(
    brief: Brief,
    table: KeywordTable,
    demand: Demand,
    prices: Prices,
    worth: WorthColumns,
    ceiling: Floats,
    locked: Ints,
) -> Problem:
    value_per_click = {
        "clicks": np.ones_like(demand.rate),
        "customers": demand.rate,
        "revenue": demand.rate * worth.revenue,
        "profit": demand.rate * worth.contribution,
    }[brief.goal]
    profit = brief.goal == "profit"
    clicks, spend = _locked_figures(brief, demand, prices, locked)
    return Problem(
        mu=prices.mu,
        sigma=prices.sigma,
        click_weight=demand.click_weight,
        ceiling=ceiling,
        value_per_click=value_per_click,
        less_spend=profit,
        worth_per_click=demand.rate * (worth.contribution if profit else worth.allowed),
        purse=brief.monthly_spend,
        locked_steps=locked,
        locked_clicks=clicks,
        locked_spend=spend,
        campaign=table.campaign,
        pricing=brief.pricing,
        assumed=brief.assumed,
        limits=brief.limits,
    )


def _with_spots(problem: Problem, brief: Brief, spots: SpotChoices) -> Problem:
    """Return a problem with spots as its last rows."""
    if not len(spots):
        return problem
    nothing = np.zeros(len(spots))
    value = {
        "clicks": np.ones(len(spots)),
        "customers": spots.rate,
        "revenue": spots.rate * spots.revenue,
        "profit": spots.rate * spots.contribution,
    }[brief.goal]
    worth = spots.rate * (spots.contribution if problem.less_spend else spots.allowed)
    more: dict[str, Any] = {
        "mu": nothing,
        "sigma": np.ones(len(spots)),
        "click_weight": spots.clicks,
        "ceiling": spots.price,
        "value_per_click": value,
        "worth_per_click": worth,
        "locked_steps": np.full(len(spots), -1, dtype=np.int64),
        "locked_clicks": nothing,
        "locked_spend": nothing,
        "campaign": spots.campaign,
    }
    both: dict[str, Any] = {
        name: np.concatenate((getattr(problem, name), rows)) for name, rows in more.items()
    }
    return replace(problem, **both, spots=len(spots))


def _may_run(demand: Demand, spots: int) -> NDArray[np.bool_]:
    return np.concatenate((demand.serving.serves, np.ones(spots, dtype=bool)))


def _locked_figures(
    brief: Brief, demand: Demand, prices: Prices, locked: Ints
) -> tuple[Floats, Floats]:
    clicks, spend = np.zeros(len(locked)), np.zeros(len(locked))
    rows = np.flatnonzero(locked > 0)
    at = at_bid(
        np.asarray(locked[rows] * brief.assumed["bid_step"], dtype=np.float64),
        prices.mu[rows],
        prices.sigma[rows],
        demand.searches[rows],
        demand.click_weight[rows],
        brief.pricing,
        brief.assumed,
    )
    clicks[rows], spend[rows] = at.clicks, at.spend
    return clicks, spend


def _not_kept(
    brief: Brief,
    table: KeywordTable,
    demand: Demand,
    prices: Prices,
    worth: WorthColumns,
    fitted: Fit,
) -> NotKept:
    rows = np.flatnonzero(~table.kept)
    there = demand_if_kept(brief, table, demand, rows)
    columns = WorthColumns(*(column[rows] for column in vars(worth).values()))
    asked = _problem(
        brief,
        table.at(rows),
        there,
        prices.at(rows),
        columns,
        ceiling_of(brief, there.rate, columns.allowed),
        np.full(len(rows), -1, dtype=np.int64),
    )
    would = would_bring(asked, np.arange(len(rows)), fitted.row_return[rows])

    def full(values: Floats) -> Floats:
        column = np.zeros(len(table))
        column[rows] = values
        return column

    bid = full(np.round(would.steps * brief.assumed["bid_step"], 10))
    return NotKept(
        bid=np.where(bid > 0, bid, np.nan),
        clicks=full(would.clicks),
        spend=full(would.spend),
        customers=full(would.clicks * there.rate),
    )
