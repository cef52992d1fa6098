import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.assumptions import Assumed
from milkwort.core.market.prices import at_bid, price_at_reach, prices_of, reach_at

NO_GROUP = np.array([-1])


def one_price(low, high, changes=None):
    return prices_of(np.array([low]), np.array([high]), NO_GROUP, Assumed(changes))


def month_at(bid, pricing="pay_enough", low=0.8, high=2.4, searches=320.0):
    prices = one_price(low, high)
    volume = np.array([searches])
    return at_bid(np.array([bid]), prices.mu, prices.sigma, volume, volume, pricing, Assumed())


@pytest.mark.parametrize(
    ("bid", "reach", "clicks", "cpc", "spend"),
    [
        (1.50, 0.538786, 7.24346, 0.848041, 6.14275),
        (0.80, 0.25, 2.46, 0.527092, 1.29665),
        (2.40, 0.75, 12.06, 1.143805, 13.7943),
    ],
)
def test_the_known_market_gives_the_known_month(bid, reach, clicks, cpc, spend):
    month = month_at(bid)
    found = [month.reach[0], month.clicks[0], month.cpc[0], month.spend[0]]
    assert found == pytest.approx([reach, clicks, cpc, spend], rel=1e-5)


def test_paying_what_was_bid_costs_the_bid():
    month = month_at(1.5, "pay_bid")
    assert month.cpc[0] == 1.5
    assert month.spend[0] == pytest.approx(10.8652, rel=1e-5)


@given(
    st.floats(1e-4, 1e4), st.floats(0.01, 100), st.floats(1.0, 50), st.sampled_from([0.05, 1, 1e6])
)
def test_the_average_price_is_above_nothing_and_never_above_the_bid(bid, low, ratio, searches):
    month = month_at(bid, low=low, high=low * ratio, searches=searches)
    assert 0 < month.cpc[0] <= bid
    assert 0 <= month.reach[0] <= 1


@given(st.floats(0.05, 20), st.floats(0.05, 20))
def test_a_higher_bid_never_wins_less_or_costs_less(one, other):
    low, high = (month_at(b) for b in sorted((one, other)))
    assert low.clicks[0] <= high.clicks[0]
    assert low.spend[0] <= high.spend[0] * (1 + 1e-12)


def test_far_below_the_market_the_price_stays_finite():
    month = month_at(1e-3, low=100.0, high=100.0)
    assert np.isfinite(month.cpc[0]) and 0 < month.cpc[0] <= 1e-3


def test_one_price_is_the_median_of_an_assumed_spread():
    prices = one_price(np.nan, 1.5)
    assert prices.single[0]
    assert price_at_reach(0.5, prices)[0] == pytest.approx(1.5)
    assert prices.high[0] / prices.low[0] == pytest.approx(2.5)


def test_a_price_of_zero_is_absent():
    assert one_price(0.0, 2.0).single[0]
    assert not one_price(0.0, 0.0).known[0]


def test_equal_prices_keep_a_least_spread_and_their_own_figures():
    prices = one_price(2.0, 2.0)
    assert prices.sigma[0] == 0.05
    assert (prices.low[0], prices.high[0]) == (2.0, 2.0)


def test_a_missing_price_is_taken_from_the_group_then_from_the_plan():
    low = np.array([1.0, 2.0, 8.0, np.nan, np.nan])
    group = np.array([0, 0, 1, 0, -1])
    prices = prices_of(low, low * 2, group, Assumed())
    assert prices.assumed.tolist() == [False, False, False, True, True]
    assert prices.mu[3] == pytest.approx(np.median(prices.mu[:2]))
    assert prices.mu[4] == pytest.approx(np.median(prices.mu[:3]))


def test_no_price_anywhere_is_said_and_not_made_up():
    none = np.array([np.nan, np.nan])
    assert not prices_of(none, none, np.array([0, -1]), Assumed()).known.any()


def test_reach_and_price_are_each_others_opposite():
    prices = one_price(0.8, 2.4)
    assert reach_at(price_at_reach(0.37, prices), prices)[0] == pytest.approx(0.37)
    assert reach_at(np.array([0.0]), prices)[0] == 0.0
