"""How unsure conversion still is, once results have told of it."""

from __future__ import annotations

import numpy as np

from milkwort.core.brief.worth import Conversion, Offer
from milkwort.core.learn.learned import Judged

__all__ = ["narrowed_offer", "narrowing_of"]


def narrowing_of(judged: Judged) -> float:
    """Return the share of the spread of conversion that results leave.

    Parameters
    ----------
    judged : Judged

    Returns
    -------
    float
        Above 0 and at most 1: √(w/(w + Σx)), since a spread s weighs w = 1/s² sales, and each
        customer that was reported weighs one more.
    """
    results, rate = judged.results, judged.rate
    sold = float(results.counted_customers[rate > 0].sum())
    return float(np.sqrt(judged.weight / (judged.weight + sold)))


def narrowed_offer(offer: Offer, left: float) -> Offer:
    """Return an offer whose low and high stand nearer its likely rate.

    Parameters
    ----------
    offer : Offer
    left : float
        Share of the spread that is left, in log units.
    """
    close = None if offer.close is None else _narrowed(offer.close, left)
    return Offer(
        sale_value=offer.sale_value, gross_margin=offer.gross_margin,
        conversion=_narrowed(offer.conversion, left),
        sales_per_customer=offer.sales_per_customer, close=close, name=offer.name,
    )  # fmt: skip


def _narrowed(rate: Conversion, left: float) -> Conversion:
    low, likely, high = rate.low, rate.likely, rate.high
    if low <= 0 or likely <= 0:
        return rate
    return Conversion(likely * (low / likely) ** left, likely, likely * (high / likely) ** left)
