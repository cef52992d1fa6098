"""One month of the year as a plan of its own: its searches, its days, its money."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.brief.brief import Brief
from milkwort.core.fit.fit import fit
from milkwort.core.fit.tolerances import CLOSE, CURVE_CLOSE, MANY_LIMITED, ROUNDING
from milkwort.core.market.demand import Demand
from milkwort.core.market.forecast import expect, totals_of
from milkwort.core.plan.bidding import policy_rows
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.spots import spot_choices, spot_forecast, with_spots

__all__ = ["is_fitted", "month_of"]

_GROWS = ("likely", "volume", "own", "uncalled", "unknown", "spill", "searches", "click_weight")
"""What of the searches goes by the season and the days; rates and shares never do."""


def is_fitted(result: PlanResult) -> bool:
    """Say whether any keyword follows the fit.

    Parameters
    ----------
    result : PlanResult
    """
    rows = policy_rows(result.brief, result.table)
    return any(policy.name == "fitted" and mine.any() for policy, mine in rows)


def month_of(
    result: PlanResult,
    factor: Floats,
    purse: float,
    *,
    refit: bool = False,
    part: float = 1.0,
    days: float | None = None,
) -> PlanResult:
    """Return a plan as it stands in one month.

    Parameters
    ----------
    result : PlanResult
    factor : Floats, shape (n_keywords,)
        Searches of the month over those of the plan's month.
    purse : float
        Money of the month.
    refit : bool
        Whether bids are fitted anew where that brings more; else they stay, and are paced.
        The better of the two is taken: pacing may win, since it takes a share of every step
        where a fit takes whole ones. Bids that stay and would pass a limit are no choice.
    part : float
        Share of a whole month that is lived: of what spots have, which know no season, and of
        the limits' money and clicks.
    days : float, optional
        Days of the month, for its daily budgets and its draws.
    """
    brief = _brief(result.brief, purse, part, days)
    demand = _demand(result.demand, factor)
    both = np.concatenate((factor, np.full(result.problem.spots, part)))
    problem = replace(
        result.problem,
        click_weight=result.problem.click_weight * both,
        purse=purse,
        limits=brief.limits,
        locked_clicks=result.problem.locked_clicks * both,
        locked_spend=result.problem.locked_spend * both,
    )
    here = replace(result, brief=brief, demand=demand, problem=problem)
    kept = _at(here, result.bid, result.spots.steps)
    if not refit or not is_fitted(result):
        return kept
    many = problem.limits.any and problem.keywords > MANY_LIMITED
    fitted = fit(problem, result.may_run, close=CURVE_CLOSE if many else CLOSE, finish=not many)
    step, own = brief.assumed["bid_step"], fitted.steps[: problem.keywords]
    bid = np.where(own > 0, np.round(own * step, 10), np.nan)
    anew = _at(replace(here, fit=fitted), bid, fitted.steps[problem.keywords :])
    return max(anew, kept, key=lambda month: month.value) if _keeps_limits(kept) else anew


def _keeps_limits(month: PlanResult) -> bool:
    """Say whether bids chosen for another month keep this month's limits too."""
    locked = month.problem.locked_steps[: month.problem.keywords] >= 0
    runs = np.isfinite(month.bid) & ~locked
    few = month.expected.clicks[runs] < month.problem.limits.min_clicks * (1 - ROUNDING)
    return not few.any() and not month.broken()


def _brief(brief: Brief, purse: float, part: float, days: float | None) -> Brief:
    if part != 1.0:
        fewer = tuple(
            replace(spot, showings=spot.showings * part, clicks=spot.clicks * part)
            for spot in brief.spots
        )
        brief = replace(brief, spots=fewer, limits=brief.limits.over(part))
    if days is not None:
        brief = replace(brief, assumed=brief.assumed.lasting(days))
    return replace(brief, monthly_spend=purse)


def _demand(demand: Demand, factor: Floats) -> Demand:
    grown = {name: getattr(demand, name) * factor for name in _GROWS}
    return replace(demand, **grown)


def _at(month: PlanResult, bid: Floats, steps: Ints) -> PlanResult:
    """Return the month at given bids and steps of spots."""
    choices = spot_choices(month.brief)
    beside = float(spot_forecast(month.brief, choices, steps, 1.0).spend.sum())
    expected = expect(month.brief, month.demand, month.prices, bid, month.worth, beside=beside)
    spots = spot_forecast(month.brief, choices, steps, expected.pace)
    totals = with_spots(totals_of(month.demand, expected, bid), spots)
    return replace(month, bid=bid, expected=expected, spots=spots, totals=totals)
