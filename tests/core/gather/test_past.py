from dataclasses import replace

import numpy as np
import pytest
from scipy.stats import beta

from milkwort.core.gather.account import CHANGES, changes_of_account
from milkwort.core.gather.past import PastRow, past_summary, terms_by_worth
from milkwort.core.plan.run import run_plan
from tests.samples import brief, calls, table


def rows(*figures):
    return [PastRow(f"term {n}", clicks=c, customers=x) for n, (c, x) in enumerate(figures)]


def test_the_rate_is_what_clicks_and_customers_allow():
    found = past_summary(rows((1000, 30), (519, 11)), 90)
    known = beta(41.5, 1519 - 41 + 0.5)
    assert found.rate.likely == pytest.approx(known.median())
    assert (found.rate.low, found.rate.high) == pytest.approx((known.ppf(0.1), known.ppf(0.9)))


def test_more_results_say_a_rate_more_surely():
    few, many = past_summary(rows((100, 3)), 30), past_summary(rows((10_000, 300)), 30)
    assert few.rate.high / few.rate.low > 3 * many.rate.high / many.rate.low


@pytest.mark.parametrize("figures", [(29, 1), (500, None)])
def test_few_clicks_or_customers_not_told_say_nothing_of_the_rate(figures):
    assert past_summary(rows(figures), 30).rate is None


def test_negatives_do_not_count_and_prices_are_means():
    found = past_summary(
        [
            PastRow("a", clicks=40, cost=60, customers=2, revenue=500),
            PastRow("jobs", negative=True, clicks=9, cost=9),
        ],
        30,
    )
    assert (found.clicks, found.cpc, found.sale_value) == (40, 1.5, 250)


def test_terms_that_sold_come_first():
    order = terms_by_worth([*rows((90, 0), (5, 2), (8, None)), PastRow("a", clicks=8)])
    assert [r.text for r in order] == ["term 1", "term 0", "a", "term 2"]


@pytest.fixture
def planned():
    called = calls("keep", "keep", "keep", "none")
    sheet = table([400, 300, 250, 400], [0.8] * 4, [2.4] * 4, call=called)
    return run_plan(replace(brief(), monthly_spend=40.0), sheet)


def test_the_account_held_against_itself_changes_nothing(planned):
    runs = np.flatnonzero(np.isfinite(planned.bid))
    found = changes_of_account(planned, runs, planned.bid[runs])
    assert {CHANGES[w] for w in found.what} == {"same"}
    assert found.now.customers == pytest.approx(found.plan.customers)


def test_what_starts_stops_rises_and_falls_is_told_apart(planned):
    bids = planned.bid
    found = changes_of_account(
        planned, np.array([0, 1, 3]), np.array([bids[0] - 0.1, bids[1] + 0.1, 0.5])
    )
    said = dict(zip(found.rows.tolist(), [CHANGES[w] for w in found.what], strict=True))
    assert said == {0: "raise", 1: "cut", 2: "start", 3: "stop"}


def test_an_account_that_would_pass_the_purse_is_paced(planned):
    found = changes_of_account(planned, np.array([0, 1, 2]), np.full(3, 4.0))
    assert found.now.spend == pytest.approx(40.0)
    assert found.now.customers <= found.plan.customers * 1.000001
