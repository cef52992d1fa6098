from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import stats

from milkwort.core.assumptions import Assumed
from milkwort.core.brief.worth import Conversion
from milkwort.core.errors import BadValueError
from milkwort.core.learn.evidence import VERDICTS, factor_weight, group_evidence, judge
from milkwort.core.learn.own_rules import OwnRule, apply_rule, false_cut_chance
from milkwort.core.learn.results import (
    Results,
    exposed,
    exposure_of_click,
    exposure_of_window,
    per_enquiry,
)
from milkwort.core.market.standing import clicks_to_stop
from tests.depth import cases

ASSUMED = Assumed()
ALLOWED, CONTRIBUTION = 157.08, 224.4
W = 9.989986  # of a conversion of 2 to 4.5 %


def col(*values):
    return np.array(values, dtype=float)


def results(clicks, customers, price=2.40, exposure=None):
    clicks, customers = col(*clicks), col(*customers)
    seen = clicks if exposure is None else col(*exposure)
    return Results(clicks, seen, customers, clicks * col(*np.atleast_1d(price)))


def judged(found, rate, group=None, reach=0.3, allowed=ALLOWED):
    n = len(found.clicks)
    return judge(
        found, col(*rate), np.full(n, allowed), np.full(n, CONTRIBUTION),
        np.full(n, -1) if group is None else np.array(group), np.full(n, reach), W, ASSUMED,
    )  # fmt: skip


def test_the_weight_of_a_forecast_follows_from_how_wide_its_conversion_is():
    assert factor_weight(Conversion(0.02, 0.03, 0.045), ASSUMED) == pytest.approx(9.98999, abs=5e-6)
    assert factor_weight(Conversion(0.03, 0.03, 0.03), ASSUMED) == 60
    assert factor_weight(Conversion(0.001, 0.03, 0.9), ASSUMED) == 3
    assert factor_weight(Conversion(0.0, 0.03, 0.045), ASSUMED) == 3


def test_a_click_counts_with_the_chance_that_its_customer_would_be_reported():
    found = exposure_of_click(col(0, 1, 7), ASSUMED)
    assert found == pytest.approx([0.159104, 0.405396, 0.925675], abs=5e-7)
    assert 90 * exposure_of_window(30, 0, ASSUMED) == pytest.approx(81.3873, abs=5e-5)
    at_once = Assumed({"report_half_life": 0.0})
    assert exposure_of_click(col(0, 5), at_once).tolist() == [1.0, 1.0]


def test_daily_results_are_summed_with_their_exposure():
    found = exposed(
        np.array([1, 9, 10]), col(50, 20, 20), col(1, 0, 1), col(100.0, 40.0, 40.0),
        np.array([0, 0, 1]), 2, 10, ASSUMED,
    )  # fmt: skip
    assert found.clicks.tolist() == [70.0, 20.0] and found.customers.tolist() == [1.0, 1.0]
    assert found.exposure[0] == pytest.approx(50 * (1 - 2**-4.75) + 20 * (1 - 2**-0.75))
    assert found.cpc.tolist() == [2.0, 2.0]


def test_what_a_keyword_did_is_left_out_of_what_is_believed_of_it():
    found = judged(
        results([100, 50, 40, 10], [5, 1, 0, 1]), [0.03, 0.03, 0.02, 0.01], [0, 0, 1, -1]
    )
    assert found.plan_factor == pytest.approx([0.967716, 1.15119, 1.16450, 1.04578], rel=5e-6)
    assert found.group_factor == pytest.approx([0.960532, 1.11503, 1, 1], rel=5e-6)
    assert found.prior_rate == pytest.approx([0.0278857, 0.0385083, 0.0232899, 0.0104578], rel=5e-6)
    assert found.rate == pytest.approx([0.0417071, 0.0300955, 0.0139740, 0.0232496], rel=5e-6)
    assert found.missing == pytest.approx([0.0171147, 0.175336, 0.649910, 0.404632], rel=5e-6)


def test_known_chances_of_missing_the_rule():
    alone = judged(results([90], [0]), [0.03])
    assert alone.plan_factor[0] == 1 and alone.missing[0] == pytest.approx(0.719455, abs=5e-7)
    sold = judged(results([90], [4], price=1.50), [0.03])
    assert sold.missing[0] == pytest.approx(0.00446385, abs=5e-9)
    assert VERDICTS[sold.verdict[0]] == "raise"
    assert clicks_to_stop(0.03, 2.40, ALLOWED, ASSUMED) == 203


def test_a_bid_is_raised_only_on_evidence_that_meets_the_rule_where_more_can_be_won():
    def verdict(clicks, customers, reach):
        found = judged(results([clicks], [customers], price=1.50), [0.03], reach=reach)
        return VERDICTS[found.verdict[0]]

    assert verdict(90, 4, 0.3) == "raise"
    assert verdict(90, 4, 0.99) == "wait"  # nearly all of its searches are won already
    assert verdict(90, 1, 0.3) == "wait"
    few = int(ASSUMED["least_evidence"]) - 1
    assert verdict(few, 4, 0.3) == "wait"
    assert verdict(400, 0, 0.3) == "stop"


def test_a_group_is_judged_by_its_gamma():
    found = group_evidence(
        results([40, 30], [1, 0], price=[2.40, 2.00]), col(0.03, 0.02), np.full(2, ALLOWED),
        np.array([0, 0]), 1, W, ASSUMED,
    )  # fmt: skip
    assert found.missing[0] == pytest.approx(0.067549, abs=5e-7)
    assert VERDICTS[found.verdict[0]] == "raise"


def test_a_groups_young_clicks_do_not_count_alone_for_their_cost():
    clicks, sold = [60], [1]
    old = results(clicks, sold)
    young = results(clicks, sold, exposure=[20])
    asked = (col(0.03), np.full(1, ALLOWED), np.array([0]), 1, W, ASSUMED)
    assert group_evidence(young, *asked).missing[0] < group_evidence(old, *asked).missing[0]


def test_a_keyword_without_a_prior_stays_out_of_every_sum():
    with_it = judged(results([40, 500], [2, 90]), [0.03, 0.0], [0, 0])
    without = judged(results([40], [2]), [0.03], [0])
    assert with_it.missing[0] == without.missing[0] and with_it.prior_rate[0] == 0.03
    assert VERDICTS[with_it.verdict[1]] == "no_prior"
    assert np.isinf(with_it.clicks_needed[1])


def test_more_customers_than_clicks_are_counted_as_many_as_clicks_and_told():
    found = judged(results([10], [25]), [0.03])
    assert found.too_many.tolist() == [True]
    assert found.rate[0] == judged(results([10], [10]), [0.03]).rate[0]


def test_customers_in_already_make_a_click_count_however_young():
    found = results([10], [4], exposure=[1.6])
    assert found.counted_clicks.tolist() == [4.0]


@settings(max_examples=cases(60, 720), deadline=None)
@given(
    clicks=st.integers(0, 300), seen=st.floats(0.1, 1), sold=st.integers(0, 3),
    price=st.floats(0.5, 8), others=st.lists(st.integers(0, 200), max_size=4),
)  # fmt: skip
def test_the_clicks_still_needed_are_exact_whatever_stands_beside(
    clicks, seen, sold, price, others
):
    sold = min(sold, clicks)
    many = [clicks, *others]
    rows = results(many, [sold, *([0] * len(others))], price=price,
                   exposure=[c * seen for c in many])  # fmt: skip
    found = judged(rows, [0.03] * len(many))
    needed, n = found.clicks_needed[0], rows.counted_clicks[0]
    if not clicks:
        assert np.isinf(needed)
        return
    if VERDICTS[found.verdict[0]] == "stop":
        assert needed == 0
        return
    alpha = 60 * found.prior_rate[0] + sold
    beta = 60 * (1 - found.prior_rate[0]) + n - sold

    def stops(more):
        enough = n + more >= 20 - 1e-6
        return enough and stats.beta.cdf(price / ALLOWED, alpha, beta + more) >= 0.93 - 1e-12

    if np.isinf(needed):
        assert not stops(1e6)
        return
    assert stops(needed) and not stops(needed - 1)


def test_nineteen_clicks_are_needed_also_beside_another_row():
    alone = judged(results([1], [0], price=6.0), [0.005])
    beside = judged(results([1, 400], [0, 12], price=6.0), [0.005, 0.0])
    assert alone.clicks_needed[0] == beside.clicks_needed[0] == 19


@pytest.mark.parametrize(
    ("rate", "weight", "where"), [([1.5], W, "rate"), ([np.nan], W, "rate"), ([0.1], 0.0, "weight")]
)
def test_what_cannot_be_is_refused_by_name(rate, weight, where):
    found = results([10], [0])
    with pytest.raises(BadValueError, match=where):
        judge(found, col(*rate), col(1), col(1), np.array([-1]), col(0.3), weight, ASSUMED)


def test_results_keep_their_figures_apart():
    with pytest.raises(BadValueError, match="exposure"):
        replace(results([1], [0]), exposure=col(-1))


def test_enquiries_are_judged_in_place_of_customers():
    rate, allowed = per_enquiry(col(0.03), col(ALLOWED), col(0.375))
    assert rate[0] == pytest.approx(0.08) and allowed[0] == pytest.approx(ALLOWED * 0.375)


def test_a_rule_of_thumb_comes_with_its_honest_price():
    outcome = apply_rule(
        OwnRule(clicks=10, spend=20.0),
        Results(col(12, 12, 9), col(12, 12, 9), col(0, 1, 0), col(30.0, 30.0, 30.0)),
        np.full(3, 0.03),
    )
    assert outcome.cuts.tolist() == [True, False, False]
    assert outcome.false_cut[0] == pytest.approx(0.737, abs=5e-4)
    assert false_cut_chance(col(0.0, 1.0), 10).tolist() == [1.0, 0.0]


def test_results_that_cannot_be_are_refused_with_their_row():
    with pytest.raises(BadValueError, match="row 2, clicks"):
        Results(col(1, -1), col(1, 1), col(0, 0), col(1, 1))
    with pytest.raises(BadValueError, match="clicks"):
        OwnRule(clicks=float("inf"))


def test_a_groups_sums_and_factor_are_of_its_keywords_that_have_a_prior():
    found = results([40, 30, 25, 7], [1, 0, 2, 0], price=[2.40, 2.00, 1.00, 3.00])
    group, rate = np.array([0, 0, 1, 0]), col(0.03, 0.02, 0.04, 0.0)
    said = group_evidence(found, rate, np.full(4, ALLOWED), group, 3, W, ASSUMED)
    assert said.exposure.tolist() == [70.0, 25.0, 0.0]
    assert said.customers.tolist() == [1.0, 2.0, 0.0]
    assert said.spend.tolist() == [156.0, 25.0, 0.0]
    # f of the others, then Gamma(w + Σx, w + f·Σn·rate): its mean
    others = (W + 2) / (W + 25 * 0.04)
    assert said.factor[0] == pytest.approx((W + 1) / (W + others * (40 * 0.03 + 30 * 0.02)))
    assert np.isnan(said.missing[2]) and VERDICTS[said.verdict[2]] == "no_prior"


def test_the_chance_of_losing_money_is_the_posterior_under_what_breaks_even():
    found = judged(results([90], [1]), [0.03], allowed=100.0)
    alpha, beta = 60 * 0.03 + 1, 60 * 0.97 + 89
    assert found.missing[0] == pytest.approx(stats.beta.cdf(2.40 / 100.0, alpha, beta))
    assert found.losing[0] == pytest.approx(stats.beta.cdf(2.40 / CONTRIBUTION, alpha, beta))
    assert found.cpc[0] == pytest.approx(2.40) and found.rate[0] == pytest.approx(
        alpha / (alpha + beta)
    )
