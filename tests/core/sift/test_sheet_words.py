import numpy as np
import pytest

from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.market.keyword_table import CALLS, blank_table
from milkwort.core.plan.long_tail import long_tail
from milkwort.core.plan.run import run_plan
from milkwort.core.sift.sheet_words import kinds_of_texts, words_of_sheet
from milkwort.core.words.lexicon import shipped_lexicon
from milkwort.core.workings.selection import selection_workings
from tests.samples import brief, random_table

TEXTS = ("sash window repair", "sash windows jobs", "old sash windows", "sash")


@pytest.fixture(scope="module")
def words():
    sheet = blank_table(TEXTS)
    columns = {
        "volume_low": np.array([100.0, 50, 30, np.nan]),
        "volume_high": np.array([100.0, 50, 30, np.nan]),
        "cpc_low": np.array([0.8, 0.3, np.nan, np.nan]),
        "cpc_high": np.array([2.4, 0.9, np.nan, 7.0]),
        "call": np.array([CALLS.index(c) for c in ("keep", "none", "drop", "none")]),
    }
    result = run_plan(brief(), sheet.__class__(**(vars(sheet) | columns)))
    found = words_of_sheet(result, shipped_lexicon())
    return found, {run: at for at, run in enumerate(found.runs)}


def rows_of(words, run):
    found, place = words
    at = place[run]
    return found.rows[found.starts[at] : found.starts[at + 1]].tolist()


def test_singular_and_plural_are_one_word_as_most_often_written(words):
    assert rows_of(words, "windows") == [0, 1, 2] and "window" not in words[1]
    assert rows_of(words, "sash windows") == [0, 1, 2]


def test_runs_of_two_that_stand_once_are_left_out(words):
    assert "old sash" not in words[1] and "old" in words[1]


def test_a_word_sums_its_keywords_and_takes_the_ends_of_their_prices(words):
    found, place = words
    at = place["sash"]
    assert (found.keywords[at], found.kept[at], found.called[at]) == (4, 1, 2)
    assert found.searches[at] == pytest.approx(180)
    assert (found.price_low[at], found.price_high[at]) == (0.3, 7.0)
    assert np.isnan(found.price_low[place["old"]])


def test_warning_words_come_first(words):
    found, _ = words
    assert (found.runs[0], found.kind[0]) == ("jobs", "!")
    sizes = found.keywords[1:].tolist()
    assert sizes == sorted(sizes, reverse=True)


def test_each_word_of_a_text_gets_its_mark():
    own = brief(places=("Calder Stoke",), word_kinds=(("bright", "rival"), ("free", "what")))
    lexicon = lexicon_of(own)
    marks = kinds_of_texts(["sash repair calder stoke", "free window jobs", "a-b c"], lexicon)
    assert marks == ["wwoo", "ww!", ""]
    assert lexicon.intent("bright windows").intent == "firm"


def test_the_long_tail_is_every_thin_keyword_kept_or_not():
    sheet = random_table(4, 300).with_calls(np.arange(0, 300, 3), "none")
    result = run_plan(brief(), sheet)
    tail = long_tail(result)
    thin = result.standing.thin & result.prices.known & (result.demand.likely > 0)
    assert tail.keywords == thin.sum() and tail.kept == (thin & result.table.kept).sum()
    assert tail.spend == pytest.approx(result.expected.spend[thin].sum())
    assert tail.more_customers >= 0


def test_a_selection_of_everything_is_the_plan():
    sheet = random_table(5, 80).with_calls(np.arange(0, 80, 4), "hold")
    result = run_plan(brief(), sheet)
    sections = selection_workings(result, np.arange(80))
    lines = {line.label: line.value for section in sections for line in section.lines}
    assert lines["keywords"] == 80 and lines["called hold"] == 20
    assert lines["average price of a click"] == pytest.approx(
        result.totals.spend / result.totals.clicks
    )
    assert lines["cost of a customer"] == pytest.approx(result.totals.cost_per_customer)
