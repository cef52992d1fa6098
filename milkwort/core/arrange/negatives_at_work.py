"""What each negative of a plan does: what it stops, saves, and whom it hurts."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrange.to_block import money_by_text
from milkwort.core.arrays import Floats, Ints
from milkwort.core.market.keyword_table import CALLS
from milkwort.core.market.relation import relation_of
from milkwort.core.market.serving import stopped_texts
from milkwort.core.plan.run import PlanResult, run_plan
from milkwort.core.words.matching import index_of
from milkwort.core.words.negatives import Negative, Stopped, stopped_by
from milkwort.core.words.texts import joints_of, normalise

__all__ = ["AtWork", "money_saved", "negatives_at_work", "without_negatives"]


@dataclass(frozen=True)
class AtWork:
    """What one negative does, were it the only one.

    Attributes
    ----------
    stops : tuple of int
        Rows of the sheet whose text it matches, where it acts.
    terms : tuple of str
        Past search terms it matches.
    saves : float
        Money a month, at least, that would go to what it stops and nobody kept.
    hurts : tuple of int
        Those of the rows that are kept.
    sold : tuple of str
        Those of the terms that have sold.
    customers, spend : float
        What the kept ones would bring and cost a month.
    """

    stops: tuple[int, ...]
    terms: tuple[str, ...]
    saves: float
    hurts: tuple[int, ...]
    sold: tuple[str, ...]
    customers: float
    spend: float

    @property
    def harms(self) -> bool:
        """Whether it stops something that is kept or has sold."""
        return bool(self.hurts or self.sold)


def without_negatives(result: PlanResult) -> PlanResult:
    """Return the plan as it would be with no negative at all; blocked rows are merely dropped.

    Parameters
    ----------
    result : PlanResult
    """
    blocked = np.flatnonzero(result.table.call == CALLS.index("block"))
    table = result.table.with_calls(blocked, "drop")
    return run_plan(replace(result.brief, negatives=()), table, result)


def negatives_at_work(
    free: PlanResult,
    negatives: Sequence[Negative],
    terms: Sequence[str] = (),
    sold: Sequence[str] = (),
) -> list[AtWork]:
    """Say of each negative what it does.

    Parameters
    ----------
    free : PlanResult
        The plan without any negative, from `without_negatives`.
    negatives : sequence of Negative
        Those of the plan, or some that might be added.
    terms : sequence of str
        Search terms of the past.
    sold : sequence of str
        Those that have sold.

    Returns
    -------
    list of AtWork
        In the order of `negatives`.
    """
    table, brief = free.table, free.brief
    given = tuple(negatives)
    joints = table.joints | joints_of(n.text for n in given)
    relation = relation_of(table, brief.close_forms, joints)
    found = stopped_texts(relation, given, joints, brief.negative_close_forms)
    of_sheet = _by_negative(found, len(given))
    of_terms = _terms_of(given, terms, brief.negative_close_forms)
    of_sold = _terms_of(given, sold, brief.negative_close_forms)
    rows_of = _rows_by_text(relation.of_row, len(relation.texts))
    wasted = _Wasted(free)
    places = {(n.level, n.number): n for n in given}
    inside = {place: _inside(free, n) for place, n in places.items()}
    return [
        _one(free, wasted, inside[n.level, n.number], texts, rows_of, terms_of, sold_of)
        for n, texts, terms_of, sold_of in zip(given, of_sheet, of_terms, of_sold, strict=True)
    ]


def money_saved(free: PlanResult, negative: Negative, found: AtWork) -> list[tuple[int, float]]:
    """Return the rows a negative stops that money goes to in vain, with that money a month.

    Parameters
    ----------
    free : PlanResult
        The plan without any negative, from `without_negatives`.
    negative : Negative
    found : AtWork
        What it does in that plan; what its rows save comes to `found.saves`.
    """
    wasted, inside = _Wasted(free), _inside(free, negative)
    of_row = free.serving.texts.relation.of_row
    first: dict[int, int] = {}
    for row in found.stops:
        first.setdefault(int(of_row[row]), row)
    pairs = [(row, wasted.saved(np.array([text]), inside)) for text, row in first.items()]
    return [(row, money) for row, money in pairs if money > 0]


class _Wasted:
    """Money a month that goes to each text which nobody kept, and the row that spends it."""

    def __init__(self, free: PlanResult) -> None:
        texts = free.serving.texts
        self.money = money_by_text(free)
        self.server = texts.server

    def saved(self, texts: Ints, inside: NDArray[np.bool_]) -> float:
        """Return the money on some texts that rows within a place spend."""
        served = texts[self.server[texts] >= 0]
        return float(self.money[served][inside[self.server[served]]].sum())


def _one(
    free: PlanResult,
    wasted: _Wasted,
    inside: NDArray[np.bool_],
    texts: Ints,
    rows_of: Sequence[Ints],
    terms: tuple[str, ...],
    sold: tuple[str, ...],
) -> AtWork:
    if not len(texts):
        return AtWork((), terms, 0.0, (), sold, 0.0, 0.0)
    rows: Ints = np.sort(
        np.concatenate([rows_of[t] for t in texts.tolist()] or [np.zeros(0, dtype=np.int64)])
    )
    rows = rows[inside[rows]]
    hurt = rows[free.table.kept[rows]]
    return AtWork(
        stops=tuple(rows.tolist()),
        terms=terms,
        saves=wasted.saved(texts, inside),
        hurts=tuple(hurt.tolist()),
        sold=sold,
        customers=float(free.expected.customers[hurt].sum()),
        spend=float(free.expected.spend[hurt].sum()),
    )


def _inside(free: PlanResult, negative: Negative) -> NDArray[np.bool_]:
    """Say which rows lie where a negative acts."""
    table = free.table
    if negative.level == "plan":
        return np.ones(len(table), dtype=bool)
    column: Floats | Ints = table.group if negative.level == "group" else table.campaign
    return np.asarray(column == negative.number)


def _terms_of(
    negatives: tuple[Negative, ...], terms: Sequence[str], close_forms: bool
) -> list[tuple[str, ...]]:
    texts = tuple(dict.fromkeys(t for t in map(normalise, terms) if t))
    joints = joints_of([*terms, *(n.text for n in negatives)])
    found = stopped_by(negatives, index_of(texts, joints, close_forms), joints, close_forms)
    return [tuple(texts[t] for t in held.tolist()) for held in _by_negative(found, len(negatives))]


def _by_negative(found: Stopped, n: int) -> list[Ints]:
    order = np.argsort(found.negative, kind="stable")
    ends = np.searchsorted(found.negative[order], np.arange(n + 1))
    text = found.text[order]
    return [np.unique(text[ends[at] : ends[at + 1]]) for at in range(n)]


def _rows_by_text(of_row: Ints, n: int) -> list[Ints]:
    order = np.argsort(of_row, kind="stable")
    ends = np.searchsorted(of_row[order], np.arange(n + 1))
    return [order[ends[at] : ends[at + 1]] for at in range(n)]
