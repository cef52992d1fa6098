"""What each rival buys in sum, and how far several buy the same."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from collections.abc import Set as AbstractSet
from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Ints
from milkwort.core.gather.rival_sightings import Sighting, rivals_seen
from milkwort.core.gather.rivals import RivalRow, bought_by

__all__ = ["RivalTotal", "SharedKeywords", "rival_totals", "shared_keywords"]

_MOST = 8
"""A matrix of more rivals isn't small; those who buy most keywords stand in it."""


@dataclass(frozen=True)
class RivalTotal:
    """One rival in sum.

    Attributes
    ----------
    sighting : Sighting
        Named by the rival.
    keywords, shared, alone, running : int
        What it buys; of that, what the plan keeps too; what no other rival buys; what was
        seen on the last day of the list.
    """

    sighting: Sighting
    keywords: int
    shared: int
    alone: int
    running: int


@dataclass(frozen=True)
class SharedKeywords:
    """How many keywords any two of the plan and its rivals both buy.

    Attributes
    ----------
    rivals : tuple of str
        Those with most keywords, the most first.
    counts : Ints of shape (n_rivals + 1, n_rivals + 1)
        The plan's kept keywords first; on the diagonal all that each buys.
    """

    rivals: tuple[str, ...]
    counts: Ints


def rival_totals(rows: Sequence[RivalRow], ours: AbstractSet[str]) -> list[RivalTotal]:
    """Sum up each rival's list, the one with most keywords first.

    Parameters
    ----------
    rows : sequence of RivalRow
    ours : set of str
        Normalised texts that the plan keeps.
    """
    buys = bought_by(rows)
    buyers = Counter(text for texts in buys.values() for text in texts)
    running = bought_by(_running(rows))
    totals = [
        RivalTotal(
            seen,
            keywords=len(texts := buys.get(seen.name, set())),
            shared=len(texts & ours),
            alone=sum(buyers[text] == 1 for text in texts),
            running=len(running.get(seen.name, ())),
        )
        for seen in rivals_seen(rows)
    ]
    return sorted(totals, key=lambda t: (-t.keywords, t.sighting.name))


def shared_keywords(rows: Sequence[RivalRow], ours: AbstractSet[str]) -> SharedKeywords:
    """Count what any two of the plan and its largest rivals both buy.

    Parameters
    ----------
    rows : sequence of RivalRow
    ours : set of str
        Normalised texts that the plan keeps.
    """
    buys = bought_by(rows)
    rivals = sorted(buys, key=lambda rival: (-len(buys[rival]), rival))[:_MOST]
    sets = [set(ours), *(buys[rival] for rival in rivals)]
    counts = np.array([[len(one & other) for other in sets] for one in sets], dtype=np.int64)
    return SharedKeywords(tuple(rivals), counts)


def _running(rows: Sequence[RivalRow]) -> list[RivalRow]:
    latest = max((r.last_seen or 0 for r in rows), default=0)
    return [r for r in rows if latest and r.last_seen == latest]
