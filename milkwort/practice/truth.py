"""Forecasts and advice held against many truths: what each truth says of them, in figures."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.learn.came import Came
from milkwort.core.learn.our_word import PROMISED, score_of
from milkwort.core.plan.draws import Draws, draw_month
from milkwort.core.plan.run import PlanResult
from milkwort.practice.loop import Practice, lived_first, month_first, practised
from milkwort.practice.month import Lived

__all__ = ["POLICIES_TRIED", "SIZES", "Trial", "advice_in", "ranges_in"]

POLICIES_TRIED: tuple[str, ...] = ("advice", "informed", "unchanged", "rule", "middle")
SIZES: tuple[str, ...] = ("under 30 searches", "30 to 300", "over 300")
_EDGES = (30.0, 300.0)
_MONTHS = 3
_SPLIT = 12
"""Seed of the number that settles where on an edge a figure lies."""


@dataclass(frozen=True)
class Trial:
    """A plan that is tried in truths of one level.

    Attributes
    ----------
    name : str
    practice : Practice
        Of the plan unchanged.
    """

    name: str
    practice: Practice


@dataclass(frozen=True)
class _Planned:
    """The first month of a trial and its draws, by figure and by size of keyword."""

    month: PlanResult
    size: Ints
    draws: Draws


def ranges_in(trial: Trial, seed: int) -> dict[str, float]:
    """Return where the first month of a truth fell among the draws.

    Parameters
    ----------
    trial : Trial
    seed : int
        Of the truth.

    Returns
    -------
    dict of str to float
        A place from 0 to 1 by `PROMISED` and by `SIZES` (customers of such keywords).
    """
    planned = _planned(trial)
    came = lived_first(trial.practice, planned.month, seed)
    actual = Came(came.sums.clicks, came.sums.spend, came.sums.customers,
                  came.sums.profit + came.sums.spend)  # fmt: skip
    rng = np.random.default_rng((seed, _SPLIT))
    found = {
        name: score_of(planned.draws.figures[name], getattr(actual, name)).placed(rng.random())
        for name in PROMISED
    }
    sold = _sold(came, len(planned.month.table))
    for number, name in enumerate(SIZES):
        drawn = planned.draws.by_group.get(number)
        if drawn is not None:
            of_size = float(sold[planned.size == number].sum())
            found[name] = score_of(drawn, of_size).placed(rng.random())
    return found


def advice_in(trial: Trial, seed: int) -> dict[str, Any]:
    """Return what each policy made of the same three months of a truth.

    Parameters
    ----------
    trial : Trial
    seed : int
        Of the truth.

    Returns
    -------
    dict
        By policy: ``profit`` under the truth over hindsight's, of the last month, ``spill``
        (money for searches of which nobody buys, over spend), and for policies that learn
        ``stops``, ``wrong_stops``, ``raises``, ``wrong_raises``, ``terms``, ``wrong_terms``.
    """
    found: dict[str, Any] = {}
    best = 0.0
    for policy in ("unchanged", *(p for p in POLICIES_TRIED if p != "unchanged")):
        practice = replace(trial.practice, policy=policy, months=_MONTHS, drawn=False,
                           with_hindsight=policy == "unchanged", only_last=True)  # fmt: skip
        months = practised(practice, seed)["months"]
        if policy == "unchanged":
            best = months[-1]["hindsight"]["profit"]
        spend = sum(month["actual"]["spend"] for month in months)
        spill = sum(month["spill_spend"] for month in months)
        found[policy] = {
            "profit": months[-1]["under_truth"]["profit"] / best if best > 0 else None,
            "spill": spill / spend if spend > 0 else 0.0, **_verdicts(months),
        }  # fmt: skip
    return found


def _verdicts(months: list[Mapping[str, Any]]) -> dict[str, int]:
    verdicts = [one for month in months for one in month["verdicts"]]
    blocked = [one for month in months for one in month["terms"]
               if one["suggestion"] in ("block_family", "block_text")]  # fmt: skip
    counts = {"terms": len(blocked), "wrong_terms": sum(t["true_rate"] > 0 for t in blocked)}
    for name in ("stop", "raise"):
        mine = [one for one in verdicts if one["verdict"] == name]
        counts[f"{name}s"] = len(mine)
        counts[f"wrong_{name}s"] = sum(one["wrong"] for one in mine)
    return counts


_KEPT: dict[str, _Planned] = {}


def _planned(trial: Trial) -> _Planned:
    held = _KEPT.get(trial.name)
    if held is None:
        held = _KEPT[trial.name] = _drawn(trial.practice)
    return held


def _drawn(practice: Practice) -> _Planned:
    month = month_first(practice)
    size = np.searchsorted(_EDGES, np.nan_to_num(month.demand.searches), side="right")
    by_size = replace(month, table=replace(month.table, group=size.astype(np.int64)))
    draws = draw_month(by_size)
    assert draws is not None
    return _Planned(month, size, draws)


def _sold(came: Lived, n: int) -> Floats:
    customers = np.zeros(n)
    for day in came.results:
        np.add.at(customers, came.rows[day.sold.keyword], day.sold.customers)
    return customers
