from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from milkwort.core.assumptions import TABLE, Assumed
from milkwort.core.brief import Policy
from milkwort.core.errors import BadValueError, ProgramError
from milkwort.core.keyword_table import blank_table
from milkwort.core.notes import notes_of, notices_of
from milkwort.core.plan import other_ways, run_plan
from tests.samples import brief, calls, random_table, table

NAN = np.nan


def test_totals_are_the_sums_of_what_runs():
    result = run_plan(brief(), random_table(1, 60))
    e, totals = result.expected, result.totals
    assert totals.clicks == pytest.approx(e.clicks.sum())
    assert totals.profit == pytest.approx(totals.customers * 224.4 - totals.spend)
    assert totals.revenue == pytest.approx(totals.customers * 408)
    assert totals.cost_per_customer == pytest.approx(totals.spend / totals.customers)
    assert totals.searches == pytest.approx(result.demand.searches[np.isfinite(result.bid)].sum())


def test_only_kept_keywords_run():
    rows = replace(random_table(2, 5), call=calls("keep", "hold", "drop", "block", "none"))
    result = run_plan(brief(monthly_spend=1000.0), rows)
    assert np.isfinite(result.bid).tolist() == [True, False, False, False, False]
    assert (result.expected.spend[1:] == 0).all()


def test_a_method_above_the_purse_is_paced_to_it():
    plan = brief(policy=Policy("middle"), monthly_spend=30.0)
    result = run_plan(plan, random_table(3, 80))
    assert result.totals.spend == pytest.approx(30.0)
    assert 0 < result.expected.pace < 1
    assert "paced" in notices_of(result)[0]


def test_fitted_bids_bring_at_least_what_any_other_way_brings():
    result = run_plan(brief(monthly_spend=60.0), random_table(4, 120))
    for way in other_ways(result):
        assert way.totals.customers <= result.value * 1.0001
        assert way.totals.spend <= 60.0 + 1e-9


def test_an_empty_plan_says_so_and_brings_nothing():
    result = run_plan(brief(), blank_table([]))
    assert result.totals.spend == 0 and result.totals.cost_per_customer is None
    assert notices_of(result) == ["The plan has no keywords yet."]


def test_a_plan_without_prices_forecasts_nothing_and_says_so():
    result = run_plan(brief(), table([100, 200], [NAN, 0.0], [NAN, NAN]))
    assert np.isnan(result.bid).all()
    assert "no_price" in notes_of(result)[0]
    assert "price" in notices_of(result)[0]


@pytest.mark.parametrize(
    ("columns", "note"),
    [
        (([NAN], [1.0], [2.0]), "no_volume"),
        (([0.0], [1.0], [2.0]), "no_searches"),
        (([50.0], [NAN], [2.0]), "single_price"),
        (([50.0], [90.0], [200.0]), "cannot_run"),
        (([2.0], [1.0], [2.0]), "thin"),
    ],
)
def test_what_is_odd_about_a_keyword_is_noted(columns, note):
    assert note in notes_of(run_plan(brief(), table(*columns)))[0]


def test_a_bid_over_half_a_days_money_is_warned_of():
    plan = brief(monthly_spend=20.0, policy=Policy("middle"))
    assert "half_day" in notes_of(run_plan(plan, table([500], [1.0], [3.0])))[0]


def test_a_job_seekers_keyword_never_runs():
    result = run_plan(brief(), table([500], [0.1], [0.3], intent=np.array([4])))
    assert np.isnan(result.bid[0])
    assert "rate_zero" in notes_of(result)[0]


@settings(max_examples=30, deadline=None)
@given(
    st.lists(
        st.tuples(
            st.one_of(st.just(NAN), st.floats(0, 1e7)),
            st.one_of(st.just(NAN), st.floats(0, 1e4)),
            st.one_of(st.just(NAN), st.floats(1, 1e3)),
            st.integers(0, 2),
            st.integers(0, 5),
            st.integers(0, 4),
        ),
        min_size=1,
        max_size=25,
    ),
    st.floats(0, 1e5),
)
def test_hostile_sheets_plan_without_a_warning(rows, purse):
    volume, low, ratio, match, intent, call = map(np.array, zip(*rows, strict=True))
    sheet = table(volume.astype(float), low, low * ratio, match=match, intent=intent, call=call)
    result = run_plan(brief(monthly_spend=purse), sheet)
    assert result.totals.spend <= purse * (1 + 1e-9) + 1e-9
    assert np.isfinite(result.expected.spend).all()


def test_columns_of_unequal_length_are_a_programmers_mistake():
    with pytest.raises(ProgramError, match="cpc_low"):
        replace(blank_table(["a"]), cpc_low=np.zeros(2))


@pytest.mark.parametrize(
    ("changes", "where"),
    [
        ({"monthly_spend": -1.0}, "monthly_spend"),
        ({"goal": "fame"}, "goal"),
        ({"currency": "£"}, "currency"),
    ],
)
def test_an_impossible_brief_is_refused_by_its_field(changes, where):
    with pytest.raises(BadValueError, match=where):
        brief(**changes)


def test_every_assumption_lies_in_its_own_range_and_says_why():
    for row in TABLE.values():
        assert row.least <= row.value <= row.most, row.name
        assert row.why.endswith("."), row.name


@pytest.mark.parametrize(
    "changes", [{"luck": 1.0}, {"stretch": 2.0}, {"low_percentile": 0.8}, {"stretch": float("nan")}]
)
def test_an_assumption_out_of_its_range_is_refused(changes):
    with pytest.raises(BadValueError):
        Assumed(changes)
