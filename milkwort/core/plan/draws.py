"""A month drawn many times over: how wide a forecast is, and what makes it so.

What keywords have in common has median 1; what is a keyword's own has mean 1, so that many
small doubts do not add up to a bias. The month falls on its days, each with its money: no
draw passes the purse. A keyword meets the same luck in every version of a plan.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.plan._drawn import own_factor
from milkwort.core.plan._happened import (
    CHUNK,
    Inputs,
    happened,
    luck_of,
    running,
)
from milkwort.core.plan._month_sums import MonthSums, holders_of
from milkwort.core.plan._taught_luck import TaughtLuck
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.spreads import spreads_of
from milkwort.core.plan.swings import SHARED, Swing, swings_of
from milkwort.core.words.intents import INTENTS

__all__ = [
    "FIGURES", "SHARED", "Draws", "GroupDoubt", "Range", "Swing", "draw_month", "own_factor",
    "range_of", "swings_of",
]  # fmt: skip

FIGURES: tuple[str, ...] = (
    "clicks", "spend", "customers", "cost_per_customer", "revenue", "profit",
)  # fmt: skip


@dataclass(frozen=True)
class Range:
    """The 10th, 50th and 90th percentile of one figure; infinite where nobody buys."""

    low: float
    middle: float
    high: float


@dataclass(frozen=True)
class GroupDoubt:
    """How unsure the customers of one group are, or those of one spot.

    Attributes
    ----------
    group : int or None
        Number of the group, −1 for keywords in none; None for a spot.
    spot : int or None
        Place of the spot in the brief; None for a group.
    customers : Range
        A month.
    share : float
        Of the whole month's variance: its covariance with the sum over the sum's variance.
        All shares add up to 1, or are 0 where nothing varies.
    """

    group: int | None
    spot: int | None
    customers: Range
    share: float


@dataclass(frozen=True)
class Draws:
    """What many draws of one month say.

    Attributes
    ----------
    count : int
        Number of draws.
    ranges : dict of str to Range
        By `FIGURES`; money in the plan's currency, everything a month.
    profit_chance, no_customer_chance, early_chance : float
        Chance of a profit above 0, of no customer at all, of the money out before the month.
    early_day : float or None
        Day of the month, from 1, on which the money would be out were it not shared out by
        the day, in the middle of those draws.
    moves : dict of str to Swing
        Each shared input moved by itself, those that move customers most first.
    figures : dict of str to Floats, each of shape (n_draws,)
        The draws themselves, by `FIGURES`.
    wanted : Floats, shape (n_draws,)
        Money that all clicks would have cost.
    day_out : Floats, shape (n_draws,)
        Day of the month, from 1, on which the money would be out; NaN where it lasts.
    groups : tuple of GroupDoubt
        What each group and each spot brings, the most doubtful first.
    by_group : dict of int to Floats, each of shape (n_draws,)
        Customers of each group by its number, −1 for keywords in none.
    """

    count: int
    ranges: dict[str, Range]
    profit_chance: float
    no_customer_chance: float
    early_chance: float
    early_day: float | None
    moves: dict[str, Swing]
    figures: dict[str, Floats]
    wanted: Floats
    day_out: Floats
    groups: tuple[GroupDoubt, ...]
    by_group: dict[int, Floats]

    @property
    def customers(self) -> Floats:
        """Customers of each draw."""
        return self.figures["customers"]

    @property
    def spend(self) -> Floats:
        """Money spent in each draw."""
        return self.figures["spend"]


def draw_month(
    result: PlanResult,
    count: int = 2000,
    seed: int = 1,
    still_wanted: Callable[[], bool] = lambda: True,
    *,
    by_chance: bool = True,
) -> Draws | None:
    """Draw the month of a plan.

    Parameters
    ----------
    result : PlanResult
    count : int
        Number of draws.
    seed : int
        The same seed gives the same draws; a keyword of the same text and match meets the
        same luck in any plan.
    still_wanted : callable
        Asked now and then; once it says no, the work is given up.
    by_chance : bool
        Whether clicks, prices, sales and each keyword's own rate fall by chance; without,
        only the inputs are uncertain, and with no spread left a draw is the expected month.

    Returns
    -------
    Draws or None
        None where it was given up.
    """
    rng = np.random.default_rng(seed)
    rows = running(result)
    # drawn in the order of draws: fewer draws are the first of more
    common = rng.standard_normal((count, len(SHARED) + len(INTENTS)))
    shared, by_intent = common[:, : len(SHARED)].T, common[:, len(SHARED) :]
    luck, spreads = luck_of(result, rows, seed), spreads_of(result)
    taught = None if spreads.group is None else TaughtLuck(result.table, rows, seed)
    holders, place = holders_of(result, rows)
    month = MonthSums(count, len(holders))
    for start in range(0, count, CHUNK):
        if not still_wanted():
            return None
        part = range(start, min(start + CHUNK, count))
        at = slice(part.start, part.stop)
        drawn = Inputs(
            [z[at, None] for z in shared],
            intent=by_intent[at][:, result.table.intent[rows]],
            draws=part,
            luck=luck,
            spreads=spreads,
            taught=taught,
        )
        done = happened(result, rows, drawn, seed if by_chance else None)
        month.add(result, rows, at, done)
        month.add_held(at, place, done)
    return _summary(result, month, holders)


def _summary(result: PlanResult, month: MonthSums, holders: Ints) -> Draws:
    brief = result.brief
    profit, bought = month.profit, month.customers > 0
    per_customer = np.full(month.count, np.inf)
    per_customer[bought] = month.spend[bought] / month.customers[bought]
    drawn = (month.clicks, month.spend, month.customers, per_customer, month.revenue, profit)
    figures = dict(zip(FIGURES, drawn, strict=True))
    early = month.wanted > brief.monthly_spend
    day_out = np.full(month.count, np.nan)
    days = brief.assumed["month_days"]
    day_out[early] = np.floor(days * brief.monthly_spend / month.wanted[early]) + 1
    return Draws(
        count=month.count,
        ranges={name: range_of(values) for name, values in figures.items()},
        profit_chance=float((profit > 0).mean()),
        no_customer_chance=float((~bought).mean()),
        early_chance=float(early.mean()),
        early_day=float(np.median(day_out[early])) if early.any() else None,
        moves=swings_of(result),
        figures=figures,
        wanted=month.wanted,
        day_out=day_out,
        groups=_doubts(month, holders),
        by_group={int(h): month.by_holder[:, at] for at, h in enumerate(holders) if h >= -1},
    )


def range_of(values: Floats) -> Range:
    """Return the 10th, 50th and 90th percentile of drawn values.

    Parameters
    ----------
    values : Floats, shape (n_draws,)
        May hold infinities.
    """
    # "lower" keeps to drawn values, so that an infinity is never mixed with a figure
    low, middle, high = np.quantile(values, [0.1, 0.5, 0.9], method="lower")
    return Range(float(low), float(middle), float(high))


def _doubts(month: MonthSums, holders: Ints) -> tuple[GroupDoubt, ...]:
    apart = month.by_holder - month.by_holder.mean(axis=0)
    whole = apart.sum(axis=1)
    # Cov(group, sum) / Var(sum): what they share falls on each alike
    variance = float(whole @ whole)
    share = whole @ apart / variance if variance > 0 else np.zeros(len(holders))
    order = np.argsort(-share, kind="stable").tolist()
    return tuple(
        GroupDoubt(
            group=int(holders[i]) if holders[i] >= -1 else None,
            spot=-2 - int(holders[i]) if holders[i] < -1 else None,
            customers=range_of(month.by_holder[:, i]),
            share=float(share[i]),
        )
        for i in order
    )
