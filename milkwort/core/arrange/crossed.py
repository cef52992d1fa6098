"""Groups that take each other's searches at the platform: twins, and scouts."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from milkwort.core.plan.run import PlanResult
from milkwort.core.words.match_types import MATCHES

__all__ = ["CROSSED_KINDS", "Crossed", "crossed", "twins_of_groups"]

CROSSED_KINDS: dict[str, str] = {
    "twins_unblocked": "texts that stand here in a wider match are exact in another group, "
                       "and not left to it",
    "scouting_takes_kept": "a scouting keyword takes searches of keywords that are kept elsewhere",
}  # fmt: skip
"""Every way groups cross, in words."""

_EXACT = MATCHES.index("exact")


@dataclass(frozen=True)
class Crossed:
    """Searches that more than one group would serve.

    Attributes
    ----------
    kind : str
        From `CROSSED_KINDS`.
    group : int
        The group that is to leave them to others, by its number.
    rows : tuple of int
        The rows of that group, then the kept rows whose searches they take.
    texts : tuple of str
        Exact texts that would have to be blocked.
    searches : float
        Of these texts, a month.
    """

    kind: str
    group: int
    rows: tuple[int, ...]
    texts: tuple[str, ...]
    searches: float


def twins_of_groups(result: PlanResult) -> dict[int, list[tuple[int, int]]]:
    """Return the rows of each group whose text another group keeps as exact, with that row.

    Parameters
    ----------
    result : PlanResult
    """
    table = result.table
    kept = np.flatnonzero(table.kept & (table.group >= 0)).tolist()
    exact = {table.texts[row]: row for row in kept if table.match[row] == _EXACT}
    found: dict[int, list[tuple[int, int]]] = {}
    for row in kept:
        other = exact.get(table.texts[row])
        wider = table.match[row] != _EXACT
        if wider and other is not None and table.group[other] != table.group[row]:
            found.setdefault(int(table.group[row]), []).append((row, other))
    return found


def crossed(result: PlanResult, blocks_twins: Sequence[bool]) -> list[Crossed]:
    """Find groups that would take each other's searches.

    Parameters
    ----------
    result : PlanResult
    blocks_twins : sequence of bool
        By group: whether it leaves texts to the groups that hold them as exact.
    """
    own = np.nan_to_num(result.demand.own)
    found = []
    for group, pairs in sorted(twins_of_groups(result).items()):
        if not blocks_twins[group]:
            rows = [row for row, _ in pairs]
            others = [other for _, other in pairs]
            found.append(
                _crossed(result, "twins_unblocked", group, rows, others, float(own[others].sum()))
            )
    return [*found, *_scouting(result)]


def _scouting(result: PlanResult) -> list[Crossed]:
    """Find kept texts of other campaigns that the scouting campaign would be shown for."""
    number, table = result.brief.limits.scouting, result.table
    if number is None:
        return []
    serving = result.serving
    relation = serving.texts.relation
    scouts = table.kept & (table.campaign == number)
    kept = np.flatnonzero(table.kept & (table.campaign != number))
    owner = np.full(len(relation.texts), -1, dtype=np.int64)
    owner[relation.of_row[kept]] = kept
    # what its rows match beside their own texts, and their own texts
    rows = np.concatenate((relation.row, np.flatnonzero(scouts)))
    texts = np.concatenate((relation.text, relation.of_row[scouts]))
    kept_apart = ~serving.texts.allowed | serving.texts.stopped[relation.text]
    apart = np.concatenate((kept_apart, serving.stopped[scouts]))
    free = scouts[rows] & (owner[texts] >= 0) & ~apart
    own = np.nan_to_num(result.demand.own)
    found = []
    for row in np.unique(rows[free]).tolist():
        others = np.unique(owner[texts[free & (rows == row)]])
        group = int(table.group[row])
        searches = float(own[others].sum())
        found.append(
            _crossed(result, "scouting_takes_kept", group, [row], others.tolist(), searches)
        )
    return found


def _crossed(
    result: PlanResult, kind: str, group: int, rows: Sequence[int], others: Sequence[int],
    searches: float,
) -> Crossed:  # fmt: skip
    texts = tuple(dict.fromkeys(result.table.texts[row] for row in others))
    return Crossed(kind, group, (*rows, *others), texts, searches)
