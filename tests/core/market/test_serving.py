"""No search is counted twice: held against plain loops over every pair."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from milkwort.core.market.demand import coverage, demand_if_kept, demand_of
from milkwort.core.market.in_force import negatives_in_force
from milkwort.core.market.keyword_table import CALLS, blank_table
from milkwort.core.market.serving import serve, serve_if_kept
from milkwort.core.plan.run import run_plan
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.negatives import Negative
from milkwort.core.words.texts import word_counts
from tests.core.market.plain_serving import serve_plainly
from tests.depth import cases
from tests.samples import brief

WORDS = ["sash", "window", "windows", "repair", "cost", "box"]


def sheet(rows):
    """Return a table of (text, match, call, volume)."""
    texts, match, call, volume = zip(*rows, strict=True)
    volume = np.array(volume, dtype=float)
    return replace(
        blank_table(texts),
        match=np.array([MATCHES.index(m) for m in match]),
        call=np.array([CALLS.index(c) for c in call]),
        volume_low=volume,
        volume_high=volume,
        cpc_low=np.full(len(texts), 0.8),
        cpc_high=np.full(len(texts), 2.4),
        group=np.arange(len(texts)) % 3 - 1,
        campaign=np.arange(len(texts)) % 2,
    )


def served(table, negatives=()):
    more = coverage(table.match, word_counts(table.texts), brief().assumed) - 1
    return serve(table, table.volume_low, more, negatives), more


rows = st.lists(
    st.tuples(
        st.lists(st.sampled_from(WORDS), min_size=1, max_size=4).map(" ".join),
        st.sampled_from(MATCHES),
        st.sampled_from(CALLS),
        st.one_of(st.just(float("nan")), st.floats(0, 500)),
    ),
    min_size=1,
    max_size=14,
    unique_by=lambda row: row[:2],
)
negatives = st.lists(
    st.tuples(st.lists(st.sampled_from(WORDS), min_size=1, max_size=2).map(" ".join),
              st.sampled_from(MATCHES), st.sampled_from(["plan", "campaign", "group"])),
    max_size=2,
)  # fmt: skip


def in_force(stops, table):
    """Return the negatives drawn, those of a campaign or group in its first, and blocked rows'."""
    numbers = {"plan": -1, "campaign": 0, "group": 0}
    return negatives_in_force(
        tuple(Negative(t, m, level, numbers[level]) for t, m, level in stops), table
    )


@settings(max_examples=cases(60, 1800), deadline=None)
@given(rows, negatives)
@example(
    [("sash window window", "broad", "keep", 1.0), ("window windows", "phrase", "keep", 2.0)], []
)
@example(
    [("box", "exact", "keep", 1.0), ("sash window", "phrase", "keep", 9.0),
     ("sash window cost", "exact", "none", 2.0)], [("cost", "phrase", "group")],
)  # fmt: skip
def test_every_search_is_served_as_plain_loops_say(listed, stops):
    table = sheet(listed)
    force = in_force(stops, table)
    found, more = served(table, force)
    plain = serve_plainly(table, table.volume_low, more, force)
    assert set(np.flatnonzero(found.serves)) == set(plain)
    for row, figures in plain.items():
        ours = (found.own[row], found.uncalled[row], found.unknown[row], found.spill[row])
        assert ours == pytest.approx(figures, abs=1e-6)


@settings(max_examples=cases(30, 720), deadline=None)
@given(rows, negatives)
@example(
    [("box", "exact", "keep", 1.0), ("sash window", "phrase", "hold", 9.0),
     ("sash window cost", "exact", "none", 2.0)], [("cost", "phrase", "group")],
)  # fmt: skip
def test_what_a_keyword_would_serve_is_what_it_serves_once_kept(listed, stops):
    table = sheet(listed)
    loose = np.flatnonzero((table.call != CALLS.index("keep")) & np.isfinite(table.volume_low))
    if not len(loose):
        return
    row = loose[:1]
    table = table.with_calls(row, "hold")
    force = in_force(stops, table)
    found, more = served(table, force)
    would = serve_if_kept(table, table.volume_low, more, found)
    after, _ = served(table.with_calls(row, "keep"), force)
    if not after.serves[row]:
        assert would.own[row] == would.uncalled[row] == would.spill[row] == 0
        return
    assert would.own[row] == pytest.approx(after.own[row])
    assert would.uncalled[row] == pytest.approx(after.uncalled[row])
    assert would.spill[row] == pytest.approx(after.spill[row])


@settings(max_examples=cases(30, 720), deadline=None)
@given(rows)
def test_no_known_search_is_served_twice(listed):
    table = sheet(listed)
    found, _ = served(table)
    known = found.own[found.serves].sum() + found.uncalled.sum() + found.spill.sum()
    assert known <= found.texts.searches.sum() + 1e-6


def test_the_most_specific_match_type_has_the_texts_own_searches():
    table = sheet([("sash window", m, "keep", 100.0) for m in ("broad", "exact", "phrase")])
    found, _ = served(table)
    assert found.own.tolist() == [0.0, 100.0, 0.0]
    assert found.unknown[2] == pytest.approx(84.0)
    assert found.unknown[0] == pytest.approx(210.0 - 84.0)


def test_a_dropped_variant_is_spill_and_a_blocked_one_is_stopped():
    table = sheet([
        ("sash window", "phrase", "keep", 100.0),
        ("sash window jobs", "exact", "drop", 40.0),
        ("sash window course", "exact", "block", 30.0),
        ("old sash window", "exact", "none", 20.0),
    ])  # fmt: skip
    demand = demand_of(brief(), table)
    assert demand.spill[0] == 40.0 and demand.uncalled[0] == 20.0
    assert demand.unknown[0] == 0.0
    weight = 100 + 0.9 * 60
    rate = demand.base_rate[0]
    assert demand.click_weight[0] == pytest.approx(weight)
    assert demand.rate[0] == pytest.approx(rate * (100 + 0.9 * 0.85 * 20) / weight)


def test_an_exact_keyword_serves_its_close_forms_only_while_they_are_on():
    table = sheet([("glass door", "exact", "keep", 100.0), ("glasses doors", "exact", "none", 50)])
    assert demand_of(brief(), table).uncalled[0] == 50.0
    assert demand_of(brief(close_forms=False), table).uncalled[0] == 0.0


def test_a_kept_keyword_that_a_negative_matches_does_not_run_and_says_so():
    table = sheet([("sash window heritage", "exact", "keep", 90.0)])
    result = run_plan(brief(negatives=(Negative("heritage", "phrase"),)), table)
    assert np.isnan(result.bid[0]) and result.demand.searches[0] == 0.0
    assert result.totals.spend == 0.0


def test_a_negative_of_a_group_acts_in_that_group_only():
    table = sheet([
        ("sash window", "phrase", "keep", 100.0),
        ("window", "broad", "keep", 80.0),
        ("sash window cost", "exact", "none", 40.0),
    ])  # fmt: skip
    table = replace(table, group=np.array([0, 1, -1]))
    found, _ = served(table, (Negative("cost", "phrase", "group", 0),))
    assert found.uncalled.tolist() == [0.0, 40.0, 0.0]
    # what it stops is no unknown variant either: a negative never brings searches
    assert found.unknown[0] == pytest.approx(0.6 * 1.4 * 100 - 40)


def test_hyphens_and_apostrophes_match_split_joined_or_absent():
    table = replace(
        sheet([
            ("draught proofing", "phrase", "keep", 100.0),
            ("draughtproofing windows", "exact", "none", 30.0),
        ]),
        joints=frozenset({("draughtproofing", "draught proofing")}),
    )  # fmt: skip
    assert demand_of(brief(), table).uncalled[0] == 30.0


def test_a_thousand_equal_texts_and_an_empty_sheet_are_no_trouble():
    many = sheet([("sash window", "broad", "keep", 5.0)] * 1000)
    assert demand_of(brief(), many).own.sum() == 5.0
    assert len(demand_of(brief(), blank_table([])).own) == 0


def test_what_would_come_in_takes_what_is_its_own_and_leaves_what_a_closer_one_serves():
    rows = [
        ("sash window", "phrase", "keep", 300.0),
        ("sash window repair", "phrase", "none", 60.0),
        ("sash window repair cost", "exact", "none", 20.0),
        ("sash window repair jobs", "exact", "drop", 9.0),
        ("oak sash window", "exact", "none", 15.0),
    ]
    table = sheet(rows)
    plain = demand_of(brief(), table)
    at = np.array([1, 4])
    would = demand_if_kept(brief(), table, plain, at)
    # kept as well, it would serve what the wider one serves now, and no more than that
    kept = demand_of(brief(), table.with_calls(np.array([1]), "keep"))
    for name in ("own", "uncalled", "spill", "unknown", "searches", "click_weight", "rate"):
        assert getattr(would, name)[0] == pytest.approx(getattr(kept, name)[1]), name
    assert would.own[1] == 15.0 and would.uncalled[1] == would.spill[1] == 0.0
    negatives = (Negative("repair", "phrase"),)
    stopped = demand_of(brief(negatives=negatives), table)
    nothing = demand_if_kept(brief(negatives=negatives), table, stopped, at)
    assert nothing.searches[0] == 0.0 and nothing.searches[1] == 15.0
