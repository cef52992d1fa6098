import numpy as np
import pytest

from milkwort.standins.market.levels import LEVELS
from milkwort.standins.market.luck import counts, keys_of, mixed, normal, uniform
from milkwort.standins.market.prices import mean_price_below, price_of, reach_of, shifts
from milkwort.standins.market.terms import around
from milkwort.standins.market.world import draw_world, world_from_bytes, world_to_bytes
from tests.standins.market.worlds import CERTAIN, DAY, known, kw

MANY = [kw(f"word{i} thing{i % 7} repair", 200.0 + i) for i in range(400)]


@pytest.mark.parametrize("level", list(LEVELS))
def test_a_world_is_the_same_for_the_same_seed_and_kept_whole(level: str):
    first, again = (draw_world(known(*MANY), LEVELS[level], 5) for _ in range(2))
    other = draw_world(known(*MANY), LEVELS[level], 6)
    assert world_to_bytes(first) == world_to_bytes(again) == world_to_bytes(
        world_from_bytes(world_to_bytes(first))
    )  # fmt: skip
    assert not np.array_equal(first.searches[:400], other.searches[:400])


@pytest.mark.parametrize("level", list(LEVELS))
def test_a_texts_truth_does_not_hang_on_its_neighbours_place(level: str):
    forth = draw_world(known(*MANY), LEVELS[level], 5)
    back = draw_world(known(*MANY[::-1]), LEVELS[level], 5)
    assert np.array_equal(forth.rate[:400], back.rate[:400][::-1])
    assert np.array_equal(forth.mu[:400], back.mu[:400][::-1])


def test_own_factors_have_mean_one_and_the_spread_of_the_level():
    told = [kw(f"only{i}", 1000.0, searches_low=316.0, searches_high=3162.0) for i in range(4000)]
    found = draw_world(known(*told), LEVELS["as-planned"], 1)
    factor = found.searches[:4000] / 1000.0
    common = np.exp(0.10 * float(normal(mixed(1, "world", "searches"))[0]))
    assert factor.mean() / common == pytest.approx(1.0, abs=0.07)
    # an 80 % interval of that range: s = ln(10)/2.5631
    assert np.log(factor).std() == pytest.approx(np.log(3162 / 316) / 2.5631, rel=0.05)


def test_what_surprises_grows_from_level_to_level():
    spreads = [np.log(draw_world(known(*MANY), LEVELS[level], 3).searches[:400] / np.array(
        [k.searches for k in MANY])).std() for level in LEVELS]  # fmt: skip
    assert spreads == sorted(spreads)
    dead = draw_world(known(*MANY), LEVELS["rough"], 3).searches[:400] < 30
    assert 0.05 < dead.mean() < 0.2


def test_unknown_searches_come_to_what_is_usual_around_a_text_less_what_is_known():
    # three words: 0.6 as a phrase, 0.9 more in any order, for each of its own
    left = around(["sash window repair"], np.array([100.0]))
    assert left[:, 0] == pytest.approx([60.0, 90.0])
    # a known longer text takes its own searches, and what is unknown around it, from that
    left = around(["sash window repair", "sash window repair eastmere"], np.array([100.0, 20.0]))
    assert left[0, 0] == pytest.approx(60 - 20 - 0.6 * 0.6 * 20)


def test_a_third_to_a_half_of_the_unknown_searches_are_of_no_use():
    found = draw_world(known(*MANY), LEVELS["usual"], 2)
    unknown, size = found.useful[found.n_known :], found.searches[found.n_known :]
    useless = size[~unknown].sum() / size.sum()
    assert 1 / 4 < useless < 1 / 2
    assert len(set(found.texts)) == len(found.texts)


def test_prices_have_the_quartiles_they_are_told_in_both_shapes():
    for logistic in (False, True):
        some = price_of(np.array([0.25, 0.5, 0.75]), 0.0, 0.5, logistic=logistic)  # type: ignore[arg-type]
        assert np.log(some) == pytest.approx([-0.3372449, 0, 0.3372449])
        chance = uniform(keys_of([str(i) for i in range(40_000)]))
        prices = price_of(chance, np.array(0.3), np.array(0.6), logistic=logistic)
        bid = np.array([1.8])
        won = prices[prices <= 1.8]
        mu, sigma = np.array([0.3]), np.array([0.6])
        reach = reach_of(bid, mu, sigma, logistic=logistic)[0]
        assert len(won) / 40_000 == pytest.approx(reach, abs=0.01)
        paid = mean_price_below(bid, mu, sigma, logistic=logistic)[0]
        assert won.mean() == pytest.approx(paid, rel=0.01)


def test_counts_follow_poisson_and_scatter_more_where_days_do():
    keys = keys_of([str(i) for i in range(20_000)])
    mean = np.full(20_000, 7.0)
    plain, wide = counts(mean, keys, None), counts(mean, keys, 6.0)
    assert plain.mean() == pytest.approx(7, abs=0.06)
    assert plain.var() == pytest.approx(7, abs=0.3)
    assert wide.mean() == pytest.approx(7, abs=0.12)
    assert wide.var() == pytest.approx(7 + 49 / 6, rel=0.07)
    assert counts(np.zeros(3), keys[:3], None).tolist() == [0, 0, 0]


def test_rivals_come_for_weeks_and_go_again():
    world = draw_world(known(*MANY), LEVELS["rough"], 4)
    seen = np.array([shifts(world, LEVELS["rough"], day) for day in range(DAY, DAY + 730)])
    assert (np.abs(seen) > 0).mean() == pytest.approx(5 * 35 / 365, rel=0.35)
    assert np.abs(seen).max() <= 1.0
    assert not shifts(world, CERTAIN, DAY).any()
