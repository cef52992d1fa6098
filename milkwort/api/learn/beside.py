"""What is known of some days beside results: customers counted by hand, and the whole site."""

from __future__ import annotations

from datetime import date

import numpy as np

from milkwort.api.learn.known import Known
from milkwort.core.learn.seen import ResultRows
from milkwort.core.learn.site import SiteSeen, site_seen
from milkwort.core.learn.windows import share_within

__all__ = ["hand_counts", "site_of"]


def hand_counts(known: Known, first: date, last: date) -> tuple[float, float | None]:
    """Return customers that were counted by hand, and the money they bought for.

    Of some days, ends included; money is that of whom it was said, None where of nobody.
    """
    counted = known.counted
    if counted is None:
        return 0.0, None
    share = share_within(counted.first, counted.last, first, last)
    value = float(np.nansum(counted.figures["value"] * share))
    return float((counted.figures["customers"] * share).sum()), value or None


def site_of(known: Known, rows: ResultRows, first: date, last: date) -> SiteSeen | None:
    """Return what the whole site saw on some days, ends included; None where nobody said."""
    if not known.site:
        return None
    starts, ends, visits, unpaid = (
        np.concatenate(columns)
        for columns in zip(*((p.first, p.last, p.figures["visits"], p.figures["unpaid"])
                             for p in known.site), strict=True)
    )  # fmt: skip
    return site_seen(starts, ends, visits, unpaid, rows, (first, last))
