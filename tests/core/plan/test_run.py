from dataclasses import replace

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from milkwort.core.assumptions import TABLE, Assumed
from milkwort.core.brief.brief import Policy
from milkwort.core.brief.limits import Limits, SpendLimit
from milkwort.core.errors import BadValueError, ProgramError
from milkwort.core.market.keyword_table import blank_table
from milkwort.core.plan.methods import other_ways
from milkwort.core.plan.notes import notes_of, notices_of
from milkwort.core.plan.run import run_plan
from tests.depth import cases
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


def test_a_methods_own_bids_are_held_against_the_limits_not_those_of_the_fit():
    limits = Limits(max_keywords=5, campaigns={0: SpendLimit(most=10.0), 1: SpendLimit(least=9e3)})
    rows = replace(random_table(3, 80), campaign=np.zeros(80, dtype=np.int64))
    plan = brief(policy=Policy("middle"), monthly_spend=30.0, limits=limits)
    result = run_plan(plan, rows)
    said = {one.limit: one.got for one in result.unmet}
    assert said == {
        "max_keywords": np.isfinite(result.bid).sum(), "least_spend": 0.0,
        "most_spend": pytest.approx(30.0),
    }  # fmt: skip
    assert "20.00 more than you allow" in " ".join(notices_of(result))
    fitted = run_plan(replace(plan, policy=Policy()), rows)
    assert [one.limit for one in fitted.unmet] == ["least_spend"]


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


@settings(max_examples=cases(30, 360), deadline=None)
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
@example([(5e-324, 0.8, 3.0, 0, 0, 0)], 600.0)
@example([(5e-324, 0.8, 3.0, 0, 0, 4)], 600.0)
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


def test_a_keyword_that_points_to_no_offer_is_refused():
    with pytest.raises(BadValueError, match="offer"):
        run_plan(brief(), replace(random_table(1, 3), offer=np.array([0, 1, 0])))


def test_a_platform_that_may_raise_bids_leaves_less_room():
    plain, raising = (
        run_plan(brief(a), random_table(1, 3)) for a in ({}, {"platform_raise": 0.25})
    )
    assert raising.standing.ceiling == pytest.approx(plain.standing.ceiling / 1.25)


@pytest.mark.parametrize("n", [1, 50])
def test_equal_prices_and_a_purse_of_one_still_plan(n):
    sheet = table([100.0] * n, [2.0] * n, [2.0] * n)
    result = run_plan(brief(monthly_spend=1.0), sheet)
    assert result.totals.spend <= 1.0 and np.isfinite(result.fit.bound)


def test_a_spread_at_its_least_and_a_bid_far_below_the_market_are_no_trouble():
    sheet = table([100.0, 100.0], [900.0, 1.0], [900.0, 1.0], locked_bid=np.array([0.05, NAN]))
    result = run_plan(brief(monthly_spend=50.0), sheet)
    assert result.expected.reach[0] == 0.0 and result.expected.cpc[0] <= 0.05
    assert np.isfinite(result.totals.spend)


@pytest.mark.parametrize(
    ("column", "value", "expected"),
    [
        ("cpc_low", float("inf"), "0 or more"),
        ("volume_high", -5.0, "0 or more"),
        ("cpc_low", 900.0, "at most cpc_high"),
        ("volume_low", 1e9, "at most volume_high"),
        ("rate", 1.5, "0 to 1"),
        ("intent", 17, "0 to 5"),
    ],
)
def test_a_figure_out_of_its_range_is_refused_with_row_column_expected_and_got(
    column, value, expected
):
    sheet = random_table(1, 3)
    values = getattr(sheet, column).copy()
    values[1] = value
    with pytest.raises(BadValueError, match=f"row 2.*{column}: expected .*{expected}") as refused:
        run_plan(brief(), replace(sheet, **{column: values}))
    assert refused.value.got == value
