"""A running account looked over: each finding with the money that is in it."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest

from milkwort.core.errors import BadValueError
from milkwort.core.learn.campaign_days import campaign_days
from milkwort.core.learn.learned import learned_of
from milkwort.core.learn.look_over import Account, look_over
from milkwort.core.learn.terms import TermRows
from milkwort.core.plan.budgets import daily_budgets
from milkwort.core.words.lexicon import shipped_lexicon
from tests.core.learn.plans import LAST, TEXTS, a_plan, rows_like
from tests.core.learn.test_the_month import by_day


def account(plan, rows, **changes):
    n = len(rows)
    base = Account(
        rows=rows, places=[""] * n, texts=TEXTS, groups=["Repair", "Paint"],
        group=plan.table.group,
        campaigns=campaign_days(plan, rows), campaign_names=["Search"], terms=None,
        stopped=np.zeros(0, dtype=bool), allowed=100.0,
    )  # fmt: skip
    return replace(base, **changes)


def found(plan, rows, **changes):
    learned = learned_of(plan, shipped_lexicon(), rows, LAST)
    return {one.code: one for one in look_over(account(plan, rows, **changes), learned)}


def test_an_account_in_order_has_nothing_to_show():
    assert found(a_plan(), rows_like(a_plan())) == {}


def test_a_keyword_in_two_groups_costs_what_the_smaller_took():
    plan, rows = a_plan(), rows_like(a_plan())
    twice = rows.at(np.array([0, 0, 1, 2]))
    places = ["Search / Repair", "Search / More", "Search / Repair", "Search / Paint"]
    double = found(plan, twice, places=places)["double"]
    assert double.names == (TEXTS[0],) and double.money == pytest.approx(rows.cost[0])


def test_rows_of_no_keyword_or_no_place_are_no_doubles():
    plan, rows = a_plan(), rows_like(a_plan())
    stray = rows.at(np.array([0, 0, 1, 2]))
    stray = replace(stray, keyword=np.array([-1, -1, 1, 2]))
    places = ["Search / Repair", "Search / More", "Search / Repair", "Search / Paint"]
    assert "double" not in found(plan, stray, places=places)
    twice = rows.at(np.array([0, 0, 1, 2]))
    assert "double" not in found(plan, twice, places=["Search / Repair", "", "", ""])


def test_of_three_places_all_but_the_dearest_are_too_many():
    plan, rows = a_plan(), rows_like(a_plan())
    thrice = rows.at(np.array([0, 0, 0, 1, 2]))
    thrice = replace(thrice, cost=np.array([3.0, 9.0, 2.0, 4.0, 4.0]))
    places = ["A / 1", "A / 2", "A / 3", "A / 1", "A / 1"]
    assert found(plan, thrice, places=places)["double"].money == pytest.approx(5.0)


def test_money_without_a_sale_is_summed_and_the_dearest_named_first():
    plan, rows = a_plan(), rows_like(a_plan())
    barren = replace(rows, customers=rows.customers * np.array([1.0, 0.0, 0.0]))
    finding = found(plan, barren)["no_sale"]
    assert finding.money == pytest.approx(rows.cost[1:].sum())
    assert set(finding.names) == set(TEXTS[1:])


def test_a_campaign_that_sells_well_and_runs_out_of_money_is_named():
    plan = a_plan()
    daily = float(daily_budgets(plan).daily[0])
    rows = by_day({date(2027, 4, day): daily for day in range(1, 11)})
    selling = replace(rows, customers=np.ones(len(rows)))
    cheap = found(plan, selling, allowed=daily * 2)
    assert "ran out of money on 10 of 10 days" in cheap["short_of_money"].text
    assert "short_of_money" not in found(plan, selling, allowed=daily / 2)


def test_a_campaign_whose_money_is_seldom_gone_is_not_short_of_it():
    plan = a_plan()
    daily = float(daily_budgets(plan).daily[0])
    spent = {date(2027, 4, day): daily if day in (3, 9) else daily / 4 for day in range(1, 29)}
    rows = by_day(spent)
    selling = replace(rows, customers=np.ones(len(rows)))
    assert "short_of_money" not in found(plan, selling, allowed=daily * 2)  # 2 of 28 days


def test_what_there_is_most_money_in_comes_first():
    plan, rows = a_plan(), rows_like(a_plan())
    barren = replace(rows, customers=rows.customers * np.array([1.0, 0.0, 0.0]))
    twice = barren.at(np.array([0, 0, 1, 2]))
    places = ["Search / Repair", "Search / More", "Search / Repair", "Search / Paint"]
    order = [one.money for one in found(plan, twice, places=places).values()]
    assert len(order) > 1 and order == sorted(order, reverse=True)


def test_negatives_that_stop_what_sold_are_named():
    plan, rows = a_plan(), rows_like(a_plan())
    one = np.ones(2)
    terms = TermRows(("gold sash", "free sash"), np.zeros(2, dtype=np.int64), one, one, one,
                     np.array([5.0, 7.0]), np.array([1.0, 0.0]))  # fmt: skip
    finding = found(plan, rows, terms=terms, stopped=np.array([True, True]))["blocks_sold"]
    assert finding.names == ("gold sash",) and finding.money == 5.0


def test_places_that_are_not_as_many_as_rows_are_refused():
    plan, rows = a_plan(), rows_like(a_plan())
    with pytest.raises(BadValueError, match="one a row"):
        found(plan, rows, places=["x"])
