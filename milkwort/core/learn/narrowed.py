"""How unsure a plan still is, once results have told of it."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.brief.taught import Taught
from milkwort.core.brief.worth import Conversion, Offer
from milkwort.core.learn.corrections import FACTORS, Corrections, Factor, learning_spreads
from milkwort.core.learn.learned import Judged
from milkwort.core.learn.three_levels import Learnt
from milkwort.core.plan.run import PlanResult

__all__ = ["Narrowed", "left_unsure", "narrowed_offer", "narrowing_of", "widened_offer"]


@dataclass(frozen=True)
class Narrowed:
    """What results leave unsure.

    Attributes
    ----------
    plan : Taught
    rows : Floats, shape (n_keywords, 7)
        As the keyword table's `taught`; no clicks where a rate is not judged by customers.
    """

    plan: Taught
    rows: Floats


def left_unsure(base: PlanResult, corrections: Corrections, judged: Judged) -> Narrowed:
    """Return how unsure searches, click rates, prices and rates are, given what came.

    Parameters
    ----------
    base : PlanResult
        With uncorrected inputs, as the corrections were taken from it.
    corrections : Corrections
    judged : Judged
    """
    spread, group = learning_spreads(base), base.table.group
    levels: dict[Factor, tuple[float, Floats, Floats]] = {
        name: _left(getattr(corrections, name), group, *spread.of(name)) for name in FACTORS
    }
    priced = (judged.rate > 0) & ~judged.on_enquiries
    clicks = np.where(priced, judged.results.counted_clicks, np.nan)
    columns = [levels[name][2] for name in FACTORS] + [levels[name][1] for name in FACTORS]
    plan = Taught(searches=levels["searches"][0], click_rate=levels["click_rate"][0],
                  price=levels["price"][0], conversion=narrowing_of(judged))  # fmt: skip
    return Narrowed(plan, np.column_stack([*columns, clicks]))


def _left(
    learnt: Learnt, group: Ints, plan_spread: float, group_spread: float,
    own_spread: Floats | float,
) -> tuple[float, Floats, Floats]:  # fmt: skip
    """Return what is left of the spreads of the plan, of each row's group, of each row."""
    v = learnt.variance
    s = np.broadcast_to(np.asarray(own_spread, dtype=np.float64), v.shape)
    # a row of which nothing is seen weighs 0
    # plan 1/√(1/s_p² + Σ 1/(v+s_g²+s_o²))
    plan = 1 / np.sqrt(1 / plan_spread**2 + (1 / (v + group_spread**2 + s * s)).sum())
    held = np.flatnonzero(group >= 0)
    # group 1/√(1/s_g² + Σ_G 1/(v+s_o²))
    with np.errstate(divide="ignore"):
        told = np.bincount(group[held], (1 / (v + s * s))[held])
        of_group = np.zeros(len(v))
        of_group[held] = (1 / np.sqrt(1 / group_spread**2 + told))[group[held]]
    # own s_o√v/√(s_o²+v)
    seen = np.isfinite(v)
    some = np.where(seen, v, 1.0)
    whole = np.where(s * s + some > 0, s * s + some, 1.0)
    own = np.where(seen, s * np.sqrt(some) / np.sqrt(whole), s)
    return float(plan), of_group, own


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


def widened_offer(offer: Offer, left: float) -> Offer:
    """Return an offer as it was before results narrowed its rates to a share of their spread.

    Parameters
    ----------
    offer : Offer
    left : float
        Share of the spread that was left, above 0.
    """
    return narrowed_offer(offer, 1 / left)


def _narrowed(rate: Conversion, left: float) -> Conversion:
    low, likely, high = rate.low, rate.likely, rate.high
    if low <= 0 or likely <= 0:
        return rate
    # a rate is a share of clicks: widened again it ends at 1
    up = min(likely * (high / likely) ** left, 1.0)
    return Conversion(likely * (low / likely) ** left, likely, up)
