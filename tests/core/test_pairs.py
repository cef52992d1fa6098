"""Pairs of whole numbers, each once."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.pairs import pairs_once

DAYS = st.integers(-(2**30), 2**30)


@given(st.lists(st.tuples(DAYS, DAYS), max_size=30), st.integers(1, 3))
def test_every_pair_is_found_once_in_order_and_every_row_finds_its_own(pairs, times):
    rows = pairs * times
    one, other = (np.array([pair[k] for pair in rows], dtype=np.int64) for k in (0, 1))
    found, place = pairs_once(one, other)
    assert [tuple(pair) for pair in found.tolist()] == sorted(set(rows))
    assert [tuple(pair) for pair in found[place].tolist()] == rows
