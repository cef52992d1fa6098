"""The order of falling returns is that of a stable sort, to the last digit."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.fit._choices import falling

RETURNS = st.floats(allow_nan=False, allow_infinity=False)
CLOSE = st.builds(lambda at, n: at * (1 + n * 2.0**-52), st.sampled_from([0.3, -2.0, 1e-300, 7e9]),
                  st.integers(0, 9))  # fmt: skip


def by_a_stable_sort(returns):
    return np.lexsort((np.arange(len(returns)), -returns))


@given(st.lists(RETURNS | CLOSE | st.sampled_from([0.0, -0.0, 1.0]), max_size=60))
def test_it_falls_and_equal_ones_stay_as_they_came(listed):
    returns = np.array(listed, dtype=np.float64)
    assert falling(returns).tolist() == by_a_stable_sort(returns).tolist()


@pytest.mark.parametrize("size", [0, 1, 2, 3, 4, 5, 1023, 1024, 1025])
def test_any_number_of_them(size):
    rng = np.random.default_rng(size)
    for returns in (rng.normal(size=size), np.round(rng.normal(size=size), 1), np.zeros(size)):
        assert (falling(returns) == by_a_stable_sort(returns)).all()


def test_many_that_only_their_last_digits_tell_apart():
    """So many places leave a return 32 of its digits; these differ in the last three."""
    rng = np.random.default_rng(5)
    returns = 0.25 * (1 + rng.integers(0, 8, 300_000) * 2.0**-52)
    assert (falling(returns) == by_a_stable_sort(returns)).all()


def test_what_is_ordered_stays_as_it_was():
    returns = np.array([0.5, 2.0, 1.0])
    falling(returns)
    assert returns.tolist() == [0.5, 2.0, 1.0]
