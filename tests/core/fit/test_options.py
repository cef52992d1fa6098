"""The bids to choose from, and their hulls, against the plainest way to find them."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.assumptions import Assumed
from milkwort.core.fit.options import Options, bid_lattice, hull_of, options_of
from milkwort.core.market.prices import at_bid, prices_of

ASSUMED = Assumed()


def options_for(low, high, ceiling, *, assumed=ASSUMED, weight=100.0, pricing="pay_enough"):
    prices = prices_of(np.array([low]), np.array([high]), np.array([-1]), assumed)
    found = options_of(
        np.array([0]),
        prices.mu,
        prices.sigma,
        np.array([weight]),
        np.array([ceiling]),
        pricing,
        assumed,
    )
    return found, prices


def plain_hull(points):
    """Return the upper hull from (0, 0) by trying every chord."""
    corners = [(0.0, 0.0)]
    rest = sorted(points)
    while rest:
        x0, y0 = corners[-1]
        slopes = [((y - y0) / (x - x0), x, y) for x, y in rest]
        best = max(slope for slope, _, _ in slopes)
        if best <= 0:
            break
        x, y = max((x, y) for slope, x, y in slopes if slope >= best - 1e-12)
        corners.append((x, y))
        rest = [p for p in rest if p[0] > x]
    return corners[1:]


def test_the_lattice_rises_from_the_least_bid_by_six_in_a_hundred():
    lattice = bid_lattice(5.0, ASSUMED)
    assert lattice[0] == 5 and (np.diff(lattice) > 0).all()
    assert lattice[-1] >= 500
    wide = lattice[lattice > 100]
    assert np.allclose(wide[1:] / wide[:-1], 1.06, rtol=0.01)


@pytest.mark.parametrize(("step", "least"), [(0.01, 0.05), (0.05, 0.12), (1.0, 3.0), (0.01, 0.013)])
def test_every_bid_is_a_whole_step_and_not_under_the_least(step, least):
    assumed = Assumed({"bid_step": step, "min_bid": least})
    lattice = bid_lattice(40.0, assumed)
    assert lattice.min() * step >= least - 1e-9


def test_a_highest_bid_under_the_least_leaves_one_entry():
    assert bid_lattice(0.01, ASSUMED).tolist() == [5]


@given(st.floats(0.06, 30), st.floats(1.0, 8), st.floats(0.05, 40))
def test_bids_reach_from_the_least_reach_to_the_top_itself(low, ratio, ceiling):
    options, prices = options_for(low, low * ratio, ceiling)
    if len(options.steps) == 0:
        return
    bids = options.steps * 0.01
    reach = at_bid(
        bids, prices.mu, prices.sigma, np.ones(1), np.ones(1), "pay_enough", ASSUMED
    ).reach
    top_price = min(ceiling, np.exp(prices.mu[0] + prices.sigma[0] * 1.6448536269514722))
    assert reach.min() >= 0.05 * (1 - 1e-6)
    assert options.steps[-1] == int(np.floor(top_price / 0.01 + 1e-9))
    assert (np.diff(options.steps) > 0).all()


@pytest.mark.parametrize("pricing", ["pay_enough", "pay_bid"])
def test_what_an_option_brings_is_what_the_market_says(pricing):
    options, prices = options_for(0.8, 2.4, 6.0, pricing=pricing)
    month = at_bid(
        options.steps * 0.01,
        prices.mu,
        prices.sigma,
        np.array([100.0]),
        np.array([100.0]),
        pricing,
        ASSUMED,
    )
    assert options.clicks == pytest.approx(month.clicks, rel=1e-12)
    assert options.spend == pytest.approx(month.spend, rel=1e-12)


@pytest.mark.parametrize(
    ("low", "ceiling", "weight"), [(5.0, 0.5, 100.0), (1.0, 0.01, 100.0), (1.0, 5.0, 0.0)]
)
def test_a_keyword_that_cannot_run_has_no_options(low, ceiling, weight):
    options, _ = options_for(low, low * 2, ceiling, weight=weight)
    assert len(options.steps) == 0


@given(
    st.lists(
        st.lists(st.tuples(st.floats(0.01, 5), st.floats(0.01, 5)), min_size=1, max_size=12),
        min_size=1,
        max_size=5,
    )
)
def test_hulls_are_those_of_the_plain_way(keywords):
    owner, clicks, spend = [], [], []
    for number, steps in enumerate(keywords):
        moves = np.cumsum(np.array(steps), axis=0)
        owner += [number] * len(steps)
        spend += moves[:, 0].tolist()
        clicks += moves[:, 1].tolist()
    options = Options(np.array(owner), np.arange(len(owner)), np.array(clicks), np.array(spend))
    hull = hull_of(options)
    for number in range(len(keywords)):
        mine = hull.owner == number
        found = list(zip(np.cumsum(hull.spend[mine]), np.cumsum(hull.clicks[mine]), strict=True))
        points = [(s, c) for o, s, c in zip(owner, spend, clicks, strict=True) if o == number]
        wanted = plain_hull(points)
        # corners on one straight line may be told differently; the heights may not
        xs = np.array([0.0, *spend])
        heights = [np.interp(xs, *zip((0.0, 0.0), *p, strict=True)) for p in (found, wanted)]
        assert heights[0] == pytest.approx(heights[1], abs=1e-9)


def test_no_options_have_no_hull():
    empty = np.zeros(0, dtype=np.int64)
    assert len(hull_of(Options(empty, empty, np.zeros(0), np.zeros(0))).owner) == 0
