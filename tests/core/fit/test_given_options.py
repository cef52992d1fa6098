import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import Bounds, LinearConstraint, milp

from milkwort.core.errors import BadValueError
from milkwort.core.fit.given_options import fit_options


def best_by_solver(owner, spend, value, purse):
    rows = [LinearConstraint(spend, ub=purse)]
    rows += [LinearConstraint((owner == o).astype(float), ub=1) for o in np.unique(owner)]
    found = milp(-value, constraints=rows, integrality=np.ones(len(owner)), bounds=Bounds(0, 1),
                 options={"mip_rel_gap": 1e-9})  # fmt: skip
    return -found.fun


@given(st.integers(0, 10_000))
def test_it_is_as_good_as_the_exact_solver_within_its_stated_bound(seed: int):
    rng = np.random.default_rng(seed)
    n, many = int(rng.integers(1, 12)), int(rng.integers(1, 7))
    owner = np.repeat(np.arange(n), many)
    bid = np.tile(np.arange(1, many + 1) / 10, n)
    spend = np.cumsum(rng.gamma(1, 2, (n, many)), axis=1).ravel()
    value = rng.normal(2, 4, n * many)
    clicks = spend * 2
    purse = float(rng.uniform(0, spend.sum()))
    found = fit_options(owner, bid, clicks, spend, value, purse)
    best = best_by_solver(owner, spend, value, purse)
    assert found.value <= best + 1e-6
    assert found.bound >= best - 1e-6
    assert found.value >= best * (1 - 2e-3) - 1e-9
    assert found.spend <= purse + 1e-9
    assert len(set(owner[found.chosen].tolist())) == len(found.chosen)
    assert found.value == pytest.approx(value[found.chosen].sum())


def test_nothing_worth_anything_is_nothing_taken():
    nothing = np.zeros(3)
    found = fit_options(np.arange(3), np.ones(3), nothing, np.ones(3), nothing - 1, 10.0)
    assert (len(found.chosen), found.value, found.bound) == (0, 0.0, 0.0)
    none = fit_options(np.arange(0), *(np.zeros(0) for _ in range(4)), purse=5.0)
    assert none.value == 0


def test_what_is_no_table_is_refused():
    one = np.ones(1)
    for bad in ({"spend": -one}, {"value": np.array([np.nan])}, {"clicks": np.ones(2)},
                {"purse": -1.0}, {"purse": np.inf}):  # fmt: skip
        given_ = {"owner": np.zeros(1, dtype=np.int64), "bid": one, "clicks": one, "spend": one,
                  "value": one, "purse": 1.0}  # fmt: skip
        with pytest.raises(BadValueError):
            fit_options(**given_ | bad)
