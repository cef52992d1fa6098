"""What people typed, and what is suggested about it."""

import numpy as np
import pytest
from scipy.special import betainc

from milkwort.core.learn.learned import judged_of
from milkwort.core.learn.seen import ResultRows, seen_by
from milkwort.core.learn.terms import TermRows, advise_terms
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.lexicon import shipped_lexicon
from tests.core.learn.plans import a_plan, rows_like


def terms(*rows: tuple[str, int, float, float, float]) -> TermRows:
    texts, keyword, clicks, cost, customers = zip(*rows, strict=True)
    some = [np.array(column, dtype=np.float64) for column in (clicks, cost, customers)]
    return TermRows(texts, np.array(keyword), some[0] * 20, some[0], some[0], some[1], some[2])


def advised(plan: PlanResult, *rows: tuple[str, int, float, float, float]):
    n = len(plan.table)
    nothing = ResultRows(np.zeros(0, dtype=np.int64), np.zeros(0, dtype=np.int64),
                         np.zeros(0, dtype=np.int64), *(np.zeros(0) for _ in range(8)))  # fmt: skip
    evidence = judged_of(plan, seen_by(nothing, n, 1, plan.brief.assumed)).evidence
    lexicon = shipped_lexicon().extended(places=["Eastmere"], other_places=["Thornholt"],
                                         rivals=["Harrow Finch"])  # fmt: skip
    return advise_terms(plan, lexicon, terms(*rows), evidence)


def test_terms_are_blocked_for_what_they_say_in_the_narrowest_safe_form():
    found = advised(a_plan("phrase"), ("sash window repair jobs", 0, 1, 1.0, 0),
                    ("sash window repair thornholt", 0, 1, 1.0, 0),
                    ("harrow finch sash window repair", 0, 1, 1.0, 0))  # fmt: skip
    assert [one.suggestion for one in found] == ["block_family"] * 3
    assert [one.form for one in found] == [
        ("jobs", "phrase"), ("thornholt", "phrase"), ("harrow", "phrase"),
    ]  # fmt: skip
    assert found[0].ground.startswith("warning word") or found[0].ground.startswith("seeks work")


def test_evidence_blocks_a_text_a_family_together_and_nothing_that_sold_or_is_kept():
    plan = a_plan("phrase")
    found = advised(
        plan, ("sash window repair fast", 0, 200, 400.0, 0), ("window painting", 2, 200, 400.0, 0),
        ("blue sash window repair", 0, 70, 130.0, 0), ("blue window painting", 2, 70, 130.0, 0),
        ("sash window repair gold", 0, 10, 10.0, 2), ("gold window painting", 2, 5, 9.0, 0),
    )  # fmt: skip
    by = dict(zip(["fast", "kept", "blue", "blue2", "sold", "gold"], found, strict=True))
    assert by["fast"].suggestion == "block_text"
    assert by["fast"].form == ("sash window repair fast", "exact")
    assert by["kept"].suggestion == "wait"
    assert {by["blue"].form, by["blue2"].form} == {("blue", "phrase")}
    assert by["sold"].suggestion == "own_keyword"
    assert by["gold"].suggestion == "wait"  # what sold has the word


def test_a_family_is_blocked_from_the_click_on_that_says_so_of_all_its_terms_as_one():
    plan = a_plan("phrase")
    worth, assumed = plan.brief.worth.allowed, plan.brief.assumed
    weight, rate = assumed["term_weight"], 0.03

    def missing(clicks: int) -> float:
        return float(betainc(weight * rate, weight * (1 - rate) + clicks, 2.0 / worth))

    least = next(n for n in range(10, 2000) if missing(n) >= assumed["stop_chance"])
    for clicks, suggestion in ((least, "block_family"), (least - 1, "wait")):
        few = clicks // 3
        many = clicks - few
        found = advised(plan, ("blue sash window repair", 0, few, 2.0 * few, 0),
                        ("sash window repair blue", 0, many, 2.0 * many, 0))  # fmt: skip
        assert [one.suggestion for one in found] == [suggestion] * 2


def test_no_family_is_made_of_a_word_that_stands_in_any_search():
    found = advised(a_plan("phrase"), ("sash window repair for boats", 0, 70, 130.0, 0),
                    ("window painting for barns", 2, 70, 130.0, 0))  # fmt: skip
    assert [one.suggestion for one in found] == ["wait", "wait"]


def test_what_sold_becomes_a_keyword_at_its_price_and_a_tenth_under_its_own_ceiling():
    plan = a_plan("phrase")
    (one,) = advised(plan, ("sash window repair gold", 0, 10, 10.0, 2))
    rate = (20 * 0.03 + 2) / 30
    assert one.rate == pytest.approx(rate)
    assert one.bid == pytest.approx(1.10)
    assert one.group == 0
    (dear,) = advised(plan, ("sash window repair gold", 0, 10, 120.0, 2))
    assert dear.bid is None or dear.bid <= plan.brief.worth.allowed * dear.rate
    (exact,) = advised(a_plan("exact"), ("sash window repair", 0, 10, 10.0, 2))
    assert exact.suggestion == "wait"


def test_a_term_waits_with_the_clicks_it_still_needs():
    (one,) = advised(a_plan("phrase"), ("sash window repair slow", 0, 3, 6.0, 0))
    assert one.suggestion == "wait"
    assert 17 <= one.clicks_needed < 400
    assert advise_terms(a_plan(), shipped_lexicon(), terms(("x", -1, 0, 0, 0)), judged_of(
        a_plan(), seen_by(rows_like(a_plan()), 3, 1, a_plan().brief.assumed)).evidence)[0
    ].missing is None  # fmt: skip
