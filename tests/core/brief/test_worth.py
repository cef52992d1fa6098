import pytest
from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.brief.worth import CeilingRule, Conversion, worth_of
from milkwort.core.errors import BadValueError
from tests.samples import offer


def test_the_known_sale_gives_the_known_ceiling():
    worth = worth_of(offer(), CeilingRule("profit_share", 0.3))
    assert worth.break_even_cpc == pytest.approx(6.732)
    assert worth.allowed == pytest.approx(157.08)
    assert worth.ceiling == pytest.approx(4.7124)


@pytest.mark.parametrize(
    ("rule", "value", "allowed"),
    [
        ("break_even", None, 224.4),
        ("profit_share", 0.25, 168.3),
        ("cost_per_customer", 60.0, 60.0),
        ("return_on_spend", 4.0, 102.0),
        ("cost_of_sale", 0.15, 61.2),
        ("cost_per_customer", 500.0, 224.4),
    ],
)
def test_each_rule_allows_its_cost_and_never_more_than_a_customer_brings(rule, value, allowed):
    assert worth_of(offer(), CeilingRule(rule, value)).allowed == pytest.approx(allowed)


def test_a_plan_that_pays_to_learn_may_pass_what_a_customer_brings():
    rule = CeilingRule("cost_per_customer", 500.0, may_pay_to_learn=True)
    assert worth_of(offer(), rule).allowed == 500.0


def test_the_planners_own_highest_price_caps_the_ceiling():
    assert worth_of(offer(), CeilingRule("break_even", max_cpc=2.5)).ceiling == 2.5


def test_two_steps_multiply_lows_with_lows_and_highs_with_highs():
    two = offer(conversion=Conversion(0.06, 0.08, 0.11), close=Conversion(0.3, 0.4, 0.5))
    assert two.rate.as_tuple() == pytest.approx((0.018, 0.032, 0.055))


@pytest.mark.parametrize(
    ("changes", "where"),
    [
        ({"sale_value": 0.0}, "sale_value"),
        ({"gross_margin": 1.2}, "gross_margin"),
        ({"gross_margin": float("nan")}, "gross_margin"),
        ({"sales_per_customer": -1.0}, "sales_per_customer"),
    ],
)
def test_an_impossible_offer_is_refused_by_its_field(changes, where):
    with pytest.raises(BadValueError, match=where) as caught:
        offer(**changes)
    assert caught.value.where == where


@pytest.mark.parametrize("rates", [(0.1, 0.05, 0.2), (-0.1, 0.1, 0.2), (0.5, 0.9, 1.1)])
def test_impossible_rates_are_refused(rates):
    with pytest.raises(BadValueError, match="conversion"):
        Conversion(*rates)


@pytest.mark.parametrize(
    ("rule", "value"),
    [("profit_share", 1.0), ("return_on_spend", 0.0), ("cost_of_sale", None), ("luck", 1.0)],
)
def test_a_rule_without_a_possible_figure_is_refused(rule, value):
    with pytest.raises(BadValueError, match="ceiling"):
        CeilingRule(rule, value)


@given(st.floats(0, 0.99), st.floats(0, 0.99))
def test_keeping_more_profit_never_raises_the_ceiling(one, other):
    less, more = sorted((one, other))
    ceilings = [worth_of(offer(), CeilingRule("profit_share", p)).ceiling for p in (less, more)]
    assert ceilings[0] >= ceilings[1]
