"""What bids would bring under the truth, without luck; nobody learns it before the envelope."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

import numpy as np
from numpy.typing import NDArray

from milkwort.standins.market.account import Live
from milkwort.standins.market.days import click_rates, demand_on, sale_rates
from milkwort.standins.market.levels import Level
from milkwort.standins.market.prices import mean_price_below, reach_of, shifts
from milkwort.standins.market.serving import Serving
from milkwort.standins.market.world import World

__all__ = ["UnderTruth", "expected_under_truth", "true_rates"]

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]


@dataclass(frozen=True)
class UnderTruth:
    """What bids bring in the mean; arrays of the shape of the bids asked about.

    Attributes
    ----------
    clicks, spend, customers : Floats
        Over the days asked about; money is not paced.
    """

    clicks: Floats
    spend: Floats
    customers: Floats


def expected_under_truth(
    world: World, level: Level, live: Live, serving: Serving, days: range, keyword: Ints,
    bid: Floats,
) -> UnderTruth:  # fmt: skip
    """Return what some bids of some keywords would bring.

    Parameters
    ----------
    world, level
    live : Live
    serving : Serving
        Each text is taken as served by its best keyword, in the hours of its campaign.
    days : range
        Ordinals.
    keyword : Ints, shape (n,)
        Places among the live keywords; a keyword may stand there with many bids.
    bid : Floats, shape (n,)
        Money a click; 0 for none.
    """
    best = serving.first[:-1][np.diff(serving.first) > 0]
    owner = serving.keyword[best]
    order = np.argsort(owner, kind="stable")
    best, owner = best[order], owner[order]
    start = np.searchsorted(owner, np.arange(len(live.keywords) + 1))
    many = (start[keyword + 1] - start[keyword]).astype(np.int64)
    row = np.repeat(np.arange(len(keyword)), many)
    pair = best[np.repeat(start[keyword], many) + np.arange(many.sum())
                - np.repeat(np.cumsum(many) - many, many)]  # fmt: skip
    text, offered = serving.text[pair], bid[row]
    rate = sale_rates(world, level, serving, pair)
    sums = np.zeros((3, len(keyword)))
    for demand, shift in _spans(world, level, live, days):
        mu = world.mu[text] + shift[world.theme[text]]
        reach = reach_of(offered, mu, world.sigma[text], logistic=level.logistic)
        clicks = demand[serving.campaign[pair], text] * reach * click_rates(
            world, level, serving, reach, pair)  # fmt: skip
        paid = offered if live.rules.pays_bid else mean_price_below(
            np.maximum(offered, 1e-12), mu, world.sigma[text], logistic=level.logistic)  # fmt: skip
        valid = clicks * (1 - world.invalid)
        sold = valid * rate * (1 - level.lost + level.doubled)
        for at, values in enumerate((clicks, valid * paid, sold)):
            sums[at] += np.bincount(row, values, minlength=len(keyword))
    return UnderTruth(*sums)


def true_rates(world: World, level: Level, live: Live, serving: Serving, days: range) -> Floats:
    """Return customers a click of each live keyword at its bid, NaN where it serves nothing."""
    n = len(live.keywords)
    bids = np.array([k.bid for k in live.keywords])
    found = expected_under_truth(world, level, live, serving, days, np.arange(n), bids)
    nothing = np.full(n, np.nan)
    clicks = found.clicks
    return np.asarray(np.divide(found.customers, clicks, out=nothing, where=clicks > 0))


def _spans(world: World, level: Level, live: Live, days: range) -> list[tuple[Floats, Floats]]:
    """Return the searches of runs of days on which prices are the same, and their shift."""
    spans: list[tuple[Floats, Floats]] = []
    for day in days:
        shift = shifts(world, level, day)
        searches = demand_on(world, day) * _shown(world, live, day)
        if spans and np.array_equal(spans[-1][1], shift):
            spans[-1] = (spans[-1][0] + searches, shift)
        else:
            spans.append((searches, shift))
    return spans


def _shown(world: World, live: Live, day: int) -> Floats:
    """Return the share of each theme's day in which each campaign is shown, by text."""

    weekday = date.fromordinal(day).weekday()
    shares = np.ones((max(len(live.campaigns), 1), len(world.theme_keys)))
    for at, campaign in enumerate(live.campaigns):
        early = campaign.first_day is not None and day < campaign.first_day
        late = campaign.last_day is not None and day > campaign.last_day
        shown = np.array(campaign.shown[weekday], dtype=np.float64) * (not (early or late))
        shares[at] = world.hours @ shown
    return shares[:, world.theme]
