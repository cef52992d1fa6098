"""How far a month moves with each input that all keywords share, one at a time."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.special import ndtri

from milkwort.core.plan._happened import SHARED, Inputs, happened, running
from milkwort.core.plan._month_sums import MonthSums
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.spreads import spreads_of

__all__ = ["SHARED", "Swing", "swings_of"]

_P90 = float(ndtri(0.9))


@dataclass(frozen=True)
class Swing:
    """A month with one shared input at its 10th and at its 90th percentile, the rest likely.

    Attributes
    ----------
    customers, profit : (float, float)
        A month, at the input's low and at its high.
    """

    customers: tuple[float, float]
    profit: tuple[float, float]


def swings_of(result: PlanResult) -> dict[str, Swing]:
    """Move one shared input at a time and say how far the expected month moves.

    Parameters
    ----------
    result : PlanResult

    Returns
    -------
    dict of str to Swing
        By `SHARED`, those that move customers most first.
    """
    rows = running(result)
    swings, spreads = {}, spreads_of(result)
    for name in range(len(SHARED)):
        z = np.zeros((len(SHARED), 2))
        z[name] = -_P90, _P90
        inputs = Inputs([one[:, None] for one in z], intent=0.0, draws=range(2), luck=None,
                        spreads=spreads)  # fmt: skip
        month = MonthSums(2)
        month.add(result, rows, slice(0, 2), happened(result, rows, inputs, None))
        low, high = month.customers.tolist(), month.profit.tolist()
        swings[SHARED[name]] = Swing((low[0], low[1]), (high[0], high[1]))
    return dict(sorted(swings.items(), key=lambda pair: -_size(pair[1])))


def _size(swing: Swing) -> float:
    return abs(swing.customers[1] - swing.customers[0])
