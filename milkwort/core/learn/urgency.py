"""Which plan to open first: money out early, refused rows, sure stops, looks due, terms."""

from __future__ import annotations

from dataclasses import dataclass
from enum import IntEnum

from milkwort.core.errors import BadValueError

__all__ = ["Urgency", "Waits", "urgency_of"]


class Urgency(IntEnum):
    """Why a plan wants to be looked at; the lower, the sooner."""

    MONEY_OUT = 0
    REFUSED = 1
    STOPS = 2
    REVIEWS = 3
    TERMS = 4
    NOTHING = 5


@dataclass(frozen=True)
class Waits:
    """How much of each sort waits for a plan.

    Attributes
    ----------
    money_out : bool
        At this pace the month's money is gone before the month.
    refused, stops, reviews, terms : int
        Rows refused, keywords that evidence stops, looks that are due, terms to be decided.
    """

    money_out: bool = False
    refused: int = 0
    stops: int = 0
    reviews: int = 0
    terms: int = 0


def urgency_of(waits: Waits) -> Urgency:
    """Return the most urgent thing that waits.

    Parameters
    ----------
    waits : Waits

    Raises
    ------
    BadValueError
        For a negative count.
    """
    counts = (waits.refused, waits.stops, waits.reviews, waits.terms)
    if min(counts) < 0:
        raise BadValueError("waits", "counts of 0 or more", min(counts))
    for urgency, there in zip(Urgency, (waits.money_out, *counts), strict=False):
        if there:
            return urgency
    return Urgency.NOTHING
