"""Workings of draws and versions say the very figures that are shown, and their sums close."""

from dataclasses import replace

import numpy as np
import pytest

from milkwort.core.brief.taught import Taught
from milkwort.core.plan.budget_use import budget_use
from milkwort.core.plan.differences import Side
from milkwort.core.plan.draws import FIGURES, SHARED, draw_month
from milkwort.core.plan.must_be import must_be
from milkwort.core.plan.odds import odds_of
from milkwort.core.plan.run import run_plan
from milkwort.core.plan.versions import Standing, apart, standing
from milkwort.core.workings.sure import (
    doubt_workings,
    drawn_workings,
    move_workings,
    must_workings,
    odd_workings,
    use_workings,
)
from milkwort.core.workings.versions import apart_workings, standing_workings
from tests.samples import brief, random_table

COUNT = 200


@pytest.fixture(scope="module")
def result():
    return run_plan(brief(), random_table(3, 20))


@pytest.fixture(scope="module")
def draws(result):
    return draw_month(result, COUNT)


def closing(sections):
    return [line for section in sections for line in section.lines if line.result]


def values(section):
    return {line.label: line.value for line in section.lines}


@pytest.mark.parametrize("figure", FIGURES)
def test_a_range_is_the_one_that_is_shown(result, draws, figure):
    drawn_from, in_order, beside = drawn_workings(result, draws, figure)
    shown = draws.ranges[figure]
    said = [line.value for line in in_order.lines if line.result]
    wanted = [shown.low, shown.middle, shown.high]
    assert [v for v in said if v is not None] == [v for v in wanted if np.isfinite(v)]
    assert beside.lines[0].value == getattr(result.totals, figure)
    assert {line.assumption for line in drawn_from.lines} >= {
        "draw_searches", "draw_variants", "draw_price", "draw_click_rate",
    }  # fmt: skip


def test_months_in_which_nobody_buys_are_counted_and_have_no_cost(result):
    poor = run_plan(brief(monthly_spend=4.0), random_table(3, 20))
    draws = draw_month(poor, COUNT)
    lines = drawn_workings(poor, draws, "cost_per_customer")[1].lines
    none = next(line.value for line in lines if "without a customer" in line.label)
    assert none == COUNT * draws.no_customer_chance > 0
    assert lines[-1].value is not None and np.isfinite(lines[-1].value)


@pytest.mark.parametrize("name", SHARED)
def test_what_moves_it_is_the_bar_that_is_shown(result, draws, name):
    inputs, customers, profit = move_workings(result, draws, name)
    swing = draws.moves[name]
    said = values(customers)
    assert (said["at its low"], said["at its high"]) == swing.customers
    assert customers.lines[-1].value == abs(swing.customers[0] - swing.customers[1])
    assert (profit.lines[0].value, profit.lines[1].value) == swing.profit
    if name != "conversion":
        low, high = inputs.lines[1].value, inputs.lines[2].value
        assert low * high == pytest.approx(1.0) and low < 1 < high


def test_spreads_are_those_that_results_left_once_they_did(result, draws):
    taught = Taught(searches=0.04, click_rate=0.05, price=0.03)
    known = replace(result, brief=replace(result.brief, taught=taught))
    lines = drawn_workings(known, draws, "clicks")[0].lines
    noise = result.brief.assumed["month_searches"]
    assert lines[0].value == pytest.approx(np.hypot(0.04, noise))
    assert lines[0].assumption == "" and lines[1].assumption == "draw_variants"


def test_where_a_plan_turns_is_today_s_value_times_how_far(result):
    found = must_be(result)
    for one in found:
        for section, turn in zip(must_workings(one), (one.rule, one.even, one.nothing),
                                 strict=True):  # fmt: skip
            said = values(section)
            if turn.times is None:
                assert said["no value of it does"] is None
            elif one.now is not None:
                assert said["it turns at"] == one.now * turn.times
            assert said.get("a value beyond it") == turn.chance
    assert {one.input for one in found if one.now is None} == {"prices", "searches", "click rate"}


def test_a_chance_is_a_count_of_months(result, draws):
    for odd in odds_of(result, draws):
        _, those, share = odd_workings(odd, draws)[0].lines
        assert those.value / COUNT == share.value == odd.share


def test_the_purse_falls_into_what_is_spent_and_what_stays(result, draws):
    where, in_order = use_workings(budget_use(result, draws, lambda: False))
    purse, *stays, spent = (line.value for line in where.lines)
    assert purse - sum(stays) == pytest.approx(spent)
    assert in_order.lines[1].value == draws.ranges["spend"].middle


def test_all_parts_of_the_doubt_are_the_whole(draws):
    parts = [doubt_workings(one, draws)[1].lines for one in draws.groups]
    assert sum(lines[1].value for lines in parts) == pytest.approx(parts[0][0].value)
    assert sum(lines[2].value for lines in parts) == pytest.approx(1.0)


@pytest.mark.parametrize("figure", Standing.__annotations__)
def test_each_figure_of_a_version_is_the_one_that_is_shown(result, figure):
    side = Side(result, (), ())
    lines = closing(standing_workings(side, figure))
    assert lines[-1].value == pytest.approx(getattr(standing(side), figure))


def test_a_version_against_itself_brings_neither_more_nor_fewer(draws):
    months, customers, profit = apart_workings(COUNT, apart(draws, draws))
    assert values(months)["just as many"] == COUNT and values(months)["fewer"] == 0
    assert months.lines[-1].value == 0
    assert {line.value for line in (*customers.lines, *profit.lines)} == {0.0}
