import numpy as np
import pytest

from milkwort.core.assumptions import Assumed
from milkwort.core.bids import floor_to_step, method_bids
from milkwort.core.brief import Policy
from milkwort.core.errors import BadValueError, ProgramError
from milkwort.core.market import prices_of

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
