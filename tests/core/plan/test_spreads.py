"""How unsure a month is: as assumed, or as results left it."""

from dataclasses import replace

import numpy as np
import pytest
from scipy.stats import beta

from milkwort.core.brief.taught import Taught
from milkwort.core.brief.worth import Conversion
from milkwort.core.errors import BadValueError
from milkwort.core.market.keyword_table import TAUGHT
from milkwort.core.plan._quantiles import beta_at
from milkwort.core.plan.draws import draw_month
from milkwort.core.plan.run import PlanResult, run_plan
from milkwort.core.plan.spreads import spreads_of
from tests.samples import brief, offer, table

N = 2000
SURE = offer(conversion=Conversion(0.03, 0.03, 0.03))
STILL = {"draw_intent": 0.0, "month_searches": 0.0, "month_price": 0.0, "draw_click_price": 0.0}


def a_plan(taught: Taught | None, left: dict[str, float], groups=(0, 0), **own) -> PlanResult:
    told = STILL | own
    made = run_plan(
        brief(told, offer=SURE, monthly_spend=1e9), table([4e5] * 2, [1.0] * 2, [2.0] * 2)
    )
    rows = np.tile([left.get(name, np.nan) for name in TAUGHT], (2, 1))
    placed = replace(made.table, taught=rows, group=np.array(groups))
    return run_plan(replace(made.brief, taught=taught), placed)


def known(**left: float) -> dict[str, float]:
    return dict.fromkeys(TAUGHT, 0.0) | {"clicks": 1e9} | left


def log_spread(values) -> float:
    return float(np.log(values).std())


def test_without_results_nothing_of_groups_or_own_prices_is_drawn():
    spreads = spreads_of(a_plan(None, {}))
    assert spreads.group is None
    assert spreads.own.price.tolist() == [0.0, 0.0]
    assert float(spreads.plan.searches) == 0.10


def test_a_plan_that_is_known_is_drawn_as_it_is_expected():
    plan = a_plan(Taught(0.0, 0.0, 0.0), known())
    drawn = draw_month(plan, N)
    assert drawn.figures["clicks"].mean() == pytest.approx(plan.totals.clicks, rel=0.002)
    assert log_spread(drawn.figures["clicks"]) < 0.02  # what counts vary by chance
    assert log_spread(drawn.customers) < 0.05


@pytest.mark.parametrize("name", ["searches", "click_rate"])
def test_each_spread_moves_what_it_is_of(name: str):
    shared = draw_month(a_plan(replace(Taught(0, 0, 0), **{name: 0.3}), known()), N)
    assert log_spread(shared.figures["clicks"]) == pytest.approx(0.3, rel=0.08)
    of_group = draw_month(a_plan(Taught(0, 0, 0), known(**{f"group_{name}": 0.3})), N)
    assert log_spread(of_group.figures["clicks"]) == pytest.approx(0.3, rel=0.08)
    # two groups, or two keywords, even each other out
    apart = draw_month(a_plan(Taught(0, 0, 0), known(**{f"group_{name}": 0.3}), (0, 1)), N)
    own = draw_month(a_plan(Taught(0, 0, 0), known(**{name: 0.3})), N)
    for drawn in (apart, own):
        assert log_spread(drawn.figures["clicks"]) == pytest.approx(0.3 / np.sqrt(2), rel=0.12)


def test_prices_move_with_the_plan_the_group_and_by_themselves():
    still = draw_month(a_plan(Taught(0, 0, 0), known()), N)
    for taught, left in ((Taught(0, 0, 0.3), known()), (Taught(0, 0, 0), known(group_price=0.3)),
                         (Taught(0, 0, 0), known(price=0.3))):  # fmt: skip
        moved = draw_month(a_plan(taught, left), N)
        assert moved.spend.std() > 5 * still.spend.std()


def test_a_month_keeps_a_noise_of_its_own_however_much_is_known():
    plan = a_plan(Taught(0.0, 0.0, 0.0), known(), month_searches=0.10)
    assert log_spread(draw_month(plan, N).figures["clicks"]) == pytest.approx(0.10, rel=0.1)


def test_a_rate_is_as_sure_as_the_clicks_it_rests_on():
    few, many = (draw_month(a_plan(Taught(0, 0, 0), known(clicks=n)), N) for n in (0.0, 540.0))
    # Beta of weight 60 or 600, two keywords: √((1 − m)/(m·(w + 1)))/√2
    for drawn, weight in ((few, 60), (many, 600)):
        wide = np.sqrt(0.97 / (0.03 * (weight + 1))) / np.sqrt(2)
        assert drawn.customers.std() / drawn.customers.mean() == pytest.approx(wide, rel=0.1)


def test_quantiles_of_a_rate_are_those_of_its_beta_at_any_weight():
    u, mean = np.array([[0.1, 0.5, 0.9]]), np.full((1, 3), 0.04)
    for more in (25.0, 300.0, 4000.0):
        exact = beta.ppf(u, (60 + more) * 0.04, (60 + more) * 0.96)
        assert beta_at(u, mean, 60.0, np.full(3, more)) == pytest.approx(exact, rel=0.03)


def test_keywords_without_results_are_as_unsure_as_corrections_take_them_to_be():
    spreads = spreads_of(a_plan(Taught(0.05, 0.05, 0.05), {}, (0, -1)))
    assert spreads.own.price.tolist() == [0.15, 0.15]
    assert spreads.group is not None
    assert spreads.group.searches.tolist() == [0.15, 0.0]  # without a group, none


@pytest.mark.parametrize("bad", [(-0.1, 0, 0), (0, 0, float("nan")), (0, 0, 0, 0.0)])
def test_spreads_that_are_none_are_refused(bad):
    with pytest.raises(BadValueError, match="taught"):
        Taught(*bad)
