import math

import numpy as np
import pytest

from milkwort.core.assumptions import Assumed
from milkwort.core.brief.worth import CeilingRule
from milkwort.core.market.standing import (
    STANDINGS,
    clicks_to_first_sale,
    clicks_to_stop,
    come_in,
    come_in_columns,
    missing_chance,
)
from milkwort.core.plan.run import run_plan
from tests.samples import brief, table

ASSUMED = Assumed()
ALLOWED = 157.08


def test_standing_follows_the_reach_at_the_ceiling():
    result = run_plan(brief(), table([10] * 3, [0.8, 4.0, 9.0], [2.4, 9.0, 30.0]))
    names = [STANDINGS[s] for s in result.standing.standing]
    assert names == ["in_reach", "stretch", "beyond"]
    assert (np.diff(result.standing.headroom) < 0).all()


def test_the_line_lies_where_a_quarter_of_the_searches_is_won():
    at_line = brief().worth.ceiling
    for low, name in ((at_line * 0.999, "stretch"), (at_line * 1.001, "beyond")):
        result = run_plan(brief(), table([10], [low], [low * 3]))
        assert STANDINGS[result.standing.standing[0]] == name


def test_what_would_bring_a_keyword_in_does_bring_it_in():
    result = run_plan(brief(), table([10], [9.0], [30.0]))
    mu, sigma = result.prices.mu[0], result.prices.sigma[0]
    needed = come_in(brief(), 0.03, mu, sigma)
    again = run_plan(brief(), table([10], [9.0], [30.0], rate=np.array([needed.rate + 1e-9])))
    assert STANDINGS[again.standing.standing[0]] == "stretch"
    columns = come_in_columns(brief(), result.demand, result.prices, result.table.offer)
    assert columns.rate[0] == pytest.approx(needed.rate)
    assert columns.sale_value[0] == pytest.approx(needed.sale_value)
    assert columns.price_factor[0] == pytest.approx(needed.price_factor)
    assert needed.sale_value == pytest.approx(340 * needed.rate / 0.03)
    assert needed.price_factor == pytest.approx(0.03 / needed.rate)


def test_at_a_rate_of_zero_nothing_would_bring_it_in():
    needed = come_in(brief(), 0.0, 0.0, 0.5)
    assert (needed.rate, needed.sale_value, needed.price_factor) == (None, None, None)
    assert "rate of 0" in needed.why_none


def test_above_the_planners_own_highest_price_no_rate_would():
    capped = brief(ceiling=CeilingRule("break_even", max_cpc=2.0))
    needed = come_in(capped, 0.03, math.log(9), 0.5)
    assert needed.rate is None and "highest price" in needed.why_none


def test_a_fixed_cost_per_customer_is_not_helped_by_a_dearer_sale():
    fixed = brief(ceiling=CeilingRule("cost_per_customer", 50.0))
    assert come_in(fixed, 0.03, math.log(9), 0.5).sale_value is None


def test_the_known_clicks_to_a_first_sale_and_to_a_stop():
    assert clicks_to_first_sale(np.array([0.03]), ASSUMED)[0] == 53
    assert clicks_to_stop(0.03, 2.40, ALLOWED, ASSUMED) == 203


@pytest.mark.parametrize(
    ("customers", "price", "chance"), [(0, 2.40, 0.719455), (4, 1.50, 0.00446385)]
)
def test_the_known_chances_of_missing_the_rule(customers, price, chance):
    found = missing_chance(
        np.array([90.0]),
        np.array([float(customers)]),
        np.array([0.03]),
        np.array([price / ALLOWED]),
        ASSUMED,
    )
    assert found[0] == pytest.approx(chance, rel=1e-5)


def test_a_stop_is_the_first_click_that_says_so():
    clicks = clicks_to_stop(0.03, 2.40, ALLOWED, ASSUMED)

    def chance(n):
        return missing_chance(
            np.array(n), np.array(0.0), np.array(0.03), np.array(2.40 / ALLOWED), ASSUMED
        )

    assert chance(clicks - 1) < 0.93 <= chance(clicks)


def test_no_verdict_comes_before_the_least_evidence():
    assert clicks_to_stop(0.001, 100.0, ALLOWED, ASSUMED) == 20


@pytest.mark.parametrize(("rate", "clicks"), [(0.0, math.inf), (1.0, 1.0), (0.8, 1.0)])
def test_extreme_rates_need_all_or_one_click(rate, clicks):
    assert clicks_to_first_sale(np.array([rate]), ASSUMED)[0] == clicks


def test_a_stop_is_never_reached_at_a_rate_of_zero():
    assert clicks_to_stop(0.0, 1.0, ALLOWED, ASSUMED) == math.inf
