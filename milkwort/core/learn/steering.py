"""Whether a platform has enough customers to steer its bids by."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.special import gammaincinv

from milkwort.core.errors import BadValueError

__all__ = ["Steering", "steering_of"]

_WITHIN = 1 / 3
_BEFORE = 0.5
"""Of a customer, known of a count before any (Jeffreys)."""
_A_MONTH = 30.0


@dataclass(frozen=True)
class Steering:
    """How well a month's customers are known from those that came.

    Attributes
    ----------
    customers : float
        In 30 days.
    within : float
        Half of the interval that holds 8 times of 10, over the customers; infinite for none.
    enough : bool
        Whether they are known to within a third: a platform that bids for customers then
        follows the market more than chance.
    """

    customers: float
    within: float
    enough: bool


def steering_of(customers: float, days: int) -> Steering:
    """Say whether so many customers are enough to steer by.

    Parameters
    ----------
    customers : float
        That came in those days, 0 or more.
    days : int
        1 or more; the interval is that of 30 days at this rate.

    Raises
    ------
    BadValueError
    """
    if days < 1:
        raise BadValueError("days", "1 or more", days)
    if not (np.isfinite(customers) and customers >= 0):
        raise BadValueError("customers", "0 or more", customers)
    month = customers * _A_MONTH / days
    if month == 0:
        return Steering(0.0, float("inf"), False)
    # Gamma(x + ½): what x customers of a month say of the mean that brought them
    low, high = gammaincinv(month + _BEFORE, [0.1, 0.9])
    within = float(high - low) / 2 / month
    return Steering(month, within, within <= _WITHIN)
