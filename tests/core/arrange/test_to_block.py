"""What to block next, in its narrowest safe form."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from milkwort.core.arrange.to_block import to_block
from milkwort.core.plan.run import run_plan
from milkwort.core.words.lexicon import shipped_lexicon
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.matching import text_matches
from milkwort.core.words.negatives import Negative
from milkwort.core.words.texts import normalise
from tests.depth import cases
from tests.samples import brief, calls, table

LEXICON = shipped_lexicon()


def plan_of(rows, **changes):
    """Return the plan of (text, match, call, volume) rows."""
    texts, match, call, volume = zip(*rows, strict=True)
    n = len(rows)
    sheet = table(volume, [0.8] * n, [2.4] * n, texts=texts, call=calls(*call),
                  match=np.array([MATCHES.index(m) for m in match]))  # fmt: skip
    return run_plan(brief(monthly_spend=1e5, **changes), sheet)


REPAIR = ("sash window repair", "phrase", "keep", 300)


def test_the_shortest_run_that_stops_nothing_kept_and_saves_most():
    result = plan_of([
        REPAIR, ("sash window repair wanted", "exact", "drop", 60),
        ("old sash window repair wanted", "exact", "drop", 20),
    ])  # fmt: skip
    (one,) = to_block(result, LEXICON)
    assert (one.text, one.match, one.source) == ("wanted", "phrase", "dropped")
    # of a phrase keyword's clicks the spill's share is 0.9·W/Q
    weight = 0.9 * 80 / result.demand.click_weight[0]
    assert one.saves == pytest.approx(result.expected.spend[0] * weight)
    assert set(one.stops) == {"sash window repair wanted", "old sash window repair wanted"}


def test_a_run_that_stands_in_a_kept_keyword_is_not_taken():
    rows = [("sash window", "phrase", "keep", 300), ("oak door", "exact", "keep", 50),
            ("oak sash window", "exact", "drop", 40)]  # fmt: skip
    (one,) = to_block(plan_of(rows), LEXICON)
    assert (one.text, one.match) == ("oak sash", "phrase")


def test_where_no_run_is_safe_the_very_text_is_blocked():
    rows = [("window", "broad", "keep", 300), ("new sash window offers", "exact", "keep", 9),
            ("sash window", "exact", "drop", 40)]  # fmt: skip
    (one,) = to_block(plan_of(rows), LEXICON)
    assert (one.text, one.match) == ("sash window", "exact")


def test_a_word_that_stands_in_any_search_is_never_blocked_alone():
    rows = [REPAIR, ("sash window repair for rent", "exact", "drop", 60),
            ("sash window repair for my boat", "exact", "drop", 20),
            ("how to repair a sash window", "exact", "drop", 10)]  # fmt: skip
    plan = plan_of(rows)
    past = {"for the": 3.0, "sash window for": 2.0}
    found = {one.text: one.match for one in to_block(plan, LEXICON, past=past)}
    assert found == {"rent": "phrase", "boat": "phrase", "for the": "exact",
                     "window for": "phrase"}  # fmt: skip
    (asked,) = to_block(plan_of([REPAIR]), LEXICON, past={"how to repair a sash window": 1.0})
    assert asked.text == "how"


def test_a_term_that_has_sold_is_never_blocked():
    rows = [REPAIR, ("sash window repair wanted", "exact", "drop", 60)]
    assert to_block(plan_of(rows), LEXICON, ["sash window repair wanted"]) == []
    (one,) = to_block(plan_of(rows), LEXICON, ["help wanted"])
    assert one.text == "repair wanted"


def test_a_warning_word_that_is_not_yet_called_and_a_past_term_that_never_sold():
    rows = [REPAIR, ("sash window repair jobs", "exact", "none", 60)]
    found = to_block(plan_of(rows), LEXICON, past={"window cleaner rota": 12.5, "free": 0.0})
    assert [(o.text, o.source) for o in found] == [("jobs", "warning"), ("cleaner", "past")] or [
        (o.text, o.source) for o in found
    ] == [("cleaner", "past"), ("jobs", "warning")]
    assert [o.saves for o in found] == sorted((o.saves for o in found), reverse=True)


def test_a_past_term_that_is_blocked_already_is_not_proposed_again():
    past = {"upvc sash window": 30.0, "sash window rota": 2.0}
    plain = to_block(plan_of([REPAIR]), LEXICON, past=past)
    assert [one.text for one in plain] == ["upvc", "rota"]
    blocked = plan_of([REPAIR], negatives=(Negative("upvc", "phrase"),))
    assert [one.text for one in to_block(blocked, LEXICON, past=past)] == ["rota"]


def test_what_costs_nothing_is_not_proposed():
    rows = [("sash window repair", "exact", "keep", 300),
            ("sash window repair wanted", "exact", "drop", 60)]  # fmt: skip
    assert to_block(plan_of(rows), LEXICON) == []


SAID = st.sampled_from("sash window windows oak repair free jobs diy".split())  # noqa: SIM905
WORDS = st.lists(SAID, min_size=1, max_size=4)
ROWS = st.lists(
    st.tuples(
        WORDS.map(" ".join),
        st.sampled_from(MATCHES),
        st.sampled_from(["keep", "drop", "none"]),
        st.integers(1, 500),
    ),
    min_size=2, max_size=14, unique_by=lambda r: (r[0], r[1]),
)  # fmt: skip


@settings(max_examples=cases(40, 400), deadline=None)
@given(rows=ROWS, sold=st.lists(WORDS.map(" ".join), max_size=3), close=st.booleans())
def test_all_of_them_together_stop_no_kept_keyword_and_no_sold_term(rows, sold, close):
    result = plan_of(rows, negative_close_forms=close)
    found = to_block(result, LEXICON, sold, past={"oak jobs": 3.0})
    kept = [r[0] for r in rows if r[2] == "keep"]
    for one in found:
        assert one.saves > 0 and normalise(one.text)
        for text in (*kept, *sold):
            assert not text_matches(one.match, one.text, text, close_forms=close)
    negatives = tuple(Negative(o.text, o.match) for o in found)
    after = plan_of(rows, negative_close_forms=close, negatives=negatives)
    assert not (after.demand.stopped & after.table.kept).any()
    assert after.demand.spill.sum() <= result.demand.spill.sum() + 1e-9
