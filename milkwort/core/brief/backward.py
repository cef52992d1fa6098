"""The descent from sale to click read backwards: at a price, how many clicks may make a sale."""

from __future__ import annotations

import math
from dataclasses import dataclass

from milkwort.core.brief.brief import Brief

__all__ = ["AtPrice", "backward"]

_NICE = (
    0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1.0, 2.0, 4.0, 8.0, 16.0, 32.0, 64.0, 128.0, 250.0,
    *(figure * 10.0**power for power in range(2, 7) for figure in (5, 10, 20)),
)  # fmt: skip
_LINES = 4


@dataclass(frozen=True)
class AtPrice:
    """What a click price asks of visitors.

    Attributes
    ----------
    price : float
        Money a click.
    rule, break_even : float
        Clicks a sale may take to meet the rule, and to break even.
    expected : float or None
        Clicks that a sale likely takes; None where none is expected.
    meets_rule, breaks_even : bool
        Whether that is few enough.
    """

    price: float
    rule: float
    break_even: float
    expected: float | None
    meets_rule: bool
    breaks_even: bool


def backward(brief: Brief) -> list[AtPrice]:
    """Say, for a few round click prices about the ceiling, how many clicks may make a sale.

    Parameters
    ----------
    brief : Brief
        Its first offer is read.
    """
    worth = brief.worth
    ceiling = worth.ceiling or worth.break_even_cpc or 1.0
    nearest = min(range(len(_NICE)), key=lambda i: abs(math.log(_NICE[i] / ceiling)))
    start = min(max(nearest - 2, 0), len(_NICE) - _LINES)
    # clicks a sale may take: A/P by the rule, V·m·k/P to break even
    return [
        AtPrice(
            price=price,
            rule=worth.allowed / price,
            break_even=worth.contribution / price,
            expected=1 / worth.rate.likely if worth.rate.likely else None,
            meets_rule=worth.rate.likely * worth.allowed >= price,
            breaks_even=worth.rate.likely * worth.contribution >= price,
        )
        for price in _NICE[start : start + _LINES]
    ]
