from dataclasses import replace

import numpy as np
import pytest

from milkwort.core.brief.worth import CeilingRule
from milkwort.core.errors import BadValueError
from milkwort.core.market.standing import STANDINGS
from milkwort.core.plan.run import run_plan
from milkwort.core.plan.the_line import rule_that_admits
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
