"""Keywords that are hardly shown: of the days on which they ran, at the bids they had."""

from dataclasses import replace
from datetime import date, timedelta

import numpy as np
import pytest

from milkwort.core.learn.by_now import elapsed_of
from milkwort.core.learn.hardly_shown import WHYS, hardly_shown
from milkwort.core.learn.ran import Ran, due_of
from milkwort.core.learn.seen import seen_by
from milkwort.core.market.prices import reach_at
from tests.core.learn.plans import FIRST, LAST, a_plan, rows_like

NAN = np.nan


def april(plan):
    """What was due in April at the plan's own bids."""
    return due_of(plan, [Ran(FIRST, LAST, plan.bid)], FIRST, LAST)


def due(plan, factor=1.0):
    """What was due of a mean month at the plan's own bids, its searches so many times as many."""
    found = april(plan)
    times = factor / elapsed_of(plan, FIRST, LAST).factor
    return replace(found, searches=found.searches * times, showings=found.showings * times)


def test_what_is_shown_as_planned_is_not_hardly_shown():
    plan = a_plan()
    seen = seen_by(rows_like(plan), 3, LAST.toordinal(), plan.brief.assumed)
    assert len(hardly_shown(plan, due(plan), seen)) == 0


def dim(plan, could=NAN, lost=NAN):
    """What was seen of keywords that were shown a fifth as often as was due."""
    seen = seen_by(rows_like(plan, scale=0.2), 3, LAST.toordinal(), plan.brief.assumed)
    return replace(seen, could_show=np.full(3, could), lost_to_money=np.full(3, lost))


def at_low_bids(plan):
    """The same plan at a fifth of its bids, which lie under the market then."""
    return replace(plan, bid=plan.bid / 5)


@pytest.mark.parametrize(
    ("could", "lost", "why"),
    [(NAN, NAN, "bid"), (3000.0, 2000.0, "money"), (100.0, 0.0, "few_searches"),
     (NAN, 2000.0, "bid"), (3000.0, NAN, "bid"), (3000.0, 0.0, "bid")],
)  # fmt: skip
def test_a_keyword_that_is_hardly_shown_says_why_as_far_as_it_was_seen(could, lost, why):
    plan = a_plan()
    low = at_low_bids(plan)
    found = hardly_shown(low, replace(due(plan), bid=low.bid), dim(plan, could, lost))
    assert 0 in found.row.tolist()
    assert WHYS[found.why[0]] == why
    # the bid offered is the least whole step that wins half its searches
    step = plan.brief.assumed["bid_step"]
    rows = plan.prices.at(found.row)
    assert (reach_at(found.next_bid, rows) >= 0.5 - 1e-9).all()
    assert (reach_at(found.next_bid - step, rows) < 0.5).all()


@pytest.mark.parametrize(("lost", "why"), [(NAN, "unseen"), (0.0, "bid")])
def test_a_bid_over_the_planned_market_is_no_reason_unless_searches_and_money_were_there(lost, why):
    plan = a_plan()
    found = hardly_shown(plan, due(plan), dim(plan, 3000.0, lost))
    assert (plan.bid > np.exp(plan.prices.mu)).all() and found.row.tolist() == [0, 1, 2]
    assert {WHYS[one] for one in found.why.tolist()} == {why}
    assert np.isnan(found.next_bid).all()  # it bids that already


def test_what_did_not_run_or_was_to_be_shown_a_few_times_only_is_never_hardly_shown():
    plan = a_plan()
    seen = seen_by(rows_like(plan, scale=0.0), 3, LAST.toordinal(), plan.brief.assumed)
    assert hardly_shown(plan, due(plan), seen).row.tolist() == [0, 1, 2]
    idle = replace(plan, bid=np.array([NAN, plan.bid[1], plan.bid[2]]))
    assert hardly_shown(idle, due(idle), seen).row.tolist() == [1, 2]
    few = 3.9 / plan.expected.impressions
    assert len(hardly_shown(plan, due(plan, few), seen)) == 0
    enough = 4.1 / plan.expected.impressions
    assert len(hardly_shown(plan, due(plan, enough), seen)) == 3


def test_within_the_first_week_of_a_keyword_it_is_not_hardly_shown():
    plan = a_plan()
    seen = seen_by(rows_like(plan, scale=0.0), 3, LAST.toordinal(), plan.brief.assumed)
    found = due(plan)
    assert len(hardly_shown(plan, replace(found, days=np.full(3, 6)), seen)) == 0
    assert hardly_shown(plan, replace(found, days=np.array([7, 6, 7])), seen).row.tolist() == [0, 2]


def test_a_bid_raised_to_where_it_would_be_shown_is_not_asked_for_again():
    plan = a_plan()
    low = at_low_bids(plan)
    then = replace(due(plan), bid=low.bid)
    offered = hardly_shown(low, then, dim(plan)).next_bid
    first = np.arange(3) == 0
    raised = replace(low, bid=np.where(first, offered, low.bid))
    assert hardly_shown(raised, then, dim(plan)).row.tolist() == [1, 2]
    short = replace(low, bid=np.where(first, offered - 0.01, low.bid))
    assert hardly_shown(short, then, dim(plan)).row.tolist() == [0, 1, 2]
    # a bid makes no money
    assert hardly_shown(raised, then, dim(plan, 3000.0, 2000.0)).row.tolist() == [0, 1, 2]


def test_what_was_due_is_of_the_days_on_which_it_ran_at_the_bids_it_had():
    plan = a_plan()
    middle = date(2027, 4, 15)
    # the second keyword came in the middle; the third was raised then
    early = plan.bid * np.array([1.0, NAN, 0.5])
    spans = [Ran(FIRST, middle, early), Ran(middle + timedelta(1), LAST, plan.bid)]
    whole, found = april(plan), due_of(plan, spans, FIRST, LAST)
    assert whole.days.tolist() == [30, 30, 30] and found.days.tolist() == [30, 15, 30]
    assert found.bid == pytest.approx(plan.bid)
    share = elapsed_of(plan, middle + timedelta(1), LAST).factor
    later = plan.expected.impressions * share
    assert found.showings[0] == pytest.approx(whole.showings[0])
    assert found.showings[1] == pytest.approx(later[1])
    assert found.searches[1] == pytest.approx((plan.demand.searches * share)[1])
    assert later[2] < found.showings[2] < whole.showings[2]
    assert found.searches[[0, 2]] == pytest.approx(whole.searches[[0, 2]])


def test_days_before_the_first_span_and_after_the_last_ran_as_those_do():
    plan = a_plan()
    inner = [Ran(date(2027, 4, 10), date(2027, 4, 20), plan.bid)]
    assert due_of(plan, inner, FIRST, LAST).showings == pytest.approx(april(plan).showings)
    gone = [Ran(date(2027, 3, 1), date(2027, 3, 31), plan.bid * 0.1),
            Ran(FIRST, LAST, plan.bid)]  # fmt: skip
    found = due_of(plan, gone, FIRST, LAST)
    assert found.showings == pytest.approx(april(plan).showings)
    assert found.days.tolist() == [30, 30, 30]
