"""What the choices of a brief may be."""

from __future__ import annotations

from typing import Literal, get_args

__all__ = [
    "GOALS",
    "POLICIES",
    "PRICINGS",
    "RULES",
    "RULE_STARTS",
    "Goal",
    "PolicyName",
    "Pricing",
    "RuleName",
    "YearPurse",
]

Goal = Literal["customers", "profit", "clicks", "revenue"]
Pricing = Literal["pay_enough", "pay_bid"]
RuleName = Literal[
    "break_even", "profit_share", "cost_per_customer", "return_on_spend", "cost_of_sale"
]
PolicyName = Literal[
    "fitted", "low", "middle", "high", "percentile", "high_plus", "flat", "flat_or_middle",
    "last_seen",
]  # fmt: skip

YearPurse = Literal["flat", "season", "own"]

GOALS: tuple[str, ...] = get_args(Goal)
PRICINGS: tuple[str, ...] = get_args(Pricing)
RULES: tuple[str, ...] = get_args(RuleName)
POLICIES: tuple[str, ...] = get_args(PolicyName)

RULE_STARTS: dict[str, float | None] = {
    "break_even": None,
    "profit_share": 0.3,
    "cost_per_customer": 20.0,
    "return_on_spend": 4.0,
    "cost_of_sale": 0.15,
}
"""What a ceiling rule starts with when it is chosen: shares, money a customer, a multiple."""
