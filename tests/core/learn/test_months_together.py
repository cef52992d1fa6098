"""Months judged together: evidence from all days, each at the bids that ran, and what is left."""

from dataclasses import replace
from datetime import date, timedelta

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.brief.worth import Conversion
from milkwort.core.learn.corrections import FACTORS, learning_spreads
from milkwort.core.learn.learned import Before, Learned, learned_of
from milkwort.core.learn.narrowed import left_unsure, narrowed_offer, widened_offer
from milkwort.core.learn.ran import Ran
from milkwort.core.learn.seen import ResultRows
from milkwort.core.market.keyword_table import TAUGHT
from milkwort.core.plan.run import PlanResult, run_plan
from milkwort.core.words.lexicon import shipped_lexicon
from tests.core.learn.plans import FIRST, LAST, a_plan, rows_like

MAY, END = date(2027, 5, 1), date(2027, 5, 31)
AS_OF = END + timedelta(60)


def joined(*parts: ResultRows) -> ResultRows:
    columns = zip(*(vars(part).values() for part in parts), strict=True)
    return ResultRows(*(np.concatenate(column) for column in columns))


def on(rows: ResultRows, first: date, last: date) -> ResultRows:
    days = {"first": first.toordinal(), "last": last.toordinal()}
    return replace(rows, **{n: np.full(len(rows), day) for n, day in days.items()})


def learnt(
    plan: PlanResult, base: PlanResult, rows: ResultRows, own: ResultRows, bids=None
) -> Learned:
    spans = [Ran(FIRST, LAST, base.bid if bids is None else bids), Ran(MAY, END, plan.bid)]
    before = Before(base, rows, spans)
    return learned_of(plan, shipped_lexicon(), own, AS_OF, before=before)


def corrected(plan: PlanResult, many: float, price: float) -> PlanResult:
    table = plan.table
    return run_plan(plan.brief, replace(
        table, volume_low=table.volume_low * many, volume_high=table.volume_high * many,
        cpc_low=table.cpc_low * price, cpc_high=table.cpc_high * price,
    ))  # fmt: skip


def test_two_months_at_the_same_bids_teach_what_one_window_of_both_does():
    plan = a_plan()
    april, may = rows_like(plan, scale=1.3), on(rows_like(plan, scale=1.3), MAY, END)
    both = joined(april, may)
    apart = learnt(plan, plan, both, may).corrections
    whole = learned_of(plan, shipped_lexicon(), both, AS_OF).corrections
    for name in FACTORS:
        assert getattr(apart, name).factor == pytest.approx(getattr(whole, name).factor, rel=1e-9)


def test_a_correction_replaces_the_last_one_and_is_not_made_on_top_of_it():
    base = a_plan()
    plan = corrected(base, 1.2, 1.1)
    april, may = rows_like(base, scale=1.5), on(rows_like(base, scale=1.5), MAY, END)
    from_first = learnt(plan, base, joined(april, may), may)
    again = learnt(corrected(base, 0.8, 0.7), base, joined(april, may), may,
                   bids=base.bid).corrections  # fmt: skip
    # however the plan stood corrected, searches are told from the uncorrected inputs
    assert from_first.corrections.searches.factor == pytest.approx(again.searches.factor)
    assert (from_first.corrections.searches.factor > 1.1).all()


def test_evidence_counts_all_days_and_the_difference_only_its_own():
    plan = a_plan()
    april, may = rows_like(plan), on(rows_like(plan, scale=0.5), MAY, END)
    found = learnt(plan, plan, joined(april, may), may)
    assert found.judged.results.clicks == pytest.approx(april.clicks + may.clicks)
    assert found.spend.sums("actual")["actual"] == pytest.approx(may.cost.sum())
    assert (found.since, found.first) == (FIRST, MAY)


def test_each_day_is_held_against_the_bid_that_ran_that_day():
    plan = a_plan()
    april, may = rows_like(plan), on(rows_like(plan), MAY, END)
    blind = [replace(r, could_show=np.full(3, np.nan), lost_to_money=np.full(3, np.nan))
             for r in (april, may)]  # fmt: skip
    low = learnt(plan, plan, joined(*blind), blind[1], bids=plan.bid / 2)
    same = learnt(plan, plan, joined(*blind), blind[1])
    # as many showings at half the bid: more people search, or it costs less than thought
    assert (low.corrections.searches.factor > same.corrections.searches.factor).all()


def test_what_is_left_of_spreads_by_hand():
    plan = a_plan()
    found = learned_of(plan, shipped_lexicon(), rows_like(plan), AS_OF)
    left = left_unsure(plan, found.corrections, found.judged)
    v, s = found.corrections.click_rate.variance, learning_spreads(plan)
    wide, group, own = s.plan["click_rate"], s.group["click_rate"], s.own["click_rate"]
    assert left.plan.click_rate == pytest.approx(
        (1 / wide**2 + (1 / (v + group**2 + own**2)).sum()) ** -0.5
    )
    rows = dict(zip(TAUGHT, left.rows.T, strict=True))
    assert rows["click_rate"] == pytest.approx(own * np.sqrt(v) / np.sqrt(own**2 + v))
    in_first = (1 / group**2 + (1 / (v[:2] + own**2)).sum()) ** -0.5
    assert rows["group_click_rate"][:2] == pytest.approx([in_first] * 2)
    assert rows["clicks"] == pytest.approx(found.judged.results.counted_clicks)


def test_where_nothing_was_seen_all_stays_as_unsure_as_it_was():
    plan = a_plan()
    nothing = replace(rows_like(plan), **{
        name: np.zeros(3) for name in ("impressions", "clicks", "cost", "customers", "could_show",
                                       "lost_to_money")})  # fmt: skip
    found = learned_of(plan, shipped_lexicon(), nothing, AS_OF)
    price, s = left_unsure(plan, found.corrections, found.judged), learning_spreads(plan)
    rows = dict(zip(TAUGHT, price.rows.T, strict=True))
    assert price.plan.click_rate == pytest.approx(s.plan["click_rate"])
    assert rows["click_rate"] == pytest.approx(s.own["click_rate"])
    assert rows["clicks"].tolist() == [0.0, 0.0, 0.0]


@given(st.floats(0.05, 1.0))
def test_a_narrowed_offer_widens_again_to_what_it_was(left: float):
    offer = replace(a_plan().brief.offer, conversion=Conversion(0.02, 0.03, 0.045))
    back = widened_offer(narrowed_offer(offer, left), left).conversion
    assert back.as_tuple() == pytest.approx(offer.conversion.as_tuple(), rel=1e-9)
