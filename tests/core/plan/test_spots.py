"""Places to be shown without a keyword, beside keywords in one fit."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.optimize import Bounds, LinearConstraint, milp

from milkwort.core.brief.limits import Limits, SpendLimit
from milkwort.core.brief.spots import Spot
from milkwort.core.brief.worth import CeilingRule
from milkwort.core.errors import BadValueError
from milkwort.core.fit.options import options_of
from milkwort.core.plan.budgets import daily_budgets
from milkwort.core.plan.run import attention_of, frontier_of, run_plan
from milkwort.core.plan.year import year_ahead
from tests.depth import cases
from tests.samples import brief, offer, random_table, table

PAGE = Spot("Town page", "showings", 8.0, showings=20_000, click_rate=0.01, campaign=1)
PARTNER = Spot("Partner", "click", 0.5, clicks=100, sells=0.6, campaign=0)


def exact_best(result, steps=24):
    """Return the best goal an exact solver finds, spots given by their own equations."""
    p, plan, n = result.problem, result.brief, len(result.table)
    found = options_of(np.arange(n), p.mu, p.sigma, p.click_weight, p.ceiling, p.pricing, p.assumed)
    owner, spend = found.owner.tolist(), found.spend.tolist()
    goal = p.value(found.owner, found.clicks, found.spend).tolist()
    campaign = p.campaign[found.owner].tolist()
    for at, spot in enumerate(plan.spots):
        price = spot.price / 1000 / spot.click_rate if spot.pays == "showings" else spot.price
        clicks = spot.showings * spot.click_rate if spot.pays == "showings" else spot.clicks
        usual = {"showings": 0.4, "click": 1.0}[spot.pays]
        rate = plan.offer.rate.likely * (usual if spot.sells is None else spot.sells)
        if price > min(plan.worth.allowed * rate, plan.ceiling.max_cpc):
            continue
        for k in range(1, steps + 1):
            owner.append(n + at)
            spend.append(k / steps * clicks * price)
            goal.append(k / steps * clicks * rate)
            campaign.append(spot.campaign)
    owner, spend, goal = np.array(owner), np.array(spend), np.array(goal)
    campaign, limits = np.array(campaign), plan.limits
    rows = [(spend, -np.inf, plan.monthly_spend)]
    if limits.max_keywords is not None:
        rows.append(((owner < n) * 1.0, -np.inf, limits.max_keywords))
    rows += [(spend * (campaign == c), m.least, m.most) for c, m in limits.campaigns.items()]
    each = [((owner == i) * 1.0, -np.inf, 1.0) for i in np.unique(owner)]
    matrix, low, high = (np.array(part) for part in zip(*rows, *each, strict=True))
    solved = milp(-goal, integrality=np.ones(len(goal)), bounds=Bounds(0, 1),
                  constraints=LinearConstraint(matrix, low, high),
                  options={"mip_rel_gap": 1e-6})  # fmt: skip
    return -solved.fun


SPOTS = st.lists(
    st.builds(
        Spot, name=st.sampled_from(["a", "b"]), pays=st.just("showings"),
        price=st.floats(0.5, 40), showings=st.floats(0, 50_000), click_rate=st.floats(0.002, 0.05),
        campaign=st.integers(0, 1),
    )
    | st.builds(
        Spot, name=st.just("c"), pays=st.just("click"), price=st.floats(0.05, 3),
        clicks=st.floats(0, 200), sells=st.none() | st.floats(0, 2), campaign=st.integers(0, 1),
    ),
    min_size=1, max_size=3,
)  # fmt: skip
LIMITS = st.sampled_from(
    [
        Limits(),
        Limits(max_keywords=3),
        Limits(campaigns={1: SpendLimit(0.0, 25.0)}),
        Limits(max_keywords=2, campaigns={0: SpendLimit(0.0, 60.0)}),
    ]
)


@settings(max_examples=cases(20, 300), deadline=None)
@given(spots=SPOTS, limits=LIMITS, seed=st.integers(0, 1000), purse=st.floats(5, 400))
def test_spots_and_keywords_are_chosen_as_well_as_the_exact_solver_does(spots, limits, seed, purse):
    rows = random_table(seed, 12)
    rows = replace(rows, campaign=np.random.default_rng(seed).integers(0, 2, 12))
    # only the planner's own price limits the bids, as it does for the solver
    own_price = CeilingRule("break_even", max_cpc=2.5)
    plan = brief(monthly_spend=purse, limits=limits, offer=offer(sale_value=1e6))
    plan = replace(plan, spots=tuple(spots), ceiling=own_price)
    result = run_plan(plan, rows)
    best = exact_best(result)
    assert result.value >= best * (1 - 0.002) - 1e-9
    assert result.bound >= best * (1 - 1e-6)
    assert result.totals.spend <= purse * (1 + 1e-9)
    assert np.isfinite(result.bid).sum() <= (limits.max_keywords or 12)
    spent = result.expected.spend
    for number, limit in limits.campaigns.items():
        of_spots = result.spots.spend[[s.campaign == number for s in spots]].sum()
        assert spent[rows.campaign == number].sum() + of_spots <= limit.most * (1 + 1e-9)


ROUND = st.lists(
    st.builds(
        Spot, name=st.just("a"), pays=st.just("click"),
        price=st.sampled_from([0.1, 0.25, 0.3, 0.5, 1.2, 2.0]),
        clicks=st.sampled_from([10, 24, 48, 100, 240, 480, 500]),
        sells=st.sampled_from([0.4, 0.7, 1.0]), campaign=st.integers(0, 1),
    ),
    min_size=1, max_size=3,
)  # fmt: skip
ROUND_LIMITS = st.sampled_from([{}, {0: (0, 10)}, {0: (0, 25), 1: (0, 100)}, {1: (10, 10)},
                                {0: (20, np.inf), 1: (10, 25)}])  # fmt: skip


def best_of_all(spots, purse, limits):
    """Return the most customers of all choices of steps, none left out; None where none fits."""
    steps = np.meshgrid(*[np.arange(25)] * len(spots), indexing="ij")
    spend = [s.clicks * s.price / 24 * taken for s, taken in zip(spots, steps, strict=True)]
    fits = sum(spend) <= purse * (1 + 1e-9)
    for number, (least, most) in limits.items():
        there = sum((m for s, m in zip(spots, spend, strict=True) if s.campaign == number), 0.0)
        fits &= (there >= least * (1 - 1e-9)) & (there <= most * (1 + 1e-9))
    goal = sum(s.clicks / 24 * t * s.sells * 0.03 for s, t in zip(spots, steps, strict=True))
    return float(goal[fits].max()) if fits.any() else None


@settings(max_examples=cases(60, 2000), deadline=None)
@given(spots=ROUND, limits=ROUND_LIMITS, purse=st.sampled_from([24, 50, 100, 120, 200, 600]))
def test_round_sums_fill_a_round_purse_to_the_penny(spots, limits, purse):
    """However they are added up: a step that just fits is never left out for a rounding."""
    best = best_of_all(spots, purse, limits)
    assume(best is not None)
    plan = brief(
        monthly_spend=float(purse), offer=offer(sale_value=1e6), spots=tuple(spots),
        limits=Limits(campaigns={c: SpendLimit(*ends) for c, ends in limits.items()}),
    )  # fmt: skip
    result = run_plan(plan, table([], [], [], campaign=np.zeros(0, dtype=np.int64)))
    assert result.fit.unmet == ()
    assert result.totals.spend <= purse * (1 + 1e-9)
    assert best * (1 - 0.002) - 1e-9 <= result.value <= best + 1e-9
    assert result.bound >= best - 1e-9


def test_a_spot_brings_what_its_equations_say():
    # c 8 a thousand, t 0.01: 0.80 a click; r 0.03, q 0.4: 0.012 customers a click
    plan = brief(monthly_spend=1e6, spots=(PAGE, PARTNER))
    result = run_plan(plan, table([], [], [], campaign=np.zeros(0, dtype=np.int64)))
    page, partner = 0, 1
    assert result.spots.showings[page] == pytest.approx(20_000)
    assert result.spots.spend[page] == pytest.approx(160)
    assert result.spots.clicks[page] == pytest.approx(200)
    assert result.spots.customers[page] == pytest.approx(2.4)
    assert result.spots.revenue[page] == pytest.approx(2.4 * 340 * 1.2)
    assert result.spots.customers[partner] == pytest.approx(100 * 0.03 * 0.6)
    assert result.totals.spend == pytest.approx(160 + 50)
    assert result.totals.customers == pytest.approx(2.4 + 1.8)


def test_a_spot_dearer_than_its_clicks_are_worth_is_not_taken():
    # A 157.08, r·q 0.012: a click is worth 1.88496
    just = replace(PAGE, price=18.8)
    dear = replace(PAGE, price=18.9)
    result = run_plan(brief(monthly_spend=1e6, spots=(just, dear)), random_table(1, 3))
    assert result.spots.steps.tolist() == [24, 0]


def test_a_spot_is_not_counted_among_keywords_and_has_its_campaigns_budget():
    rows = replace(random_table(4, 8), campaign=np.zeros(8, dtype=np.int64))
    plan = brief(monthly_spend=250.0, limits=Limits(max_keywords=1), spots=(PAGE, PARTNER))
    result = run_plan(plan, rows)
    assert np.isfinite(result.bid).sum() == 1 and result.spots.steps.min() > 0
    budgets = daily_budgets(result)
    assert budgets.campaign.tolist() == [0, 1]
    assert budgets.spend.sum() == pytest.approx(result.totals.spend)
    assert budgets.daily.sum() * 365 / 12 <= 250.0 + 1e-9


def test_curves_and_the_year_count_spots_too():
    plan = brief(monthly_spend=150.0, spots=(PAGE, PARTNER))
    result = run_plan(plan, random_table(7, 30))
    curve = frontier_of(result)
    assert curve.value[-1] >= result.value and (np.diff(curve.value) >= -1e-12).all()
    assert attention_of(result)[-1].value == pytest.approx(result.value)
    year = year_ahead(result, 1, refit=True)
    assert (year.spend <= 150.0 + 1e-9).all() and (year.customers > 0).all()


def test_under_a_method_keywords_and_spots_are_paced_together():
    plan = brief(monthly_spend=60.0, spots=(replace(PARTNER, clicks=40),))
    fitted = run_plan(plan, random_table(3, 20))
    flat = run_plan(
        replace(plan, policy=replace(plan.policy, name="flat", flat_bid=3.0)), random_table(3, 20)
    )
    assert fitted.spots.steps[0] > 0
    assert flat.totals.spend == pytest.approx(60.0)
    assert flat.spots.spend[0] == pytest.approx(
        flat.expected.pace * 40 * 0.5 * flat.spots.steps[0] / 24
    )


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({"name": " "}, "spot name"),
        ({"pays": "view"}, "showings or click"),
        ({"price": 0.0}, "price"),
        ({"showings": -1.0}, "showings"),
        ({"click_rate": 0.0}, "click_rate"),
        ({"click_rate": 1.5}, "click_rate"),
        ({"sells": float("nan")}, "sells"),
    ],
)
def test_a_spot_that_can_not_be_is_refused(changes, says):
    with pytest.raises(BadValueError, match=says):
        replace(PAGE, **changes)


def test_a_spot_of_no_offer_is_refused():
    with pytest.raises(BadValueError, match="offer of the brief"):
        brief(spots=(replace(PAGE, offer=3),))


def test_the_planners_own_highest_price_holds_for_spots_too():
    plan = brief(ceiling=CeilingRule("profit_share", 0.3, max_cpc=0.6), spots=(PAGE, PARTNER),
                 monthly_spend=1e6, offer=offer())  # fmt: skip
    assert run_plan(plan, random_table(1, 3)).spots.steps.tolist() == [0, 24]


@pytest.mark.parametrize(
    "spot",
    [{"pays": "showings", "price": 8.0, "showings": 1e5, "click_rate": 5e-324},
     {"pays": "click", "price": 5e-324, "clicks": 10.0}],
    ids=["beyond counting", "next to nothing"],
)  # fmt: skip
def test_a_spot_whose_clicks_cost_no_price_that_can_be_told_is_refused(spot):
    with pytest.raises(BadValueError, match="price"):
        Spot("Front page", **spot)
