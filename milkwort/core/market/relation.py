"""Which row of a sheet matches which of its texts, whatever is called or priced."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from milkwort.core.arrays import Ints
from milkwort.core.market.keyword_table import KeywordTable
from milkwort.core.words.matching import Pairs, TextIndex, index_of, matching_pairs
from milkwort.core.words.texts import Joints

__all__ = ["Relation", "relation_of", "text_width"]

_EXACT = 0


@dataclass(frozen=True)
class Relation:
    """Which row of a sheet matches which of its texts, whatever is called or priced.

    Attributes
    ----------
    texts : tuple of str
        The different normalised texts.
    of_row : Ints, shape (n_rows,)
        Each row's text.
    index : TextIndex
        Of the texts, close forms as keywords see them.
    row, text : Ints, shape (n_pairs,)
        Row matches text, its own text left out.
    rank : Ints, shape (n_rows,)
        0 for the most specific: exact, phrase, broad; then more words; then alphabet.
    width : Ints, shape (n_rows,)
        Number of different words; a row matches no text of fewer.
    """

    texts: tuple[str, ...]
    of_row: Ints
    index: TextIndex
    row: Ints
    text: Ints
    rank: Ints
    width: Ints


def relation_of(table: KeywordTable, close_forms: bool, joints: Joints | None = None) -> Relation:
    """Work out which row matches which text; kept for as long as the sheet's texts stay.

    Parameters
    ----------
    table : KeywordTable
    close_forms : bool
    joints : Joints, optional
        The table's own where left out.
    """
    known = table.joints if joints is None else joints
    return _relation(table.texts, table.match.tobytes(), known, close_forms)


@lru_cache(maxsize=4)
def _relation(
    texts: tuple[str, ...], match_bytes: bytes, joints: Joints, close_forms: bool
) -> Relation:
    match = np.frombuffer(match_bytes, dtype=np.int64)
    numbers: dict[str, int] = {}
    of_row = np.array([numbers.setdefault(t, len(numbers)) for t in texts], dtype=np.int64)
    different = tuple(numbers)
    index = index_of(different, joints, close_forms)
    patterns = [index.words[t] for t in of_row.tolist()]
    pairs = _known_variants(index, patterns, match, of_row)
    counts = np.array([t.count(" ") + 1 if t else 0 for t in texts], dtype=np.int64)
    alphabet = np.empty(len(different), dtype=np.int64)
    alphabet[sorted(range(len(different)), key=different.__getitem__)] = np.arange(len(different))
    rank = np.empty(len(texts), dtype=np.int64)
    rank[np.lexsort((alphabet[of_row], -counts, match))] = np.arange(len(texts))
    width = np.array([len(set(words)) for words in index.words], dtype=np.int64)[of_row]
    return Relation(different, of_row, index, pairs.pattern, pairs.text, rank, width)


def _known_variants(
    index: TextIndex, patterns: list[tuple[str, ...]], match: Ints, of_row: Ints
) -> Pairs:
    if not (match != _EXACT).any() and len(set(index.words)) == len(index.words):
        return Pairs(of_row[:0], of_row[:0])
    pairs = matching_pairs(index, patterns, match)
    other = pairs.text != of_row[pairs.pattern]
    return Pairs(pairs.pattern[other], pairs.text[other])


def text_width(relation: Relation) -> Ints:
    """Return the number of different words of each text.

    Parameters
    ----------
    relation : Relation

    Returns
    -------
    ndarray of shape (n_texts,)
    """
    width = np.zeros(len(relation.texts), dtype=np.int64)
    width[relation.of_row] = relation.width
    return width
