"""The one cap to give a platform that bids by itself for most clicks."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.brief.brief import Policy
from milkwort.core.fit.bids import floor_to_step
from milkwort.core.fit.options import bid_lattice
from milkwort.core.market.prices import price_at_reach
from milkwort.core.plan.methods import OtherWay, at_bids
from milkwort.core.plan.run import PlanResult

__all__ = ["OneCap", "one_cap"]

_ROUND = 5
_FINE = 64


@dataclass(frozen=True)
class OneCap:
    """The uniform bid that spends a purse best.

    Attributes
    ----------
    cap : float
        Money a click.
    brings : OtherWay
        What it would bring, paced to the purse.
    """

    cap: float
    brings: OtherWay


def one_cap(result: PlanResult, *, odd_step: bool = False, bare: bool = True) -> OneCap | None:
    """Return the cap for all keywords that brings most of the goal at this purse.

    Parameters
    ----------
    result : PlanResult
    odd_step : bool
        Whether a cap on a round 5 or 10 goes one step up.
    bare : bool
        Whether every keyword bids the cap itself, as a platform does that bids by itself;
        else none bids over its own top.

    Returns
    -------
    OneCap or None
        None where nothing can run. Of caps that bring as much, the lowest.
    """
    mine = result.table.kept & result.prices.known & (result.demand.click_weight > 0)
    if not mine.any():
        return None
    assumed = result.brief.assumed
    step = assumed["bid_step"]
    highest = float(price_at_reach(assumed["most_reach"], result.prices)[mine].max())
    if not bare:
        highest = min(highest, float(result.standing.ceiling[mine].max()))
    lattice = bid_lattice(highest, assumed)

    def tried(steps: Ints) -> list[OneCap]:
        whole = np.unique(_off_round(steps) if odd_step else steps)
        caps = np.round(whole * step, 10).tolist()
        flat = (Policy("flat", cap) for cap in caps)
        return [OneCap(p.flat_bid or 0.0, at_bids(result, p, _bids(result, p, mine, bare)))
                for p in flat]  # fmt: skip

    best = _best(tried(lattice), result.brief.goal)
    # between the lattice's neighbours of the best, step by step
    at = int(np.searchsorted(lattice, round(best.cap / step)))
    low, high = lattice[max(at - 1, 0)], lattice[min(at + 1, len(lattice) - 1)]
    fine = np.unique(np.linspace(low, high, _FINE).astype(np.int64))
    return _best([best, *tried(fine)], result.brief.goal)


def _best(caps: Sequence[OneCap], goal: str) -> OneCap:
    """Return the cap that brings most; of several, the lowest."""
    return max(caps, key=lambda one: (one.brings.totals.goal(goal), -one.cap))


def _off_round(steps: Ints) -> Ints:
    return np.where(steps % _ROUND == 0, steps + 1, steps)


def _bids(result: PlanResult, flat: Policy, mine: NDArray[np.bool_], bare: bool) -> Floats:
    bid = np.full(len(result.table), flat.flat_bid or np.nan)
    if not bare:
        assumed = result.brief.assumed
        top = price_at_reach(assumed["most_reach"], result.prices)
        bid = np.minimum(bid, floor_to_step(np.minimum(result.standing.ceiling, top), assumed))
        bid = np.where(bid >= assumed["min_bid"] - 1e-9, bid, np.nan)
    return np.where(mine, bid, np.nan)
