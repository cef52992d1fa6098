"""The line moved by hand: which rule behind the ceilings puts it where the planner wants it."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from milkwort.core.brief.worth import CeilingRule, Offer, worth_of
from milkwort.core.errors import BadValueError
from milkwort.core.market.prices import price_at_reach
from milkwort.core.plan.run import PlanResult

__all__ = ["price_that_admits", "rule_that_admits"]

_STEP = 1e-4
"""Shares are set to a hundredth of a per cent, money to a cent: enough to tell rows apart."""


def rule_that_admits(result: PlanResult, row: int) -> CeilingRule:
    """Return the ceiling rule under which a keyword just comes to the line.

    Parameters
    ----------
    result : PlanResult
    row : int
        The keyword that is to be the last one above the line.

    Returns
    -------
    CeilingRule
        The same kind of rule with another value; *break even* becomes a profit share. The
        value is rounded so that the keyword is in.

    Raises
    ------
    BadValueError
        Where no value of the rule would: a rate of 0, no price, the planner's own highest
        price in the way, or more than a customer brings.
    """
    brief, rate = result.brief, float(result.demand.rate[row])
    price = float(price_at_reach(brief.assumed["stretch"], result.prices)[row])
    extra = 1 + brief.assumed["platform_raise"]
    if not (rate > 0 and math.isfinite(price)):
        raise BadValueError("the line", "a keyword with a rate and a price", "one without")
    cap = brief.ceiling.max_cpc
    if cap is not None and price * extra > cap:
        raise BadValueError("the line", f"a price up to your own highest, {cap:g}", price)
    # A · rate / (1 + y) = price at the line
    allowed = price * extra / rate
    offer = brief.offers[int(result.table.offer[row])]
    rule = _with_allowed(brief.ceiling, offer, allowed)
    reached = worth_of(offer, rule).allowed
    if reached < allowed * (1 - 1e-9):
        raise BadValueError(
            "the line", f"a customer who brings {allowed:.2f} or more", f"{reached:.2f}"
        )
    return rule


def price_that_admits(result: PlanResult, row: int) -> float:
    """Return the highest price of a click under which a keyword just comes to the line.

    Parameters
    ----------
    result : PlanResult
    row : int
        The keyword that is to be the last one above the line, in order of price.

    Returns
    -------
    float
        Money a click: its price at the line, rounded up to the bid step.

    Raises
    ------
    BadValueError
        Where the keyword has no price.
    """
    brief = result.brief
    price = float(price_at_reach(brief.assumed["stretch"], result.prices)[row])
    if not math.isfinite(price):
        raise BadValueError("the line", "a keyword with a price", "one without")
    step = brief.assumed["bid_step"]
    # a price that stands on a step already stays there
    return round(math.ceil(price / step - 1e-4) * step, 10)


def _with_allowed(rule: CeilingRule, offer: Offer, allowed: float) -> CeilingRule:
    """Return the rule with the value that allows so much a customer, rounded in its favour."""
    turnover = offer.sale_value * offer.sales_per_customer
    contribution = turnover * offer.gross_margin
    if rule.rule == "cost_per_customer":
        return replace(rule, value=math.ceil(allowed * 100 - 1e-6) / 100)
    if rule.rule == "return_on_spend":
        return replace(rule, value=_down(turnover / allowed))
    if rule.rule == "cost_of_sale":
        return replace(rule, value=min(_up(allowed / turnover), 1.0))
    share = float(np.clip(_down(1 - allowed / contribution), 0.0, 1 - _STEP))
    return replace(rule, rule="profit_share", value=share)


def _down(value: float) -> float:
    return round(math.floor(value / _STEP + 1e-6) * _STEP, 6)


def _up(value: float) -> float:
    return round(math.ceil(value / _STEP - 1e-6) * _STEP, 6)
