"""Who serves which search: no search is counted twice.

A kept keyword is shown for its own text and for variants of it. Every other text of the
sheet that it matches is a *known* variant, which one keyword serves; what its match type
brings beyond these is *unknown* variants.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.market.keyword_table import CALLS, KeywordTable
from milkwort.core.market.relation import Relation, relation_of, text_width
from milkwort.core.words.matching import index_of
from milkwort.core.words.negatives import Negative, Stopped, stopped_by
from milkwort.core.words.texts import Joints, joints_of

__all__ = ["Serving", "TextServing", "serve", "serve_if_kept", "stopped_texts"]

_KEEP, _HOLD, _NONE = (CALLS.index(c) for c in ("keep", "hold", "none"))
_EXACT = 0


@dataclass(frozen=True)
class TextServing:
    """What is so of each text of the sheet; arrays of shape (n_texts,).

    Attributes
    ----------
    relation : Relation
    stopped : ndarray of bool
        Matched by a negative of the whole plan.
    searches : Floats
        D, a month, of the row that speaks for it.
    by_itself : ndarray of bool
        Served by a row of its own.
    judged : ndarray of bool
        Dropped or blocked: who serves it all the same, spills.
    server : Ints
        The row that serves it, where that is not its own; −1 for nobody.
    unknown : Floats
        X, summed over its own rows.
    allowed : ndarray of bool, shape (n_pairs,)
        Of each pair of the relation: no negative of the row's campaign or group stops the text.
    """

    relation: Relation
    stopped: NDArray[np.bool_]
    searches: Floats
    by_itself: NDArray[np.bool_]
    judged: NDArray[np.bool_]
    server: Ints
    unknown: Floats
    allowed: NDArray[np.bool_]


@dataclass(frozen=True)
class Serving:
    """Searches a month by how a keyword comes to them; arrays of shape (n_rows,).

    Attributes
    ----------
    serves : ndarray of bool
        Kept, with a volume, and stopped by no negative.
    stopped : ndarray of bool
        Its own text is matched by a negative that acts on it.
    own : Floats
        D.
    uncalled, spill, unknown : Floats
        U, W and X; 0 for what doesn't serve.
    texts : TextServing
    """

    serves: NDArray[np.bool_]
    stopped: NDArray[np.bool_]
    own: Floats
    uncalled: Floats
    spill: Floats
    unknown: Floats
    texts: TextServing


def serve(
    table: KeywordTable,
    volume: Floats,
    shown_more: Floats,
    negatives: tuple[Negative, ...] = (),
    *,
    close_forms: bool = True,
    negative_close_forms: bool = False,
) -> Serving:
    """Share searches out among the kept keywords.

    Rows of the same text follow the same order: the most specific has the own searches,
    and a wider one's unknown variants are less by those of a more specific.

    Parameters
    ----------
    table : KeywordTable
    volume : Floats, shape (n_rows,)
        Searches a month for the very text; NaN where absent: such a row serves nothing.
    shown_more : Floats, shape (n_rows,)
        Coverage less 1, searches of variants per own search.
    negatives : tuple of Negative
        All that are in force, those of blocked rows among them.
    close_forms, negative_close_forms : bool
        Whether a plural is its singular, for keywords and for negatives.

    Returns
    -------
    Serving
    """
    joints = table.joints | joints_of(n.text for n in negatives)
    relation = relation_of(table, close_forms, joints)
    stopped, at_row, allowed = _stops(table, relation, negatives, joints, negative_close_forms)
    searches = np.nan_to_num(volume)
    serves = table.kept & ~at_row & np.isfinite(volume)
    first = _first_of_text(relation, serves)
    own = np.where(serves & ~first, 0.0, searches)
    texts = _texts_of(table, relation, stopped, allowed, searches, serves)
    mine = serves[relation.row]
    rows, others = relation.row[mine], relation.text[mine]
    free = allowed[mine] & ~texts.by_itself[others] & ~stopped[others]
    server = _most_specific(relation, rows[free], others[free])
    # what a negative stops is known all the same: it is no unknown variant
    unknown, of_text = _unknown(texts, rows, others, serves, searches * shown_more)
    texts = replace(texts, server=server, unknown=of_text)
    uncalled, spill = (
        _sums(server[some], texts.searches[some], len(table))
        for some in ((server >= 0) & ~texts.judged, (server >= 0) & texts.judged)
    )
    return Serving(serves, at_row, own, uncalled, spill, unknown, texts)


def serve_if_kept(
    table: KeywordTable, volume: Floats, shown_more: Floats, serving: Serving
) -> Serving:
    """Return what each row that is not kept would serve, were it alone kept besides.

    Parameters
    ----------
    table : KeywordTable
    volume, shown_more : Floats, shape (n_rows,)
        As for `serve`.
    serving : Serving
        Of the plan as it is.
    """
    texts, n = serving.texts, len(table)
    relation, searches = texts.relation, np.nan_to_num(volume)
    could = ~table.kept & np.isfinite(volume) & ~serving.stopped
    best = _best_rank(relation, serving.serves)
    own = np.where(could & (relation.rank < best[relation.of_row]), searches, 0.0)
    mine = could[relation.row]
    rows, others = relation.row[mine], relation.text[mine]
    held = np.where(texts.server >= 0, relation.rank[np.maximum(texts.server, 0)], n)
    takes = texts.allowed[mine] & ~texts.by_itself[others] & ~texts.stopped[others]
    takes &= relation.rank[rows] < held[others]
    uncalled, spill = (
        _sums(rows[some], texts.searches[others[some]], n)
        for some in (takes & ~texts.judged[others], takes & texts.judged[others])
    )
    known = _sums(rows, texts.searches[others] + texts.unknown[others], n)
    left = searches * shown_more - known - texts.unknown[relation.of_row]
    unknown = np.where(could, np.maximum(left, 0.0), 0.0)
    return Serving(could, serving.stopped, own, uncalled, spill, unknown, texts)


def _stops(
    table: KeywordTable,
    relation: Relation,
    negatives: tuple[Negative, ...],
    joints: Joints,
    close_forms: bool,
) -> tuple[NDArray[np.bool_], NDArray[np.bool_], NDArray[np.bool_]]:
    """Return texts stopped everywhere, rows stopped, and the pairs that no negative stops."""
    nothing = np.zeros(len(relation.texts), dtype=bool)
    if not negatives:
        return nothing, np.zeros(len(table), dtype=bool), np.ones(len(relation.row), dtype=bool)
    found = stopped_texts(relation, negatives, joints, close_forms)
    at_row = found.everywhere[relation.of_row]
    allowed = np.ones(len(relation.row), dtype=bool)
    for number, negative in enumerate(negatives):
        if negative.level == "plan":
            continue
        column = table.group if negative.level == "group" else table.campaign
        inside = column == negative.number
        texts = nothing.copy()
        texts[found.text[found.negative == number]] = True
        at_row |= inside & texts[relation.of_row]
        allowed &= ~(inside[relation.row] & texts[relation.text])
    return found.everywhere, at_row, allowed


def stopped_texts(
    relation: Relation, negatives: tuple[Negative, ...], joints: Joints, close_forms: bool
) -> Stopped:
    """Find the texts of a sheet that negatives match.

    Parameters
    ----------
    relation : Relation
        The texts of the sheet.
    negatives : tuple of Negative
    joints : Joints
        Alike spellings of compounds.
    close_forms : bool
        Whether a negative stops other forms of its words too.
    """
    index = index_of(relation.texts, joints, close_forms)
    return stopped_by(negatives, index, joints, close_forms)


def _best_rank(relation: Relation, rows: NDArray[np.bool_]) -> Ints:
    """Return the lowest rank among some rows of each text; the number of rows for none."""
    best = np.full(len(relation.texts), len(rows), dtype=np.int64)
    np.minimum.at(best, relation.of_row[rows], relation.rank[rows])
    return best


def _first_of_text(relation: Relation, rows: NDArray[np.bool_]) -> NDArray[np.bool_]:
    best = _best_rank(relation, rows)
    return np.asarray(rows & (relation.rank == best[relation.of_row]))


def _texts_of(
    table: KeywordTable,
    relation: Relation,
    stopped: NDArray[np.bool_],
    allowed: NDArray[np.bool_],
    searches: Floats,
    serves: NDArray[np.bool_],
) -> TextServing:
    """Let the most specific row speak for its text: one that serves, where there is one."""
    n = len(relation.texts)
    speaks = np.full(n, -1, dtype=np.int64)
    order = np.lexsort((-relation.rank, serves))  # the last one written stands
    speaks[relation.of_row[order]] = order
    judged = ~np.isin(table.call[speaks], (_KEEP, _HOLD, _NONE))
    nobody, nothing = np.full(n, -1, dtype=np.int64), np.zeros(n)
    return TextServing(
        relation, stopped, searches[speaks], serves[speaks], judged, nobody, nothing, allowed
    )


def _most_specific(relation: Relation, rows: Ints, texts: Ints) -> Ints:
    """Return the row of the lowest rank of each text; −1 for none."""
    n = len(relation.rank)
    best = np.full(len(relation.texts), n, dtype=np.int64)
    np.minimum.at(best, texts, relation.rank[rows])
    by_rank = np.full(n + 1, -1, dtype=np.int64)
    by_rank[relation.rank] = np.arange(n)
    return by_rank[best]


def _unknown(
    texts: TextServing,
    rows: Ints,
    others: Ints,
    serves: NDArray[np.bool_],
    shown_more: Floats,
) -> tuple[Floats, Floats]:
    """Return X by row, and its sum by text, from the most specific to the widest.

    A row matches no text of fewer different words, so rows are worked out by falling
    number of words; among equals, and for several match types of one text, one by one.
    """
    # X_i = max(0, E_i − Σ_j (D_j + X_j))
    relation, n = texts.relation, len(serves)
    unknown, of_text = np.zeros(n), np.zeros(len(texts.searches))
    loose = serves & (shown_more > 0)
    if not loose.any():
        return unknown, of_text
    known = _sums(rows, texts.searches[others], n)
    per_text = np.bincount(relation.of_row[loose], minlength=len(of_text))
    linked = loose[rows] & (per_text[others] > 0)  # only these have an X_j to take off
    order = np.argsort(rows[linked], kind="stable")
    rows, others = rows[linked][order], others[linked][order]
    one_by_one = loose & (per_text[relation.of_row] > 1)
    one_by_one[rows[text_width(relation)[others] == relation.width[rows]]] = True
    for width in np.unique(relation.width[loose])[::-1].tolist():
        at = relation.width[rows] == width
        wider = _sums(rows[at], of_text[others[at]], n)
        here = np.flatnonzero(loose & ~one_by_one & (relation.width == width))
        unknown[here] = np.maximum(shown_more[here] - known[here] - wider[here], 0.0)
        of_text[relation.of_row[here]] += unknown[here]
        together = np.flatnonzero(one_by_one & (relation.width == width))
        for row in together[np.argsort(relation.rank[together])].tolist():
            span = slice(*np.searchsorted(rows, [row, row + 1]))
            mine = float(of_text[others[span]].sum() + of_text[relation.of_row[row]])
            unknown[row] = max(shown_more[row] - known[row] - mine, 0.0)
            of_text[relation.of_row[row]] += unknown[row]
    return unknown, of_text


def _sums(places: Ints, values: Floats, n: int) -> Floats:
    """Sum values by place."""
    return np.asarray(np.bincount(places, values, minlength=n), dtype=np.float64)
