import os
import subprocess
import sys
from dataclasses import replace

import numpy as np
import pytest

from milkwort.standins.market.account import ALL_WEEK, MICROS, Campaign, Live, Rules, Stop
from milkwort.standins.market.days import run_day
from milkwort.standins.market.expected import expected_under_truth
from milkwort.standins.market.known import Known
from milkwort.standins.market.levels import LEVELS, Level
from milkwort.standins.market.results import DayResult, day_from_bytes, day_to_bytes
from milkwort.standins.market.serving import serving_of
from milkwort.standins.market.world import World, draw_world
from tests.standins.market.worlds import CERTAIN, DAY, account, known, kw

ONE = known(kw("sash window repair", 320 * 30.0))


def live_through(
    told: Known, level: Level, live: Live, days: int, *, first: int = DAY, seed: int = 3
) -> tuple[World, list[DayResult]]:
    world = draw_world(told, level, seed)
    serving = serving_of(live, world)
    spent = np.zeros(len(live.campaigns), dtype=np.int64)
    found = []
    for day in range(first, first + days):
        result = run_day(world, level, live, serving, day, spent)
        spent[0] += int((result.cost - result.over).sum())
        found.append(result)
    return world, found


def total(days: list[DayResult], name: str) -> int:
    return int(sum(getattr(day, name).sum() for day in days))


def test_one_keyword_brings_what_the_closed_form_says():
    # L 0.80, H 2.40, bid 1.50: F 0.538786, clicks 0.0226358 a search, CPC 0.848041
    live = account(("sash window repair", "exact", 1.50))
    _, days = live_through(ONE, CERTAIN, live, 365)
    searches = 320 * 30 * 12
    assert total(days, "could_show") == pytest.approx(searches, rel=0.02)
    assert total(days, "impressions") == pytest.approx(searches * 0.538786, rel=0.02)
    clicks = total(days, "clicks")
    assert clicks == pytest.approx(searches * 7.24346 / 320, rel=4 / np.sqrt(clicks))
    assert total(days, "cost") / MICROS / clicks == pytest.approx(0.848041, rel=0.03)
    sold = sum(int(day.sold.customers.sum()) for day in days)
    assert sold == pytest.approx(clicks * 0.03, rel=4 / np.sqrt(clicks * 0.03))


def test_what_is_expected_is_what_comes_in_the_mean_at_every_level():
    for name, level in LEVELS.items():
        live = account(("sash window repair", "phrase", 1.50))
        world, days = live_through(ONE, level, live, 200)
        serving = serving_of(live, world)
        expected = expected_under_truth(world, level, live, serving, range(DAY, DAY + 200),
                                        np.array([0]), np.array([1.50]))  # fmt: skip
        clicks = total(days, "clicks")
        assert clicks == pytest.approx(expected.clicks[0], rel=5 / np.sqrt(clicks)), name
        charged = total(days, "cost") - total(days, "over") - total(days, "invalid_cost")
        assert charged / MICROS == pytest.approx(expected.spend[0], rel=8 / np.sqrt(clicks)), name


def test_paying_what_was_bid_costs_the_bid():
    live = account(("sash window repair", "exact", 1.5), rules=Rules(pays_bid=True))
    _, days = live_through(ONE, CERTAIN, live, 20)
    assert total(days, "cost") == total(days, "clicks") * 1_500_000


@pytest.mark.parametrize("level", list(LEVELS))
def test_days_are_the_same_at_once_one_by_one_and_beside_other_accounts(level: str):
    live = account(("sash window repair", "broad", 1.9), day_money=9.0)
    _, first = live_through(ONE, LEVELS[level], live, 6)
    _, again = live_through(ONE, LEVELS[level], live, 3)
    assert [day_to_bytes(day) for day in again] == [day_to_bytes(day) for day in first[:3]]
    # another account with a keyword more and other bids meets the same searches
    other = account(("sash window repair", "broad", 0.9), ("window repair", "phrase", 3.0))
    _, beside = live_through(ONE, LEVELS[level], other, 6)
    assert [int(day.could_show.sum()) for day in beside] == [
        int(day.could_show.sum()) for day in first
    ]


def test_days_are_the_same_on_another_processor():
    script = (
        "from tests.standins.market.test_days import *\n"
        "import hashlib\n"
        "_, days = live_through(ONE, LEVELS['rough'], "
        "account(('sash window repair', 'broad', 1.9), day_money=9.0), 8)\n"
        "print(hashlib.sha256(b''.join(d.cost.tobytes() + d.clicks.tobytes() + "
        "d.could_show.tobytes() + d.sold.reported.tobytes() for d in days)).hexdigest())"
    )
    said = set()
    for without in ("", "AVX512F AVX512CD AVX512_SKX AVX2 FMA3"):
        env = os.environ | {"NPY_DISABLE_CPU_FEATURES": without}
        done = subprocess.run(
            [sys.executable, "-W", "ignore", "-c", script], env=env, capture_output=True, text=True,
            check=True,
        )  # fmt: skip
        said.add(done.stdout)
    assert len(said) == 1


@pytest.mark.parametrize("over", [0.0, 0.5])
def test_cost_less_credit_never_passes_the_money_of_a_day_or_a_month(over: float):
    live = account(("sash window repair", "broad", 2.4), day_money=3.0, rules=Rules(day_over=over))
    _, days = live_through(ONE, LEVELS["usual"], live, 30)
    charged = [int((day.cost - day.over).sum()) for day in days]
    assert max(charged) <= 3.0 * (1 + over) * MICROS
    assert sum(charged) <= 3.0 * 30 * MICROS
    assert total(days, "lost_to_money") > 0
    assert total(days, "over") > 0  # the click that passes it is charged in full, and credited


def test_nothing_follows_the_click_that_takes_the_last_of_the_money():
    live = account(("sash window repair", "exact", 2.4), day_money=0.01)
    _, days = live_through(ONE, CERTAIN, live, 5)
    assert [int(day.clicks.sum()) for day in days] == [1] * 5
    assert total(days, "cost") - total(days, "over") == 5 * 10_000


def test_a_campaign_that_spreads_its_day_is_shown_until_late():
    def last_hours(spreads: bool) -> float:
        campaign = Campaign("c", "Search", 4_000_000, spreads=spreads)
        _, days = live_through(ONE, CERTAIN, account(("sash window repair", "exact", 2.4),
                                                     campaign=campaign), 20)  # fmt: skip
        return total(days, "lost_to_money") / total(days, "could_show")

    assert 0.2 < last_hours(spreads=True) < 1
    assert last_hours(spreads=True) == pytest.approx(last_hours(spreads=False), abs=0.2)


def test_hours_days_and_dates_of_a_campaign_are_kept():
    mornings = tuple(tuple(6 <= h < 12 for h in range(24)) for _ in range(7))
    part = account(("sash window repair", "exact", 1.5),
                   campaign=Campaign("c", "Search", shown=mornings))  # fmt: skip
    _, days = live_through(ONE, CERTAIN, part, 60)
    _, whole = live_through(ONE, CERTAIN, account(("sash window repair", "exact", 1.5)), 60)
    share = total(days, "could_show") / total(whole, "could_show")
    assert share == pytest.approx(6 / 24, rel=0.05)
    dated = Campaign("c", "Search", first_day=DAY + 2, last_day=DAY + 4, shown=ALL_WEEK)
    _, days = live_through(ONE, CERTAIN, account(("sash window repair", "exact", 1.5),
                                                 campaign=dated), 7)  # fmt: skip
    assert [bool(day.could_show.sum()) for day in days] == [
        False, False, True, True, True, False, False,
    ]  # fmt: skip


def test_what_a_negative_stops_is_not_shown():
    told = known(kw("sash window repair"), kw("sash window repair jobs"))
    open_to = account(("sash window repair", "phrase", 2.0))
    stopped = account(("sash window repair", "phrase", 2.0), stops=(Stop("n", "jobs", "phrase"),))
    world, days = live_through(told, CERTAIN, stopped, 10)
    shown = {world.texts[t] for day in days for t in day.text.tolist()}
    assert not {text for text in shown if "jobs" in text.split()}
    world, days = live_through(told, CERTAIN, open_to, 10)
    assert "sash window repair jobs" in {world.texts[t] for day in days for t in day.text.tolist()}


def test_a_search_is_served_by_its_own_text_before_a_wider_keyword():
    told = known(kw("sash window repair"), kw("window repair"))
    live = account(("window repair", "phrase", 9.0), ("sash window repair", "exact", 1.0))
    world, days = live_through(told, CERTAIN, live, 5)
    own = world.texts.index("sash window repair")
    served = {k for day in days for k, t in zip(day.keyword.tolist(), day.text.tolist(),
                                                strict=True) if t == own}  # fmt: skip
    assert served == {1}


def test_when_one_campaigns_money_is_gone_the_next_keyword_serves():
    told = known(kw("sash window repair", 9000.0))
    one = account(("sash window repair", "exact", 2.0), day_money=0.5)
    two = replace(
        one,
        campaigns=(*one.campaigns, Campaign("d", "Other", None)),
        groups=(*one.groups, replace(one.groups[0], ref="h", campaign="d")),
        keywords=(*one.keywords, replace(one.keywords[0], ref="k9", group="h", match="phrase",
                                         bid=1.0)),
        ads=(*one.ads, replace(one.ads[0], ref="b", group="h")),
    )  # fmt: skip
    _, days = live_through(told, CERTAIN, two, 10)
    clicks = np.zeros(2, dtype=np.int64)
    for day in days:
        np.add.at(clicks, day.keyword, day.clicks)
    assert (clicks > 0).all()


def test_a_group_without_an_ad_is_not_shown_where_ads_are_written():
    live = replace(account(("sash window repair", "exact", 1.5)), ads=())
    _, days = live_through(ONE, CERTAIN, live, 3)
    assert total(days, "could_show") == 0
    _, days = live_through(ONE, CERTAIN, replace(live, rules=Rules(needs_ads=False)), 3)
    assert total(days, "could_show") > 0


def test_customers_are_reported_with_the_half_life_that_a_planner_assumes():
    live = account(("sash window repair", "exact", 9.0))
    told = known(kw("sash window repair", 90_000.0), low=0.03)
    _, days = live_through(told, CERTAIN, live, 30)
    late = np.concatenate([day.sold.reported - (DAY + at) for at, day in enumerate(days)])
    assert late.min() >= 0
    assert late.max() <= 30
    for age in (0, 1, 2, 7):
        by_then = (late <= age).mean()
        assert by_then == pytest.approx(1 - 2 ** (-(age + 0.5) / 2), abs=3 / np.sqrt(len(late)))


def test_a_day_can_be_kept_as_bytes_and_read_back():
    _, days = live_through(ONE, LEVELS["rough"], account(("sash window repair", "broad", 2.0)), 2)
    for day in days:
        again = day_from_bytes(day_to_bytes(day))
        assert day_to_bytes(again) == day_to_bytes(day)
