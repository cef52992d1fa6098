from dataclasses import replace

import numpy as np

from milkwort.core.market.prices import prices_of
from milkwort.core.sift.neighbours import neighbours_of
from milkwort.core.sift.ranks import rank_gap, strong_unpaid
from tests.samples import brief, table


def near(texts, lows, row, most=9):
    rows = replace(table([1.0] * len(texts), lows, np.array(lows) * 2), texts=tuple(texts))
    prices = prices_of(rows.cpc_low, rows.cpc_high, rows.group, brief().assumed)
    return neighbours_of(rows, prices, row, most)


def test_a_rare_word_shared_says_more_than_a_common_one_and_plurals_are_the_same():
    texts = ["sash cord", "sash window", "sash putty", "cords", "box bay"]
    assert near(texts, [1.0] * 5, 0).meaning == (3, 1, 2)


def test_among_equals_the_one_of_like_length_is_nearer():
    assert near(["sash cord", "blue green cord", "old cord"], [1.0] * 3, 0).meaning == (2, 1)


def test_prices_are_near_by_their_ratio_and_no_row_is_its_own_neighbour():
    assert near(["a", "b", "c", "d"], [1.0, 4.0, 1.5, 0.5], 0).price == (2, 3, 1)
    assert near(["a", "b", "c", "d"], [1.0, 4.0, 1.5, 0.5], 0, most=1).price == (2,)


def test_where_nothing_has_a_price_nothing_lies_near_in_price():
    nan = float("nan")
    assert near(["a", "b"], [nan, nan], 0).price == ()


def test_a_strong_unpaid_rank_counts_only_where_nothing_is_paid():
    assert strong_unpaid(5, None) and not strong_unpaid(6, None)
    assert not strong_unpaid(1, 3) and not strong_unpaid(None, None)
    assert rank_gap(2, 5) == 3 and rank_gap(4, 1) == -3 and rank_gap(None, 1) is None
