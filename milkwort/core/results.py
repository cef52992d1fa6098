"""What happened to each keyword, late customers allowed for."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from milkwort.core.assumptions import Assumed
from milkwort.core.errors import BadValueError
from milkwort.core.keyword_table import Floats, Ints

__all__ = ["Results", "per_enquiry", "settled"]


@dataclass(frozen=True)
class Results:
    """What happened to each keyword; arrays of shape (n_keywords,).

    Attributes
    ----------
    clicks : Floats
        Settled clicks: those old enough that their sale would be in.
    customers : Floats
        Or enquiries, where a two-step offer reports them.
    spend : Floats
        Money those clicks cost.
    """

    clicks: Floats
    customers: Floats
    spend: Floats

    def __post_init__(self) -> None:
        for name, column in vars(self).items():
            bad = ~(np.isfinite(column) & (column >= 0))
            if bad.any():
                row = int(np.flatnonzero(bad)[0])
                raise BadValueError(f"results row {row + 1}, {name}", "0 or more", column[row])


def settled(
    day: Ints, clicks: Floats, customers: Floats, spend: Floats, keyword: Ints, n: int,
    today: int, assumed: Assumed,
) -> Results:  # fmt: skip
    """Sum daily results by keyword, the last days' clicks left out.

    A sale that is in already counts even if its click is young; only the missing sales of
    young clicks are not held against a keyword.

    Parameters
    ----------
    day : Ints, shape (n_rows,)
        Number of the day.
    clicks, customers, spend : Floats, shape (n_rows,)
    keyword : Ints, shape (n_rows,)
        Row of the keyword table.
    n : int
        Keywords in the table.
    today : int
    assumed : Assumed

    Returns
    -------
    Results
    """
    old = day <= today - assumed["settle_days"]

    def sums(values: Floats, which: NDArray[np.bool_]) -> Floats:
        return np.bincount(keyword[which], values[which], minlength=n).astype(np.float64)

    every = np.ones(len(day), dtype=bool)
    sold = sums(customers, every)
    # what sold was clicked, however lately, at the price of all its clicks
    counted = np.maximum(sums(clicks, old), sold)
    all_clicks = sums(clicks, every)
    price = np.divide(sums(spend, every), all_clicks, out=np.zeros(n), where=all_clicks > 0)
    return Results(counted, sold, np.maximum(sums(spend, old), price * counted))


def per_enquiry(rate: Floats, allowed: Floats, close: Floats) -> tuple[Floats, Floats]:
    """Return enquiries per click and the allowed cost of an enquiry.

    Parameters
    ----------
    rate : Floats
        Customers per click.
    allowed : Floats
        Allowed cost of a customer, money.
    close : Floats
        Customers per enquiry, above 0.
    """
    return np.minimum(rate / close, 1.0), allowed * close
