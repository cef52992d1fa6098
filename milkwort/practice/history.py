"""A made-up history: what a plan would have lived through in the practice market before."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, timedelta
from typing import Any

import numpy as np

from milkwort.core.arrays import Ints
from milkwort.core.brief.platform import Profile
from milkwort.core.plan.calendar import months_from
from milkwort.core.plan.run import PlanResult, run_plan
from milkwort.core.plan.year import YearAhead
from milkwort.core.words.lexicon import Lexicon
from milkwort.core.words.match_types import MATCHES
from milkwort.platforms.opening import opening_of
from milkwort.practice.known import DayRows, known_rows
from milkwort.practice.month import Lived, lived
from milkwort.standins.market.levels import level_of
from milkwort.standins.market.schemas import Opening
from milkwort.standins.market.told import known_of
from milkwort.standins.market.world import draw_world

__all__ = ["FIGURES", "History", "made_up_history"]

FIGURES = ("impressions", "clicks", "cost", "customers", "could_show", "lost_to_money")
_LEVEL = "usual"
_SCOUTS = 4
"""So many of the plan's keywords also ran in phrase match, to find new terms."""

Columns = dict[str, list[Any]]


class History:
    """Result rows by column, by keyword and by term; days as text.

    Attributes
    ----------
    keywords, terms : dict of str to list
        ``keyword``, ``match``, ``day``, the figures, and ``term``.
    first, last : date
    """

    def __init__(self, keywords: Columns, terms: Columns, first: date, last: date) -> None:
        self.keywords, self.terms = keywords, terms
        self.first, self.last = first, last


def made_up_history(
    plan: PlanResult, lexicon: Lexicon, before: date, months: int, seed: int
) -> History:
    """Let a plan live some months in the practice market, before the day it begins.

    Parameters
    ----------
    plan : PlanResult
    lexicon : Lexicon
    before : date
        The first of a month.
    months : int
    seed : int
        Of the hidden truth.
    """
    told = opening_of(plan, Profile(), "history", _LEVEL, seed, before)
    world = draw_world(known_of(Opening.model_validate(told)), level_of(_LEVEL), seed)
    ran = run_plan(plan.brief, plan.table.joined(_scouts(plan)))
    start = _months_before(before, months)
    calendar = months_from(start)
    done: list[Lived] = []
    for number in range(months):
        month = YearAhead(ran, calendar).month(number)
        first, days = calendar.first[number], int(calendar.days[number])
        done.append(lived(world, level_of(_LEVEL), month, lexicon, first, days))
    last = before - timedelta(1)
    rows = known_rows(done, last.toordinal())
    texts, match = ran.table.texts, ran.table.match
    return History(
        _columns(rows, texts, match, None), _columns(rows, texts, match, world.texts), start, last
    )


def _scouts(plan: PlanResult) -> Any:
    rows = np.argsort(-np.nan_to_num(plan.expected.clicks), kind="stable")[:_SCOUTS]
    some = plan.table.at(rows[plan.table.kept[rows]])
    phrase = np.full(len(some), MATCHES.index("phrase"), dtype=np.int64)
    return replace(some, match=phrase)


def _columns(
    rows: DayRows, texts: tuple[str, ...], match: Ints, terms: tuple[str, ...] | None
) -> Columns:
    """Return rows summed by day and keyword, or by day, keyword and term, in their order."""
    # of terms the report says those that were clicked, as it would fill a book otherwise
    named = np.ones(len(rows.day), dtype=bool) if terms is None else rows.clicks > 0
    text = rows.text if terms is not None else np.zeros_like(rows.text)
    keys, place = np.unique(
        np.column_stack((rows.day, rows.keyword, text))[named], axis=0, return_inverse=True
    )
    place = place.ravel()
    columns: Columns = {
        "day": [date.fromordinal(day).isoformat() for day in keys[:, 0].tolist()],
        "keyword": [texts[row] for row in keys[:, 1].tolist()],
        "match": [MATCHES[match[row]] for row in keys[:, 1].tolist()],
        "term": [""] * len(keys) if terms is None else [terms[t] for t in keys[:, 2].tolist()],
    }
    for name in FIGURES:
        values = getattr(rows, name)[named]
        columns[name] = np.bincount(place, values, minlength=len(keys)).round(6).tolist()
    return columns


def _months_before(day: date, months: int) -> date:
    year, month = divmod(day.year * 12 + day.month - 1 - months, 12)
    return date(year, month + 1, 1)
