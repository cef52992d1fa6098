"""How sure it is: dots, chances, what would have to be true, and where the purse goes."""

from dataclasses import replace

import numpy as np
import pytest
from scipy.stats import norm

from milkwort.core.brief.limits import Limits, SpendLimit
from milkwort.core.brief.worth import CeilingRule, Conversion
from milkwort.core.market.keyword_table import blank_table
from milkwort.core.plan.budget_use import budget_use
from milkwort.core.plan.dots import dots_of
from milkwort.core.plan.draws import draw_month
from milkwort.core.plan.must_be import must_be
from milkwort.core.plan.odds import odds_of
from milkwort.core.plan.run import run_plan
from tests.samples import brief, offer, random_table

RULE = CeilingRule("profit_share", 0.3)
ROWS = random_table(21, 40)


def turns(plan, rows=ROWS):
    return {one.input: one for one in must_be(run_plan(plan, rows))}


def test_a_hundred_dots_stand_for_two_thousand_months():
    values = np.random.default_rng(1).permutation(np.arange(2000.0))
    dots = dots_of(values)
    assert len(dots) == 100
    assert (np.diff(dots) == 20).all()
    assert dots_of(np.array([np.inf] * 40))[-1] == np.inf


def test_conversion_may_fall_by_what_the_rule_leaves_free():
    """With every bid as it is, customers and what they may cost go by the rate alone."""
    result = run_plan(brief(ceiling=RULE, monthly_spend=50.0), ROWS)
    found = {one.input: one for one in must_be(result)}["conversion"]
    spend, customers = result.totals.spend, result.totals.customers
    worth = result.brief.worth
    assert found.rule.times == pytest.approx(spend / (worth.allowed * customers), rel=1e-6)
    assert found.even.times == pytest.approx(spend / (worth.contribution * customers), rel=1e-6)
    assert found.nothing.times == pytest.approx(1 / customers, rel=1e-6)
    assert found.now == result.brief.offer.rate.likely


def test_a_chance_is_that_of_the_draws_spread():
    plan = brief(offer=offer(conversion=Conversion(0.02, 0.03, 0.045)), monthly_spend=50.0)
    found = turns(plan)["conversion"].even
    low_spread = np.log(0.03 / 0.02) / norm.ppf(0.9)
    assert found.chance == pytest.approx(norm.cdf(np.log(found.times) / low_spread))
    assert turns(plan)["sale value"].even.chance is None


def test_what_scales_searches_alike_never_turns_a_rule():
    found = turns(brief(monthly_spend=1e6))
    assert found["searches"].even.times is None
    assert found["searches"].nothing.times == pytest.approx(found["click rate"].nothing.times)


def test_the_sale_value_turns_where_the_margin_does():
    found = turns(brief(monthly_spend=50.0))
    assert found["sale value"].even.times == pytest.approx(found["margin"].even.times)
    # a rule that is a price fixed by hand doesn't move with the sale
    fixed = turns(brief(ceiling=CeilingRule("cost_per_customer", 10.0), monthly_spend=50.0))
    assert fixed["sale value"].rule.times != found["sale value"].rule.times


def test_no_margin_above_all_of_it_is_asked_for():
    dear = brief(offer=offer(gross_margin=0.95, sale_value=30.0), monthly_spend=300.0)
    for one in must_be(run_plan(dear, replace(ROWS, locked_bid=np.full(40, 3.0)))):
        if one.input == "margin":
            for turn in (one.rule, one.even, one.nothing):
                assert turn.times is None or turn.times * 0.95 <= 1 + 1e-9


def test_a_plan_that_runs_nothing_has_nothing_to_be_true():
    assert must_be(run_plan(brief(), blank_table([]))) == []


def test_odds_are_shares_of_the_months():
    result = run_plan(brief(ceiling=RULE, monthly_spend=40.0), ROWS)
    draws = draw_month(result, 400)
    odds = odds_of(result, draws)
    assert all(0 <= odd.share <= 1 for odd in odds)
    said = {odd.says: odd.share for odd in odds}
    assert said["nobody buys"] == draws.no_customer_chance
    assert said["the clicks earn more than they cost"] == draws.profit_chance


def test_the_purse_is_what_goes_and_what_stays():
    rows = replace(ROWS, campaign=np.arange(40) % 4)
    result = run_plan(brief(monthly_spend=60.0), rows)
    draws = draw_month(result, 800)
    use = budget_use(result, draws)
    parts = use.spent + use.cut + use.not_searched + use.not_planned
    assert parts == pytest.approx(60.0)
    assert use.spent == pytest.approx(draws.spend.mean())
    assert {remedy.name.split(" ")[0] for remedy in use.remedies} == {"one", "a"}
    # four small budgets lose more than one large one
    assert all(remedy.spend > 0 for remedy in use.remedies)
    assert budget_use(result, draws, still_wanted=lambda: False).remedies == ()


def test_where_a_campaign_has_its_own_most_one_budget_for_all_is_no_remedy():
    rows = replace(ROWS, campaign=np.arange(40) % 4)
    limits = Limits(campaigns={2: SpendLimit(most=10.0)})
    result = run_plan(brief(monthly_spend=60.0, limits=limits), rows)
    names = [remedy.name for remedy in budget_use(result, draw_month(result, 400)).remedies]
    assert len(names) == 1 and "run over" in names[0]
