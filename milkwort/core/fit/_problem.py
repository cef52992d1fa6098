"""What the fit is given."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.assumptions import Assumed
from milkwort.core.brief.limits import Limits

__all__ = ["Problem"]


@dataclass(frozen=True)
class Problem:
    """What the fit is given; arrays of shape (n_rows,): keywords, then spots.

    A spot has no market: its `click_weight` is the clicks it has at most, its `ceiling` what
    each of them costs, and its money comes in equal steps.

    Attributes
    ----------
    mu, sigma, click_weight, ceiling : Floats
        The market, Q and the highest price of each keyword.
    value_per_click : Floats
        Goal a click brings, before its price is taken off.
    less_spend : bool
        Whether the goal is what is left after the spend (profit).
    worth_per_click : Floats
        The most that one more click may cost, A·rate or V·m·k·rate.
    purse : float
        Money a month.
    locked_steps : Ints
        A bid set by hand in whole steps, −1 for none.
    locked_clicks, locked_spend : Floats
        What those bring a month; 0 elsewhere.
    campaign : Ints
        Number of the campaign, −1 for none.
    pricing : str
    assumed : Assumed
    limits : Limits
    spots : int
        How many of the last rows are spots.
    """

    mu: Floats
    sigma: Floats
    click_weight: Floats
    ceiling: Floats
    value_per_click: Floats
    less_spend: bool
    worth_per_click: Floats
    purse: float
    locked_steps: Ints
    locked_clicks: Floats
    locked_spend: Floats
    campaign: Ints
    pricing: str
    assumed: Assumed
    limits: Limits
    spots: int = 0

    @property
    def keywords(self) -> int:
        """How many of the rows are keywords; these alone are counted as looked after."""
        return len(self.mu) - self.spots

    def value(self, owner: Ints, clicks: Floats, spend: Floats) -> Floats:
        """Return the goal of some clicks and spend, row by row."""
        gross = self.value_per_click[owner] * clicks
        return gross - spend if self.less_spend else gross

    @property
    def locked_value(self) -> Floats:
        """The goal of each bid set by hand, a month."""
        return self.value(np.arange(len(self.mu)), self.locked_clicks, self.locked_spend)
