"""Why a month differs: parts that add up exactly to what came, for customers and for money."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations
from math import factorial

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats
from milkwort.core.errors import BadValueError
from milkwort.core.learn.seen import Seen
from milkwort.core.plan.run import PlanResult

__all__ = ["Difference", "difference_of", "exchanged"]

CUSTOMER_PARTS = ("searches", "reach", "money", "click_rate", "conversion")
SPEND_PARTS = ("searches", "reach", "money", "click_rate", "price")
_TOGETHER = ("searches", "reach", "money")


@dataclass(frozen=True)
class Difference:
    """Parts by keyword; arrays of shape (n_keywords,) unless said otherwise.

    Attributes
    ----------
    planned : Floats
        Of the days that have gone.
    parts : dict of str to Floats
        By factor; ``showings`` in the place of searches, reach and money where the platform
        doesn't say what could have been shown.
    late : Floats
        Customers not yet reported, below 0; 0 for money.
    unplanned : Floats
        What came of what did not run in the plan, with what is not yet reported of it.
    reported : Floats
        planned + parts + unplanned + late.
    """

    planned: Floats
    parts: dict[str, Floats]
    late: Floats
    unplanned: Floats
    reported: Floats

    def sums(self, last: str, rows: NDArray[np.bool_] | None = None) -> dict[str, float]:
        """Return the sums over all keywords, or over some of them.

        Parameters
        ----------
        last : str
            What they add up to is called.
        rows : ndarray of bool, shape (n_keywords,), optional
            Rows that are no keyword belong to none of them.
        """

        def of(column: Floats) -> float:
            return float((column if rows is None else column[: len(rows)][rows]).sum())

        found = {"planned": of(self.planned)}
        found |= {name: of(part) for name, part in self.parts.items()}
        found["unplanned"] = of(self.unplanned)
        if last == "reported":
            found["late"] = of(self.late)
        return found | {last: of(self.reported)}


def exchanged(planned: Sequence[Floats], actual: Sequence[Floats]) -> list[Floats]:
    """Return each factor's part of a difference of products: its mean over all orders.

    Parameters
    ----------
    planned, actual : sequence of Floats, each of shape (n_rows,)
        The factors of one product, and of the other.

    Returns
    -------
    list of Floats
        They add up to the product of the actual factors less that of the planned ones.

    Raises
    ------
    BadValueError
        For other numbers of factors.
    """
    n = len(planned)
    if len(actual) != n or n == 0:
        raise BadValueError("actual", f"{n} factors, one or more", len(actual))
    parts = []
    for mine in range(n):
        others = [at for at in range(n) if at != mine]
        part = np.zeros_like(np.asarray(planned[0], dtype=np.float64))
        for size in range(n):
            # |T|!·(n−|T|−1)!/n! of all orders have just the factors T exchanged before this one
            weight = factorial(size) * factorial(n - size - 1) / factorial(n)
            for before in combinations(others, size):
                product = np.ones_like(part)
                for at in others:
                    product = product * (actual[at] if at in before else planned[at])
                part = part + weight * product
        parts.append((actual[mine] - planned[mine]) * part)
    return parts


def difference_of(
    month: PlanResult, factor: Floats, seen: Seen, unmatched: tuple[float, float] = (0.0, 0.0)
) -> tuple[Difference, Difference]:
    """Say why customers and money are not as planned.

    Parameters
    ----------
    month : PlanResult
        As it was planned.
    factor : Floats, shape (n_keywords,)
        Searches of the days that have gone over those of `month`.
    seen : Seen
        Of the same days.
    unmatched : (float, float)
        Customers and money of rows that are no keyword of the plan.

    Returns
    -------
    customers, spend : Difference
    """
    e, demand, n = month.expected, month.demand, len(month.table)
    runs = np.isfinite(month.bid) & (e.clicks > 0)
    planned = {
        "searches": demand.searches * factor,
        "reach": e.reach,
        "money": np.full(n, e.pace),
        "click_rate": _over(e.clicks, e.impressions, 0.0),
        "conversion": demand.rate,
        "price": e.cpc,
    }
    planned = {name: np.where(runs, np.nan_to_num(column), 0.0) for name, column in planned.items()}
    late = -np.maximum(seen.clicks - seen.exposure, 0.0) * np.nan_to_num(demand.rate)
    actual, whole = _actual(planned, seen, late)
    names = CUSTOMER_PARTS, SPEND_PARTS
    if not whole:
        planned["showings"] = planned["searches"] * planned["reach"] * planned["money"]
        names = tuple(  # type: ignore[assignment] # three factors as one
            ("showings", *(part for part in some if part not in _TOGETHER)) for some in names
        )
    reported = (seen.customers, seen.cost)
    extra = (unmatched[0], unmatched[1])
    lates = (late, np.zeros(n))
    found = []
    for some, came, more, late_part in zip(names, reported, extra, lates, strict=True):
        found.append(_difference(some, planned, actual, runs, came, late_part, more))
    return found[0], found[1]


def _difference(
    names: Sequence[str], planned: dict[str, Floats], actual: dict[str, Floats],
    runs: np.ndarray[tuple[int], np.dtype[np.bool_]], came: Floats, late: Floats, more: float,
) -> Difference:  # fmt: skip
    before, after = [planned[name] for name in names], [actual[name] for name in names]
    parts = exchanged(before, after)
    due = np.prod(before, axis=0)
    # what no factor tells of (customers without clicks, say) ran beside the plan
    unplanned = came - late - due - np.sum(parts, axis=0)
    unplanned = np.where(runs, np.where(np.abs(unplanned) < 1e-9, 0.0, unplanned), came - late)
    reported = due + np.sum(parts, axis=0) + unplanned + late
    if more and len(came):
        unplanned, reported = np.append(unplanned, more), np.append(reported, more)
    elif more:
        unplanned, reported = np.array([more]), np.array([more])
    return Difference(due, dict(zip(names, parts, strict=True)), late, unplanned, reported)


def _actual(planned: dict[str, Floats], seen: Seen, late: Floats) -> tuple[dict[str, Floats], bool]:
    """Return what each factor really was; where nothing can be seen of one, as planned."""
    # where nobody says how often it was shown, as often as so many clicks take
    shown = np.where(
        np.isnan(seen.impressions),
        _over(seen.clicks, planned["click_rate"], seen.clicks),
        seen.impressions,
    )
    impressions = np.maximum(shown, seen.clicks)
    told = np.isfinite(seen.could_show)
    whole = bool((told | ~seen.shown).all()) and bool(told.any())
    lost = np.nan_to_num(seen.lost_to_money)
    could = np.maximum(np.nan_to_num(seen.could_show), impressions + lost)
    sold = np.maximum(seen.customers - late, 0.0)
    actual = {
        "click_rate": _over(seen.clicks, impressions, planned["click_rate"]),
        "conversion": _over(sold, seen.clicks, planned["conversion"]),
        "price": _over(seen.cost, seen.clicks, planned["price"]),
        "showings": impressions,
        "searches": could,
        "reach": _over(impressions, could - lost, planned["reach"]),
        "money": _over(could - lost, could, planned["money"]),
    }
    ran = planned["searches"] > 0
    return {name: np.where(ran, column, 0.0) for name, column in actual.items()}, whole


def _over(a: Floats, b: Floats, otherwise: Floats | float) -> Floats:
    held = np.broadcast_to(np.asarray(otherwise, dtype=np.float64), np.shape(a)).copy()
    return np.asarray(np.divide(a, b, out=held, where=b > 0))
