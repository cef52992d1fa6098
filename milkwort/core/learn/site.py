"""What the whole site saw beside what ads did: visits of any origin, customers without an ad."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.learn.seen import ResultRows
from milkwort.core.learn.windows import share_within

__all__ = ["SiteSeen", "site_seen"]


@dataclass(frozen=True)
class SiteSeen:
    """The whole site in the days somebody said something of.

    Attributes
    ----------
    visits, unpaid : float or None
        Visits of any origin, and customers who came without an ad; None where nobody said.
    cost_per_visit : float or None
        Money of those days a visit of any origin.
    without_ad : float or None
        Share of all customers of those days who came without an ad.
    """

    visits: float | None
    unpaid: float | None
    cost_per_visit: float | None
    without_ad: float | None


def site_seen(
    first: Ints,
    last: Ints,
    visits: Floats,
    unpaid: Floats,
    rows: ResultRows,
    days: tuple[date, date],
) -> SiteSeen | None:
    """Set what the site saw on some days beside what the ads did on them.

    Parameters
    ----------
    first, last : Ints, shape (n_windows,)
        Ordinals of the days of each count, ends included.
    visits, unpaid : Floats, shape (n_windows,)
        NaN where not said; a window is spread evenly over its days.
    rows : ResultRows
        By keyword; a window is spread evenly over its days.
    days : (date, date)
        Ends included.

    Returns
    -------
    SiteSeen or None
        None where nothing is said of these days.
    """
    share = share_within(first, last, *days)
    some = share > 0
    visits, unpaid = visits[some] * share[some], unpaid[some] * share[some]
    first = np.maximum(first[some], days[0].toordinal())
    last = np.minimum(last[some], days[1].toordinal())
    seen, bought = np.isfinite(visits), np.isfinite(unpaid)
    if not (seen | bought).any():
        return None
    spend, _ = _of_days(first[seen], last[seen], rows)
    _, customers = _of_days(first[bought], last[bought], rows)
    all_visits = float(visits[seen].sum()) if seen.any() else None
    others = float(unpaid[bought].sum()) if bought.any() else None
    everybody = (others or 0.0) + customers
    return SiteSeen(
        visits=all_visits,
        unpaid=others,
        cost_per_visit=spend / all_visits if all_visits else None,
        without_ad=others / everybody if others is not None and everybody > 0 else None,
    )


def _of_days(first: Ints, last: Ints, rows: ResultRows) -> tuple[float, float]:
    """Return money and customers of ads on days that are in any window; each day once."""
    if not len(first):
        return 0.0, 0.0
    start, end = int(first.min()), int(last.max())
    counted = np.zeros(end - start + 2, dtype=np.int64)
    np.add.at(counted, first - start, 1)
    np.add.at(counted, last - start + 1, -1)
    inside = np.concatenate(([0], np.cumsum(np.cumsum(counted)[:-1] > 0)))
    low = np.clip(rows.first - start, 0, end - start + 1)
    high = np.clip(rows.last - start + 1, 0, end - start + 1)
    share = (inside[high] - inside[low]) / (rows.last - rows.first + 1)
    return float((rows.cost * share).sum()), float((rows.customers * share).sum())
