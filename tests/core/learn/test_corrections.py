"""Corrections of one keyword alone, each step of them worked out by hand beside."""

from dataclasses import replace
from math import exp, log

import numpy as np
import pytest
from scipy.special import ndtr

from milkwort.core.learn.corrections import Segment, corrections_of, learning_spreads
from milkwort.core.learn.seen import Seen
from milkwort.core.plan.run import run_plan
from tests.core.learn.plans import MU, SIGMA, a_plan
from tests.samples import calls

SLOPE = {0.8: 0.191887, 1.5: 0.304336, 2.4: 0.428618}
"""How much of a shift of the market shows in the price, at prices of 0.80 to 2.40."""
PRICE = (0.10, 0.10, 0.15)
CLICK_RATE = (0.15, 0.10, 0.20)
SEARCHES = (0.10, 0.15)
"""Spreads of plan, group and keyword; the plan's searches say how wide those of a keyword are."""


def alone():
    """A plan of three keywords of which one runs, in no group."""
    plan = a_plan()
    table = plan.table
    return run_plan(plan.brief, replace(table, group=np.full(3, -1),
                                        call=calls("keep", "drop", "drop")))  # fmt: skip


def seen(n=3, **figures):
    """What was seen of the first keyword; nothing of the others."""

    def column(name, otherwise):
        found = np.full(n, otherwise)
        found[0] = figures.get(name, otherwise)
        return found

    counts = ("impressions", "clicks", "cost", "customers", "exposure", "asked_exposure")
    beside = ("could_show", "lost_to_money", "enquiries")
    return Seen(**{name: column(name, 0.0) for name in counts},
                **{name: column(name, np.nan) for name in beside})  # fmt: skip


def segment(bid, one, factor=1.0):
    return Segment(np.array([bid, np.nan, np.nan]), np.full(3, factor), one)


def price_at(bid, mu=MU):
    """The mean price of a click at a bid, where the price just won is paid."""
    z = (log(bid) - mu) / SIGMA
    return exp(mu + SIGMA**2 / 2) * ndtr(z - SIGMA) / ndtr(z)


def of_one(y, v, plan, group, own):
    """What the plan and the keyword each take of what is seen of one keyword in no group."""
    spread = v + group**2 + own**2
    m = (y / spread) / (1 / plan**2 + 1 / spread)
    return m + (y - m) * own**2 / (own**2 + v)


def counted(due, came, *spreads):
    eta = 0.0
    for _ in range(4):
        eta = of_one(eta + came / (due * exp(eta)) - 1, 1 / (due * exp(eta)), *spreads)
    return eta


@pytest.mark.parametrize("bid", list(SLOPE))
def test_a_dearer_click_moves_the_market_by_more_than_it_is_dearer(bid):
    clicks = 40.0
    found = corrections_of(alone(), [segment(bid, seen(
        impressions=900.0, clicks=clicks, cost=1.3 * price_at(bid) * clicks,
    ))])  # fmt: skip
    k = SLOPE[bid]
    wanted = of_one(0.3 / k, 0.25 / (clicks * k**2), *PRICE)
    assert found.price.shift[0] == pytest.approx(wanted, rel=1e-4)
    # the others take what all have in common
    assert found.price.shift[1] == pytest.approx(found.price.plan)
    assert 0 < found.price.plan < found.price.shift[0]


def test_days_at_other_bids_are_weighed_by_what_they_tell():
    days = [(0.8, 1.1, 20.0), (2.4, 1.2, 60.0)]
    found = corrections_of(alone(), [
        segment(bid, seen(impressions=900.0, clicks=n, cost=times * price_at(bid) * n))
        for bid, times, n in days
    ])  # fmt: skip
    weights = [n * SLOPE[bid] ** 2 / 0.25 for bid, _, n in days]
    sights = [(times - 1) / SLOPE[bid] for bid, times, _ in days]
    y = sum(w * s for w, s in zip(weights, sights, strict=True)) / sum(weights)
    wanted = of_one(y, 1 / sum(weights), *PRICE)
    assert found.price.shift[0] == pytest.approx(wanted, rel=1e-4)


def test_reach_tells_of_the_price_too_where_the_platform_says_what_could_have_been_shown():
    clicks, k = 40.0, SLOPE[1.5]
    found = corrections_of(alone(), [segment(1.5, seen(
        impressions=90.0, could_show=200.0, lost_to_money=0.0,
        clicks=clicks, cost=price_at(1.5) * clicks,
    ))])  # fmt: skip
    by_price, by_reach = clicks * k**2 / 0.25, 1 / 0.00522715
    y = 0.181641 * by_reach / (by_price + by_reach)
    assert found.price.shift[0] == pytest.approx(of_one(y, 1 / (by_price + by_reach), *PRICE),
                                                 rel=1e-4)  # fmt: skip


def test_where_what_is_bid_is_paid_the_price_tells_nothing():
    plan = alone()
    paying = run_plan(replace(plan.brief, pricing="pay_bid"), plan.table)
    found = corrections_of(paying, [segment(1.5, seen(impressions=900.0, clicks=40.0, cost=90.0))])
    assert found.price.shift.tolist() == [0.0, 0.0, 0.0]


def test_clicks_are_held_against_the_showings_there_were():
    """The market is where it was thought: what was paid was to be expected."""
    plan = alone()
    shown, clicks = 1500.0, 90.0
    found = corrections_of(plan, [segment(1.5, seen(
        impressions=shown, clicks=clicks, cost=price_at(1.5) * clicks,
    ))])  # fmt: skip
    assert found.price.shift[0] == pytest.approx(0.0, abs=1e-6)
    wanted = counted(shown * click_rate_at(plan, 1.5), clicks, *CLICK_RATE)
    assert found.click_rate.shift[0] == pytest.approx(wanted, rel=1e-6)


def click_rate_at(plan, bid):
    """Clicks a showing at a bid, by a plan in which just that is bid."""
    locked = replace(plan.table, locked_bid=np.array([bid, np.nan, np.nan]))
    expected = run_plan(replace(plan.brief, monthly_spend=1e6), locked).expected
    return float(expected.clicks[0] / expected.impressions[0])


@pytest.mark.parametrize("factor", [1.0, 0.5])
def test_searches_are_those_that_could_have_been_shown(factor):
    plan = alone()
    due = float(plan.demand.searches[0]) * factor
    came = 1.4 * due
    # as many of them won as the bid was to win, and nothing clicked: only searches are told of
    z = (log(1.5) - MU) / SIGMA
    found = corrections_of(plan, [segment(1.5, seen(
        impressions=came * float(ndtr(z)), could_show=came, lost_to_money=0.0,
    ), factor)])  # fmt: skip
    assert found.searches_known
    own = own_spread(plan)
    assert found.searches.shift[0] == pytest.approx(counted(due, came, *SEARCHES, own), rel=1e-6)


def own_spread(plan):
    """What a plan holds of its first keyword's searches, in log units."""
    return float(np.broadcast_to(learning_spreads(plan).own["searches"], 3)[0])


@pytest.mark.parametrize("told", [{}, {"could_show": 90.0, "lost_to_money": 0.0}])
def test_a_keyword_that_did_not_run_teaches_nothing(told):
    plan = alone()
    came = seen(impressions=900.0, clicks=40.0, cost=90.0, **told)
    idle = Segment(np.full(3, np.nan), np.ones(3), came)
    found = corrections_of(plan, [idle])
    for learnt in (found.price, found.click_rate, found.searches):
        assert learnt.factor.tolist() == [1.0, 1.0, 1.0]
