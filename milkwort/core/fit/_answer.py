"""What a fit comes to: bids, what they bring, and how near the best that is."""

from __future__ import annotations

from dataclasses import dataclass

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit._choices import Choices
from milkwort.core.fit._ladder import Ladder
from milkwort.core.fit.unmet import Unmet

__all__ = ["Fit"]


@dataclass(frozen=True)
class Fit:
    """Bids that make most of the purse.

    Attributes
    ----------
    steps : Ints, shape (n_keywords,)
        Bids in whole steps, 0 for not running.
    value, spend : float
        Goal and money a month.
    bound : float
        No choice of these bids brings more (linear relaxation).
    exact : bool
        Whether the answer was finished exactly, or meets the bound.
    next_unit : float
        What one more unit of money would bring.
    next_return : float
        Goal per unit of money at the purse's edge; 0 where money is left.
    row_return : Floats, shape (n_keywords,)
        The same at the edge of what limits the keyword's money: its campaign, or the purse.
    unspent : float
        Money that no step worth its price could use.
    ladder : Ladder
    choices : Choices
        What a later fit of nearly the same problem can go on from.
    unmet : tuple of Unmet
        Limits that could not be kept, and by how much: locked bids alone pass them, or
        nothing worth its price uses a least spend.
    """

    steps: Ints
    value: float
    spend: float
    bound: float
    exact: bool
    next_unit: float
    next_return: float
    row_return: Floats
    unspent: float
    ladder: Ladder
    choices: Choices
    unmet: tuple[Unmet, ...] = ()

    @property
    def gap(self) -> float:
        """How far the value may lie below the best, as a share of the bound."""
        return (self.bound - self.value) / self.bound if self.bound > 0 else 0.0
