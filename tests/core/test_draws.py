"""Draws held against closed forms: means, Poisson spread, percentiles, the purse."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from milkwort.core.draws import FIGURES, SHARED, draw_month, swings_of
from milkwort.core.keyword_table import blank_table
from milkwort.core.plan import run_plan
from milkwort.core.worth import Conversion
from tests.samples import brief, offer, random_table, table

STILL = dict.fromkeys(
    ["draw_searches", "draw_volume", "draw_variants", "draw_price", "draw_click_rate",
     "draw_click_rate_own", "draw_intent"], 0.0,
)  # fmt: skip
SURE = offer(conversion=Conversion(0.03, 0.03, 0.03))
N = 4000


def test_without_spread_the_means_are_the_expected_figures():
    result = run_plan(brief(STILL, offer=SURE, monthly_spend=1e6), random_table(1, 40))
    drawn = draw_month(result, N)
    totals = result.totals
    clicks = drawn.spend.mean() / (totals.spend / totals.clicks)
    assert clicks == pytest.approx(totals.clicks, rel=4 / np.sqrt(totals.clicks * N))
    # customers are Poisson too, a little wider by the Beta of their rate
    error = 4 * np.sqrt(totals.customers * 1.5 / N)
    assert drawn.customers.mean() == pytest.approx(totals.customers, abs=error)


def test_without_spread_clicks_vary_as_poisson_does():
    plan = brief(STILL, offer=SURE, monthly_spend=1e6, pricing="pay_bid")
    result = run_plan(plan, table([5000], [1.0], [2.0]))
    clicks = draw_month(result, N).spend / result.bid[0]
    assert clicks.var() == pytest.approx(clicks.mean(), rel=5 * np.sqrt(2 / N))


def test_conversion_spreads_from_low_to_high_as_the_brief_says():
    own = STILL | {"prior_weight": 10000.0}
    wide = offer(conversion=Conversion(0.02, 0.03, 0.045))
    plan = brief(own, offer=wide, monthly_spend=1e9, pricing="pay_bid")
    result = run_plan(plan, table([5e7], [1.0], [2.0]))
    drawn = draw_month(result, N)
    rate = drawn.customers / (drawn.spend / result.bid[0])
    assert np.quantile(rate, [0.1, 0.5, 0.9]) == pytest.approx([0.02, 0.03, 0.045], rel=0.06)


def test_a_range_of_volume_holds_four_draws_in_five():
    rows = table([0], [1.0], [2.0])
    rows = replace(rows, volume_low=np.array([2e6]), volume_high=np.array([8e6]))
    result = run_plan(brief(STILL, monthly_spend=1e9, pricing="pay_bid"), rows)
    per_search = result.totals.spend / result.demand.searches[0]
    searches = draw_month(result, N).spend / per_search
    assert ((searches > 2e6) & (searches < 8e6)).mean() == pytest.approx(0.8, abs=0.03)


@settings(max_examples=15, deadline=None)
@given(seed=st.integers(0, 1000), n=st.integers(1, 40), purse=st.floats(0.1, 300))
def test_no_draw_ever_passes_the_purse(seed, n, purse):
    result = run_plan(brief(monthly_spend=purse), random_table(seed, n))
    drawn = draw_month(result, 300, seed)
    assert (drawn.spend <= purse).all()
    for name in FIGURES:
        r = drawn.ranges[name]
        assert r.low <= r.middle <= r.high


def test_the_same_seed_draws_the_same_month():
    result = run_plan(brief(), random_table(3, 30))
    one, same, other = (draw_month(result, 500, seed) for seed in (1, 1, 2))
    assert (one.customers == same.customers).all()
    assert (one.customers != other.customers).any()


def test_a_tight_purse_runs_out_early_and_says_about_when():
    rows = random_table(3, 60)
    tight = draw_month(run_plan(brief(monthly_spend=20.0), rows), 1000)
    loose = draw_month(run_plan(brief(monthly_spend=1e6), rows), 1000)
    assert tight.early_chance > 0.3 and 1 <= tight.early_day <= 31
    assert loose.early_chance == 0 and loose.early_day is None


def test_what_is_drawn_moves_the_result_the_way_it_should():
    moves = draw_month(run_plan(brief(monthly_spend=1e6), random_table(3, 60)), 1500).moves
    assert set(moves) == set(SHARED)
    assert moves["conversion"][0] > 0.4 and moves["searches"][0] > 0
    assert moves["prices"][1] < moves["conversion"][1]


def test_an_empty_plan_draws_nothing():
    drawn = draw_month(run_plan(brief(), blank_table([])), 50)
    assert drawn.no_customer_chance == 1 and drawn.profit_chance == 0
    assert drawn.ranges["customers"].high == 0
    assert drawn.ranges["cost_per_customer"].low == np.inf


def test_draws_nobody_wants_any_more_are_given_up():
    result = run_plan(brief(), random_table(3, 30))
    assert draw_month(result, 100, still_wanted=lambda: False) is None


@settings(max_examples=15, deadline=None)
@given(seed=st.integers(0, 1000), purse=st.floats(5, 500))
def test_with_nothing_uncertain_every_draw_is_the_expected_month(seed, purse):
    rows = replace(random_table(seed, 30), match=np.arange(30) % 3)
    result = run_plan(brief(STILL, offer=SURE, monthly_spend=purse), rows)
    drawn = draw_month(result, 20, by_chance=False)
    assert drawn.customers == pytest.approx(np.full(20, result.totals.customers))
    assert drawn.spend == pytest.approx(np.full(20, result.totals.spend))
    assert drawn.ranges["profit"].middle == pytest.approx(result.totals.profit)


def test_one_input_at_a_time_moves_the_month_the_way_it_should():
    result = run_plan(brief(monthly_spend=1e6), random_table(9, 60))
    swings = swings_of(result)
    assert set(swings) == set(SHARED)
    low, high = swings["conversion"].customers
    assert low == pytest.approx(result.totals.customers * 2 / 3)
    assert high == pytest.approx(result.totals.customers * 1.5)
    low, high = swings["searches"].customers
    assert high / low == pytest.approx(np.exp(2 * 0.1 * 1.2815516))
    dear, cheap = swings["prices"].customers
    assert dear > cheap  # rising prices win fewer clicks at the same bids
    assert swings["variants"].customers[0] == swings["variants"].customers[1]


def test_several_offers_bring_each_their_own_worth():
    small = offer(sale_value=34.0, name="small")
    rows = replace(random_table(9, 40), offer=np.arange(40) % 2)
    result = run_plan(brief(more_offers=(small,), monthly_spend=1e6), rows)
    contribution = np.where(rows.offer == 0, 224.4, 22.44)
    profit = (result.expected.customers * contribution).sum() - result.totals.spend
    assert result.totals.profit == pytest.approx(profit)
    assert result.standing.ceiling[1] == pytest.approx(
        result.standing.ceiling[0] / 10 * result.demand.rate[1] / result.demand.rate[0]
    )
    drawn = draw_month(result, 2000)
    assert drawn.ranges["profit"].low < result.totals.profit < drawn.ranges["profit"].high
