from dataclasses import replace

import numpy as np
import pytest

from milkwort.core.arrange.conflicts import conflicts_of, negative_worth
from milkwort.core.plan.run import run_plan
from milkwort.core.words.negatives import LEVELS, Negative
from tests.core.market.test_serving import sheet
from tests.samples import brief

ROWS = [
    ("sash window", "phrase", "keep", 300.0),
    ("sash window heritage", "exact", "keep", 90.0),
    ("sash window jobs", "exact", "drop", 200.0),
    ("box sash", "exact", "keep", 50.0),
    ("box sashes", "exact", "keep", 50.0),
]


def found(negatives=(), terms=(), rows=ROWS):
    result = run_plan(brief(monthly_spend=500.0, negatives=tuple(negatives)), sheet(rows))
    return {c.kind: c for c in conflicts_of(result, terms)}, result


def test_a_negative_that_stops_kept_keywords_says_what_is_lost():
    kinds, result = found([Negative("heritage", "broad")])
    lost = kinds["negative_stops_kept"]
    assert lost.rows == (1,) and lost.negative == "heritage"
    assert lost.searches == pytest.approx(90.0) and lost.customers > 0 and lost.spend > 0
    assert np.isnan(result.bid[1])


def test_a_negative_that_stops_a_term_that_has_sold_is_found():
    kinds, _ = found([Negative("heritage")], ["heritage sash windows", "sash windows"])
    assert kinds["negative_stops_sold"].terms == ("heritage sash windows",)


def test_a_negative_word_in_other_kept_keywords_is_pointed_out():
    kinds, _ = found([Negative("heritage", "exact")])
    assert kinds["negative_word_in_kept"].rows == (1,)
    assert "negative_stops_kept" not in kinds


def test_the_same_keyword_twice_and_one_search_at_two_bids_are_found():
    kinds, result = found()
    assert kinds["same_keyword_twice"].rows == (3, 4)
    two = kinds["one_search_two_bids"]
    assert two.rows == (0, 1) and result.bid[0] != result.bid[1]


def test_keywords_that_a_negative_keeps_apart_do_not_serve_one_search():
    rows = [("box", "exact", "keep", 9.0), *ROWS[:2]]  # group 0 holds the second row
    apart = Negative("heritage", "phrase", "group", 0)
    assert "one_search_two_bids" in found(rows=rows)[0]
    assert "one_search_two_bids" not in found([apart], rows=rows)[0]


def test_a_text_left_to_its_exact_twin_is_no_search_at_two_bids():
    table = sheet([("sash window", m, "keep", 300.0) for m in ("exact", "phrase")])
    table = replace(table, locked_bid=np.array([1.2, 0.9]), group=np.array([0, 1]))
    result = run_plan(brief(monthly_spend=500.0), table)
    kinds = {
        leaves: [c.rows for c in conflicts_of(result, (), leaves)]
        for leaves in ((), (True, False), (False, True))
    }
    assert kinds[()] == kinds[True, False] == [(1, 0)] and kinds[False, True] == []
    inside = run_plan(result.brief, replace(table, group=np.array([1, 1])))
    assert len(conflicts_of(inside, (), (False, True))) == 1


def test_a_clean_plan_has_no_conflicts():
    kinds, _ = found(rows=ROWS[:1])
    assert kinds == {}


def test_the_worth_of_a_negative_is_the_plan_with_it_less_the_plan_without():
    _, result = found()
    worth = negative_worth(result, Negative("jobs", "phrase"))
    assert worth.stops == (2,) and worth.hurts == ()
    assert worth.spill_saved == pytest.approx(200.0)
    assert worth.customers_gained > 0
    share = 0.9 * 200 / result.demand.click_weight[0]
    assert worth.spend_freed == pytest.approx(result.expected.spend[0] * share)
    after = run_plan(replace(result.brief, negatives=(Negative("jobs"),)), result.table)
    assert worth.customers_gained == after.totals.customers - result.totals.customers
    harm = negative_worth(result, Negative("box sash", "phrase"))
    assert harm.hurts == (3,) and harm.customers_gained < 0


def test_a_negative_without_words_or_of_no_known_kind_is_refused():
    from milkwort.core.errors import BadValueError

    for wrong in ({"text": "!"}, {"text": "a", "match": "loose"}, {"text": "a", "level": "moon"}):
        with pytest.raises(BadValueError, match="negative"):
            Negative(**wrong)
    assert LEVELS == ("plan", "campaign", "group")


@pytest.mark.parametrize(("level", "number", "rows"), [
    ("plan", -1, (0, 1)), ("campaign", 0, (0,)), ("campaign", 1, (1,)), ("group", 3, (0,)),
    ("group", 4, (1,)), ("group", 1, ()),
])  # fmt: skip
def test_a_negative_is_a_conflict_only_where_it_acts(level, number, rows):
    table = replace(
        sheet([("sash heritage", "exact", "keep", 90.0), ("heritage door", "exact", "keep", 50.0)]),
        campaign=np.array([0, 1]), group=np.array([3, 4]),
    )  # fmt: skip
    negative = Negative("heritage", "phrase", level, number)
    result = run_plan(brief(monthly_spend=500.0, negatives=(negative,)), table)
    stopping = [c.rows for c in conflicts_of(result) if c.kind == "negative_stops_kept"]
    assert stopping == ([rows] if rows else [])
