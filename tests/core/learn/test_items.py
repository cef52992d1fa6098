"""Codes of things among the terms: what they paid, and what a spot of their own would bid."""

import numpy as np
import pytest

from milkwort.core.learn.items import advise_items
from milkwort.core.learn.terms import TermRows
from milkwort.core.plan.run import run_plan
from tests.samples import brief, table

CODE, OTHER = "b07xk2m9qt", "b0815fj3kl"


def rows(*some):
    """(text, keyword, clicks, cost, customers) of each."""
    texts, keyword, clicks, cost, customers = zip(*some, strict=True)
    columns = [np.array(column, dtype=np.float64) for column in (clicks, cost, customers)]
    return TermRows(texts, np.array(keyword), columns[0] * 20, columns[0], columns[0], columns[1],
                    columns[2])  # fmt: skip


def advised(*some, days=30, **assumptions):
    plan = run_plan(brief(assumptions), table([500.0, 200.0], [0.5] * 2, [1.5] * 2))
    return advise_items(plan, rows(*some), days)


def test_a_spot_bids_what_was_paid_and_a_tenth_in_whole_steps():
    (one,) = advised((CODE, 1, 10.0, 6.0, 1.0))
    assert (one.code, one.keyword, one.sold) == (CODE, 1, True)
    assert one.price == pytest.approx(0.66)
    # 0.594 in steps of a hundredth
    assert one.lower(one.price) == pytest.approx(0.59)
    (coarse,) = advised((CODE, 1, 10.0, 6.0, 1.0), bid_step=0.05)
    assert coarse.price == pytest.approx(0.65)


def test_no_bid_lies_under_the_least():
    (one,) = advised((CODE, 0, 10.0, 0.2, 0.0), min_bid=0.05)
    assert one.price == pytest.approx(0.05)
    assert one.lower(0.05) == pytest.approx(0.05)
    (unclicked,) = advised((CODE, 0, 0.0, 0.0, 0.0), min_bid=0.05)
    assert (unclicked.price, unclicked.clicks, unclicked.sold) == (pytest.approx(0.05), 0.0, False)


def test_clicks_are_those_of_a_mean_month():
    (one,) = advised((CODE, 0, 10.0, 6.0, 0.0), days=15)
    assert one.clicks == pytest.approx(10 * (365 / 12) / 15)


def test_a_code_is_summed_however_it_is_typed_and_belongs_to_its_dearest_row():
    (one,) = advised((CODE, 0, 4.0, 1.0, 0.0), (CODE.upper(), 1, 6.0, 5.0, 1.0))
    assert (one.keyword, one.sold) == (1, True)
    assert one.price == pytest.approx(0.66)


def test_words_are_no_codes_and_the_dearest_code_comes_first():
    found = advised(("sash window repair", 0, 90.0, 80.0, 3.0), (CODE, 0, 4.0, 1.0, 0.0),
                    (OTHER, 0, 4.0, 2.0, 0.0))  # fmt: skip
    assert [one.code for one in found] == [OTHER, CODE]
    assert advised(("sash window repair", 0, 90.0, 80.0, 3.0)) == []
