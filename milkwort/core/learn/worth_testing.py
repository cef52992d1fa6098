"""What it would be worth to know a keyword's rate, against what it costs to find out."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import betainc

from milkwort.core.arrays import Floats

__all__ = ["Testing", "worth_of_knowing", "worth_testing"]

_MONTHS = 6


@dataclass(frozen=True)
class Testing:
    """Arrays of shape (n_keywords,).

    Attributes
    ----------
    worth : Floats
        Money a month that knowing the rate would bring; 0 where nothing is to be known.
    costs : Floats
        Money that finding out takes at most.
    pays : ndarray of bool
        Whether six months of it are worth more than it costs.
    """

    worth: Floats
    costs: Floats
    pays: NDArray[np.bool_]


def worth_of_knowing(
    alpha: Floats, beta: Floats, allowed: Floats, price: Floats, clicks: Floats
) -> Floats:
    """Return what it is worth a month to know a rate.

    Parameters
    ----------
    alpha, beta : Floats
        Of the rate's Beta distribution, above 0.
    allowed : Floats
        A, money a customer.
    price : Floats
        P, money a click.
    clicks : Floats
        k, a month.
    """
    # k·(E[(A·r−P)⁺] − (A·E[r]−P)⁺)
    line = np.clip(price / allowed, 0.0, 1.0)
    mean = alpha / (alpha + beta)
    # E[(A·r−P)⁺] = A·α/(α+β)·(1−I_{P/A}(α+1,β)) − P·(1−I_{P/A}(α,β))
    gain = allowed * mean * (1 - betainc(alpha + 1, beta, line)) - price * (
        1 - betainc(alpha, beta, line)
    )
    return np.asarray(clicks * np.maximum(gain - np.maximum(allowed * mean - price, 0.0), 0.0))


def worth_testing(
    alpha: Floats, beta: Floats, allowed: Floats, price: Floats, clicks: Floats, to_stop: Floats
) -> Testing:
    """Say where a test pays: six months of knowing against the money it takes.

    Parameters
    ----------
    alpha, beta, allowed, price, clicks
        As for `worth_of_knowing`.
    to_stop : Floats
        Clicks without a sale until one would stop; infinite for never.
    """
    worth = worth_of_knowing(alpha, beta, allowed, price, clicks)
    short = np.maximum(0.0, price - allowed * alpha / (alpha + beta))
    costs = np.multiply(to_stop, short, out=np.zeros_like(worth), where=short > 0)
    return Testing(worth, costs, (worth > 0) & (_MONTHS * worth > costs))
