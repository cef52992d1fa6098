import numpy as np
import pytest

from milkwort.core.errors import BadValueError
from milkwort.core.market.keyword_table import CALLS, blank_table
from milkwort.core.plan.run import run_plan
from milkwort.core.sift.house_rules import HouseRule, When, rules_at_work
from milkwort.core.words.intents import INTENTS
from milkwort.core.words.lexicon import shipped_lexicon
from tests.samples import brief

TEXTS = ("sash window repair", "window jobs", "windows", "sash cords for old windows")


@pytest.fixture(scope="module")
def result():
    sheet = blank_table(TEXTS)
    columns = {
        "volume_low": np.array([100.0, 50, 5000, 10]),
        "volume_high": np.array([100.0, 50, 5000, 10]),
        "cpc_low": np.array([0.8, 0.3, 20, 0.5]),
        "cpc_high": np.array([2.4, 0.9, 60, 1.5]),
        "intent": np.array([INTENTS.index(i) for i in ("buy", "job", "unknown", "unknown")]),
        "call": np.full(4, CALLS.index("none")),
    }
    return run_plan(brief(), sheet.__class__(**(vars(sheet) | columns)))


def at_work(result, *rules, by=("",) * 4, reasons=("",) * 4, origins=("a.csv",) * 4):
    return rules_at_work(rules, result, shipped_lexicon(), by, origins, reasons)


@pytest.mark.parametrize(
    ("when", "rows"),
    [
        (When("standing", "beyond"), (1, 2)),
        (When("intent", "job"), (1,)),
        (When("warning", "yes"), (1,)),
        (When("text", "windows"), (0, 1, 2, 3)),
        (When("text", "sash window"), (0,)),
        (When("words", least=4), (3,)),
        (When("price", most=1.0), (1, 3)),
        (When("searches", least=100, most=200), (0,)),
        (When("origin", "A.csv"), (0, 1, 2, 3)),
        (When("text", ""), ()),
        (When("text", "– !"), ()),
        (When("origin", " "), ()),
    ],
)
def test_a_condition_fits_what_it_says(result, when, rows):
    (found,) = at_work(result, HouseRule((when,), "drop"))
    assert found.rows == rows


def test_all_conditions_of_a_rule_must_fit(result):
    rule = HouseRule((When("standing", "beyond"), When("intent", "unknown")), "drop")
    assert at_work(result, rule)[0].rows == (2,)


def test_a_keyword_takes_the_first_rule_that_fits(result):
    job = HouseRule((When("intent", "job"),), "block", "seeks a job")
    dear = HouseRule((When("standing", "beyond"),), "drop", "too dear")
    assert [w.rows for w in at_work(result, job, dear)] == [(1,), (2,)]
    assert [w.rows for w in at_work(result, dear, job)] == [(1, 2), ()]


def test_a_call_by_hand_is_never_touched(result):
    dear = HouseRule((When("standing", "beyond"),), "drop")
    (found,) = at_work(result, dear, by=("", "hand", "rule", ""))
    assert (found.rows, found.by_hand) == ((2,), 1)


def test_what_is_called_so_already_is_left(result):
    called = result.table.with_calls(np.array([2]), "drop")
    again = run_plan(result.brief, called)
    dear = HouseRule((When("standing", "beyond"),), "drop", "too dear")
    by, reasons = ("", "", "rule", ""), ("", "", "too dear", "")
    assert at_work(again, dear, by=by, reasons=reasons)[0].rows == (1,)


@pytest.mark.parametrize(
    "wrong",
    [
        lambda: When("luck", "good"),
        lambda: When("intent", "none"),
        lambda: When("price"),
        lambda: HouseRule((), "drop"),
        lambda: HouseRule((When("thin", "yes"),), "none"),
    ],
)
def test_a_rule_that_says_nothing_is_refused(wrong):
    with pytest.raises(BadValueError):
        wrong()
