"""Workings of Arrange come to the figures that it shows."""

from dataclasses import replace

import numpy as np
import pytest

from milkwort.core.arrange.main_words import main_words
from milkwort.core.arrange.negatives_at_work import negatives_at_work, without_negatives
from milkwort.core.arrange.pages.worth_writing import pages_worth_writing
from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.plan.budgets import best_partners, daily_budgets
from milkwort.core.plan.run import run_plan
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.negatives import Negative
from milkwort.core.workings.arranged import (
    campaign_workings,
    group_workings,
    negative_workings,
    word_workings,
)
from tests.samples import brief, calls, table

TEXTS = ["sash window", "sash window repair", "sash cord", "sash window jobs", "old sash window"]


@pytest.fixture(scope="module")
def result():
    rows = table([900.0, 400.0, 150.0, 300.0, 200.0], [0.5] * 5, [1.5] * 5,
                 texts=tuple(TEXTS),
                 match=np.array([MATCHES.index(m) for m in ("broad", "phrase", *["exact"] * 3)]),
                 call=calls("keep", "keep", "keep", "drop", "drop"))  # fmt: skip
    rows = replace(rows, group=np.array([0, 0, 1, 1, 1]), campaign=np.array([0, 0, 1, 1, 1]))
    return run_plan(brief(), rows)


def lines_of(sections):
    return {line.label: line.value for section in sections for line in section.lines}


def test_groups_and_campaigns_come_to_the_purse(result):
    words = main_words(result, 2, lexicon_of(result.brief))
    parts = [lines_of(group_workings(result, group, words[group])) for group in (0, 1)]
    assert sum(p["customers a month"] for p in parts) > 0
    assert sum(p["spend a month"] for p in parts[:1]) == pytest.approx(
        float(result.expected.spend[:2].sum())
    )
    assert parts[0][words[0][0].word] == words[0][0].share
    budgets = daily_budgets(result)
    gains = best_partners(budgets, 365 / 12, 0.0)[1]
    for place, number in enumerate(budgets.campaign.tolist()):
        said = lines_of(campaign_workings(result, number, budgets, float(gains[place])))
        assert said["daily budget"] == budgets.daily[place]
        assert said["spend a month, keywords and spots"] == budgets.spend[place]
        assert said["lost on busy days"] == budgets.lost[place]


def test_a_campaign_that_runs_nothing_has_no_day(result):
    titles = [s.title for s in campaign_workings(result, 7, daily_budgets(result), 0.0)]
    assert "Its money a day" not in titles


@pytest.mark.parametrize("text", ["jobs", "sash window", "repair", "none of them"])
@pytest.mark.parametrize("level", ["plan", "group"])
def test_what_a_negative_saves_is_named_to_the_last_penny(result, text, level):
    free = without_negatives(result)
    negative = Negative(text, "phrase", level, 1 if level == "group" else -1)
    (found,) = negatives_at_work(free, [negative])
    saves, *costs = negative_workings(free, negative, found, TEXTS)
    *named, total = saves.lines
    assert sum(line.value for line in named) == pytest.approx(total.value)
    assert total.value == found.saves
    assert bool(costs) == bool(found.hurts)
    if costs:
        said = lines_of(costs)
        assert said["customers of what is kept"] == found.customers
        by_name = sum(said[TEXTS[row]] for row in found.hurts)
        assert by_name == pytest.approx(found.customers)


def test_jobs_saves_something_here(result):
    free = without_negatives(result)
    (found,) = negatives_at_work(free, [Negative("jobs", "phrase")])
    assert found.saves > 0 and not found.hurts


def test_the_customers_behind_a_word_are_those_of_its_keywords(result):
    worth = pages_worth_writing(result, [], lexicon_of(result.brief))
    assert worth
    for one in worth:
        said = lines_of(word_workings(result, one, TEXTS))
        assert sum(said[TEXTS[row]] for row in one.keywords) == pytest.approx(
            said["customers a month"]
        )
