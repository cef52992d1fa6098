"""What a click is worth: from a sale to the highest price of a click."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from milkwort.core.brief.fields import MOST_MONEY, check_field
from milkwort.core.brief.kinds import RULES, RuleName
from milkwort.core.errors import BadValueError

__all__ = [
    "CeilingRule",
    "Conversion",
    "Offer",
    "Worth",
    "WorthColumns",
    "allowed_cost",
    "worth_columns",
    "worth_of",
]


@dataclass(frozen=True)
class Conversion:
    """A rate as three numbers, each customers (or enquiries) per click, 0 to 1."""

    low: float
    likely: float
    high: float

    def __post_init__(self) -> None:
        for name in ("low", "likely", "high"):
            value = getattr(self, name)
            if not (math.isfinite(value) and 0 <= value <= 1):
                raise BadValueError(f"conversion {name}", "a share from 0 to 1", value)
        if not self.low <= self.likely <= self.high:
            raise BadValueError(
                "conversion", "low, likely and high in rising order", self.as_tuple()
            )

    def as_tuple(self) -> tuple[float, float, float]:
        """Return (low, likely, high)."""
        return (self.low, self.likely, self.high)

    def times(self, close: Conversion) -> Conversion:
        """Return the rate of two steps, lows with lows and highs with highs."""
        return Conversion(self.low * close.low, self.likely * close.likely, self.high * close.high)


@dataclass(frozen=True)
class Offer:
    """What is sold.

    Attributes
    ----------
    sale_value : float
        Price of one sale, in the plan's currency; above 0.
    gross_margin : float
        Share of it kept after cost, above 0 and at most 1.
    sales_per_customer : float
        Sales one customer brings; above 0.
    conversion : Conversion
        Customers per click, or enquiries per click where `close` is given.
    close : Conversion or None
        Customers per enquiry, for an offer sold in two steps.
    name : str
        What the planner calls it.
    """

    sale_value: float
    gross_margin: float
    conversion: Conversion
    sales_per_customer: float = 1.0
    close: Conversion | None = None
    name: str = ""

    def __post_init__(self) -> None:
        for name in ("sale_value", "sales_per_customer", "gross_margin"):
            check_field(name, getattr(self, name))

    @property
    def rate(self) -> Conversion:
        """Customers per click."""
        return self.conversion if self.close is None else self.conversion.times(self.close)


@dataclass(frozen=True)
class CeilingRule:
    """How much of a customer's contribution may go to ads.

    Attributes
    ----------
    rule : RuleName
        Which of the five rules.
    value : float or None
        Its number: a share for `profit_share` and `cost_of_sale`, money for
        `cost_per_customer`, a multiple for `return_on_spend`; unused by `break_even`.
    max_cpc : float or None
        The planner's own highest price of a click.
    may_pay_to_learn : bool
        Whether the allowed cost may pass a customer's contribution.
    """

    rule: RuleName = "break_even"
    value: float | None = None
    max_cpc: float | None = None
    may_pay_to_learn: bool = False

    def __post_init__(self) -> None:
        if self.rule not in RULES:
            raise BadValueError("ceiling rule", "one of " + ", ".join(RULES), self.rule)
        check_field("max_cpc", self.max_cpc)
        if self.rule == "break_even":
            return
        if self.value is None:
            raise BadValueError("ceiling value", f"a number for the rule {self.rule}", None)
        if self.rule == "profit_share":
            if not (math.isfinite(self.value) and 0 <= self.value < 1):
                raise BadValueError("ceiling value", "a share from 0 to under 1", self.value)
        elif not 0 < self.value <= MOST_MONEY:
            expected = f"a number above 0 and at most {MOST_MONEY:g}"
            raise BadValueError("ceiling value", expected, self.value)


@dataclass(frozen=True)
class Worth:
    """The descent from a sale to a click, in the plan's currency.

    Attributes
    ----------
    kept : float
        Margin of one sale.
    contribution : float
        Margin a customer brings, V·m·k.
    revenue : float
        Turnover a customer brings, V·k.
    allowed : float
        Allowed cost per customer, A.
    rate : Conversion
        Customers per click.
    break_even_cpc, ceiling : float
        At the likely rate; the ceiling is that of a keyword with factor 1.
    ceiling_low, ceiling_high : float
        The same at the low and the high rate.
    """

    kept: float
    contribution: float
    revenue: float
    allowed: float
    rate: Conversion
    break_even_cpc: float
    ceiling: float
    ceiling_low: float
    ceiling_high: float


@dataclass(frozen=True)
class WorthColumns:
    """What a customer of each keyword's offer is worth, money; arrays of shape (n_keywords,).

    Attributes
    ----------
    contribution, revenue, allowed : ndarray
        V·m·k, V·k and A.
    """

    contribution: NDArray[np.float64]
    revenue: NDArray[np.float64]
    allowed: NDArray[np.float64]


def worth_columns(worths: Sequence[Worth], offer: NDArray[np.int64]) -> WorthColumns:
    """Spread the worth of each offer over the keywords that point to it.

    Parameters
    ----------
    worths : sequence of Worth
        By place of the offer.
    offer : ndarray of int, shape (n_keywords,)
    """
    contribution, revenue, allowed = (
        np.array([getattr(w, name) for w in worths])[offer]
        for name in ("contribution", "revenue", "allowed")
    )
    return WorthColumns(contribution, revenue, allowed)


def worth_of(offer: Offer, rule: CeilingRule) -> Worth:
    """Work out what a click of one offer is worth.

    Parameters
    ----------
    offer : Offer
    rule : CeilingRule

    Returns
    -------
    Worth
        Money in the currency of ``offer.sale_value``.
    """
    kept = offer.sale_value * offer.gross_margin
    contribution = kept * offer.sales_per_customer
    revenue = offer.sale_value * offer.sales_per_customer
    allowed = allowed_cost(contribution, revenue, rule)
    cap = math.inf if rule.max_cpc is None else rule.max_cpc
    rate = offer.rate
    return Worth(
        kept=kept,
        contribution=contribution,
        revenue=revenue,
        allowed=allowed,
        rate=rate,
        break_even_cpc=contribution * rate.likely,
        ceiling=min(allowed * rate.likely, cap),
        ceiling_low=min(allowed * rate.low, cap),
        ceiling_high=min(allowed * rate.high, cap),
    )


def allowed_cost(contribution: float, revenue: float, rule: CeilingRule) -> float:
    """Return what a customer may cost, A, money.

    Parameters
    ----------
    contribution, revenue : float
        Of a customer: V·m·k and V·k, money.
    rule : CeilingRule
    """
    # A = V·m·k | V·m·k·(1−p) | a | V·k/R | c·V·k, never above V·m·k unless paying to learn
    value = rule.value if rule.value is not None else 0.0
    by_rule = {
        "break_even": lambda: contribution,
        "profit_share": lambda: contribution * (1 - value),
        "cost_per_customer": lambda: value,
        "return_on_spend": lambda: revenue / value,
        "cost_of_sale": lambda: value * revenue,
    }[rule.rule]()
    return by_rule if rule.may_pay_to_learn else min(by_rule, contribution)
