"""Things in a plan that work against each other, found at once."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrange.one_search import shared_searches
from milkwort.core.market.in_force import negatives_in_force
from milkwort.core.market.keyword_table import CALLS, KeywordTable
from milkwort.core.market.relation import relation_of
from milkwort.core.market.serving import stopped_texts
from milkwort.core.plan.run import PlanResult, run_plan
from milkwort.core.words.matching import text_matches
from milkwort.core.words.negatives import Negative
from milkwort.core.words.texts import canonical, joints_of, normalise

__all__ = ["CONFLICT_KINDS", "Conflict", "NegativeWorth", "conflicts_of", "negative_worth"]

CONFLICT_KINDS: dict[str, str] = {
    "negative_stops_kept": "a negative stops keywords that are kept",
    "negative_stops_sold": "a negative stops search terms that have sold",
    "negative_word_in_kept": "a negative word also stands in keywords that are kept",
    "same_keyword_twice": "the same keyword is kept twice",
    "one_search_two_bids": "keywords serve one search at different bids",
}
"""Every kind of conflict, in words."""

_MOST_ROWS = 20
"""A conflict names so many keywords at most."""


@dataclass(frozen=True)
class Conflict:
    """One conflict.

    Attributes
    ----------
    kind : str
        From `CONFLICT_KINDS`.
    rows : tuple of int
        Keywords concerned, at most twenty of them.
    negative : str
        The negative at fault, as typed; empty for none.
    place : int
        Its place among the brief's negatives, then those that blocked rows make; −1 for none.
    count : int
        How many keywords or terms are concerned.
    searches, customers, spend : float
        What is lost or shared a month; customers and money at the present next unit.
    terms : tuple of str
        Search terms concerned.
    """

    kind: str
    rows: tuple[int, ...]
    negative: str = ""
    count: int = 0
    searches: float = 0.0
    customers: float = 0.0
    spend: float = 0.0
    terms: tuple[str, ...] = ()
    place: int = -1


@dataclass(frozen=True)
class NegativeWorth:
    """What a negative changes, a month; what it stops among unknown variants is not counted.

    Attributes
    ----------
    stops : tuple of int
        Rows whose text it matches.
    hurts : tuple of int
        Those of them that are kept.
    spill_saved : float
        Searches it stops that were dropped and yet paid for.
    spend_freed : float
        Money no longer spent on what it stops.
    customers_gained, profit_gained : float
        The plan with it, less the plan without; below 0 where it does harm.
    """

    stops: tuple[int, ...]
    hurts: tuple[int, ...]
    spill_saved: float
    spend_freed: float
    customers_gained: float
    profit_gained: float


def negative_worth(result: PlanResult, negative: Negative) -> NegativeWorth:
    """Work a plan out again with one more negative and say what it saves, at least.

    Parameters
    ----------
    result : PlanResult
    negative : Negative

    Returns
    -------
    NegativeWorth
    """
    brief = replace(result.brief, negatives=(*result.brief.negatives, negative))
    after = run_plan(brief, result.table, result)
    stopped = after.demand.stopped & ~result.demand.stopped
    lost = np.maximum(result.demand.spill - after.demand.spill, 0.0)
    # what was spent on the spill: its clicks, f·W, of all clicks, Q
    clicked = np.array(brief.assumed.triple("variant_clicks"))[result.table.match]
    weight = np.where(result.demand.click_weight > 0, result.demand.click_weight, 1.0)
    share = clicked * lost / weight
    freed = float((result.expected.spend * share).sum())
    return NegativeWorth(
        stops=tuple(np.flatnonzero(_matched(result, negative)).tolist()),
        hurts=tuple(np.flatnonzero(stopped & result.table.kept).tolist()),
        spill_saved=float(lost.sum()),
        spend_freed=freed + float(result.expected.spend[stopped].sum()),
        customers_gained=after.totals.customers - result.totals.customers,
        profit_gained=after.totals.profit - result.totals.profit,
    )


def conflicts_of(
    result: PlanResult, sold_terms: Sequence[str] = (), blocks_twins: Sequence[bool] = ()
) -> list[Conflict]:
    """Find every conflict of a plan.

    Parameters
    ----------
    result : PlanResult
    sold_terms : sequence of str
        Search terms that have sold.
    blocks_twins : sequence of bool
        By group: whether it leaves texts to the groups that hold them as exact; none does where
        nothing is said.

    Returns
    -------
    list of Conflict
        By kind, in the order of `CONFLICT_KINDS`.
    """
    return [
        *_stopping(result),
        *_stopping_sold(result, sold_terms),
        *_shared_words(result),
        *_twice(result),
        *_one_search(result, blocks_twins),
    ]


def _stopping(result: PlanResult) -> list[Conflict]:
    if not (result.table.kept & result.demand.stopped).any():
        return []
    found = []
    # what a stopped keyword would bring, were it not for the negative
    freed = run_plan(replace(result.brief, negatives=()), _unblocked(result.table), result)
    for place, negative in enumerate(_in_force(result)):
        rows = np.flatnonzero(_matched(result, negative) & result.table.kept)
        if len(rows):
            found.append(
                Conflict(
                    "negative_stops_kept",
                    tuple(rows[:_MOST_ROWS].tolist()),
                    negative.text,
                    len(rows),
                    searches=float(result.demand.volume[rows].sum()),
                    customers=float(freed.expected.customers[rows].sum()),
                    spend=float(freed.expected.spend[rows].sum()),
                    place=place,
                )
            )
    return found


def _in_force(result: PlanResult) -> tuple[Negative, ...]:
    return negatives_in_force(result.brief.negatives, result.table)


def _unblocked(table: KeywordTable) -> KeywordTable:
    """Return the table with what is blocked merely dropped: it makes no negatives."""
    return table.with_calls(np.flatnonzero(table.call == CALLS.index("block")), "drop")


def _stopping_sold(result: PlanResult, terms: Sequence[str]) -> list[Conflict]:
    found = []
    close = result.brief.negative_close_forms
    for place, negative in enumerate(_in_force(result)):
        hit = tuple(
            t for t in terms if text_matches(negative.match, negative.text, t, close_forms=close)
        )
        if hit:
            found.append(
                Conflict(
                    "negative_stops_sold",
                    (),
                    negative.text,
                    len(hit),
                    terms=hit[:_MOST_ROWS],
                    place=place,
                )
            )
    return found


def _shared_words(result: PlanResult) -> list[Conflict]:
    """Find one-word negatives whose word stands in kept keywords that they do not stop."""
    found = []
    kept = np.flatnonzero(result.table.kept)
    words = [set(canonical(result.table.texts[row], {}, True)) for row in kept.tolist()]
    for place, negative in enumerate(_in_force(result)):
        word = canonical(normalise(negative.text), {}, True)
        if len(word) != 1:
            continue
        stopped = _matched(result, negative)
        rows = [r for r, w in zip(kept.tolist(), words, strict=True)
                if word[0] in w and not stopped[r]]  # fmt: skip
        if rows:
            found.append(
                Conflict(
                    "negative_word_in_kept",
                    tuple(rows[:_MOST_ROWS]),
                    negative.text,
                    len(rows),
                    searches=float(result.demand.own[rows].sum()),
                    place=place,
                )
            )
    return found


def _twice(result: PlanResult) -> list[Conflict]:
    table = result.table
    spellings = dict(table.joints)
    seen: dict[tuple[int, tuple[str, ...]], list[int]] = {}
    for row in np.flatnonzero(table.kept).tolist():
        words = canonical(table.texts[row], spellings, result.brief.close_forms)
        seen.setdefault((int(table.match[row]), words), []).append(row)
    return [
        Conflict("same_keyword_twice", tuple(rows[:_MOST_ROWS]), count=len(rows),
                 searches=float(result.demand.volume[rows].sum()))
        for rows in seen.values()
        if len(rows) > 1
    ]  # fmt: skip


def _one_search(result: PlanResult, blocks_twins: Sequence[bool]) -> list[Conflict]:
    return [
        Conflict(
            "one_search_two_bids",
            (row, *shared[: _MOST_ROWS - 1].tolist()),
            count=len(shared) + 1,
            searches=float(result.demand.own[shared].sum()),
        )
        for row, shared in shared_searches(result, blocks_twins)
    ]


def _matched(result: PlanResult, negative: Negative) -> NDArray[np.bool_]:
    """Say which rows a negative stops, where it acts."""
    brief, table = result.brief, result.table
    joints = table.joints | joints_of([negative.text])
    relation = relation_of(table, brief.close_forms, joints)
    found = stopped_texts(relation, (negative,), joints, brief.negative_close_forms)
    texts = np.zeros(len(relation.texts), dtype=bool)
    texts[found.text] = True
    inside = np.ones(len(table), dtype=bool)
    if negative.level != "plan":
        column = table.group if negative.level == "group" else table.campaign
        inside = column == negative.number
    return texts[relation.of_row] & inside
