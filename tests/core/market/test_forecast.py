import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from milkwort.core.brief.worth import worth_columns
from milkwort.core.market.demand import demand_of
from milkwort.core.market.forecast import expect, totals_of
from milkwort.core.market.prices import prices_of
from tests.depth import cases
from tests.samples import brief, table

NAN = np.nan


def month(bids, purse=1e9, **columns):
    plan = brief(monthly_spend=purse)
    rows = table([320.0] * len(bids), [0.8] * len(bids), [2.4] * len(bids), **columns)
    demand = demand_of(plan, rows)
    prices = prices_of(rows.cpc_low, rows.cpc_high, rows.group, plan.assumed)
    bid = np.array(bids)
    expected = expect(plan, demand, prices, bid, worth_columns(plan.worths, rows.offer))
    return expected, totals_of(demand, expected, bid)


def test_customers_revenue_and_profit_follow_from_clicks_and_spend():
    expected, totals = month([1.5])
    assert expected.customers[0] == pytest.approx(7.24346 * 0.03, rel=1e-5)
    assert expected.revenue[0] == pytest.approx(expected.customers[0] * 340 * 1.2)
    assert expected.profit[0] == pytest.approx(expected.customers[0] * 224.4 - 6.14275, rel=1e-5)
    assert totals.cost_per_customer == pytest.approx(6.14275 / (7.24346 * 0.03), rel=1e-5)


def test_what_does_not_run_is_nothing_and_is_counted_nowhere():
    expected, totals = month([1.5, NAN])
    assert expected.spend[1] == expected.impressions[1] == 0
    assert totals.keywords == 1 and totals.searches == 320


def test_nothing_running_costs_nothing_and_has_no_price_per_customer():
    _, totals = month([NAN, NAN])
    assert (totals.spend, totals.customers, totals.cost_per_customer) == (0, 0, None)


@settings(max_examples=cases(30, 360))
@given(st.floats(0.1, 30), st.lists(st.floats(0.3, 4), min_size=1, max_size=6))
def test_pacing_scales_everything_alike_and_leaves_prices(purse, bids):
    free, _ = month(bids)
    paced, totals = month(bids, purse)
    assert totals.spend == pytest.approx(min(purse, free.spend.sum()))
    assert paced.clicks == pytest.approx(free.clicks * paced.pace)
    assert paced.cpc == pytest.approx(free.cpc)
    assert paced.reach == pytest.approx(free.reach)
