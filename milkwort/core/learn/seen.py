"""What was seen of each keyword over some days: sums of result rows, as far as reported."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.assumptions import Assumed
from milkwort.core.errors import BadValueError
from milkwort.core.learn.results import Results, exposure_of_spans

__all__ = ["ResultRows", "Seen", "seen_by"]

_FIGURES = ("impressions", "clicks", "cost", "customers", "could_show", "lost_to_money",
            "enquiries", "invalid_clicks")  # fmt: skip


@dataclass(frozen=True)
class ResultRows:
    """Result rows as read; arrays of shape (n_rows,).

    Attributes
    ----------
    keyword : Ints
        Row of the plan's table; −1 where no keyword is meant.
    first, last : Ints
        Ordinals of the days a row is about, ends included; equal for a day.
    impressions : Floats
        NaN where nobody says.
    clicks, customers : Floats
    cost : Floats
        Money, less what was credited.
    could_show, lost_to_money, enquiries, invalid_clicks : Floats
        NaN where the platform doesn't say.
    sold_told : ndarray of bool or None
        Rows that say their customers, all where left out; the clicks of others expose nobody.
    """

    keyword: Ints
    first: Ints
    last: Ints
    impressions: Floats
    clicks: Floats
    cost: Floats
    customers: Floats
    could_show: Floats
    lost_to_money: Floats
    enquiries: Floats
    invalid_clicks: Floats
    sold_told: NDArray[np.bool_] | None = None

    def __post_init__(self) -> None:
        if self.sold_told is None:
            object.__setattr__(self, "sold_told", np.ones(len(self.keyword), dtype=bool))
        if (self.last < self.first).any():
            row = int(np.flatnonzero(self.last < self.first)[0])
            raise BadValueError(f"results row {row + 1}, until", "a day from its first on",
                                str(date.fromordinal(int(self.last[row]))))  # fmt: skip
        for name in _FIGURES:
            column = getattr(self, name)
            bad = (column < 0) | np.isinf(column)
            if bad.any():
                row = int(np.flatnonzero(bad)[0])
                raise BadValueError(f"results row {row + 1}, {name}", "0 or more", column[row])

    def __len__(self) -> int:
        return len(self.keyword)

    def at(self, rows: Ints | NDArray[np.bool_]) -> ResultRows:
        """Return some of the rows."""
        return replace(self, **{name: column[rows] for name, column in vars(self).items()})


@dataclass(frozen=True)
class Seen:
    """Sums by keyword; arrays of shape (n_keywords,).

    Attributes
    ----------
    impressions, clicks, cost, customers, exposure : Floats
        `exposure` counts each click with the chance that its customer would be reported;
        impressions are NaN where some of them are not told.
    could_show, lost_to_money : Floats
        NaN where the platform doesn't say.
    enquiries : Floats
        NaN where none are told.
    asked_exposure : Floats
        The same as `exposure`, of clicks whose enquiries or customers are told.
    """

    impressions: Floats
    clicks: Floats
    cost: Floats
    customers: Floats
    exposure: Floats
    could_show: Floats
    lost_to_money: Floats
    enquiries: Floats
    asked_exposure: Floats

    def results(self) -> Results:
        """Return what evidence is judged on: customers."""
        return Results(self.clicks, self.exposure, self.customers, self.cost)

    @property
    def shown(self) -> NDArray[np.bool_]:
        """Whether anything at all was seen."""
        return np.asarray((self.impressions > 0) | (self.clicks > 0) | (self.customers > 0))


def seen_by(rows: ResultRows, n: int, as_of: int, assumed: Assumed) -> Seen:
    """Sum result rows by keyword.

    Parameters
    ----------
    rows : ResultRows
        Those of no keyword are left out.
    n : int
        Keywords in the table.
    as_of : int
        Ordinal of the day up to which is reported; clicks of later days count as of it.
    assumed : Assumed

    Returns
    -------
    Seen
        A window without days spreads its clicks evenly over its days.
    """
    mine = np.flatnonzero(rows.keyword >= 0)
    some = rows.at(mine)

    def sums(values: Floats) -> Floats:
        return np.bincount(some.keyword, values, minlength=n).astype(np.float64)

    def told(values: Floats) -> Floats:
        known = np.isfinite(values)
        held = np.bincount(some.keyword[known], minlength=n) > 0
        return np.where(held, sums(np.where(known, values, 0.0)), np.nan)

    exposed = some.clicks * exposure_of_spans(some.first, some.last, as_of, assumed)
    sold = np.asarray(some.sold_told, dtype=bool)
    asked = sold | np.isfinite(some.enquiries)
    return Seen(
        impressions=sums(some.impressions), clicks=sums(some.clicks), cost=sums(some.cost),
        customers=sums(some.customers), exposure=sums(exposed * sold),
        could_show=told(some.could_show), lost_to_money=told(some.lost_to_money),
        enquiries=told(some.enquiries), asked_exposure=sums(exposed * asked),
    )  # fmt: skip
