"""The frontier: the most of the goal for every sum of money, held against the fit itself."""

from dataclasses import replace

import numpy as np
import pytest

from milkwort.core.brief.limits import Limits, SpendLimit
from milkwort.core.plan.run import frontier_of, run_plan
from tests.samples import brief, random_table


def ways():
    """Few steps, many, a cap on keywords, campaigns with limits, money set aside to scout."""
    few, many = random_table(3, 2), random_table(4, 40)
    halves = np.arange(40) % 2
    apart = replace(many, campaign=halves)
    yield "few steps", few, Limits()
    yield "many steps", many, Limits()
    yield "at most five", many, Limits(max_keywords=5)
    yield "a campaign's most", apart, Limits(campaigns={0: SpendLimit(0.0, 40.0)})
    yield "scouting", apart, Limits(scouting=1, scouting_share=0.2)


WAYS = list(ways())
IDS = [name for name, _, _ in WAYS]


@pytest.fixture(params=[(rows, limits) for _, rows, limits in WAYS], ids=IDS)
def planned(request):
    rows, limits = request.param
    return run_plan(brief(limits=limits, monthly_spend=150.0), rows)


def value_at(planned, purse):
    again = run_plan(replace(planned.brief, monthly_spend=float(purse)), planned.table)
    return again.fit.value, again.fit.spend


def test_money_rises_and_never_brings_less(planned):
    curve = frontier_of(planned)
    assert len(curve.purse) >= 40
    assert (np.diff(curve.purse) >= 0).all() and (np.diff(curve.value) >= 0).all()
    assert (curve.spend <= curve.purse + 1e-9).all()


def test_each_point_brings_what_a_fit_for_that_sum_brings(planned):
    curve = frontier_of(planned)
    for at in range(0, len(curve.purse), max(1, len(curve.purse) // 9)):
        best, _ = value_at(planned, curve.purse[at])
        bound = curve.value[at] / (1 - curve.gap[at]) if curve.gap[at] < 1 else np.inf
        assert curve.value[at] <= best * (1 + 2e-3) + 1e-9
        assert best <= bound * (1 + 1e-6) + 1e-9 or best <= curve.value[at] * (1 + 2e-3) + 1e-9


def test_the_plans_own_sum_is_on_the_curve(planned):
    curve = frontier_of(planned)
    reached = curve.value[curve.purse <= 150.0 + 1e-9].max(initial=0.0)
    assert reached <= planned.fit.value * (1 + 1e-9)
    beyond = curve.value[curve.purse >= 150.0 - 1e-9]
    assert planned.fit.value <= (beyond.min() if len(beyond) else reached) * (1 + 2e-3)


def test_the_last_point_is_saturation(planned):
    curve = frontier_of(planned)
    most, _ = value_at(planned, 1e7)
    assert curve.value[-1] == pytest.approx(most, rel=2e-3)


def test_points_stand_closer_where_money_is_scarce(planned):
    curve = frontier_of(planned)
    gaps = np.diff(curve.purse)
    half = len(gaps) // 2
    assert gaps[:half].sum() <= gaps[half:].sum() * (1 + 1e-9)


def test_where_nothing_can_run_there_is_nothing_to_show():
    rows = replace(random_table(3, 4), cpc_low=np.full(4, 900.0), cpc_high=np.full(4, 990.0))
    curve = frontier_of(run_plan(brief(monthly_spend=100.0), rows))
    assert curve.value.max(initial=0.0) == 0 and curve.gap.max(initial=0.0) == 0
