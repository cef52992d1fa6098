import numpy as np
import pytest

from milkwort.core.assumptions import Assumed
from milkwort.core.brief.brief import Policy
from milkwort.core.errors import BadValueError, ProgramError
from milkwort.core.fit.bids import floor_to_step, method_bids
from milkwort.core.market.prices import prices_of

ASSUMED = Assumed()


def bids(policy, *, match=0, words=3, ceiling=10.0, low=0.8, high=2.4):
    prices = prices_of(np.array([low]), np.array([high]), np.array([-1]), ASSUMED)
    return method_bids(
        policy, prices, np.array([match]), np.array([words]), np.array([ceiling]), ASSUMED
    )


@pytest.mark.parametrize(
    ("policy", "bid"), [(Policy("low"), 0.8), (Policy("middle"), 1.6), (Policy("flat", 1.25), 1.25)]
)
def test_each_method_starts_where_its_name_says(policy, bid):
    assert bids(policy).bid[0] == pytest.approx(bid)


def test_steps_come_in_order_match_breadth_ceiling_floor():
    steps = bids(Policy("middle"), match=1, words=2, ceiling=1.137)
    assert steps.start[0] == pytest.approx(1.6)
    assert steps.by_match[0] == pytest.approx(1.36)
    assert steps.by_breadth[0] == pytest.approx(1.156)
    assert steps.under_ceiling[0] == pytest.approx(1.137)
    assert steps.bid[0] == pytest.approx(1.13)


@pytest.mark.parametrize("words", [3, 4, 9])
def test_a_keyword_of_many_words_is_as_narrow_as_one_of_three(words):
    steps = bids(Policy("middle"), words=words)
    assert steps.by_breadth[0] == steps.by_match[0] == pytest.approx(1.6)


def test_under_the_least_bid_nothing_runs():
    assert not bids(Policy("low"), low=0.04, high=0.06).runs[0]


@pytest.mark.parametrize(("price", "floored"), [(0.29, 0.29), (1.999, 1.99), (4.7124, 4.71)])
def test_floors_are_not_fooled_by_binary_fractions(price, floored):
    assert floor_to_step(np.array([price]), ASSUMED)[0] == floored


def test_a_fitted_bid_is_no_method():
    with pytest.raises(ProgramError):
        bids(Policy("fitted"))


def test_a_flat_policy_needs_its_bid():
    with pytest.raises(BadValueError, match="flat bid"):
        Policy("flat")


@pytest.mark.parametrize(
    ("policy", "bid"),
    [
        (Policy("high"), 2.4),
        (Policy("percentile", share=0.75), 2.4),
        (Policy("high_plus", share=0.1), 2.64),
        (Policy("flat_or_middle", 2.0), 1.6),
        (Policy("flat_or_middle", 1.1), 1.1),
    ],
)
def test_further_methods_start_where_their_names_say(policy, bid):
    assert bids(policy).start[0] == pytest.approx(bid)


def steps_of(policy, **more):
    prices = prices_of(np.array([0.8]), np.array([2.4]), np.array([-1]), ASSUMED)
    one = np.array([0])
    return method_bids(policy, prices, one, one + 3, np.array([10.0]), ASSUMED, **more)


def test_the_price_last_paid_is_raised_by_its_share_and_never_seen_is_not_run():
    policy = Policy("last_seen", share=0.2)
    assert steps_of(policy, last_cpc=np.array([1.0])).bid[0] == pytest.approx(1.2)
    assert not steps_of(policy, last_cpc=np.array([np.nan])).runs[0]
    assert not steps_of(policy).runs[0]


def test_a_days_money_over_so_many_clicks_caps_a_bid():
    steps = steps_of(Policy("high", cap_clicks=10), day_money=20.0)
    assert steps.under_ceiling[0] == pytest.approx(2.4) and steps.bid[0] == pytest.approx(2.0)


@pytest.mark.parametrize(
    ("flat", "ceiling", "bid"),
    [(1.25, 10, 1.26), (1.30, 10, 1.31), (1.24, 10, 1.24), (1.25, 1.25, 1.25)],
)
def test_a_round_bid_goes_one_step_up_where_no_cap_is_broken(flat, ceiling, bid):
    odd = Policy("flat", flat, odd_step=True)
    assert bids(odd, ceiling=float(ceiling)).bid[0] == pytest.approx(bid)


@pytest.mark.parametrize(
    "make",
    [
        lambda: Policy("percentile", share=1.0),
        lambda: Policy("high_plus"),
        lambda: Policy("low", cap_clicks=0),
        lambda: Policy("dear"),
    ],
)
def test_a_policy_that_lacks_its_number_is_refused(make):
    with pytest.raises(BadValueError, match="bid"):
        make()
