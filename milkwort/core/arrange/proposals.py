"""A structure before it is taken: what it would bring for the same money, and what it asks for."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from milkwort.core.arrange.structures import Structure
from milkwort.core.arrays import Floats, Ints
from milkwort.core.errors import BadValueError
from milkwort.core.fit.bids import floor_to_step
from milkwort.core.market.keyword_table import KeywordTable
from milkwort.core.plan.run import PlanResult, run_plan
from milkwort.core.words.match_types import MATCHES

__all__ = ["Lower", "Proposal", "proposal_of", "rearranged"]

Lower = Literal["neither", "exact", "phrase"]
"""Which of an exact keyword and its phrase twin bids lower."""


@dataclass(frozen=True)
class Proposal:
    """A structure with its fit.

    Attributes
    ----------
    result : PlanResult
        The plan arranged so, for the same money.
    groups : int
        With kept keywords.
    to_write : int
        Of them, those without an ad.
    largest : int
        Kept keywords of the fullest group.
    locked : dict of int to float
        Bids that the dial sets, by row of `result`.
    """

    result: PlanResult
    groups: int
    to_write: int
    largest: int
    locked: dict[int, float]


def proposal_of(
    result: PlanResult,
    structure: Structure,
    rows: Ints,
    held: Sequence[tuple[str, str]],
    with_ad: Collection[tuple[str, str]],
    *,
    campaigns: Sequence[str] = (),
    lower: Lower = "neither",
    by: float = 0.0,
) -> Proposal:
    """Fit a plan as a structure would have it.

    Parameters
    ----------
    result : PlanResult
        The plan as it is.
    structure : Structure
        Of the rows given.
    rows : Ints
        Rows of the plan that it arranges; all others stay where they are.
    held : sequence of (str, str)
        Campaign and name of each group that is there, by its number.
    with_ad : collection of (str, str)
        Groups that have an ad.
    campaigns : sequence of str
        The campaigns that are there, by their numbers.
    lower : Lower
        Which of an exact keyword and its twin is to bid lower; the fit decides for neither.
    by : float
        How much lower, as a share of the other's bid.

    Raises
    ------
    BadValueError
        For a share outside 0 to 1.
    """
    if not 0 <= by < 1:
        raise BadValueError("how much lower", "a share from 0, under 1", by)
    table, places = rearranged(result.table, structure, rows, held, campaigns)
    fitted = run_plan(result.brief, table)
    locked: dict[int, float] = {}
    if lower != "neither" and by > 0:
        locked = _lower_bids(fitted, lower, by)
        bids = table.locked_bid.copy()
        bids[list(locked)] = list(locked.values())
        fitted = run_plan(result.brief, replace(table, locked_bid=bids))
    kept = table.group[table.kept & (table.group >= 0)]
    numbers, sizes = np.unique(kept, return_counts=True)
    bare = sum(places[number] not in with_ad for number in numbers.tolist())
    return Proposal(fitted, len(numbers), bare, int(sizes.max(initial=0)), locked)


def rearranged(
    table: KeywordTable,
    structure: Structure,
    rows: Ints,
    held: Sequence[tuple[str, str]],
    campaigns: Sequence[str] = (),
) -> tuple[KeywordTable, list[tuple[str, str]]]:
    """Return a table as a structure would have it, and its groups by number.

    Parameters
    ----------
    table : KeywordTable
    structure : Structure
    rows : Ints
        Which rows it arranges.
    held : sequence of (str, str)
        Campaign and name of each group that is there; they keep their numbers.
    campaigns : sequence of str
        The campaigns that are there; they keep their numbers, and so their limits.

    Returns
    -------
    table : KeywordTable
        With the structure's twins as further rows, kept.
    places : list of (str, str)
        Campaign and name of each group, by its number.
    """
    wanted = [(structure.campaigns[c], name) for c, name in structure.groups]
    places = list(dict.fromkeys([*held, *wanted]))
    number = {place: at for at, place in enumerate(places)}
    names = list(dict.fromkeys([*campaigns, *(campaign for campaign, _ in places)]))
    holder = {name: at for at, name in enumerate(names)}
    group_of = np.array([number[p] for p in wanted] or [0], dtype=np.int64)
    campaign_of = np.array([holder[c] for c, _ in places] or [0], dtype=np.int64)

    group = table.group.copy()
    group[rows] = group_of[structure.of_row]
    campaign = table.campaign.copy()
    campaign[rows] = campaign_of[group[rows]]
    moved = replace(table, group=group, campaign=campaign)
    if not len(structure.twins):
        return moved, places
    twins = moved.at(rows[structure.twins])
    to = group_of[structure.twin_group]
    phrase = np.full(len(to), MATCHES.index("phrase"), dtype=np.int64)
    twins = replace(twins, match=phrase, group=to, campaign=campaign_of[to],
                    locked_bid=np.full(len(to), np.nan))  # fmt: skip
    return moved.joined(twins), places


def _lower_bids(fitted: PlanResult, lower: Lower, by: float) -> dict[int, float]:
    """Return bids that stand lower than those of the same texts in the other match type."""
    table, bids = fitted.table, fitted.bid
    exact, phrase = MATCHES.index("exact"), MATCHES.index("phrase")
    follows, leads = (phrase, exact) if lower == "phrase" else (exact, phrase)
    lead = {
        table.texts[row]: float(bids[row])
        for row in np.flatnonzero(table.kept & (table.match == leads) & np.isfinite(bids)).tolist()
    }
    rows = [
        row
        for row in np.flatnonzero(table.kept & (table.match == follows)).tolist()
        if table.texts[row] in lead
    ]
    price: Floats = np.array([lead[table.texts[row]] * (1 - by) for row in rows])
    floored = floor_to_step(price, fitted.brief.assumed)
    return {row: bid for row, bid in zip(rows, floored.tolist(), strict=True) if bid > 0}
