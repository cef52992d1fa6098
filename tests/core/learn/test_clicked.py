"""Click rates: judged only where enough was shown, at the bids that ran."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest

from milkwort.core.learn.clicked import click_rates, clicked_of
from milkwort.core.learn.corrections import Segment
from milkwort.core.learn.learned import Before, learned_of
from milkwort.core.learn.ran import Ran
from milkwort.core.learn.seen import seen_by
from milkwort.core.market.prices import at_bid
from milkwort.core.words.lexicon import shipped_lexicon
from tests.core.learn.plans import LAST, a_plan, rows_like
from tests.core.learn.test_evidence import ASSUMED, col
from tests.core.learn.test_months_together import joined, on

AS_OF = date(2027, 7, 30)


def test_a_click_rate_is_judged_only_after_enough_showings():
    found = click_rates(col(900, 1500, 1500), col(1, 20, 80), col(45, 75, 75), ASSUMED)
    assert found.judged.tolist() == [False, True, True]
    assert found.low.tolist() == [False, True, False]


def test_a_click_rate_is_said_as_a_ratio_and_called_low_only_where_it_is_no_chance():
    shown, clicks = col(1000, 1001, 400, 5000), col(10, 10, 31, 100)
    rates = click_rates(shown, clicks, shown * col(0.06, 0.06, 0.06, 0.02), ASSUMED)
    assert rates.judged.tolist() == [False, True, True, True]
    assert rates.ratio == pytest.approx([10 / 60, 10 / 60.06, 31 / 24, 1.0])
    assert rates.low.tolist() == [False, True, False, False]


def rate_at(plan, bid):
    """What a click is to a showing at these bids."""
    demand, ones = plan.demand, np.ones(len(bid))
    at = at_bid(bid, plan.prices.mu, plan.prices.sigma, ones, ones, plan.brief.pricing,
                plan.brief.assumed)  # fmt: skip
    return demand.click_weight / demand.searches * at.click_rate


def days_at(plan, bid, first, last):
    """Days of 2,000 showings of each keyword, clicked as such bids let expect."""
    rows = on(rows_like(plan), first, last)
    shown = np.full(len(bid), 2000.0)
    return replace(rows, impressions=shown, clicks=shown * rate_at(plan, bid))


def test_clicks_of_a_month_whose_bids_were_raised_are_held_against_both():
    plan = a_plan()
    low = plan.bid / 3
    april = [date(2027, 4, 1), date(2027, 4, 20), date(2027, 4, 21), date(2027, 4, 30)]
    rows = joined(days_at(plan, low, *april[:2]), days_at(plan, plan.bid, *april[2:]))
    assert (rate_at(plan, low) < rate_at(plan, plan.bid)).all(), "a low bid stands lower"
    spans = [Ran(april[0], april[1], low), Ran(april[2], april[3], plan.bid)]
    found = learned_of(
        plan, shipped_lexicon(), rows, AS_OF, before=Before(plan, rows, spans)
    ).clicked  # fmt: skip
    assert found.judged.all() and not found.low.any()
    assert found.ratio == pytest.approx(1.0)
    whole = learned_of(plan, shipped_lexicon(), rows, AS_OF).clicked
    assert (whole.ratio < 0.97).all(), "at the bids of its end alone it would look clicked less"


def test_days_on_which_a_keyword_did_not_run_say_nothing_of_its_clicks():
    plan = a_plan()
    seen = seen_by(days_at(plan, plan.bid, LAST, LAST), 3, LAST.toordinal(), ASSUMED)
    off = np.where([True, False, False], np.nan, plan.bid)
    found = clicked_of(plan, [Segment(off, np.ones(3), seen)])
    assert found.judged.tolist() == [False, True, True]
    assert np.isnan(found.ratio[0]) and found.ratio[1:] == pytest.approx(1.0)
