from dataclasses import replace
from datetime import date

import numpy as np
import pytest
from scipy import stats

from milkwort.core.brief.limits import Limits, SpendLimit
from milkwort.core.errors import BadValueError
from milkwort.core.plan.budgets import best_partners, clicks_lost, daily_budgets
from milkwort.core.plan.calendar import months_from
from milkwort.core.plan.run import run_plan
from milkwort.core.plan.year import YearAhead, season_of, year_ahead
from tests.samples import brief, random_table

SEASON = tuple(float(m) for m in (2, 1, 1, 1, 1, 1, 1, 1, 3, 4, 4, 4))


def plan(**changes):
    return run_plan(brief(**({"monthly_spend": 60.0, "season": SEASON} | changes)),
                    random_table(31, 80))  # fmt: skip


def test_a_keywords_own_months_stand_above_the_plans_season():
    rows = random_table(31, 2)
    months = np.full((2, 12), np.nan)
    months[0] = np.arange(12.0)
    result = run_plan(brief(season=SEASON), replace(rows, months=months))
    index = season_of(result)
    assert index.mean(axis=1) == pytest.approx([1.0, 1.0])
    assert index[0, 11] == pytest.approx(2.0) and index[1, 8] == pytest.approx(1.5)


def test_a_flat_year_of_mean_months_is_twelve_times_the_month():
    result = run_plan(brief(monthly_spend=1e6), random_table(31, 40))
    year = year_ahead(result, 1)
    assert year.clicks.sum() == pytest.approx(12 * result.totals.clicks)
    assert year.days.sum() == 365 and year.month.tolist() == list(range(1, 13))


@pytest.mark.parametrize("purse", ["flat", "season"])
@pytest.mark.parametrize("refit", [False, True])
def test_the_year_keeps_to_its_money_and_months(purse, refit):
    result = plan()
    year = year_ahead(result, 9, purse=purse, refit=refit)
    assert year.purse.sum() == pytest.approx(12 * 60.0)
    assert (year.spend <= year.purse + 1e-9).all()
    assert year.month[0] == 9
    profit = year.customers * result.brief.worth.contribution - year.spend
    assert year.profit == pytest.approx(profit)


def test_bids_fitted_anew_bring_at_least_what_standing_bids_bring():
    kept, anew = (year_ahead(plan(), 1, refit=refit) for refit in (False, True))
    assert (anew.customers >= kept.customers * (1 - 1e-12)).all()
    assert anew.customers.sum() > kept.customers.sum()


def test_bids_fitted_anew_keep_the_limits_of_every_month():
    rows = replace(random_table(31, 40), campaign=np.arange(40) % 2)
    limits = Limits(min_clicks=2.0, campaigns={0: SpendLimit(most=20.0)})
    result = run_plan(brief(monthly_spend=200.0, season=SEASON, limits=limits), rows)
    ahead = YearAhead(result, months_from(date(2027, 1, 16)), refit=True)
    for number in range(12):
        month, part = ahead.month(number), float(ahead.part[number])
        assert month.expected.spend[rows.campaign == 0].sum() <= 20.0 * part + 1e-9
        runs = np.isfinite(month.bid)
        assert runs.any() and month.expected.clicks[runs].min() >= 2.0 * part * (1 - 1e-9)
    assert ahead.part[0] < 1 == ahead.part[1]


def test_a_new_fit_of_few_keywords_never_does_worse_than_the_kept_bids_paced():
    for seed in range(25):
        result = run_plan(brief(monthly_spend=3.0, season=SEASON), random_table(seed, 2))
        kept, anew = (year_ahead(result, 1, refit=refit) for refit in (False, True))
        assert (anew.customers >= kept.customers * (1 - 1e-12)).all()


def test_a_month_that_is_none_is_refused():
    with pytest.raises(BadValueError, match="start month"):
        year_ahead(plan(), 13)


def test_daily_budgets_are_whole_cents_within_the_purse():
    rows = replace(random_table(31, 80), campaign=np.arange(80) % 3)
    limits = Limits(campaigns={0: SpendLimit(0.0, 10.0)})
    result = run_plan(brief(monthly_spend=60.0, limits=limits), rows)
    found = daily_budgets(result)
    days = result.brief.assumed["month_days"]
    assert found.daily.sum() * days <= 60.0 + 1e-9
    share = 60.0 / days * found.spend / found.spend.sum()
    assert (found.daily <= np.ceil(share * 100) / 100 + 0.02).all()
    capped = found.campaign.tolist().index(0)
    assert found.daily[capped] * days <= 10.0
    assert np.allclose(found.daily * 100, np.round(found.daily * 100))
    assert found.gain_of_sharing > 0


def test_daily_budgets_share_out_the_purse_also_where_less_is_expected_to_be_spent():
    rows = replace(random_table(31, 80), campaign=np.arange(80) % 3)
    result = run_plan(brief(monthly_spend=1e4), rows)
    found, days = daily_budgets(result), result.brief.assumed["month_days"]
    assert result.totals.spend < 9e3
    assert found.daily.sum() == pytest.approx(np.floor(1e4 / days * 100) / 100)
    ratio = found.daily / found.spend
    assert ratio == pytest.approx(np.full(3, ratio[0]), rel=1e-2)


@pytest.mark.parametrize(("wanted", "affordable"), [(0.4, 0.5), (3.0, 3.0), (20.0, 12.5), (5.0, 0)])
def test_clicks_lost_are_what_poisson_days_bring_past_the_money(wanted, affordable):
    counts = np.arange(200)
    plain = (np.maximum(counts - affordable, 0) * stats.poisson.pmf(counts, wanted)).sum()
    found = clicks_lost(np.array([wanted]), np.array([float(affordable)]))[0]
    assert found == pytest.approx(plain, abs=1e-9)


def test_two_campaigns_gain_by_sharing_just_what_one_budget_for_both_saves():
    """With two campaigns, each one's best partner is the other, and the gain is that of sharing."""
    rows = replace(random_table(31, 80), campaign=np.arange(80) % 2)
    result = run_plan(brief(monthly_spend=60.0), rows)
    found = daily_budgets(result)
    partner, gain = best_partners(found, result.brief.assumed["month_days"])
    assert partner.tolist() == [1, 0]
    assert gain == pytest.approx([found.gain_of_sharing] * 2)


def test_a_campaign_alone_shares_with_none():
    rows = replace(random_table(31, 80), campaign=np.zeros(80, dtype=np.int64))
    found = daily_budgets(run_plan(brief(monthly_spend=60.0), rows))
    partner, gain = best_partners(found, 30.0)
    assert (partner.tolist(), gain.tolist()) == ([-1], [0.0])
