"""Unknown terms: what people type around a text, of which no planner knows before.

Made from the text with the words of four lists: what a buyer adds, what a reader adds, what is
of no use, and names of places and firms. All names are made up.
"""

from __future__ import annotations

from bisect import bisect
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import accumulate

import numpy as np
from numpy.typing import NDArray

from milkwort.core.words.matching import TextIndex, matching_pairs
from milkwort.core.words.texts import canonical
from milkwort.standins.market.luck import key_of, mixed, uniform

__all__ = ["Terms", "around", "unknown_terms"]

_VARIETY = (2.0, 1.4, 1.0, 0.6, 0.3)
"""How much is typed around a text of one, two … five words or more."""
_PHRASE, _BROAD = 0.6, 0.9
"""Searches around a text for each of its own: as an unbroken run; in any other order."""
_MOST = 7
_LEAST_SEARCHES = 0.3

_ADDED: tuple[tuple[str, tuple[str, ...]], ...] = (
    ("buy", ("near me", "cost", "prices", "quote", "local", "today", "affordable", "company",
             "urgent", "booking", "estimate", "buy", "order", "fast")),
    ("compare", ("best", "reviews", "cheapest", "which", "versus", "compared", "top", "reviws")),
    ("learn", ("how to", "guide", "what is", "ideas", "tips", "explained", "meaning", "steps")),
    ("useless", ("jobs", "salary", "free", "video", "second hand", "course", "template", "history",
                 "images", "apprenticeship", "diy", "broken", "toy", "rules")),
    ("place", ("in fenwick bay", "thornholt", "in marrowdale", "st osyn", "port averil")),
    ("firm", ("by harrow and finch", "brindlecote", "oakmere brothers", "larch and lyle")),
)  # fmt: skip
_USELESS = ("useless", "place")
_WEIGHTS = (0.34, 0.14, 0.12, 0.24, 0.10, 0.06)
_EDGES = tuple(accumulate(_WEIGHTS))


@dataclass(frozen=True)
class Terms:
    """Unknown terms; arrays of shape (n_terms,).

    Attributes
    ----------
    texts : tuple of str
    base : ndarray of int
        Place of the text each was made from.
    searches : ndarray of float
        A month.
    intent : tuple of str
        What their words say.
    useful : ndarray of bool
        Whether anybody of them buys.
    """

    texts: tuple[str, ...]
    base: NDArray[np.int64]
    searches: NDArray[np.float64]
    intent: tuple[str, ...]
    useful: NDArray[np.bool_]


def around(texts: Sequence[str], searches: NDArray[np.float64]) -> NDArray[np.float64]:
    """Return how many searches around each text are unknown, as a run and otherwise.

    Parameters
    ----------
    texts : sequence of str
        Normalised, each once.
    searches : ndarray of shape (n_texts,)
        A month.

    Returns
    -------
    ndarray of shape (2, n_texts)
        Known texts around it, and what is unknown around those, are taken off: from the
        longest text to the shortest.
    """
    words = [canonical(text, {}, True) for text in texts]
    size = np.array([len(w) for w in words], dtype=np.int64)
    variety = np.array(_VARIETY)[np.clip(size, 1, len(_VARIETY)) - 1]
    left = np.empty((2, len(texts)))
    index = TextIndex(tuple(words))
    held = [np.zeros(len(texts)), np.zeros(len(texts))]
    for way, match in enumerate((1, 2)):
        pairs = matching_pairs(index, words, np.full(len(texts), match, dtype=np.int64))
        apart = pairs.pattern != pairs.text
        by, of = pairs.pattern[apart], pairs.text[apart]
        order = np.argsort(by, kind="stable")
        first = np.searchsorted(by[order], np.arange(len(texts) + 1))
        share = _PHRASE if way == 0 else _PHRASE + _BROAD
        for row in np.argsort(-size, kind="stable").tolist():
            inside = of[order[first[row] : first[row + 1]]]
            known = float((searches[inside] + held[way][inside]).sum())
            held[way][row] = max(0.0, share * variety[row] * searches[row] - known)
    left[0] = held[0]
    left[1] = np.maximum(0.0, held[1] - held[0])
    return left


def unknown_terms(
    texts: Sequence[str], searches: NDArray[np.float64], seed: int, factor: float
) -> Terms:
    """Make up what people type around known texts.

    Parameters
    ----------
    texts : sequence of str
        Normalised, each once.
    searches : ndarray of shape (n_texts,)
        True searches a month.
    seed : int
    factor : float
        What the world types around known texts, against what is usual.
    """
    left = around(texts, searches) * factor
    taken, made = set(texts), _Made()
    for way in (0, 1):
        rows = np.flatnonzero(left[way] > _LEAST_SEARCHES)
        keys = np.array([key_of("term", texts[row]) for row in rows.tolist()], dtype=np.uint64)
        luck = uniform(mixed(seed, keys[:, None], np.arange(6 * _MOST), way))
        for row, own in zip(rows.tolist(), luck.reshape(len(rows), 2 * _MOST, 3), strict=True):
            some = _some(texts[row], way, left[way, row], own, taken)
            # sizes fall as 1/rank, and add up to what is typed
            sizes = 1.0 / np.arange(1, len(some) + 1)
            if some:
                made.add(row, some, left[way, row] * sizes / sizes.sum())
    useful = np.array([kind not in _USELESS for kind in made.kinds], dtype=bool)
    return Terms(
        tuple(made.texts), np.array(made.base, dtype=np.int64),
        np.concatenate(made.sizes) if made.sizes else np.empty(0),
        tuple("job" if kind in _USELESS else kind for kind in made.kinds), useful,
    )  # fmt: skip


class _Made:
    def __init__(self) -> None:
        self.texts: list[str] = []
        self.kinds: list[str] = []
        self.base: list[int] = []
        self.sizes: list[NDArray[np.float64]] = []

    def add(self, row: int, some: list[tuple[str, str]], sizes: NDArray[np.float64]) -> None:
        self.texts.extend(text for text, _ in some)
        self.kinds.extend(kind for _, kind in some)
        self.base.extend([row] * len(some))
        self.sizes.append(sizes)


def _some(
    text: str, way: int, searches: float, luck: NDArray[np.float64], taken: set[str]
) -> list[tuple[str, str]]:
    """Return up to so many terms around a text, with the kind of what was added."""
    wanted = int(np.clip(round(1.5 + np.log1p(searches)), 1, _MOST if way == 0 else _MOST - 3))
    found: list[tuple[str, str]] = []
    words = text.split()
    if way == 1 and len(words) < 2:
        return found
    for kind_luck, word_luck, place_luck in luck.tolist():
        kind, added = _ADDED[min(bisect(_EDGES, kind_luck), len(_ADDED) - 1)]
        word = added[int(word_luck * len(added))]
        term = _joined(words, word, way, place_luck)
        if term not in taken:
            taken.add(term)
            found.append((term, kind))
        if len(found) == wanted:
            break
    return found


def _joined(words: list[str], added: str, way: int, luck: float) -> str:
    if way == 0:
        return f"{added} {' '.join(words)}" if luck < 0.3 else f"{' '.join(words)} {added}"
    cut = 1 + int(luck * (len(words) - 1))
    if luck < 0.5:
        return f"{' '.join(words[:cut])} {added} {' '.join(words[cut:])}"
    return f"{' '.join(words[cut:])} {added} {' '.join(words[:cut])}"


assert len(_WEIGHTS) == len(_ADDED)
