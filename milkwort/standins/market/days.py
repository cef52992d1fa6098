"""A day of the market: every search, what it costs to win it, who clicks and who buys.

What the world does is drawn before the account is looked at: all luck of a search hangs on the
seed, the day, the text and its number in the day.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr, ndtri

from milkwort.standins.market.account import MICROS, Live
from milkwort.standins.market.levels import Level
from milkwort.standins.market.luck import Keys, counts, mixed, uniform
from milkwort.standins.market.prices import mean_price_below, price_of, reach_of, shifts
from milkwort.standins.market.results import DayResult, Sold
from milkwort.standins.market.serving import Serving
from milkwort.standins.market.spots import spot_day, with_spots
from milkwort.standins.market.world import World

__all__ = ["click_rates", "demand_on", "run_day", "sale_rates"]

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

_LATEST = 30
"""Customers are reported so many days after their click at the latest."""
_HALF_LIFE = 2.0
_NEVER = 24.0
_TIME, _PRICE, _CLICK, _BUY, _DELAY, _INVALID, _KEPT, _MOVE, _LOSS = range(9)


@dataclass(frozen=True)
class _Searches:
    """The searches of one day in order of time; arrays of shape (n_searches,)."""

    text: Ints
    time: Floats
    luck: Keys


def demand_on(world: World, day: int) -> Floats:
    """Return how often each text is searched for on a day, in the mean."""
    when = date.fromordinal(day)
    # a year's searches fall on its days by month and weekday
    return np.asarray(
        world.searches * 12 / 365 * world.months[:, when.month - 1]
        * world.weekdays[world.theme, when.weekday()]
    )  # fmt: skip


def run_day(
    world: World, level: Level, live: Live, serving: Serving, day: int, spent_before: Ints
) -> DayResult:
    """Let one day pass.

    Parameters
    ----------
    world, level
    live : Live
    serving : Serving
        Of that account in that world.
    day : int
        Its ordinal.
    spent_before : Ints, shape (n_campaigns,)
        Charged this month before, less credit, millionths.
    """
    asked = np.flatnonzero(np.diff(serving.first) > 0)
    searches = _searches_of(world, level, asked, day)
    shift = shifts(world, level, day)
    mu = world.mu + shift[world.theme]
    hours = np.minimum(searches.time.astype(np.int64), 23)
    out_of_date = _not_today(live, day)
    open_at = _open_hours(live, day)
    room = _room(live, day, spent_before)
    spots = spot_day(world, live, day, room)
    kept = _thinned(world, level, live, serving, mu, searches, room, day)

    # who serves a search if money were no matter, and who does while the money lasts
    free = _server(serving, searches, hours, open_at, out_of_date, np.full(len(room), _NEVER))
    closed_at = np.full(len(room), _NEVER)
    pair = free
    while True:
        won, cost = _outcome(world, level, live, serving, mu, searches, pair, kept)
        at, number = _first_out(serving, searches, pair, cost, room, closed_at)
        if number < 0:
            break
        closed_at[number] = at
        again = _server(serving, searches, hours, open_at, out_of_date, closed_at)
        pair = np.where(searches.time > at, again, pair)
    found = _summed(world, level, serving, searches, free, pair, won, cost, kept, room, day)
    return with_spots(found, spots)


def click_rates(world: World, level: Level, serving: Serving, reach: Floats, pairs: Ints) -> Floats:
    """Return clicks a showing of some pairs of keyword and text, at a reach."""
    text, wide = serving.text[pairs], serving.wide[pairs]
    bottom = world.click_bottom
    # T·(d + (1−d)·F^p), less beside the keyword's own text, less where the ad speaks of
    # something else
    own = world.click_rate[text] * (bottom + (1 - bottom) * reach**world.click_power)
    share = np.where(wide < 0, 1.0, world.click_share[text, np.maximum(wide, 0)])
    said = np.where(serving.says_ad[pairs], 1.0, level.unsaid_clicks)
    return np.asarray(own * share * said)


def sale_rates(world: World, level: Level, serving: Serving, pairs: Ints) -> Floats:
    """Return customers a click of some pairs of keyword and text."""
    text, wide = serving.text[pairs], serving.wide[pairs]
    share = np.where(wide < 0, 1.0, world.rate_share[text, np.maximum(wide, 0)])
    said = np.where(serving.says_page[pairs], 1.0, level.unsaid_rate)
    return np.asarray(np.minimum(world.rate[text] * share * said, 0.95))


def _searches_of(world: World, level: Level, asked: Ints, day: int) -> _Searches:
    key = mixed(world.seed, "day", np.array([day]), world.key[asked])
    many = counts(demand_on(world, day)[asked], key, level.day_shape)
    text = np.repeat(asked, many)
    start = np.repeat(np.cumsum(many) - many, many)
    luck = mixed(np.repeat(key, many), np.arange(len(text)) - start)
    time = _times(world, text, uniform(mixed(luck, _TIME)))
    order = np.lexsort((luck, time))
    return _Searches(text[order], time[order], luck[order])


def _times(world: World, text: Ints, chance: Floats) -> Floats:
    """Return the time of day of each search, in hours, by the curve of its theme."""
    theme = world.theme[text]
    edges = np.concatenate(
        (np.zeros((len(world.hours), 1)), np.cumsum(world.hours, axis=1)), axis=1
    )
    edges[:, -1] = 1.0
    flat = (edges[:, 1:] + np.arange(len(edges))[:, None]).ravel()
    hour = np.searchsorted(flat, chance + theme, side="left") - theme * 24
    hour = np.clip(hour, 0, 23)
    width = world.hours[theme, hour]
    inside = np.divide(chance - edges[theme, hour], width, out=np.zeros(len(chance)),
                       where=width > 0)  # fmt: skip
    return np.asarray(hour + np.clip(inside, 0.0, 1.0 - 1e-9))


def _not_today(live: Live, day: int) -> Bools:
    return np.array(
        [(c.first_day is not None and day < c.first_day)
         or (c.last_day is not None and day > c.last_day) for c in live.campaigns], dtype=bool
    )  # fmt: skip


def _open_hours(live: Live, day: int) -> Bools:
    weekday = date.fromordinal(day).weekday()
    return np.array([c.shown[weekday] for c in live.campaigns], dtype=bool).reshape(-1, 24)


def _room(live: Live, day: int, spent_before: Ints) -> Ints:
    """Return what each campaign may still spend on a day, millionths."""
    when = date.fromordinal(day)
    days = (when.replace(year=when.year + when.month // 12, month=when.month % 12 + 1, day=1)
            - when.replace(day=1)).days  # fmt: skip
    found = np.full(len(live.campaigns), np.iinfo(np.int64).max // 4)
    for at, campaign in enumerate(live.campaigns):
        if campaign.day_money is not None:
            of_day = int(campaign.day_money * (1 + live.rules.day_over))
            of_month = campaign.day_money * days - int(spent_before[at])
            found[at] = max(min(of_day, of_month), 0)
    return found


def _thinned(
    world: World, level: Level, live: Live, serving: Serving, mu: Floats, searches: _Searches,
    room: Ints, day: int,
) -> Bools:  # fmt: skip
    """Say which searches a campaign that spreads its day takes; True for all others."""
    if not any(c.spreads for c in live.campaigns):
        return np.ones(len(searches.text), dtype=bool)
    pairs = serving.first[:-1][np.diff(serving.first) > 0]
    bid = np.array([k.bid for k in live.keywords])[serving.keyword[pairs]]
    text = serving.text[pairs]
    reach = reach_of(bid, mu[text], world.sigma[text], logistic=level.logistic)
    paid = mean_price_below(bid, mu[text], world.sigma[text], logistic=level.logistic)
    spend = demand_on(world, day)[text] * reach * paid * click_rates(world, level, serving, reach,
                                                                    pairs)  # fmt: skip
    wanted = np.bincount(serving.campaign[pairs], spend, minlength=len(live.campaigns)) * MICROS
    share = np.where([c.spreads for c in live.campaigns], room / np.maximum(wanted, 1.0), 1.0)
    best = np.full(len(world.texts), -1, dtype=np.int64)
    best[text] = serving.campaign[pairs]
    return np.asarray(uniform(mixed(searches.luck, _KEPT)) < share[best[searches.text]])


def _server(
    serving: Serving, searches: _Searches, hours: Ints, open_at: Bools, out_of_date: Bools,
    closed_at: Floats,
) -> Ints:  # fmt: skip
    """Return the pair that serves each search, −1 for nobody."""
    found = np.full(len(searches.text), -1, dtype=np.int64)
    rank = serving.first[searches.text]
    end = serving.first[searches.text + 1]
    looking = np.arange(len(searches.text))
    while len(looking):
        pair = rank[looking]
        campaign = serving.campaign[pair]
        serves = (
            ~out_of_date[campaign]
            & open_at[campaign, hours[looking]]
            & (searches.time[looking] <= closed_at[campaign])
        )
        found[looking[serves]] = pair[serves]
        looking = looking[~serves]
        rank[looking] += 1
        looking = looking[rank[looking] < end[looking]]
    return found


def _outcome(
    world: World, level: Level, live: Live, serving: Serving, mu: Floats, searches: _Searches,
    pair: Ints, kept: Bools,
) -> tuple[Bools, Ints]:  # fmt: skip
    """Return which searches are won, and what each click costs in millionths; 0 without."""
    some = np.flatnonzero((pair >= 0) & kept)
    won, cost = np.zeros(len(pair), dtype=bool), np.zeros(len(pair), dtype=np.int64)
    if not len(some):
        return won, cost
    at, text, luck = pair[some], searches.text[some], searches.luck[some]
    bid = np.array([k.bid for k in live.keywords])[serving.keyword[at]]
    moves = np.array([c.moves for c in live.campaigns])[serving.campaign[at]]
    if moves.any():
        bid = bid * (1 + moves * uniform(mixed(luck, _MOVE)))
    price = price_of(uniform(mixed(luck, _PRICE)), mu[text], world.sigma[text],
                     logistic=level.logistic)  # fmt: skip
    price_micros = np.maximum(np.rint(np.minimum(price, 1e9) * MICROS), 1).astype(np.int64)
    bid_micros = np.rint(bid * MICROS).astype(np.int64)
    wins = price_micros <= bid_micros
    reach = reach_of(bid, mu[text], world.sigma[text], logistic=level.logistic)
    rate = click_rates(world, level, serving, reach, at)
    clicked = wins & (uniform(mixed(luck, _CLICK)) < rate)
    won[some] = wins
    cost[some] = np.where(clicked, bid_micros if live.rules.pays_bid else price_micros, 0)
    return won, cost


def _first_out(
    serving: Serving, searches: _Searches, pair: Ints, cost: Ints, room: Ints, closed_at: Floats,
) -> tuple[float, int]:  # fmt: skip
    """Return when the first campaign's money is gone, and which campaign it is; −1 for none."""
    first, number = _NEVER, -1
    clicks = np.flatnonzero(cost > 0)
    campaign = serving.campaign[pair[clicks]]
    for at in range(len(room)):
        if closed_at[at] < _NEVER:
            continue
        own = clicks[campaign == at]
        over = np.cumsum(cost[own]) >= room[at]
        if room[at] <= 0:
            return -1.0, at
        if over.any():
            when = int(own[np.argmax(over)])
            if searches.time[when] < first:
                first, number = float(searches.time[when]), at
    return first, number


def _summed(
    world: World, level: Level, serving: Serving, searches: _Searches, free: Ints, pair: Ints,
    won: Bools, cost: Ints, kept: Bools, room: Ints, day: int,
) -> DayResult:  # fmt: skip
    """Add up a day by pair of keyword and text."""
    n = len(serving.keyword)
    invalid = (cost > 0) & (uniform(mixed(searches.luck, _INVALID)) < world.invalid)
    over = _overruns(serving, pair, cost, room)
    cost_after = cost - over

    def sums(mask: Bools, values: Ints | None = None) -> Ints:
        # whole numbers stay exact in floats far past any day's money
        held = np.bincount(pair[mask], None if values is None else values[mask], minlength=n)
        return np.asarray(np.rint(held).astype(np.int64))

    could = np.bincount(free[free >= 0], minlength=n)
    other = (pair >= 0) & (pair != free)
    could = could + np.bincount(pair[other], minlength=n)
    lost = np.bincount(free[(free >= 0) & ((pair != free) | ~kept)], minlength=n)
    shown = (pair >= 0) & won
    clicked = shown & (cost > 0)
    rows = np.flatnonzero(could > 0)
    return DayResult(
        keyword=serving.keyword[rows], text=serving.text[rows], could_show=could[rows],
        lost_to_money=lost[rows], impressions=sums(shown)[rows], clicks=sums(clicked)[rows],
        invalid=sums(invalid)[rows], cost=sums(clicked, cost)[rows], over=sums(clicked, over)[rows],
        invalid_cost=sums(invalid, cost_after)[rows],
        sold=_sold(world, level, serving, searches, pair, clicked & ~invalid, day),
    )  # fmt: skip


def _overruns(serving: Serving, pair: Ints, cost: Ints, room: Ints) -> Ints:
    """Return what each click costs past its campaign's day, millionths."""
    over = np.zeros(len(cost), dtype=np.int64)
    clicks = np.flatnonzero(cost > 0)
    campaign = serving.campaign[pair[clicks]]
    for at in np.unique(campaign).tolist():
        own = clicks[campaign == at]
        total = np.cumsum(cost[own])
        over[own] = np.clip(total - room[at], 0, cost[own])
    return over


def _sold(
    world: World, level: Level, serving: Serving, searches: _Searches, pair: Ints, clicked: Bools,
    day: int,
) -> Sold:  # fmt: skip
    at = np.flatnonzero(clicked)
    pairs, luck = pair[at], searches.luck[at]
    rate = sale_rates(world, level, serving, pairs)
    chance = uniform(mixed(luck, _BUY))
    close = world.close[serving.text[pairs]]
    enquires = chance < np.where(np.isnan(close), 0.0, np.minimum(rate / np.where(
        np.isnan(close), 1.0, close), 1.0))  # fmt: skip
    loss = uniform(mixed(luck, _LOSS))
    bought = np.where(chance < rate, np.where(loss < level.lost, 0, 1), 0)
    bought = np.where((bought > 0) & (loss > 1 - level.doubled), 2, bought)
    some = (bought > 0) | enquires
    days = _delays(level, uniform(mixed(luck[some], _DELAY)))
    return Sold(
        keyword=serving.keyword[pairs[some]], text=serving.text[pairs[some]],
        reported=day + days, customers=bought[some].astype(np.int64),
        enquiries=enquires[some].astype(np.int64),
    )  # fmt: skip


def _delays(level: Level, chance: Floats) -> Ints:
    """Return the days after the click on which a customer is reported."""
    if level.delay is None:
        # half of those bought an hour into the day are known after two days; a click falls at
        # noon in the mean
        days = -_HALF_LIFE * np.log2(chance) + 0.5
        return np.asarray(np.minimum(np.floor(days), _LATEST).astype(np.int64))
    median, spread = level.delay
    most = ndtr(np.log(_LATEST / median) / spread)
    days = median * np.exp(spread * ndtri(chance * most))
    return np.asarray(np.minimum(np.floor(days), _LATEST).astype(np.int64))
