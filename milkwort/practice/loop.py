"""Plan, hand over, live a month, learn, close the month, again: one truth, one policy."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from dataclasses import dataclass
from datetime import date
from functools import lru_cache
from typing import Any

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.brief.platform import Profile
from milkwort.core.learn.by_now import elapsed_of
from milkwort.core.learn.our_word import PROMISED, score_of
from milkwort.core.plan.calendar import Months, months_from
from milkwort.core.plan.draws import Draws, draw_month
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.year import YearAhead
from milkwort.core.words.lexicon import Lexicon
from milkwort.core.words.match_types import MATCHES
from milkwort.platforms.opening import opening_of
from milkwort.practice.advice import Advice, advised
from milkwort.practice.informed import informed_of
from milkwort.practice.known import known_rows, results_by
from milkwort.practice.month import Lived, hindsight, lived, under_truth
from milkwort.practice.policies import POLICIES, Month, first_plan
from milkwort.standins.market.expected import true_rates
from milkwort.standins.market.levels import Level, level_of
from milkwort.standins.market.schemas import Opening
from milkwort.standins.market.told import known_of
from milkwort.standins.market.world import World, draw_world

__all__ = ["LEARNING", "Practice", "lived_first", "month_first", "practised"]

LEARNING = ("advice", "informed")
"""Policies that learn from what came; the second is told how wide the truth is drawn."""

_SEED = 1
_PHRASE = 1


@dataclass(frozen=True)
class Practice:
    """What is practised with.

    Attributes
    ----------
    plan : PlanResult
        For a mean month.
    lexicon : Lexicon
    texts : tuple of str
        Keywords as typed.
    level, policy : str
    months : int
    start : date
        The first day of the first month.
    drawn : bool
        Whether ranges are forecast too.
    with_hindsight : bool
        Whether it is worked out what the same money could have brought.
    only_last : bool
        Whether months before the last are held against the truth too; None stands for them.
    """

    plan: PlanResult
    lexicon: Lexicon
    texts: tuple[str, ...]
    level: str
    policy: str
    months: int
    start: date
    drawn: bool = True
    with_hindsight: bool = True
    only_last: bool = False


def practised(practice: Practice, seed: int) -> dict[str, Any]:
    """Run the loop in one truth.

    Parameters
    ----------
    practice : Practice
    seed : int
        Of the truth.

    Returns
    -------
    dict
        ``seed``, ``level``, ``policy`` and ``months``, as the docs describe.
    """
    world = _world(practice, seed)
    level = level_of(practice.level)
    calendar = months_from(practice.start)
    base = plan = first_plan(practice.plan, practice.policy)
    done: list[Lived] = []
    ran: list[tuple[Floats, Floats]] = []
    found: list[dict[str, Any]] = []
    learns = practice.policy in LEARNING
    for number in range(practice.months):
        first, days = calendar.first[number], int(calendar.days[number])
        month = _month(plan, calendar, number, refit=learns and number > 0)
        if number == 0:
            came = _first_lived(practice, world, month, seed, first, days)
        else:
            came = lived(world, level, month, practice.lexicon, first, days)
        done.append(came)
        elapsed = elapsed_of(base, first, calendar.last[number]).factor
        ran.append((month.bid, elapsed))
        entry = _entry(practice, world, month, came, number)
        today, n = came.days[-1], len(plan.table)
        so_far = known_rows(done, today)
        if learns:
            told = informed_of(practice.level) if practice.policy == "informed" else {}
            advice = advised(base, practice.lexicon, so_far, world.texts, ran,
                             [one.days for one in done], today, told)  # fmt: skip
            entry |= _advice_entry(world, level, base, came, advice)
            base, plan = advice.base, advice.plan
            ran = [tuple(map(_padded(len(base.table)), pair)) for pair in ran]  # type: ignore[misc]
        else:
            assumed = plan.brief.assumed
            last_month = results_by(known_rows([came], today), n, today, assumed)
            at_end = Month(plan, results_by(so_far, n, today, assumed), last_month)
            plan = POLICIES[practice.policy](at_end)
        found.append(entry)
    return {"seed": seed, "level": practice.level, "policy": practice.policy, "months": found}


def month_first(practice: Practice) -> PlanResult:
    """Return the first month of what is practised with, as it is planned."""
    plan = first_plan(practice.plan, practice.policy)
    return _month(plan, months_from(practice.start), 0)


def lived_first(practice: Practice, month: PlanResult, seed: int) -> Lived:
    """Live the first month in one truth.

    Parameters
    ----------
    practice : Practice
    month : PlanResult
        As `month_first` returns it.
    seed : int
        Of the truth.
    """
    calendar = months_from(practice.start)
    return lived(_world(practice, seed), level_of(practice.level), month, practice.lexicon,
                 calendar.first[0], int(calendar.days[0]))  # fmt: skip


def _padded(n: int) -> Callable[[Floats], Floats]:
    """Return what lengthens a column to n rows: new keywords did not run, and had no searches."""
    return lambda column: np.concatenate((column, np.full(n - len(column), np.nan)))


def _advice_entry(
    world: World, level: Level, base: PlanResult, came: Lived, advice: Advice
) -> dict[str, Any]:
    """Return the verdicts and the suggestions of a month, each beside the truth."""
    rates = true_rates(world, level, came.live, came.serving, came.days)
    of_row = dict(zip(came.rows.tolist(), rates.tolist(), strict=True))
    line = advice.judged.evidence.cpc / advice.judged.allowed
    verdicts = []
    for row, verdict in enumerate(advice.verdicts):
        rate = of_row.get(row, np.nan)
        if verdict in ("stop", "raise") and np.isfinite(rate) and np.isfinite(line[row]):
            meets = rate >= line[row]
            verdicts.append({
                "keyword": base.table.texts[row], "match": MATCHES[base.table.match[row]],
                "verdict": verdict, "wrong": bool(meets if verdict == "stop" else not meets),
            })  # fmt: skip
    place = {text: at for at, text in enumerate(world.texts)}
    terms = [
        {"term": text, "suggestion": one.suggestion, "true_rate": _true_rate(world, place[text])}
        for text, one in zip(advice.terms.texts, advice.suggested, strict=True)
        if one.suggestion != "wait"
    ]
    return {"verdicts": verdicts, "terms": terms}


def _true_rate(world: World, text: int) -> float:
    """Return customers a click of a text, as a wider keyword that serves it has them."""
    if text < world.n_known:
        return float(world.rate[text])
    return float(world.rate[text] * world.rate_share[text, _PHRASE])


_WORLDS: dict[Hashable, tuple[PlanResult, World]] = {}
_FIRST: dict[Hashable, tuple[World, Lived]] = {}


def _world(practice: Practice, seed: int) -> World:
    """Return the truth of a seed; that of the last one stays: policies meet the same."""
    key = (id(practice.plan), practice.start, practice.level, seed)
    held = _WORLDS.get(key)
    if held is None or held[0] is not practice.plan:
        known = known_of(Opening.model_validate(_opening(practice.plan, practice.start)))
        _WORLDS.clear()
        held = _WORLDS[key] = practice.plan, draw_world(known, level_of(practice.level), seed)
    return held[1]


def _first_lived(
    practice: Practice, world: World, month: PlanResult, seed: int, first: date, days: int
) -> Lived:
    """Return the first month as it was lived; policies that bid alike lived the same."""
    key = (seed, practice.level, first, days, month.bid.tobytes())
    held = _FIRST.get(key)
    if held is None or held[0] is not world:
        _FIRST.clear()
        came = lived(world, level_of(practice.level), month, practice.lexicon, first, days)
        held = _FIRST[key] = world, came
    return held[1]


_OPENINGS: dict[int, tuple[PlanResult, dict[str, Any]]] = {}


def _opening(plan: PlanResult, start: date) -> dict[str, Any]:
    """Return what the market is told; the same for every truth."""
    held = _OPENINGS.get(id(plan))
    if held is None or held[0] is not plan:
        _OPENINGS.clear()
        told = opening_of(plan, Profile(), plan.brief.name or "practice", "usual", 0, start)
        held = _OPENINGS[id(plan)] = (plan, told)
    return held[1]


def _month(plan: PlanResult, calendar: Months, number: int, *, refit: bool = False) -> PlanResult:
    return YearAhead(plan, calendar, refit=refit).month(number)


def _entry(
    practice: Practice, world: World, month: PlanResult, came: Lived, number: int
) -> dict[str, Any]:
    level = level_of(practice.level)
    judged = not practice.only_last or number == practice.months - 1
    totals = month.totals
    forecast: dict[str, Any] = {name: {"expected": getattr(totals, name)} for name in PROMISED}
    scores: dict[str, Any] = {}
    if practice.drawn:
        draws = _draws(_Drawn(month))
        for name in PROMISED:
            some = draws.ranges[name]
            forecast[name] |= {"p10": some.low, "p50": some.middle, "p90": some.high}
        actual = _figures(came)
        scores = {name: vars(score_of(draws.figures[name], actual[name])) for name in PROMISED}
    return {
        "month": f"{months_from(practice.start).first[number]:%Y-%m}",
        "forecast": forecast, "actual": _figures(came), "scores": scores,
        "under_truth": under_truth(world, level, month, came).as_dict() if judged else None,
        "hindsight": (hindsight(world, level, month, came).as_dict()
                      if judged and practice.with_hindsight else None),
        "verdicts": [], "terms": [], "spill_spend": came.spill_spend,
    }  # fmt: skip


def _figures(came: Lived) -> dict[str, Any]:
    sums = came.sums
    each = sums.spend / sums.customers if sums.customers > 0 else None
    return sums.as_dict() | {"cost_per_customer": each}


class _Drawn:
    """A month to draw, equal to another where it draws the same."""

    def __init__(self, month: PlanResult) -> None:
        self.month = month
        self._key = (month.bid.tobytes(), month.demand.searches.tobytes(),
                     month.brief.monthly_spend, month.brief.assumed["draw_days"],
                     month.demand.rate.tobytes(), month.prices.mu.tobytes(), month.brief.taught,
                     month.table.taught.tobytes())  # fmt: skip

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Drawn) and self._key == other._key

    def __hash__(self) -> int:
        return hash(self._key)


@lru_cache(maxsize=16)
def _draws(drawn: _Drawn) -> Draws:
    found = draw_month(drawn.month, seed=_SEED)
    assert found is not None
    return found
