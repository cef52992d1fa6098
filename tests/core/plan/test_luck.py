"""The same keyword meets the same luck in every version, and a quantile is what it says."""

from dataclasses import replace

import numpy as np
import pytest
from scipy import stats

from milkwort.core.plan._luck import USES, Luck
from milkwort.core.plan._quantiles import beta_at, binomial_at, poisson_at
from milkwort.core.plan.draws import draw_month
from milkwort.core.plan.run import run_plan
from tests.samples import brief, random_table

DRAWS = range(2000)


def test_luck_goes_by_name_whatever_stands_beside_it():
    alone = Luck(1, ["exact sash repair"]).uniform("clicks", DRAWS)
    beside = Luck(1, ["broad sash", "exact sash repair"]).uniform("clicks", DRAWS)
    assert (alone[:, 0] == beside[:, 1]).all()
    assert (beside[:, 0] != beside[:, 1]).all()
    assert (alone != Luck(2, ["exact sash repair"]).uniform("clicks", DRAWS)).all()


def test_luck_is_even_and_no_use_of_it_leans_on_another():
    luck = Luck(3, [f"exact {n}" for n in range(50)])
    drawn = {use: luck.uniform(use, DRAWS) for use in USES}
    for numbers in drawn.values():
        assert stats.kstest(numbers.ravel(), "uniform").pvalue > 1e-4
    across = np.corrcoef([numbers.ravel() for numbers in drawn.values()])
    assert np.abs(across - np.eye(len(USES))).max() < 5 / np.sqrt(50 * 2000)
    one_day_to_the_next = np.corrcoef(drawn["clicks"][:-1].ravel(), drawn["clicks"][1:].ravel())
    assert abs(one_day_to_the_next[0, 1]) < 5 / np.sqrt(50 * 2000)


@pytest.mark.parametrize("mean", [0.0, 0.02, 1.5, 24.0])
def test_few_clicks_are_poisson_exactly(mean):
    u = np.random.default_rng(1).random(5000)
    assert (poisson_at(u, np.full(5000, mean)) == stats.poisson.ppf(u, mean).clip(0)).all()


@pytest.mark.parametrize("mean", [26.0, 400.0])
def test_many_clicks_are_poisson_to_a_click(mean):
    u = np.random.default_rng(1).random(5000)
    apart = np.abs(poisson_at(u, np.full(5000, mean)) - stats.poisson.ppf(u, mean))
    assert apart.max() <= 1
    assert apart.mean() < 0.02


@pytest.mark.parametrize(("many", "share"), [(0, 0.4), (12, 0.03), (12, 0.95), (7, 1.0), (7, 0.0)])
def test_customers_are_binomial_exactly(many, share):
    u = np.random.default_rng(2).random(5000)
    found = binomial_at(u, np.full(5000, float(many)), np.full(5000, share))
    assert (found == stats.binom.ppf(u, many, share).clip(0)).all()


@pytest.mark.parametrize("mean", [0.0005, 0.03, 0.4, 0.97])
def test_a_rate_is_beta_of_its_mean(mean):
    u = (np.arange(20_000) + 0.5) / 20_000
    found = beta_at(u, np.full(len(u), mean), 60.0)
    assert found.mean() == pytest.approx(mean, rel=0.01)
    assert found.var() == pytest.approx(mean * (1 - mean) / 61, rel=0.02)
    assert (np.diff(found) >= 0).all()


def test_a_plan_drawn_twice_differs_by_nothing():
    result = run_plan(brief(monthly_spend=300.0), random_table(1, 40))
    one, other = draw_month(result, 200), draw_month(result, 200)
    for name, values in one.figures.items():
        assert (values == other.figures[name]).all(), name


def test_a_keyword_that_bids_more_has_at_least_as_many_clicks_in_the_same_month():
    rows = random_table(2, 30)
    purse = brief(monthly_spend=1e6, pricing="pay_bid")
    low = run_plan(purse, replace(rows, locked_bid=np.full(30, 0.6)))
    high = run_plan(purse, replace(rows, locked_bid=np.full(30, 0.9)))
    drawn = [draw_month(result, 300, by_chance=True) for result in (low, high)]
    assert (drawn[1].figures["clicks"] >= drawn[0].figures["clicks"]).all()


def test_fewer_draws_are_the_first_of_more():
    result = run_plan(brief(monthly_spend=300.0), random_table(1, 40))
    few, many = draw_month(result, 80), draw_month(result, 240)
    assert (few.customers == many.customers[:80]).all()


def test_what_groups_hold_of_the_doubt_adds_up_to_all_of_it():
    rows = random_table(3, 40)
    result = run_plan(brief(), replace(rows, group=np.arange(40) % 3 - 1))
    groups = draw_month(result, 400).groups
    assert {one.group for one in groups} == {-1, 0, 1}
    assert sum(one.share for one in groups) == pytest.approx(1)
    assert [one.share for one in groups] == sorted((one.share for one in groups), reverse=True)
