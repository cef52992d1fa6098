"""The ladder of pounds: every next step the money could take, best first."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit._choices import Choices
from milkwort.core.fit.tolerances import ROUNDING

__all__ = ["Ladder", "ladder_of"]


@dataclass(frozen=True)
class Ladder:
    """Every step the money may take, best first; arrays of shape (n_steps,).

    Attributes
    ----------
    choices : Choices
        What the steps are of.
    steps : Ints
        Places among the hull's steps.
    spend, value : Floats
        What the step adds, a month.
    spend_so_far, value_so_far : Floats
        Sums including this step and the locked bids.
    base_spend, base_value : float
        What the locked bids alone cost and bring.
    """

    choices: Choices
    steps: Ints
    spend: Floats
    value: Floats
    spend_so_far: Floats
    value_so_far: Floats
    base_spend: float
    base_value: float

    @cached_property
    def owner(self) -> Ints:
        """The keyword of each step."""
        return self.choices.hull.owner[self.steps]

    @cached_property
    def from_steps(self) -> Ints:
        """Bids left, in whole bid steps; 0 for not running."""
        before = self.choices.hull.before[self.steps]
        if not len(before):
            return before
        return np.where(before >= 0, self.choices.options.steps[np.maximum(before, 0)], 0)

    @cached_property
    def to_steps(self) -> Ints:
        """Bids taken, in whole bid steps."""
        return self.choices.options.steps[self.choices.hull.option[self.steps]]

    def whole_steps(self, money: float) -> int:
        """Return how many steps a sum of money, locked bids included, takes whole."""
        return int(np.searchsorted(self.spend_so_far, money + ROUNDING, side="right"))

    def relaxed(self, money: float) -> float:
        """Return the best goal a sum of money would bring were steps divisible."""
        whole = self.whole_steps(money)
        value = float(self.value_so_far[whole - 1]) if whole else self.base_value
        if whole == len(self.steps):
            return value
        spent = float(self.spend_so_far[whole - 1]) if whole else self.base_spend
        return value + self.return_at(whole) * max(money - spent, 0.0)

    def return_at(self, step: int) -> float:
        """Return the goal per unit of money of one step."""
        return float(self.value[step] / self.spend[step])


def ladder_of(
    choices: Choices, steps: Ints, returns: Floats, base_spend: float, base_value: float
) -> Ladder:
    """Return a ladder of some hull steps, given best first with their returns."""
    spend = choices.hull.spend[steps]
    value = returns * spend
    spend_so_far, value_so_far = np.cumsum(spend), np.cumsum(value)
    spend_so_far += base_spend
    value_so_far += base_value
    return Ladder(
        choices=choices,
        steps=steps,
        spend=spend,
        value=value,
        spend_so_far=spend_so_far,
        value_so_far=value_so_far,
        base_spend=base_spend,
        base_value=base_value,
    )
