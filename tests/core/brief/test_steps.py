"""A conversion in one step or two."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.brief.steps import in_steps

ENDS = ("low", "likely", "high")
RATES = st.lists(st.floats(0, 1), min_size=3, max_size=3).map(sorted)


def _values(rates, closes=(None, None, None)):
    return {f"rate_{e}": r for e, r in zip(ENDS, rates, strict=True)} | {
        f"close_{e}": c for e, c in zip(ENDS, closes, strict=True)
    }


def _whole(values):
    return [
        values[f"rate_{e}"] * (1 if values[f"close_{e}"] is None else values[f"close_{e}"])
        for e in ENDS
    ]


@given(RATES)
def test_two_steps_multiply_to_the_one_and_back(rates):
    one = _values(rates)
    two = one | in_steps(one, 2)
    assert _whole(two) == pytest.approx(rates)
    assert all(0 <= two[f"{k}_{e}"] <= 1 for k in ("rate", "close") for e in ENDS)
    again = two | in_steps(two, 1)
    assert [again[f"close_{e}"] for e in ENDS] == [None] * 3
    assert _whole(again) == pytest.approx(rates)


def test_what_is_counted_so_already_stays():
    assert in_steps(_values([0.1, 0.2, 0.3]), 1) == {}
    assert in_steps(_values([0.1, 0.2, 0.3], (0.4, 0.5, 0.6)), 2) == {}


def test_a_close_rate_with_one_figure_closes_all_three():
    values = _values([0.1, 0.2, 0.3], (None, 0.5, None))
    assert in_steps(values, 1)["rate_low"] == pytest.approx(0.05)
