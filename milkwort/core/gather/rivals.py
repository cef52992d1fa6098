"""Rivals' keyword lists held against the plan: overlap, gaps, what changed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.market.keyword_table import KeywordTable
from milkwort.core.plan.run import PlanResult, run_plan
from milkwort.core.words.texts import normalise

__all__ = ["Change", "Overlap", "RivalRow", "bought_by", "changes_between", "kept_texts",
           "overlap_with", "rank_gaps",
           "rivals_moved"]  # fmt: skip


@dataclass(frozen=True)
class RivalRow:
    """One keyword that a rival was seen to pay for, in all or in one month.

    Attributes
    ----------
    rival, text : str
        Whose it is; the keyword, as read.
    cpc, clicks : float or None
        Estimated money a click, and clicks a month.
    cost : float or None
        Estimated money a month, where the list says it itself.
    position, share : float or None
        Average place of the ad, and estimated share of showings.
    first_seen, last_seen : int or None
        Number of the day; of a row for one month, that month's first and last.
    ad, page : str
    clicks_share : float or None
        Part of the rival's clicks that come through it, where the list says it itself.
    """

    rival: str
    text: str
    cpc: float | None = None
    clicks: float | None = None
    cost: float | None = None
    position: float | None = None
    share: float | None = None
    first_seen: int | None = None
    last_seen: int | None = None
    ad: str = ""
    page: str = ""
    clicks_share: float | None = None

    @cached_property
    def normalised(self) -> str:
        """The text as compared."""
        return normalise(self.text)

    @property
    def monthly_cost(self) -> float | None:
        """Estimated money a month: as listed, else clicks times price."""
        if self.cost is not None:
            return self.cost
        if self.cpc is None or self.clicks is None:
            return None
        return self.cpc * self.clicks


@dataclass(frozen=True)
class Overlap:
    """Texts by who buys them.

    Attributes
    ----------
    both, only_they, only_we : tuple of str
        Normalised, in alphabetical order; *we* are the kept keywords.
    rivals_of : dict of str to tuple of str
        Which rivals buy a text.
    """

    both: tuple[str, ...]
    only_they: tuple[str, ...]
    only_we: tuple[str, ...]
    rivals_of: dict[str, tuple[str, ...]]


@dataclass(frozen=True)
class Change:
    """What a rival began and gave up between two lists, normalised texts."""

    rival: str
    new: tuple[str, ...]
    given_up: tuple[str, ...]


def kept_texts(table: KeywordTable) -> set[str]:
    """Return the normalised texts that a plan keeps.

    Parameters
    ----------
    table : KeywordTable
    """
    return {table.texts[row] for row in np.flatnonzero(table.kept).tolist()}


def overlap_with(table: KeywordTable, rows: Sequence[RivalRow]) -> Overlap:
    """Compare rivals' lists with the kept keywords.

    Parameters
    ----------
    table : KeywordTable
    rows : sequence of RivalRow
    """
    ours = kept_texts(table)
    rivals_of: dict[str, set[str]] = {}
    for row in rows:
        if row.normalised:
            rivals_of.setdefault(row.normalised, set()).add(row.rival)
    theirs = set(rivals_of)
    return Overlap(
        both=tuple(sorted(ours & theirs)),
        only_they=tuple(sorted(theirs - ours)),
        only_we=tuple(sorted(ours - theirs)),
        rivals_of={text: tuple(sorted(names)) for text, names in rivals_of.items()},
    )


def bought_by(rows: Sequence[RivalRow]) -> dict[str, set[str]]:
    """Return the keywords that each rival buys, normalised.

    Parameters
    ----------
    rows : sequence of RivalRow
    """
    found: dict[str, set[str]] = {}
    for row in rows:
        if row.normalised:
            found.setdefault(row.rival, set()).add(row.normalised)
    return found


def rivals_moved(
    before: Sequence[RivalRow], now: Sequence[RivalRow]
) -> dict[str, tuple[tuple[str, ...], tuple[str, ...]]]:
    """Return who came to pay for a keyword between two lists, and who no longer does.

    Parameters
    ----------
    before, now : sequence of RivalRow
        Only rivals that both lists speak of are told: a list of one rival says nothing of others.

    Returns
    -------
    dict of str to (tuple of str, tuple of str)
        By normalised text, rivals that came and rivals that are gone, in alphabetical order;
        keywords of which neither is true are left out.
    """
    both = bought_by(before).keys() & bought_by(now).keys()
    came: dict[str, list[str]] = {}
    gone: dict[str, list[str]] = {}
    for change in changes_between(before, now):
        if change.rival in both:
            for text in change.new:
                came.setdefault(text, []).append(change.rival)
            for text in change.given_up:
                gone.setdefault(text, []).append(change.rival)
    return {
        text: (tuple(came.get(text, ())), tuple(gone.get(text, ())))
        for text in came.keys() | gone.keys()
    }


def changes_between(before: Sequence[RivalRow], after: Sequence[RivalRow]) -> list[Change]:
    """Return what each rival began and gave up between two lists, by name.

    Parameters
    ----------
    before, after : sequence of RivalRow
        The earlier list and the later one.

    Returns
    -------
    list of Change
        Rivals that changed nothing are left out.
    """
    old, new = bought_by(before), bought_by(after)
    return [
        Change(
            rival,
            tuple(sorted(new.get(rival, set()) - old.get(rival, set()))),
            tuple(sorted(old.get(rival, set()) - new.get(rival, set()))),
        )
        for rival in sorted(old | new)
    ]


def rank_gaps(
    result: PlanResult, candidates: KeywordTable, texts: Sequence[str]
) -> tuple[Ints, Floats]:
    """Rank what only they buy by what it would bring this plan.

    Parameters
    ----------
    result : PlanResult
        The plan as it is.
    candidates : KeywordTable
        Those texts as rows that are not called, with the figures known of them.
    texts : sequence of str
        Their normalised texts, to look them up in the sheet: a row that is there already
        stands with its own figures.

    Returns
    -------
    order : Ints
        Places among the candidates, the best first.
    customers : Floats
        A month, at the present next unit of money, in the candidates' order.
    """
    there = {text: row for row, text in enumerate(result.table.texts)}
    known = np.array([there.get(text, -1) for text in texts], dtype=np.int64)
    joined = result.table.joined(candidates)
    after = run_plan(result.brief, joined)
    own = after.not_kept.customers[len(result.table) :]
    in_sheet = result.not_kept.customers[np.maximum(known, 0)] if len(result.table) else own
    customers = np.where(known >= 0, in_sheet, own)
    return np.argsort(-customers, kind="stable"), customers
