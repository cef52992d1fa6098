"""The brief read backwards, and what is odd about one."""

import pytest

from milkwort.core.brief.backward import backward
from milkwort.core.brief.strange import strange
from tests.samples import brief, offer


def test_prices_stand_about_the_ceiling_with_the_clicks_a_sale_may_take():
    plan = brief()
    worth = plan.worth
    lines = backward(plan)
    assert len(lines) == 4
    assert lines[0].price < worth.ceiling < lines[-1].price
    for line in lines:
        assert line.rule == pytest.approx(worth.allowed / line.price)
        assert line.break_even == pytest.approx(worth.contribution / line.price)
        assert line.meets_rule == (line.price <= worth.ceiling)
        assert line.breaks_even == (line.price <= worth.break_even_cpc)
        assert line.expected == pytest.approx(1 / worth.rate.likely)


def test_what_is_odd_is_said_and_a_plain_brief_is_not():
    assert strange(brief()) == []
    (said,) = strange(brief(monthly_spend=0.0))
    assert "empty" in said
    (said,) = strange(brief(monthly_spend=9.0 * brief().worth.ceiling))
    assert "fewer than ten clicks" in said
    (said,) = strange(brief({"min_bid": 500.0}))
    assert "no click is cheap enough" in said


@pytest.mark.parametrize("sale", [5.0, 40.0, 9_000.0, 900_000.0, 4e8])
def test_the_prices_lie_about_the_ceiling_whatever_money_is_worth(sale):
    plan = brief(offer=offer(sale_value=sale))
    prices = [line.price for line in backward(plan)]
    assert prices == sorted(set(prices)) and len(prices) == 4
    assert prices[0] < plan.worth.ceiling < prices[-1]
