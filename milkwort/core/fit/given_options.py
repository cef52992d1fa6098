"""The fit's knapsack on a table of what bids bring, whoever worked that out."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.errors import BadValueError
from milkwort.core.fit._exact import finish
from milkwort.core.fit._rest import use_rest
from milkwort.core.fit.options import Hull, Options, hull_of
from milkwort.core.fit.tolerances import EXACT_NEAR, EXACT_ROUNDING, ROUNDING, STATED

__all__ = ["OptionsFit", "fit_options"]

_LEAST_SPEND = 1e-9


@dataclass(frozen=True)
class OptionsFit:
    """The best choice from a table.

    Attributes
    ----------
    chosen : Ints
        Places in the table, one of each owner at most.
    clicks, spend, value : float
        Of that choice; `value` in the goal's unit.
    bound : float
        No choice within the purse brings more.
    """

    chosen: Ints
    clicks: float
    spend: float
    value: float
    bound: float


def fit_options(
    owner: Ints, bid: Floats, clicks: Floats, spend: Floats, value: Floats, purse: float
) -> OptionsFit:
    """Choose at most one option of each owner, so that the sum brings most within a purse.

    Parameters
    ----------
    owner : Ints, shape (n_options,)
        Whose option it is.
    bid : Floats, shape (n_options,)
        Money a click; of equal spend and value, the lower is taken.
    clicks, spend, value : Floats, shape (n_options,)
        What an option brings and costs over the time the purse is for; `value` in the unit
        of whatever is to be most. An option without value is never taken.
    purse : float
        Money, 0 or more.

    Returns
    -------
    OptionsFit

    Raises
    ------
    BadValueError
        For columns of other lengths, a spend below 0, or figures that are not finite.
    """
    columns = {"owner": owner, "bid": bid, "clicks": clicks, "spend": spend, "value": value}
    for name, column in columns.items():
        if len(column) != len(owner) or not np.isfinite(column).all():
            raise BadValueError(name, f"{len(owner)} finite figures", len(column))
    if not (np.isfinite(purse) and purse >= 0) or (spend < 0).any():
        raise BadValueError("purse", "money of 0 or more, and a spend of 0 or more", purse)
    # what brings nothing is never taken, and the hull wants each owner's by rising spend
    useful = np.flatnonzero(value > 0)
    useful = useful[np.lexsort((bid[useful], spend[useful], owner[useful]))]
    held, place = np.unique(owner[useful], return_inverse=True)
    options = Options(place, useful, value[useful], np.maximum(spend[useful], _LEAST_SPEND))
    hull = hull_of(options)
    # a step that brings less for more money is never taken; such steps end a hull
    worth = hull.clicks > 0
    hull = Hull(*(column[worth] for column in vars(hull).values()))
    chosen, bound = _chosen(options, hull, purse * (1 + EXACT_ROUNDING), len(held))
    taken = useful[chosen[chosen >= 0]]
    return OptionsFit(
        chosen=taken,
        clicks=float(clicks[taken].sum()),
        spend=float(spend[taken].sum()),
        value=float(value[taken].sum()),
        bound=max(bound, float(value[taken].sum())),
    )


def _chosen(options: Options, hull: Hull, purse: float, n: int) -> tuple[Ints, float]:
    chosen = np.full(n, -1, dtype=np.int64)
    returns = hull.clicks / hull.spend
    order = np.lexsort((np.arange(len(returns)), -returns))
    so_far = np.cumsum(hull.spend[order])
    whole = int(np.searchsorted(so_far, purse + ROUNDING, side="right"))
    taken = order[:whole]
    chosen[hull.owner[taken]] = hull.option[taken]
    bound = float(hull.clicks[taken].sum())
    if whole == len(order):
        return chosen, bound
    edge = float(returns[order[whole]])
    left = purse - (float(so_far[whole - 1]) if whole else 0.0)
    value, bound = bound, bound + edge * left
    value = use_rest(_Given(), options, chosen, left, value, bound)
    if bound - value > STATED * bound:
        finish(options, options.clicks, chosen, purse, edge, bound, EXACT_NEAR * bound)
    return chosen, bound


class _Given:
    """The value of each option stands in the place of its clicks."""

    def value(self, owner: Ints, clicks: Floats, spend: Floats) -> Floats:
        return clicks
