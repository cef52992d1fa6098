"""Versions side by side: what differs is said, what does not is exactly nothing."""

from dataclasses import replace

import numpy as np
import pytest

from milkwort.core.assumptions import Assumed
from milkwort.core.brief.limits import Limits, SpendLimit
from milkwort.core.brief.spots import Spot
from milkwort.core.market.keyword_table import CALLS
from milkwort.core.plan.differences import Side, differences
from milkwort.core.plan.draws import draw_month
from milkwort.core.plan.run import run_plan
from milkwort.core.plan.versions import apart, standing
from milkwort.core.words.negatives import Negative
from tests.samples import brief, random_table

ROWS = random_table(4, 30)


def side(plan=None, rows=ROWS, groups=("one", "two"), campaigns=("Search", "Places")):
    return Side(run_plan(plan or brief(), rows), groups, campaigns)


def test_a_version_beside_itself_differs_by_exactly_nothing():
    one, other = side(), side()
    assert differences(one, other) == []
    drawn = apart(draw_month(one.result, 300), draw_month(other.result, 300))
    assert (drawn.more, drawn.fewer, drawn.same, drawn.more_profit) == (0, 0, 1, 0)
    assert all((r.low, r.middle, r.high) == (0, 0, 0) for r in drawn.by.values())
    assert standing(one) == standing(other)


def test_each_kind_of_difference_is_named_with_what_it_was_and_is():
    calls = ROWS.call.copy()
    calls[0] = CALLS.index("drop")
    group = ROWS.group.copy()
    group[1] = 1
    changed = replace(ROWS, call=calls, group=group)
    plan = brief(
        monthly_spend=900.0,
        assumed=Assumed({"stretch": 0.3}),
        limits=Limits(campaigns={0: SpendLimit(0, 50.0)}),
        negatives=(Negative("free"), Negative("jobs", "exact", "group", 1)),
        spots=(Spot("Front page", "showings", 4.0, showings=9000.0, click_rate=0.01),),
    )
    found = differences(side(), side(plan, changed))
    said = {(d.kind, d.what): (d.was, d.now) for d in found if d.kind != "bid"}
    texts = ROWS.texts
    assert said["brief", "the purse"] == (brief().monthly_spend, 900.0)
    assert said["brief", "most for Search"] == (None, 50.0)
    assert ("assumption", "") not in said
    assert len([d for d in found if d.kind == "assumption"]) == 1
    assert said["call", texts[0]] == ("keep", "drop")
    assert [d.now for d in found if d.kind == "group"] == ["two"]
    assert said["negative", "free (phrase)"] == (None, "the whole plan")
    assert said["negative", "jobs (exact)"] == (None, "two")
    assert said["spot", "Front page"][0] is None


def test_keywords_of_one_plan_alone_are_said_once_whatever_their_order():
    fewer = ROWS.at(np.arange(29, 4, -1))
    found = differences(side(), side(rows=fewer))
    alone = [d for d in found if d.kind == "keyword"]
    assert {d.what.split(" (")[0] for d in alone} == set(ROWS.texts[:5])
    assert all(d.now is None for d in alone)
    assert not [d for d in found if d.kind in ("call", "group")]


def test_more_money_never_loses_more_months_than_it_wins():
    little, much = brief(monthly_spend=60.0), brief(monthly_spend=240.0)
    drawn = [draw_month(run_plan(plan, ROWS), 1000) for plan in (little, much)]
    beside = apart(*drawn)
    assert beside.more > beside.fewer
    assert beside.more + beside.fewer + beside.same == pytest.approx(1)
    gained = drawn[1].customers.mean() - drawn[0].customers.mean()
    assert beside.by["customers"].low <= gained <= beside.by["customers"].high
