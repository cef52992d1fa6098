"""Keywords that serve one search at different bids."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Ints
from milkwort.core.market.keyword_table import KeywordTable
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.match_types import MATCHES

__all__ = ["shared_searches"]

_EXACT = MATCHES.index("exact")


def shared_searches(result: PlanResult, blocks_twins: Sequence[bool]) -> list[tuple[int, Ints]]:
    """Find running keywords that also serve a running keyword's text, at another bid.

    Parameters
    ----------
    result : PlanResult
    blocks_twins : sequence of bool
        By group: whether it leaves texts to the groups that hold them as exact.

    Returns
    -------
    list of (int, Ints)
        A row, and the rows whose own searches it would serve.
    """
    texts, table = result.serving.texts, result.table
    relation = texts.relation
    runs = np.isfinite(result.bid)
    own = _running_row(relation.of_row, runs, relation.rank, len(relation.texts))
    # what a negative of its campaign or group keeps from a keyword it doesn't serve
    pairs = runs[relation.row] & (own[relation.text] >= 0) & texts.allowed
    twins = np.flatnonzero(runs & (own[relation.of_row] != np.arange(len(runs))))
    twins = twins[~_left_to_exact(table, twins, own[relation.of_row[twins]], blocks_twins)]
    rows = np.concatenate((relation.row[pairs], twins))
    other = np.concatenate((own[relation.text[pairs]], own[relation.of_row[twins]]))
    differ = np.abs(result.bid[rows] - result.bid[other]) > 1e-9
    rows, other = rows[differ], other[differ]
    order = np.argsort(rows, kind="stable")
    rows, other = rows[order], other[order]
    starts = np.flatnonzero(np.r_[True, rows[1:] != rows[:-1]]) if len(rows) else rows
    shared = np.split(other, starts[1:])
    return [
        (row, np.unique(group)) for row, group in zip(rows[starts].tolist(), shared, strict=False)
    ]


def _left_to_exact(
    table: KeywordTable, rows: Ints, other: Ints, blocks_twins: Sequence[bool]
) -> NDArray[np.bool_]:
    """Say which rows stand in a group that leaves their text to its exact row elsewhere."""
    leaves = np.array([*blocks_twins, False], dtype=bool)  # the last stands for no group
    inside = np.where(table.group[rows] < len(blocks_twins), table.group[rows], -1)
    apart = table.group[rows] != table.group[other]
    exact = (table.match[other] == _EXACT) & (table.group[other] >= 0)
    return np.asarray(leaves[inside] & apart & exact)


def _running_row(of_row: Ints, runs: NDArray[np.bool_], rank: Ints, n_texts: int) -> Ints:
    """Return the most specific running row of each text, −1 for none."""
    own = np.full(n_texts, -1, dtype=np.int64)
    rows = np.flatnonzero(runs)
    rows = rows[np.argsort(-rank[rows], kind="stable")]
    own[of_row[rows]] = rows
    return own
