"""Of every row and day the newest import counts."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.learn.merged import coded, newest_rows

KEYS = st.tuples(st.integers(1, 4), st.sampled_from(["sash", "cord", "paint"]))


def taken(imports):
    """Return what counts as pairs of import and row, in the order it is taken."""
    _, names = coded([name for keys in imports for _, name in keys])
    days = np.array([day for keys in imports for day, _ in keys], dtype=np.int64)
    number = np.repeat(np.arange(len(imports)), [len(keys) for keys in imports])
    at = [(n, row) for n, keys in enumerate(imports) for row in range(len(keys))]
    return [at[one] for one in newest_rows([days, names], number).tolist()]


def test_a_later_import_takes_the_place_of_the_rows_it_has_and_of_no_other():
    april, later = [(1, "sash"), (2, "sash"), (2, "cord")], [(2, "sash"), (3, "sash")]
    assert taken([april, later]) == [(0, 0), (0, 2), (1, 0), (1, 1)]
    assert taken([later, april]) == [(1, 0), (1, 2), (1, 1), (0, 1)]


def test_a_row_that_stands_twice_in_one_import_is_part_of_a_sum():
    assert taken([[(1, "sash"), (1, "sash")]]) == [(0, 0), (0, 1)]
    assert taken([[(1, "sash"), (1, "sash")], [(1, "sash")]]) == [(1, 0)]


def test_nothing_is_nothing():
    assert taken([]) == []
    assert taken([[], [(1, "sash")], []]) == [(1, 0)]


def test_texts_keep_their_order_as_numbers():
    assert coded([])[0] == []
    names, codes = coded(["sash", "cord", "sash", ""])
    assert (names, codes.tolist()) == (["", "cord", "sash"], [2, 1, 2, 0])


@given(st.lists(st.lists(KEYS, max_size=8), max_size=5))
def test_every_row_and_day_counts_from_the_last_import_that_has_it(imports):
    found = taken(imports)
    for key in {key for keys in imports for key in keys}:
        last = max(number for number, keys in enumerate(imports) if key in keys)
        of_it = [(number, row) for number, row in found if imports[number][row] == key]
        assert of_it == [(last, row) for row, one in enumerate(imports[last]) if one == key]
    assert len(set(found)) == len(found)


@given(st.lists(st.lists(KEYS, max_size=8, unique=True), max_size=5), st.randoms())
def test_rows_stand_by_what_they_are_about_whichever_came_first(imports, random):
    about = [imports[number][row] for number, row in taken(imports)]
    assert about == sorted(about)
    random.shuffle(imports)
    assert [imports[number][row] for number, row in taken(imports)] == about
