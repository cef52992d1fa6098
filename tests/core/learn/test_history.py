"""What was changed from month to month, and what came of it."""

import numpy as np
import pytest

from milkwort.core.errors import BadValueError
from milkwort.core.learn.history import RanMonth, Sums, what_changed

NONE = np.nan


def month(bids, clicks, days=30) -> RanMonth:
    clicks = np.array(clicks, dtype=float)
    return RanMonth(days, np.array(bids, dtype=float), clicks, clicks * 1.5, clicks / 20)


def test_each_kind_of_change_has_its_keywords_before_and_after():
    before = month([1.0, 2.0, 3.0, NONE, 4.0], [20, 40, 60, 0, 80])
    after = month([1.5, 1.0, NONE, 2.0, 4.0], [30, 10, 0, 5, 70])
    found = {one.change: one for one in what_changed(before, after)}
    assert {name: one.keywords for name, one in found.items()} == dict.fromkeys(
        ["raised", "lowered", "stopped", "added", "same"], 1
    )
    assert (found["raised"].before, found["raised"].after) == (
        Sums(20, 30, 1), Sums(30, 45, 1.5))  # fmt: skip
    assert found["stopped"].after == Sums(0, 0, 0)
    assert found["added"].before.clicks == 0 and found["added"].after.clicks == 5
    assert (found["same"].before.clicks, found["same"].after.clicks) == (80, 70)


def test_months_of_unlike_length_compare():
    (same,) = what_changed(month([1.0], [30], days=30), month([1.0], [10], days=10))
    assert same.before == same.after


def test_what_did_not_happen_is_not_said_and_nothing_is_counted_twice():
    rng = np.random.default_rng(4)
    bids = [np.where(rng.random(200) < 0.3, NONE, rng.choice([1.0, 1.5, 2.0], 200)) for _ in "ab"]
    clicks = [rng.integers(0, 50, 200) for _ in "ab"]
    found = what_changed(*(month(b, c) for b, c in zip(bids, clicks, strict=True)))
    ran = np.isfinite(bids[0]) | np.isfinite(bids[1])
    assert sum(one.keywords for one in found) == ran.sum()
    assert sum(one.after.clicks for one in found) == clicks[1][ran].sum()
    assert what_changed(month([NONE], [0]), month([NONE], [0])) == ()


def test_what_cannot_be_compared_is_refused():
    with pytest.raises(BadValueError, match="same keywords"):
        what_changed(month([1.0], [1]), month([1.0, 2.0], [1, 2]))
    with pytest.raises(BadValueError, match="days"):
        what_changed(month([1.0], [1], days=0), month([1.0], [1]))
