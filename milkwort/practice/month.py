"""A month of one plan in one hidden truth: what was forecast, what came, what could have come."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit.given_options import fit_options
from milkwort.core.fit.options import bid_lattice
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.lexicon import Lexicon
from milkwort.practice.handed_over import handed_over
from milkwort.standins.market.account import MICROS, Live
from milkwort.standins.market.days import run_day
from milkwort.standins.market.expected import UnderTruth, expected_under_truth
from milkwort.standins.market.levels import Level
from milkwort.standins.market.results import DayResult
from milkwort.standins.market.serving import Serving, serving_of
from milkwort.standins.market.world import World

__all__ = ["Lived", "Sums", "hindsight", "lived", "under_truth"]

_BIDS_TRIED = 40
_LOWEST = 0.2
"""Hindsight looks from this share of a text's middle price to the price that wins nearly all."""


@dataclass(frozen=True)
class Sums:
    """Clicks, money, customers and what is left, of a month."""

    clicks: float
    spend: float
    customers: float
    profit: float

    def as_dict(self) -> dict[str, float]:
        """Return plain values."""
        return dict(vars(self))


@dataclass(frozen=True)
class Lived:
    """A month that was lived.

    Attributes
    ----------
    live : Live
    serving : Serving
    rows : Ints, shape (n_live,)
        Row of the plan's table of each live keyword.
    days : range
        Ordinals.
    results : tuple of DayResult
        Keywords and texts by place in `live` and in the world.
    sums : Sums
        With all customers that were ever reported.
    spill_spend : float
        Money for searches of which nobody buys.
    """

    live: Live
    serving: Serving
    rows: Ints
    days: range
    results: tuple[DayResult, ...]
    sums: Sums
    spill_spend: float


def lived(
    world: World, level: Level, month: PlanResult, lexicon: Lexicon, first: date, days: int
) -> Lived:
    """Hand a month's plan over, and let its days pass.

    Parameters
    ----------
    world, level
        The hidden truth.
    month : PlanResult
    lexicon : Lexicon
    first : date
    days : int
    """
    live, rows = handed_over(month, lexicon)
    serving = serving_of(live, world)
    span = range(first.toordinal(), first.toordinal() + days)
    spent = np.zeros(len(live.campaigns), dtype=np.int64)
    campaigns = {c.ref: at for at, c in enumerate(live.campaigns)}
    groups = {g.ref: campaigns[g.campaign] for g in live.groups}
    of_keyword = np.array([groups[k.group] for k in live.keywords], dtype=np.int64)
    results = []
    for day in span:
        result = run_day(world, level, live, serving, day, spent)
        if len(result.keyword):
            np.add.at(spent, of_keyword[result.keyword], result.cost - result.over)
        results.append(result)
    return _lived(world, month, live, serving, rows, span, results)


def _lived(
    world: World, month: PlanResult, live: Live, serving: Serving, rows: list[int], span: range,
    results: list[DayResult],
) -> Lived:  # fmt: skip
    places = np.array(rows, dtype=np.int64)
    clicks = sum(int(r.clicks.sum()) for r in results)
    spend = sum(int((r.cost - r.over - r.invalid_cost).sum()) for r in results) / MICROS
    customers = np.zeros(len(month.table))
    useless = 0
    for r in results:
        if len(r.sold.keyword):
            np.add.at(customers, places[r.sold.keyword], r.sold.customers)
        # money for what nobody buys of, whoever it was shown for
        lost = world.rate[r.text] <= 0 if len(r.text) else np.zeros(0, dtype=bool)
        useful = world.useful[r.text] if len(r.text) else np.zeros(0, dtype=bool)
        useless += int((r.cost - r.over - r.invalid_cost)[lost | ~useful].sum())
    profit = float((customers * month.worth.contribution).sum()) - spend
    sums = Sums(float(clicks), spend, float(customers.sum()), profit)
    return Lived(live, serving, places, span, tuple(results), sums, useless / MICROS)


def under_truth(world: World, level: Level, month: PlanResult, done: Lived) -> Sums:
    """Return what a month's bids bring under the truth, luck left aside, cut to its budgets."""
    bids = np.array([k.bid for k in done.live.keywords])
    found = expected_under_truth(world, level, done.live, done.serving, done.days,
                                 np.arange(len(bids)), bids)  # fmt: skip
    pace = _pace(done, found)
    clicks, spend, customers = found.clicks * pace, found.spend * pace, found.customers * pace
    worth = month.worth.contribution[done.rows]
    return Sums(float(clicks.sum()), float(spend.sum()), float(customers.sum()),
                float((customers * worth).sum() - spend.sum()))  # fmt: skip


def _pace(done: Lived, found: UnderTruth) -> Floats:
    """Return the share of each keyword's month that its campaign's money pays for."""
    groups = {g.ref: g.campaign for g in done.live.groups}
    of = {c.ref: at for at, c in enumerate(done.live.campaigns)}
    campaign = np.array([of[groups[k.group]] for k in done.live.keywords], dtype=np.int64)
    wanted = np.bincount(campaign, found.spend, minlength=len(of))
    money = np.array([np.inf if c.day_money is None else c.day_money / MICROS * len(done.days)
                      for c in done.live.campaigns])  # fmt: skip
    with np.errstate(divide="ignore", invalid="ignore"):
        share = np.where(wanted > 0, np.minimum(1.0, money / wanted), 1.0)
    return np.asarray(share[campaign], dtype=np.float64)


def hindsight(world: World, level: Level, month: PlanResult, done: Lived) -> Sums:
    """Return the best that the same money and keywords could have brought under the truth.

    Every live keyword may take any bid of the fit's lattice; what is made most of is profit.
    """
    n = len(done.live.keywords)
    if not n:
        return Sums(0.0, 0.0, 0.0, 0.0)
    bids = _bids(world, month)
    keyword = np.repeat(np.arange(n), len(bids))
    asked = np.tile(bids, n)
    found = expected_under_truth(world, level, done.live, done.serving, done.days, keyword, asked)
    worth = month.worth.contribution[done.rows][keyword]
    value = found.customers * worth - found.spend
    best = fit_options(keyword, asked, found.clicks, found.spend, value, month.brief.monthly_spend)
    return Sums(best.clicks, best.spend, float(found.customers[best.chosen].sum()), best.value)


def _bids(world: World, month: PlanResult) -> Floats:
    assumed = month.brief.assumed
    highest = float(np.nanmax(month.standing.ceiling)) * 2 if len(month.table) else 1.0
    steps = bid_lattice(max(highest, assumed["min_bid"]), assumed)
    bids = steps * assumed["bid_step"]
    lowest = _LOWEST * float(np.exp(np.quantile(world.mu, 0.05)))
    bids = bids[bids >= min(lowest, bids[-1])]
    if len(bids) > _BIDS_TRIED:
        bids = bids[np.unique(np.linspace(0, len(bids) - 1, _BIDS_TRIED).round().astype(int))]
    return np.asarray(bids, dtype=np.float64)
