"""Of every row and day the newest import counts."""

from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.learn.merged import newest_rows

KEYS = st.tuples(st.integers(1, 4), st.sampled_from(["sash", "cord", "paint"]))


def test_a_later_import_takes_the_place_of_the_rows_it_has_and_of_no_other():
    april, later = [(1, "sash"), (2, "sash"), (2, "cord")], [(2, "sash"), (3, "sash")]
    assert newest_rows([april, later]) == [(0, 0), (0, 2), (1, 0), (1, 1)]
    assert newest_rows([later, april]) == [(0, 1), (1, 0), (1, 1), (1, 2)]


def test_a_row_that_stands_twice_in_one_import_is_part_of_a_sum():
    assert newest_rows([[(1, "sash"), (1, "sash")]]) == [(0, 0), (0, 1)]
    assert newest_rows([[(1, "sash"), (1, "sash")], [(1, "sash")]]) == [(1, 0)]


def test_nothing_is_nothing():
    assert newest_rows([]) == []
    assert newest_rows([[], [(1, "sash")], []]) == [(1, 0)]


@given(st.lists(st.lists(KEYS, max_size=8), max_size=5))
def test_every_row_and_day_counts_from_the_last_import_that_has_it(imports):
    taken = newest_rows(imports)
    for key in {key for keys in imports for key in keys}:
        last = max(number for number, keys in enumerate(imports) if key in keys)
        of_it = [(number, row) for number, row in taken if imports[number][row] == key]
        assert of_it == [(last, row) for row, one in enumerate(imports[last]) if one == key]
    assert len(set(taken)) == len(taken)
