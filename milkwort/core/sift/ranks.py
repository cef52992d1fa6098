"""What ranks say of paying for a search: whether it may do without the ad."""

from __future__ import annotations

__all__ = ["rank_gap", "strong_unpaid"]

_STRONG = 5
"""Who is listed so far up for nothing may do without the ad."""


def strong_unpaid(unpaid: float | None, paid: float | None) -> bool:
    """Say whether a keyword is listed well for nothing, and not paid for.

    Parameters
    ----------
    unpaid, paid : float or None
        Ranks, 1 at the top; None where unknown.
    """
    return unpaid is not None and unpaid <= _STRONG and paid is None


def rank_gap(unpaid: float | None, paid: float | None) -> float | None:
    """Return by how many places the ad stands below the unpaid listing; below zero, above it.

    Parameters
    ----------
    unpaid, paid : float or None
        Ranks, 1 at the top; None where unknown.
    """
    return None if unpaid is None or paid is None else paid - unpaid
