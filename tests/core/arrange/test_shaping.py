"""Groups split, named by a rule, proposed for the same money; a scouting campaign in one step."""

from dataclasses import replace

import numpy as np
import pytest

from milkwort.core.arrange.crossed import crossed, twins_of_groups
from milkwort.core.arrange.naming import names_by_rule
from milkwort.core.arrange.proposals import proposal_of, rearranged
from milkwort.core.arrange.scouting import scouting_of
from milkwort.core.arrange.splitting import split_of
from milkwort.core.arrange.structures import arrange
from milkwort.core.brief.limits import Limits
from milkwort.core.errors import BadValueError, NothingUsableError
from milkwort.core.plan.run import run_plan
from milkwort.core.words.lexicon import shipped_lexicon
from milkwort.core.words.negatives import Negative
from tests.samples import brief, calls, offer, table

TEXTS = ("sash repair", "sash repairs eastmere", "box sash painting", "sash paint", "sash cord")
LEXICON = shipped_lexicon().extended(places=["Eastmere"])


def sheet(**columns):
    n = len(TEXTS)
    given = {"group": np.zeros(n, dtype=np.int64), "campaign": np.zeros(n, dtype=np.int64)}
    return table([500, 300, 200, 90, 80], [0.8] * n, [2.4] * n, texts=TEXTS, **(given | columns))


def test_a_group_is_split_by_a_word_in_any_close_form():
    rows = range(len(TEXTS))
    assert split_of(sheet(), rows, "word", word="Repair") == {"repair": [0, 1]}
    assert split_of(sheet(), rows, "word", word="box sashes") == {"box sashes": [2]}
    for word in ("", "sash", "door"):
        with pytest.raises(BadValueError):
            split_of(sheet(), rows, "word", word=word)


def test_by_intent_match_or_offer_the_fullest_part_stays():
    match = np.array([0, 0, 0, 1, 2])
    assert split_of(sheet(match=match), range(5), "match") == {"phrase": [3], "broad": [4]}
    offer = np.array([0, 1, 1, 1, 0])
    parts = split_of(sheet(offer=offer), range(5), "offer", offers=("jobs", ""))
    assert parts == {"jobs": [0, 4]}
    with pytest.raises(BadValueError, match="differ by intent"):
        split_of(sheet(intent=np.zeros(5, dtype=np.int64)), range(5), "intent")


def test_names_are_made_of_parts_and_clashes_and_long_ones_are_said():
    groups = [
        (0, "a", {"theme": "sash", "match": "exact", "note": "n"}),
        (0, "b", {"theme": "sash", "match": "exact"}),
        (1, "c", {"theme": "sash", "match": "exact"}),
        (1, "d", {"theme": "x" * 119, "match": "exact"}),
        (1, "e", {}),
    ]
    named = names_by_rule(groups, ["theme", "match"], " – ")
    assert [n.after for n in named[:3]] == ["sash – exact"] * 3
    assert [(n.clash, n.too_long, n.empty) for n in named] == [
        (True, False, False), (True, False, False), (False, False, False),
        (False, True, False), (False, False, True),
    ]  # fmt: skip
    some = names_by_rule(groups, ["note", "theme"], "/", [True, False, False, False, False])
    assert [n.after for n in some] == ["n/sash", "b", "c", "d", "e"]
    assert some[0].fits and not named[0].fits


def proposed(kind, result, held=(("Search", "All"),), **more):
    rows = np.flatnonzero(result.table.kept)
    made = arrange(kind, result.brief, result.table.at(rows), result.demand.own[rows])
    return proposal_of(result, made, rows, held, set(), campaigns=["Search"], **more)


def test_a_structure_without_twins_or_limits_brings_the_same_for_the_same_money():
    result = run_plan(brief(monthly_spend=200), sheet())
    same = proposed("theme", result)
    assert same.result.totals.customers == pytest.approx(result.totals.customers, rel=1e-4)
    assert same.to_write == same.groups == 1 and same.locked == {}


def test_twins_run_beside_their_exact_texts_and_bring_what_run_plan_says():
    result = run_plan(brief(monthly_spend=200), sheet())
    found = proposed("mixed", result)
    assert len(found.result.table) == 2 * len(TEXTS)
    assert found.result.totals.customers > result.totals.customers
    lower = proposed("mixed", result, lower="phrase", by=0.3)
    bids, texts = lower.result.bid, lower.result.table.texts
    exact = dict(zip(texts[:5], bids[:5], strict=True))
    for row in lower.locked:
        assert row >= 5 and not bids[row] > exact[texts[row]]
    with pytest.raises(BadValueError):
        proposed("mixed", result, lower="exact", by=1.0)


def test_places_that_are_there_keep_their_numbers_and_so_their_limits():
    made = arrange("theme", brief(), sheet(), np.ones(5))
    name = made.groups[0][1]
    held = [("Old", "x"), ("Search", name)]
    moved, places = rearranged(sheet(), made, np.arange(5), held, ["Old", "Search"])
    assert places[:2] == held and set(moved.campaign.tolist()) == {1}
    assert {places[g][0] for g in moved.group.tolist()} == {"Search"}


def test_a_scout_bids_well_under_the_market_and_blocks_all_that_is_known():
    four = sheet(call=calls("keep", "keep", "keep", "drop", "keep"))
    result = run_plan(brief(monthly_spend=200), four)
    found = scouting_of(result, LEXICON, 0.1)
    assert found.cost == pytest.approx(20) and found.bid == pytest.approx(0.32)
    assert "sash paint" not in found.blocked and len(found.blocked) == 4
    assert found.texts[0][0] == "sash repair" and "sash eastmere" not in found.texts[0]
    assert scouting_of(result, LEXICON, 0.1, 0.5).bid == 0.5
    for share, bid in ((0, None), (1.2, None), (0.1, 0.001)):
        with pytest.raises(BadValueError):
            scouting_of(result, LEXICON, share, bid)
    kits = offer(name="kits")
    texts = ("sash repair", "sash repair eastmere", *TEXTS[2:])
    parted = replace(sheet(offer=np.array([0, 1, 0, 1, 1])), texts=texts)
    both = run_plan(brief(monthly_spend=200, more_offers=(kits,)), parted)
    first, second = scouting_of(both, LEXICON, 0.1).texts.values()
    assert "sash repair" in first and not set(first) & set(second), "a keyword stands once"
    nothing = run_plan(brief(), sheet(call=calls(*["drop"] * 5)))
    with pytest.raises(NothingUsableError):
        scouting_of(nothing, LEXICON, 0.1)


def test_twins_are_crossed_until_their_group_leaves_the_texts_to_the_exact_one():
    groups, match = np.array([0, 0, 0, 1, 1]), np.array([0, 0, 0, 1, 1])
    twins = sheet(group=groups, match=match)
    texts = (*TEXTS[:3], TEXTS[0], TEXTS[4])
    result = run_plan(brief(), replace(twins, texts=texts))
    assert twins_of_groups(result) == {1: [(3, 0)]}
    (found,) = crossed(result, [False, False])
    assert (found.kind, found.group, found.texts) == ("twins_unblocked", 1, (TEXTS[0],))
    assert found.searches == pytest.approx(result.demand.own[0])
    assert crossed(result, [False, True]) == []


def test_a_scout_that_is_shown_for_kept_keywords_is_said_until_they_are_blocked_in_it():
    columns = {"match": np.array([0, 0, 0, 0, 2]), "campaign": np.array([0, 0, 0, 0, 1]),
               "group": np.array([0, 0, 0, 0, 1])}  # fmt: skip
    texts = ("sash repair", "sash repairs eastmere", "box sash", "door", "sash")
    limits = Limits(scouting=1, scouting_share=0.1)
    table_ = replace(sheet(**columns), texts=texts)
    (found,) = crossed(run_plan(brief(limits=limits), table_), [False, False])
    assert found.kind == "scouting_takes_kept" and found.rows[0] == 4
    assert set(found.texts) == {"sash repair", "sash repairs eastmere", "box sash"}
    blocked = tuple(Negative(text, "exact", "campaign", 1) for text in found.texts[1:])
    (left,) = crossed(run_plan(brief(limits=limits, negatives=blocked), table_), [False, False])
    assert left.texts == found.texts[:1]
    whole = (*blocked, Negative(found.texts[0], "exact", "group", 1))
    assert crossed(run_plan(brief(limits=limits, negatives=whole), table_), [False, False]) == []
    elsewhere = tuple(replace(n, number=0) for n in whole)
    assert crossed(run_plan(brief(limits=limits, negatives=elsewhere), table_), [False] * 2)
