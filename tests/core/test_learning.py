import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import stats

from milkwort.core.assumptions import Assumed
from milkwort.core.corrections import Month, click_rates, corrections_of, site_wide_cost
from milkwort.core.errors import BadValueError
from milkwort.core.learning import VERDICTS, group_evidence, judge
from milkwort.core.own_rules import OwnRule, apply_rule, false_cut_chance
from milkwort.core.results import Results, per_enquiry, settled

ASSUMED = Assumed()
ALLOWED, CONTRIBUTION = 157.08, 224.4


def col(*values):
    return np.array(values, dtype=float)


def evidence(clicks, customers, price=2.4, rate=0.03, reach=0.5, group=None, allowed=ALLOWED):
    clicks, customers = col(*clicks), col(*customers)
    n = len(clicks)
    return judge(
        Results(clicks, customers, clicks * price),
        np.full(n, rate) if np.isscalar(rate) else rate,
        np.full(n, allowed),
        np.full(n, CONTRIBUTION),
        np.full(n, -1) if group is None else np.array(group),
        np.full(n, reach),
        ASSUMED,
    )


def test_plan_and_group_are_corrected_before_the_keyword():
    found = evidence([200, 100, 300], [2, 1, 12], group=[0, 0, 1])
    plan = (3 + 15) / (3 + 600 * 0.03)
    assert found.plan_factor == pytest.approx(plan)
    first = (3 + 3) / (3 + 300 * 0.03 * plan)
    assert found.group_factor[:2] == pytest.approx([first, first])
    assert found.prior_rate[0] == pytest.approx(0.03 * plan * first)
    alpha, beta = 60 * found.prior_rate[0] + 2, 60 * (1 - found.prior_rate[0]) + 198
    assert found.missing[0] == pytest.approx(stats.beta.cdf(2.4 / ALLOWED, alpha, beta))
    assert found.losing[0] == pytest.approx(stats.beta.cdf(2.4 / CONTRIBUTION, alpha, beta))


def test_verdicts_are_stop_wait_raise_and_no_prior():
    found = evidence([400, 10, 400, 50], [0, 0, 60, 0], rate=col(0.03, 0.03, 0.03, 0.0))
    assert [VERDICTS[v] for v in found.verdict] == ["stop", "wait", "raise", "no_prior"]
    assert VERDICTS[evidence([400], [60], reach=0.8).verdict[0]] == "wait"
    assert VERDICTS[evidence([19], [0], price=500.0).verdict[0]] == "wait"


@settings(max_examples=30, deadline=None)
@given(st.integers(20, 200), st.integers(0, 3), st.floats(0.5, 3))
def test_the_clicks_still_needed_are_the_fewest_that_say_stop(clicks, sold, price):
    found = evidence([clicks], [sold], price=price)
    needed = found.clicks_needed[0]
    if not np.isfinite(needed) or needed == 0:
        return
    alpha = 60 * found.prior_rate[0] + sold
    beta = 60 * (1 - found.prior_rate[0]) + clicks - sold

    def chance(more):
        return stats.beta.cdf(price / ALLOWED, alpha, beta + more)

    assert chance(needed) >= 0.9 - 1e-9 > chance(needed - 1) - 1e-9


def test_a_group_is_judged_by_its_gamma():
    clicks, sold, spend = col(100, 200), col(0, 2), col(250.0, 500.0)
    found = group_evidence(
        Results(clicks, sold, spend), np.full(2, 0.03), np.full(2, ALLOWED), np.array([0, 0]), 1,
        ASSUMED,
    )  # fmt: skip
    plan = (3 + 2) / (3 + 9.0)
    expected = 300 * 0.03 * plan
    line = 750 / ALLOWED / expected
    chance = stats.gamma.cdf(line, 3 + 2, scale=1 / (3 + expected))
    assert found.missing[0] == pytest.approx(chance)
    assert found.spend[0] == 750.0 and VERDICTS[found.verdict[0]] == "stop"


def test_young_clicks_do_not_count_against_a_keyword_but_young_sales_count():
    found = settled(
        np.array([1, 9, 10]), col(50, 20, 20), col(1, 0, 1), col(100.0, 40.0, 40.0),
        np.array([0, 0, 1]), 2, 10, ASSUMED,
    )  # fmt: skip
    assert found.clicks.tolist() == [50.0, 1.0]
    assert found.customers.tolist() == [1.0, 1.0]
    assert found.spend.tolist() == [100.0, 2.0]


def test_enquiries_are_judged_in_place_of_customers():
    rate, allowed = per_enquiry(col(0.03), col(ALLOWED), col(0.375))
    assert rate[0] == pytest.approx(0.08) and allowed[0] == pytest.approx(ALLOWED * 0.375)


def test_a_rule_of_thumb_comes_with_its_honest_price():
    outcome = apply_rule(
        OwnRule(clicks=10, spend=20.0),
        Results(col(12, 12, 9), col(0, 1, 0), col(30.0, 30.0, 30.0)),
        np.full(3, 0.03),
    )
    assert outcome.cuts.tolist() == [True, False, False]
    assert outcome.false_cut[0] == pytest.approx(0.737, abs=5e-4)
    assert false_cut_chance(col(0.0, 1.0), 10).tolist() == [1.0, 0.0]


def test_results_that_cannot_be_are_refused_with_their_row():
    with pytest.raises(BadValueError, match="row 2, clicks"):
        Results(col(1, -1), col(0, 0), col(1, 1))
    with pytest.raises(BadValueError, match="clicks"):
        OwnRule(clicks=float("inf"))


def test_each_input_is_corrected_by_its_own_miss_and_shrunk_by_its_evidence():
    planned, actual = Month(10_000, 500, 600, 15), Month(8_000, 300, 450, 12)
    found = {c.name: c for c in corrections_of(planned, actual, ASSUMED)}
    assert found["price"].raw == pytest.approx(1.25)
    assert 1 < found["price"].factor < 1.25
    assert found["click_rate"].raw == pytest.approx(300 / 400)
    assert found["click_rate"].factor == pytest.approx(330 / 430)
    assert found["conversion"].factor == pytest.approx((3 + 12) / (3 + 9))
    assert found["demand"].factor == pytest.approx(9_000 / 11_000)


def test_nothing_seen_corrects_nothing_much():
    planned, nothing = Month(10, 1, 1, 0.03), Month(0, 0, 0, 0)
    assert all(0.9 < c.factor <= 1 for c in corrections_of(planned, nothing, ASSUMED))
    assert site_wide_cost(50.0, 0.0) is None and site_wide_cost(50.0, 200.0) == 0.25


def test_a_click_rate_is_judged_only_after_enough_showings():
    found = click_rates(col(900, 1500, 1500), col(1, 20, 80), np.full(3, 0.05), ASSUMED)
    assert found.judged.tolist() == [False, True, True]
    assert found.low.tolist() == [False, True, False]
