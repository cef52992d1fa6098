"""What happened to each keyword, late customers allowed for."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.assumptions import Assumed
from milkwort.core.errors import BadValueError
from milkwort.core.pairs import pairs_once

__all__ = ["Results", "exposed", "exposure_of_click", "exposure_of_spans",
           "exposure_of_window", "per_enquiry"]  # fmt: skip


@dataclass(frozen=True)
class Results:
    """What happened to each keyword; arrays of shape (n_keywords,).

    Attributes
    ----------
    clicks : Floats
        All clicks of the window.
    exposure : Floats
        The same, each counted with the chance that its customer would be reported by now.
    customers : Floats
        All that are reported; or enquiries, where a two-step offer reports them.
    spend : Floats
        Money the clicks cost.
    """

    clicks: Floats
    exposure: Floats
    customers: Floats
    spend: Floats

    def __post_init__(self) -> None:
        for name, column in vars(self).items():
            bad = ~(np.isfinite(column) & (column >= 0))
            if bad.any():
                row = int(np.flatnonzero(bad)[0])
                raise BadValueError(f"results row {row + 1}, {name}", "0 or more", column[row])

    @property
    def too_many(self) -> NDArray[np.bool_]:
        """Where more customers than clicks are reported: as many as clicks are believed."""
        return self.customers > self.clicks

    @property
    def counted_customers(self) -> Floats:
        """x, customers that evidence counts."""
        return np.minimum(self.customers, self.clicks)

    @property
    def counted_clicks(self) -> Floats:
        """n = max(Σ clicks·c, x), clicks that evidence counts."""
        return np.maximum(self.exposure, self.counted_customers)

    @property
    def cpc(self) -> Floats:
        """P, average money a click; NaN without clicks."""
        nothing = np.full(len(self.clicks), np.nan)
        return np.asarray(np.divide(self.spend, self.clicks, out=nothing, where=self.clicks > 0))


def exposure_of_click(age: Floats, assumed: Assumed) -> Floats:
    """Return the chance that a click's customer would be reported by now.

    Parameters
    ----------
    age : Floats
        Whole days since the click, 0 or more.
    assumed : Assumed
        Its `report_half_life`, days; 0 where all are reported at once.
    """
    # c(a) = 1 − 2^(−(a+½)/h)
    half_life = assumed["report_half_life"]
    if half_life <= 0:
        return np.ones_like(np.asarray(age, dtype=np.float64))
    return np.asarray(1.0 - np.exp2(-(np.asarray(age, dtype=np.float64) + 0.5) / half_life))


def exposure_of_window(days: int, age_of_last: int, assumed: Assumed) -> float:
    """Return the mean exposure of clicks that fell evenly on some days.

    Parameters
    ----------
    days : int
        Length of the window, 1 or more.
    age_of_last : int
        Whole days since its last day.
    assumed : Assumed
    """
    ages = age_of_last + np.arange(days, dtype=np.float64)
    return float(exposure_of_click(ages, assumed).mean())


def exposure_of_spans(first: Ints, last: Ints, as_of: int, assumed: Assumed) -> Floats:
    """Return the mean exposure of a click of each row, spread evenly over the row's days.

    Parameters
    ----------
    first, last : Ints, shape (n_rows,)
        Ordinals of the days, ends included.
    as_of : int
        The day up to which is reported; a later day counts as of it.
    assumed : Assumed
    """
    if not len(first):
        return np.zeros(0)
    # a window's days are alike for all rows of it: each pair of ends once
    spans, place = pairs_once(first, last)
    ages = [
        np.maximum(as_of - np.arange(a, b + 1), 0).astype(np.float64) for a, b in spans.tolist()
    ]
    of_span = np.array([exposure_of_click(some, assumed).mean() for some in ages])
    return np.asarray(of_span[place])


def exposed(
    day: Ints, clicks: Floats, customers: Floats, spend: Floats, keyword: Ints, n: int,
    today: int, assumed: Assumed,
) -> Results:  # fmt: skip
    """Sum daily results by keyword, each click with its exposure.

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
        No row is younger; one that is counts as of today.
    assumed : Assumed

    Returns
    -------
    Results
    """
    seen = clicks * exposure_of_click(np.maximum(today - day, 0).astype(np.float64), assumed)

    def sums(values: Floats) -> Floats:
        return np.bincount(keyword, values, minlength=n).astype(np.float64)

    return Results(sums(clicks), sums(seen), sums(customers), sums(spend))


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
