from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.assumptions import Assumed
from milkwort.core.brief.showing import ALWAYS, Showing, hours_of_day, shown_share
from milkwort.core.errors import BadValueError
from milkwort.core.plan.run import run_plan
from tests.samples import brief, table

WORKDAYS = (True,) * 5 + (False,) * 2


def test_always_is_all_of_it():
    assert shown_share(ALWAYS, Assumed()) == pytest.approx(1)
    assert hours_of_day(Assumed()).sum() == pytest.approx(1)


@given(st.integers(0, 23), st.integers(1, 24))
def test_hours_shown_and_hours_left_out_make_the_whole(start, end):
    share = shown_share(Showing(from_hour=start, to_hour=end), Assumed())
    if start % 24 == end % 24:
        assert share == pytest.approx(1)
    elif end < 24 and start > 0:
        rest = shown_share(Showing(from_hour=end, to_hour=start), Assumed())
        assert share + rest == pytest.approx(1)


def test_days_weigh_by_their_searches():
    assumed = Assumed({"weekend_searches": 0.5})
    assert shown_share(Showing(WORKDAYS), assumed) == pytest.approx(5 / 6)


def test_the_planners_own_share_is_taken_as_it_is():
    assert shown_share(Showing(WORKDAYS, 8, 18, share=0.6), Assumed()) == 0.6


@pytest.mark.parametrize(
    "wrong", [{"days": (False,) * 7}, {"from_hour": 24}, {"to_hour": 0}, {"share": 1.2}]
)
def test_what_cannot_be_shown_is_refused(wrong):
    with pytest.raises(BadValueError):
        Showing(**wrong)


def test_searches_scale_with_the_share_and_prices_do_not():
    sheet = table([400], [0.8], [2.4])
    whole = run_plan(brief(), sheet)
    half = run_plan(replace(brief(), showing=Showing(share=0.5)), sheet)
    assert half.demand.searches == pytest.approx(whole.demand.searches / 2)
    assert half.prices.mu == pytest.approx(whole.prices.mu)
