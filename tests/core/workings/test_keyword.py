"""The workings say the same numbers, to the last digit, as the plan's arrays."""

from dataclasses import replace

import numpy as np
import pytest

from milkwort.core.plan.run import run_plan
from milkwort.core.workings.keyword import keyword_workings
from milkwort.core.workings.purse import purse_workings
from tests.samples import brief, calls, random_table, table


def lines_of(sections):
    return {line.label: line for section in sections for line in section.lines}


def test_a_running_keywords_workings_are_its_figures():
    result = run_plan(brief(), random_table(1, 20))
    row = int(np.flatnonzero(np.isfinite(result.bid))[0])
    lines = lines_of(keyword_workings(result, row))
    assert lines["ceiling per click"].value == result.standing.ceiling[row]
    assert lines["clicks"].value == result.expected.clicks[row]
    assert lines["customers"].value == result.expected.customers[row]
    product = lines["searches"].value * lines["× reach"].value * lines["× click rate"].value
    assert product == pytest.approx(lines["clicks"].value)


def test_a_keyword_that_is_not_kept_shows_what_it_would_bring():
    rows = replace(random_table(1, 3), call=calls("keep", "keep", "none"))
    result = run_plan(brief(), rows)
    titles = [s.title for s in keyword_workings(result, 2)]
    assert "What it would bring, if kept" in titles


def test_a_keyword_beyond_the_line_says_what_would_bring_it_in():
    result = run_plan(brief(), table([100], [20.0], [60.0]))
    assert keyword_workings(result, 0)[-1].title == "What would bring it in"


def test_without_volume_or_price_the_workings_say_that():
    result = run_plan(brief(), table([np.nan], [np.nan], [np.nan]))
    texts = [line.text for s in keyword_workings(result, 0) for line in s.lines if line.text]
    assert any("not forecast" in t for t in texts) and any("no price" in t for t in texts)


@pytest.mark.parametrize(
    ("figure", "total"),
    [
        ("spend", "spend"),
        ("clicks", "clicks"),
        ("customers", "customers"),
        ("cost_per_customer", "cost_per_customer"),
        ("profit", "profit"),
    ],
)
def test_each_figure_of_the_purse_is_worked_out(figure, total):
    result = run_plan(brief(), random_table(1, 20))
    closing = [x for x in purse_workings(result, figure)[0].lines if x.result]
    assert closing[-1].value == getattr(result.totals, total)


def test_the_next_unit_is_worked_out():
    result = run_plan(brief(monthly_spend=20.0), random_table(1, 20))
    lines = lines_of(purse_workings(result, "next_unit"))
    assert lines["that is, per customer"].value == pytest.approx(1 / result.fit.next_unit)


def test_what_was_entered_is_no_assumption_any_more():
    rows = table([300], [0.8], [2.4])
    entered = run_plan(brief({"area_share": 0.5, "intent_buy": 0.9}), rows)
    lines = {line.assumption: line.source for s in keyword_workings(entered, 0) for line in s.lines}
    assert (lines["area_share"], lines["intent_buy"]) == ("brief", "planner")
    assert lines["click_rate_top"] == "assumption"
