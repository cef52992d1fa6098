"""Draws held against closed forms: means, Poisson spread, percentiles, the purse."""

from dataclasses import replace
from statistics import NormalDist

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from milkwort.core.assumptions import Assumed
from milkwort.core.brief.limits import Limits, SpendLimit
from milkwort.core.brief.spots import Spot
from milkwort.core.brief.worth import Conversion
from milkwort.core.market.keyword_table import blank_table
from milkwort.core.plan.draws import FIGURES, SHARED, draw_month, own_factor, swings_of
from milkwort.core.plan.run import run_plan
from tests.depth import cases
from tests.samples import brief, calls, offer, random_table, table

STILL = dict.fromkeys(
    ["draw_searches", "draw_volume", "draw_variants", "draw_price", "draw_click_rate",
     "draw_click_rate_own", "draw_intent", "draw_click_price"], 0.0,
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


def test_known_factors_of_a_keywords_own():
    wide = np.log(10) / (2 * 1.2815515655446004)
    assert own_factor(wide, np.array([0.0, 1.0])) == pytest.approx([0.667962, 1.64023], rel=5e-6)
    assert own_factor(0.25, np.array([0.0, 1.0])) == pytest.approx([0.969233, 1.24452], rel=5e-6)
    assert own_factor(0.20, np.array([1.0])) == pytest.approx([1.19722], rel=5e-6)


def test_many_small_doubts_do_not_add_up_to_a_bias():
    calm = dict.fromkeys(["draw_searches", "draw_price", "draw_click_rate", "draw_intent"], 0.0)
    rows = random_table(5, 400)
    rows = replace(rows, volume_low=rows.volume_low / 4, volume_high=rows.volume_high * 4)
    result = run_plan(brief(calm, offer=SURE, monthly_spend=1e6), rows)
    drawn = draw_month(result, 2000)
    assert drawn.spend.mean() == pytest.approx(result.totals.spend, rel=0.02)


def test_a_range_of_volume_holds_four_draws_in_five():
    rows = table([0], [1.0], [2.0])
    rows = replace(rows, volume_low=np.array([2e6]), volume_high=np.array([8e6]))
    result = run_plan(brief(STILL, monthly_spend=1e9, pricing="pay_bid"), rows)
    per_search = result.totals.spend / result.demand.searches[0]
    searches = draw_month(result, N).spend / per_search
    # the width of an 80 % interval, about a mean at the likely value
    spread = np.log(4) / (2 * 1.2815515655446004)
    below, above = (NormalDist().cdf(np.log(e) / spread + spread / 2) for e in (0.5, 2.0))
    assert (searches < 2e6).mean() == pytest.approx(below, abs=0.03)
    assert (searches > 8e6).mean() == pytest.approx(1 - above, abs=0.02)
    assert searches.mean() == pytest.approx(4e6, rel=0.03)


@settings(max_examples=cases(15, 180), deadline=None)
@given(seed=st.integers(0, 1000), n=st.integers(1, 40), purse=st.floats(0.1, 300))
def test_no_draw_ever_passes_the_purse(seed, n, purse):
    result = run_plan(brief(monthly_spend=purse), random_table(seed, n))
    drawn = draw_month(result, 300, seed)
    assert (drawn.spend <= purse).all()
    for name in FIGURES:
        r = drawn.ranges[name]
        assert r.low <= r.middle <= r.high


@pytest.mark.parametrize("over", [0.0, 0.5])
def test_no_draw_takes_a_campaign_past_its_own_most(over):
    rows = replace(random_table(31, 30), campaign=np.zeros(30, dtype=np.int64))
    limits = Limits(campaigns={0: SpendLimit(most=20.0)})
    plan = brief({"day_over": over}, monthly_spend=500.0, limits=limits)
    drawn = draw_month(run_plan(plan, rows), 300)
    assert drawn.spend.max() <= 20.0 + 1e-9
    assert drawn.ranges["spend"].high > 10.0


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


def test_what_moves_the_month_most_comes_first():
    moves = draw_month(run_plan(brief(monthly_spend=1e6), random_table(3, 60)), 100).moves
    assert set(moves) == set(SHARED) and next(iter(moves)) == "conversion"
    sizes = [abs(swing.customers[1] - swing.customers[0]) for swing in moves.values()]
    assert sizes == sorted(sizes, reverse=True)
    assert moves["prices"].profit[1] < moves["prices"].profit[0]


def days_lived(clicks, price, money, days, draws, spread, seed=1):
    """Let every day and every click of it happen one by one; return spend and served."""
    rng = np.random.default_rng(seed)
    spent, served = np.zeros(draws), np.zeros(draws)
    shape = 1 / spread
    for _ in range(days):
        for draw, n in enumerate(rng.poisson(clicks / days, draws)):
            costs = rng.gamma(shape, price / shape, n)
            so_far = np.cumsum(costs)
            inside = int(np.searchsorted(so_far, money)) + 1  # the click that passes it is served
            spent[draw] += min(so_far[-1] if n else 0.0, money)
            served[draw] += min(n, inside)
    return spent, served


@pytest.mark.parametrize(("searches", "tight"), [(3000, 0.8), (3000, 1.1), (600, 0.7), (600, 1.3)])
def test_a_month_of_days_is_what_click_after_click_would_be(searches, tight):
    rows = table([searches], [0.8], [2.4])
    loose = run_plan(brief(STILL | {"draw_click_price": 0.25}, offer=SURE, monthly_spend=1e6), rows)
    purse = loose.totals.spend * tight
    steady = replace(loose, brief=replace(loose.brief, monthly_spend=purse))
    drawn = draw_month(steady, 1500)
    clicks, price = loose.totals.clicks, loose.totals.spend / loose.totals.clicks
    spent, served = days_lived(clicks, price, purse / 30, 30, 1500, 0.25)
    assert drawn.spend.mean() == pytest.approx(spent.mean(), rel=0.015)
    assert np.quantile(drawn.spend, [0.1, 0.9]) == pytest.approx(
        np.quantile(spent, [0.1, 0.9]), rel=0.03
    )
    per_draw = drawn.ranges["clicks"]
    assert per_draw.middle == pytest.approx(np.median(served), rel=0.03, abs=2)
    assert drawn.spend.mean() < purse


def test_campaigns_do_not_lend_each_other_money():
    rows = replace(table([900, 900], [0.8, 0.8], [2.4, 2.4]), campaign=np.array([0, 1]))
    plan = brief(offer=SURE, monthly_spend=30.0)
    apart = draw_month(run_plan(plan, rows), 3000).spend.mean()
    shared = draw_month(run_plan(plan, replace(rows, campaign=np.zeros(2, int))), 3000).spend.mean()
    assert apart < shared < 30.0


def test_an_empty_plan_draws_nothing():
    drawn = draw_month(run_plan(brief(), blank_table([])), 50)
    assert drawn.no_customer_chance == 1 and drawn.profit_chance == 0
    assert drawn.ranges["customers"].high == 0
    assert drawn.ranges["cost_per_customer"].low == np.inf


def test_draws_nobody_wants_any_more_are_given_up():
    result = run_plan(brief(), random_table(3, 30))
    assert draw_month(result, 100, still_wanted=lambda: False) is None


@settings(max_examples=cases(15, 180), deadline=None)
@given(seed=st.integers(0, 1000), purse=st.floats(5, 500))
def test_with_nothing_uncertain_every_draw_is_the_expected_month(seed, purse):
    rows = replace(random_table(seed, 30), match=np.arange(30) % 3)
    result = run_plan(brief(STILL, offer=SURE, monthly_spend=purse), rows)
    drawn = draw_month(result, 20, by_chance=False)
    assert drawn.customers == pytest.approx(np.full(20, result.totals.customers))
    assert drawn.spend == pytest.approx(np.full(20, result.totals.spend))
    assert drawn.ranges["profit"].middle == pytest.approx(result.totals.profit)


SPOTS = (
    Spot("page", "click", 0.2, clicks=300, campaign=0),
    Spot("banner", "showings", 2.0, showings=40_000, click_rate=0.01, campaign=1),
    Spot("too dear", "click", 1e4, clicks=300),
)


@pytest.mark.parametrize("purse", [40.0, 1e6])
def test_spots_are_drawn_beside_keywords_and_still_ones_bring_what_is_expected(purse):
    rows = random_table(5, 12)
    still = run_plan(brief(STILL, offer=SURE, monthly_spend=purse, spots=SPOTS), rows)
    assert still.spots.spend[0] > 0 and still.spots.spend[2] == 0
    drawn = draw_month(still, 20, by_chance=False)
    assert drawn.customers == pytest.approx(np.full(20, still.totals.customers))
    assert drawn.spend == pytest.approx(np.full(20, still.totals.spend))
    wide = run_plan(brief(monthly_spend=purse, spots=SPOTS), rows)
    drawn = draw_month(wide, 2000)
    assert drawn.spend.max() <= purse
    assert drawn.ranges["customers"].low < wide.totals.customers < drawn.ranges["customers"].high


def test_showings_that_are_paid_for_cost_the_same_whatever_is_clicked():
    shown = replace(SPOTS[1], click_rate=0.02)
    rows = replace(random_table(5, 3), call=calls("drop", "drop", "drop"))
    sure = {**STILL, "draw_click_rate": 0.5}
    result = run_plan(brief(sure, offer=SURE, monthly_spend=1e6, spots=(shown,)), rows)
    drawn = draw_month(result, 200, by_chance=False)
    assert drawn.spend == pytest.approx(np.full(200, 80.0))
    assert drawn.customers.std() > 0.1 * drawn.customers.mean()


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


def test_a_day_may_run_over_its_budget_and_the_month_never_does():
    plan, rows = brief(monthly_spend=60.0), random_table(5, 12)
    held = draw_month(run_plan(plan, rows), seed=3)
    loose = draw_month(run_plan(replace(plan, assumed=Assumed({"day_over": 0.4})), rows), seed=3)
    assert np.quantile(loose.spend, 0.5) > np.quantile(held.spend, 0.5)
    assert loose.spend.max() <= 60.0 + 1e-9
    even = draw_month(run_plan(replace(plan, assumed=Assumed({"day_over": 0.0})), rows), seed=3)
    assert np.array_equal(even.spend, held.spend)
