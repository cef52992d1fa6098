"""The exact finish against trying everything."""

from itertools import product

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from milkwort.core.fit._exact import finish
from milkwort.core.fit._outlook import Group, Outlooks
from milkwort.core.fit.options import Options
from tests.depth import cases

GROUP = st.lists(st.tuples(st.floats(0.1, 9), st.floats(0.01, 9)), min_size=1, max_size=4)


def built(groups):
    owner = np.repeat(np.arange(len(groups)), [len(g) for g in groups])
    spend = np.array([s for g in groups for s, _ in g])
    goal = np.array([v for g in groups for _, v in g])
    return Options(owner, np.arange(len(owner)), goal, spend), goal


def best_of_all(groups, purse):
    best = 0.0
    for choice in product(*([(0.0, 0.0), *g] for g in groups)):
        if sum(s for s, _ in choice) <= purse + 1e-12:
            best = max(best, sum(v for _, v in choice))
    return best


def relaxed(groups, purse, lam):
    """The Lagrangian bound at a price of money: never under the best answer."""
    return lam * purse + sum(max(0.0, *(v - lam * s for s, v in g)) for g in groups)


@settings(max_examples=cases(30, 400), deadline=None)
@given(st.lists(GROUP, min_size=1, max_size=4), st.floats(0.05, 25), st.floats(0.01, 3))
def test_it_finds_what_trying_everything_finds(groups, purse, lam):
    options, goal = built(groups)
    chosen = np.full(len(groups), -1, dtype=np.int64)
    bound = relaxed(groups, purse, lam)
    finished = finish(options, goal, chosen, purse, lam, bound, 0.0)
    at = chosen[chosen >= 0]
    value, best = float(goal[at].sum()), best_of_all(groups, purse)
    assert options.spend[at].sum() <= purse + 1e-9
    assert (options.owner[at] == np.flatnonzero(chosen >= 0)).all()
    assert finished.exact
    assert value == pytest.approx(best, rel=1e-9, abs=1e-9)
    assert bound - value == pytest.approx(finished.short, abs=1e-6)


@settings(max_examples=cases(30, 400), deadline=None)
@given(st.lists(GROUP, min_size=1, max_size=4), st.floats(0.05, 25), st.floats(0.01, 3))
def test_an_answer_near_enough_ends_the_search(groups, purse, lam):
    options, goal = built(groups)
    chosen = np.full(len(groups), -1, dtype=np.int64)
    bound = relaxed(groups, purse, lam)
    near = bound - 0.5 * best_of_all(groups, purse)
    finished = finish(options, goal, chosen, purse, lam, bound, near)
    value = float(goal[chosen[chosen >= 0]].sum())
    assert value >= 0.5 * best_of_all(groups, purse) - 1e-9
    assert bound - value == pytest.approx(finished.short, abs=1e-6)


DEPARTURES = st.lists(st.tuples(st.integers(-900, 900), st.floats(0, 9)), min_size=1, max_size=4)


@settings(max_examples=cases(30, 400), deadline=None)
@given(st.lists(DEPARTURES, min_size=1, max_size=4), st.floats(-20, 20), st.floats(0.01, 3))
def test_what_later_keywords_cost_is_never_said_to_be_more_than_it_is(groups, left, next_return):
    outlooks = Outlooks(
        [Group(at, np.arange(len(g)), *(np.array(g) / (100, 1)).T) for at, g in enumerate(groups)],
        next_return,
    )
    for behind in range(-1, len(groups)):
        said = float(outlooks.after(behind, np.inf).least(np.array([left]))[0])
        for taken in product(*([(0.0, 0.0), *g] for g in groups[behind + 1 :])):
            rest = left - sum(s / 100 for s, _ in taken)
            if rest >= 0:
                assert said <= (sum(p for _, p in taken) + next_return * rest) * (1 + 1e-9) + 1e-9


def test_an_answer_that_cannot_be_bettered_stays():
    options, goal = built([[(1.0, 1.0)], [(1.0, 0.9)]])
    chosen = np.array([0, -1])
    finished = finish(options, goal, chosen, 1.0, 0.9, 1.0, 0.0)
    assert finished.exact and chosen.tolist() == [0, -1]
