"""Of what was handed over and what began, the newest ran."""

from datetime import date, timedelta
from itertools import pairwise

from hypothesis import given
from hypothesis import strategies as st

from milkwort.api.learn.ran import WhatRan
from milkwort.store.hand_overs import Run

FIRST = date(2027, 4, 1)


def day(n: int) -> date:
    return FIRST + timedelta(n)


def run(made: int, of: int, n: int) -> Run:
    return Run(made, of, "2027-03-30T10:00:00+00:00", day(n))


def test_nothing_ran_before_the_first_and_then_the_newest():
    one, two = run(1, 7, 3), run(2, 7, 8)
    ran = WhatRan((one, two), ((day(0), 7),))
    assert [ran.on(day(n)) for n in (0, 2, 3, 7, 8, 99)] == [None, None, one, one, two, two]


def test_of_two_from_one_day_the_one_sent_later_ran():
    one, two = run(1, 7, 3), run(2, 7, 3)
    assert WhatRan((one, two), ()).on(day(3)) is two


def test_another_version_that_begins_takes_its_place_and_its_own_does_not():
    one = run(1, 7, 3)
    assert WhatRan((one,), ((day(5), 7),)).on(day(6)) is one
    assert WhatRan((one,), ((day(5), 8),)).on(day(4)) is one
    assert WhatRan((one,), ((day(5), 8),)).on(day(5)) is None
    # one that is sent on the day it begins runs on it
    two = run(2, 8, 5)
    assert WhatRan((one, two), ((day(5), 8),)).on(day(5)) is two


def test_days_on_which_the_same_ran_are_one_part():
    one, two = run(1, 7, 3), run(2, 7, 8)
    ran = WhatRan((one, two), ((day(0), 7), (day(10), 8)))
    assert ran.parts(day(1), day(12)) == [
        (day(1), day(2), None),
        (day(3), day(7), one),
        (day(8), day(9), two),
        (day(10), day(12), None),
    ]
    assert ran.parts(day(4), day(4)) == [(day(4), day(4), one)]
    assert WhatRan((), ((day(2), 7), (day(5), 8))).parts(day(0), day(9)) == [(day(0), day(9), None)]


@given(
    st.lists(st.tuples(st.integers(0, 40), st.integers(1, 3)), max_size=8),
    st.lists(st.tuples(st.integers(0, 40), st.integers(1, 3)), max_size=4),
)
def test_parts_are_all_days_once_each_with_what_ran_on_it(runs, starts):
    sent = sorted(((n, made, of) for made, (n, of) in enumerate(runs)))
    ran = WhatRan(
        tuple(run(made, of, n) for n, made, of in sent),
        tuple((day(n), of) for n, of in starts),
    )
    parts = ran.parts(day(0), day(45))
    days = [d for first, last, _ in parts for d in range(first.toordinal(), last.toordinal() + 1)]
    assert days == list(range(day(0).toordinal(), day(45).toordinal() + 1))
    for first, last, what in parts:
        for n in range((last - first).days + 1):
            assert ran.on(first + timedelta(n)) is what
    for (_, _, one), (_, _, next_one) in pairwise(parts):
        assert one is not next_one
