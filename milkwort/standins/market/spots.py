"""Spots run beside the keywords: no auction, a price, and a share of clicks that buy."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from milkwort.standins.market.account import MICROS, Live
from milkwort.standins.market.luck import counts, key_of, mixed, normal, uniform
from milkwort.standins.market.results import DayResult, Sold
from milkwort.standins.market.world import World

__all__ = ["spot_day", "with_spots"]

Ints = NDArray[np.int64]

_CLICK_RATE, _SELLS = 0.002, 0.4
_OWN = 0.3
_DAYS = 365 / 12


def spot_day(world: World, live: Live, day: int, room: Ints) -> DayResult:
    """Let the spots of an account run for a day; their money is taken from `room`.

    Parameters
    ----------
    world : World
    live : Live
    day : int
    room : Ints, shape (n_campaigns,)
        What each campaign may still spend, millionths; lessened in place.
    """
    campaigns = {c.ref: at for at, c in enumerate(live.campaigns)}
    rows = []
    for at, spot in enumerate(live.spots):
        number = campaigns.get(spot.campaign, -1)
        if number >= 0 and spot.price > 0 and spot.money_a_month > 0:
            rows.append(_one(world, live, at, day, number, room))
    columns = np.array([row[:-1] for row in rows], dtype=np.int64).reshape(len(rows), 5).T
    sold = np.array([row[-1] for row in rows], dtype=np.int64)
    none = np.zeros(len(rows), dtype=np.int64)
    some = sold > 0
    place, showings, clicks, cost, over = columns
    return DayResult(
        keyword=place, text=none - 1, could_show=showings, lost_to_money=none,
        impressions=showings, clicks=clicks, invalid=none, cost=cost, over=over,
        invalid_cost=none,
        sold=Sold(place[some], (none - 1)[some], none[some] + day + 1, sold[some], none[some]),
    )  # fmt: skip


def _one(
    world: World, live: Live, at: int, day: int, number: int, room: Ints
) -> tuple[int, int, int, int, int, int]:
    spot = live.spots[at]
    key = mixed(world.seed, "spot", key_of(spot.name), day)
    own = mixed(world.seed, "spot", key_of(spot.name))
    factor = float(np.exp(_OWN * normal(own)[0]))
    money = spot.money_a_month / _DAYS
    if spot.pays == "click":
        showings_mean, click_rate = money / spot.price / _CLICK_RATE, _CLICK_RATE * factor
    else:
        showings_mean, click_rate = 1000 * money / spot.price, _CLICK_RATE * factor
    showings = int(counts(np.array([showings_mean]), key, None)[0])
    clicks = int(counts(np.array([showings * min(click_rate, 1.0)]), mixed(key, 1), None)[0])
    price = spot.price if spot.pays == "click" else spot.price / 1000
    units = clicks if spot.pays == "click" else showings
    cost = int(np.rint(units * price * MICROS))
    allowed = int(min(room[number], np.rint(money * MICROS)))
    over = max(cost - allowed, 0)
    room[number] -= cost - over
    rate = _SELLS * float(np.median(world.rate[: world.n_known])) if world.n_known else 0.0
    sold = int((uniform(mixed(key, np.arange(clicks), 2)) < rate).sum()) if clicks else 0
    return at, showings, clicks, cost, over, sold


def with_spots(day: DayResult, spots: DayResult) -> DayResult:
    """Return a day with the rows of its spots behind."""
    if not len(spots.keyword):
        return day

    def joined(name: str) -> Ints:
        return np.concatenate((getattr(day, name), getattr(spots, name)))

    sold = Sold(**{
        name: np.concatenate((getattr(day.sold, name), getattr(spots.sold, name)))
        for name in Sold.__dataclass_fields__
    })  # fmt: skip
    names = [name for name in DayResult.__dataclass_fields__ if name != "sold"]
    return DayResult(**{name: joined(name) for name in names}, sold=sold)
