"""Rivals' keyword lists held against the plan: overlap, gaps, staying power."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from milkwort.core.keyword_table import Floats, Ints, KeywordTable
from milkwort.core.plan import PlanResult, run_plan
from milkwort.core.words import normalise

__all__ = ["Change", "Overlap", "RivalAd", "RivalRow", "Sighting", "ads_seen",
           "changes_between", "overlap_with", "rank_gaps", "staying_power"]  # fmt: skip


@dataclass(frozen=True)
class RivalRow:
    """One keyword that a rival was seen to pay for.

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
        Number of the day.
    ad, page : str
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

    @property
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
class Sighting:
    """How long a keyword or an ad has been running.

    Attributes
    ----------
    name : str
        The keyword or the ad.
    days : int
        From the first sighting to the last, both counted.
    running : bool
        Whether it was seen on the last day of the list.
    rivals : int
        How many rivals.
    monthly_cost : float or None
        Estimated money a month; None where nothing is known of it.
    """

    name: str
    days: int
    running: bool
    rivals: int
    monthly_cost: float | None


@dataclass(frozen=True)
class RivalAd:
    """One ad text with what it is shown for.

    Attributes
    ----------
    text : str
    keywords : tuple of str
        Normalised, in alphabetical order.
    rivals : tuple of str
    sighting : Sighting or None
        None where the list has no dates.
    """

    text: str
    keywords: tuple[str, ...]
    rivals: tuple[str, ...]
    sighting: Sighting | None


@dataclass(frozen=True)
class Change:
    """What a rival began and gave up between two lists, normalised texts."""

    rival: str
    new: tuple[str, ...]
    given_up: tuple[str, ...]


def overlap_with(table: KeywordTable, rows: Sequence[RivalRow]) -> Overlap:
    """Compare rivals' lists with the kept keywords.

    Parameters
    ----------
    table : KeywordTable
    rows : sequence of RivalRow
    """
    ours = {table.texts[row] for row in np.flatnonzero(table.kept).tolist()}
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


def staying_power(rows: Sequence[RivalRow], *, by_ad: bool = False) -> list[Sighting]:
    """Say how long each keyword, or each ad, has been running, the longest first.

    What somebody has paid for month after month probably pays.

    Parameters
    ----------
    rows : sequence of RivalRow
        Those without dates are left out.
    by_ad : bool
        Gather by ad text instead of by keyword.
    """
    dated: dict[str, list[RivalRow]] = {}
    for row in rows:
        name = row.ad if by_ad else row.normalised
        if name and row.first_seen is not None and row.last_seen is not None:
            dated.setdefault(name, []).append(row)
    latest = max((r.last_seen or 0 for some in dated.values() for r in some), default=0)
    found = [_sighting(name, some, latest) for name, some in dated.items()]
    return sorted(found, key=lambda s: (-s.days, s.name))


def ads_seen(rows: Sequence[RivalRow]) -> list[RivalAd]:
    """Return ads with the keywords each is shown for, the longest running first.

    Parameters
    ----------
    rows : sequence of RivalRow
        Those without an ad text are left out.
    """
    by_ad: dict[str, list[RivalRow]] = {}
    for row in rows:
        if row.ad:
            by_ad.setdefault(row.ad, []).append(row)
    seen = {s.name: s for s in staying_power(rows, by_ad=True)}
    ads = [
        RivalAd(
            ad,
            tuple(sorted({r.normalised for r in some if r.normalised})),
            tuple(sorted({r.rival for r in some})),
            seen.get(ad),
        )
        for ad, some in by_ad.items()
    ]
    return sorted(ads, key=lambda a: (-(a.sighting.days if a.sighting else 0), a.text))


def changes_between(before: Sequence[RivalRow], after: Sequence[RivalRow]) -> list[Change]:
    """Return what each rival began and gave up between two lists, by name."""
    old, new = _by_rival(before), _by_rival(after)
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
    joined = _joined(result.table, candidates)
    after = run_plan(result.brief, joined)
    own = after.not_kept.customers[len(result.table) :]
    in_sheet = result.not_kept.customers[np.maximum(known, 0)] if len(result.table) else own
    customers = np.where(known >= 0, in_sheet, own)
    return np.argsort(-customers, kind="stable"), customers


def _joined(sheet: KeywordTable, more: KeywordTable) -> KeywordTable:
    columns = {
        name: np.concatenate((column, getattr(more, name)))
        for name, column in vars(sheet).items()
        if name not in ("texts", "joints")
    }
    return KeywordTable(
        texts=(*sheet.texts, *more.texts), joints=sheet.joints | more.joints, **columns
    )


def _sighting(name: str, rows: Sequence[RivalRow], latest: int) -> Sighting:
    first = min(r.first_seen for r in rows if r.first_seen is not None)
    last = max(r.last_seen for r in rows if r.last_seen is not None)
    costs = [c for r in rows if (c := r.monthly_cost) is not None]
    return Sighting(
        name=name,
        days=last - first + 1,
        running=last >= latest,
        rivals=len({r.rival for r in rows}),
        monthly_cost=sum(costs) if costs else None,
    )


def _by_rival(rows: Sequence[RivalRow]) -> dict[str, set[str]]:
    found: dict[str, set[str]] = {}
    for row in rows:
        if row.normalised:
            found.setdefault(row.rival, set()).add(row.normalised)
    return found
