from dataclasses import replace

import numpy as np
import pytest

from milkwort.core.brief.worth import CeilingRule
from milkwort.core.errors import BadValueError
from milkwort.core.market.standing import STANDINGS
from milkwort.core.plan.run import run_plan
from milkwort.core.plan.the_line import price_that_admits, rule_that_admits
from tests.samples import brief, table

RULES = [
    CeilingRule("break_even"),
    CeilingRule("profit_share", 0.6),
    CeilingRule("cost_per_customer", 60.0),
    CeilingRule("return_on_spend", 9.0),
    CeilingRule("cost_of_sale", 0.1),
]


def standing(result):
    return [STANDINGS[s] for s in result.standing.standing]


@pytest.mark.parametrize("rule", RULES, ids=lambda rule: rule.rule)
def test_the_keyword_just_comes_in_and_those_dearer_stay_out(rule):
    given = brief(ceiling=rule)
    sheet = table([100, 100, 100], [0.5, 4.0, 4.4], [1.5, 8.0, 8.8])
    result = run_plan(given, sheet)
    admitted = rule_that_admits(result, 1)
    after = run_plan(replace(given, ceiling=admitted), sheet)
    assert standing(after)[:2] == ["in_reach", "stretch"]
    assert standing(after)[2] == "beyond"
    assert admitted.rule == ("profit_share" if rule.rule == "break_even" else rule.rule)


def test_the_line_moves_up_as_well():
    given = brief(ceiling=CeilingRule("profit_share", 0.0))
    sheet = table([100, 100], [0.5, 3.0], [1.5, 6.0])
    admitted = rule_that_admits(run_plan(given, sheet), 0)
    assert admitted.value > 0.5
    after = run_plan(replace(given, ceiling=admitted), sheet)
    assert standing(after) == ["stretch", "beyond"]


@pytest.mark.parametrize(
    ("changes", "said"),
    [
        ({"rate": np.array([0.0])}, "rate"),
        ({"cpc_low": np.array([90.0]), "cpc_high": np.array([95.0])}, "brings"),
    ],
)
def test_where_no_rule_would_it_says_why(changes, said):
    result = run_plan(brief(), replace(table([100], [1.0], [3.0]), **changes))
    with pytest.raises(BadValueError, match=said):
        rule_that_admits(result, 0)


def test_ones_own_highest_price_stands_in_the_way():
    given = brief(ceiling=CeilingRule("profit_share", 0.3, max_cpc=1.0))
    result = run_plan(given, table([100], [2.0], [4.0]))
    with pytest.raises(BadValueError, match="your own highest"):
        rule_that_admits(result, 0)


@pytest.mark.parametrize("step", [0.01, 0.05, 1.0])
def test_the_highest_price_that_admits_a_keyword_stands_on_a_bid_step_and_admits_it(step):
    rows = table([100.0, 100.0], [0.8, 1.3], [2.4, 2.9])
    plan = brief({"bid_step": step})
    price = price_that_admits(run_plan(plan, rows), 1)
    assert price / step == pytest.approx(round(price / step))
    ceiling = replace(plan.ceiling, max_cpc=price)
    after = run_plan(replace(plan, ceiling=ceiling), rows)
    assert after.standing.reach[1] >= plan.assumed["stretch"] - 1e-9
    below = replace(plan.ceiling, max_cpc=price - step)
    if price > step:
        assert run_plan(replace(plan, ceiling=below), rows).standing.reach[1] < 0.25
