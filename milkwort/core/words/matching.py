"""Which texts a keyword or a negative matches: exact, phrase and broad.

Indexed by word, so that no sheet is compared pair by pair: the rarest word of a pattern
names its candidates, its other words thin them out.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Ints
from milkwort.core.errors import BadValueError
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.texts import Joints, canonical, joints_of, normalise, singular

__all__ = ["Pairs", "TextIndex", "index_of", "matching_pairs", "text_matches"]

_CANDIDATES_AT_ONCE = 2_000_000
_COMMON_WORDS = 63
"""So many of the most frequent words have a bit of their own in each text's signature."""
_EXACT, _PHRASE, _BROAD = range(3)

Words = tuple[str, ...]


@dataclass(frozen=True)
class Pairs:
    """Which pattern matches which text; arrays of shape (n_pairs,), in no set order."""

    pattern: Ints
    text: Ints


@dataclass(frozen=True)
class TextIndex:
    """Different texts by their canonical words; the postings are made when first asked for.

    Attributes
    ----------
    words : tuple of tuple of str, length n_texts
    """

    words: tuple[Words, ...]

    @cached_property
    def by_words(self) -> dict[Words, list[int]]:
        """The texts of each sequence of words."""
        found: dict[Words, list[int]] = {}
        for number, words in enumerate(self.words):
            found.setdefault(words, []).append(number)
        return found

    @cached_property
    def postings(self) -> Postings:
        """Which texts hold which word."""
        return _postings(self.words)


@dataclass(frozen=True)
class Postings:
    """The texts that hold each word.

    Attributes
    ----------
    vocabulary : dict of str to int
    first : Ints, shape (n_words + 1,)
        Where each word's texts start in `texts`.
    texts : Ints
        Texts that hold a word, word by word, rising.
    signature : ndarray of uint64, shape (n_texts,)
        A bit for each of the most frequent words.
    bit : Ints, shape (n_words,)
        The bit of a word, −1 for none.
    """

    vocabulary: dict[str, int]
    first: Ints
    texts: Ints
    signature: NDArray[np.uint64]
    bit: Ints

    @property
    def frequency(self) -> Ints:
        """In how many texts each word stands."""
        return np.diff(self.first)


def text_matches(match: str, pattern: str, text: str, *, close_forms: bool = True) -> bool:
    """Say whether one pattern matches one text.

    Parameters
    ----------
    match : str
        From `MATCHES`. Exact: same words, same order; phrase: its words as an unbroken
        run; broad: all its words in any order.
    pattern, text : str
        As typed.
    close_forms : bool
        Whether singular and plural are one.

    Raises
    ------
    BadValueError
        For an unknown match type.
    """
    if match not in MATCHES:
        raise BadValueError("match", "one of " + ", ".join(MATCHES), match)
    spellings = dict(joints_of([pattern, text]))
    wanted, words = (canonical(normalise(t), spellings, close_forms) for t in (pattern, text))
    if not wanted:
        return False
    if match == "exact":
        return wanted == words
    return set(wanted) <= set(words) if match == "broad" else _is_run(wanted, words)


@lru_cache(maxsize=6)
def index_of(texts: tuple[str, ...], joints: Joints, close_forms: bool) -> TextIndex:
    """Index normalised texts by word; kept for as long as the texts stay the same.

    Parameters
    ----------
    texts : tuple of str
        Normalised.
    joints : Joints
        Alike spellings of compounds.
    close_forms : bool
        Whether a plural is its singular.
    """
    spellings = dict(joints)
    if spellings or not close_forms:
        return TextIndex(tuple(canonical(t, spellings, close_forms) for t in texts))
    one_of = _Singulars().__getitem__  # the same words come again and again
    return TextIndex(tuple(tuple(map(one_of, t.split())) for t in texts))


class _Singulars(dict[str, str]):
    def __missing__(self, word: str) -> str:
        self[word] = singular(word)
        return self[word]


def _postings(texts: tuple[Words, ...]) -> Postings:
    vocabulary: dict[str, int] = {}
    flat: list[int] = []
    counts: list[int] = []
    for some in texts:
        numbers = {vocabulary.setdefault(w, len(vocabulary)) for w in some}
        flat.extend(numbers)
        counts.append(len(numbers))
    word = np.array(flat, dtype=np.int64)
    text = np.repeat(np.arange(len(texts)), np.array(counts, dtype=np.int64))
    frequency = np.bincount(word, minlength=len(vocabulary))
    bit = np.full(len(vocabulary), -1, dtype=np.int64)
    common = np.argsort(-frequency, kind="stable")[:_COMMON_WORDS]
    bit[common] = np.arange(len(common))
    return Postings(
        vocabulary=vocabulary,
        first=np.concatenate(([0], np.cumsum(frequency))),
        texts=text[np.argsort(word, kind="stable")],
        signature=_signatures(word, text, bit, len(texts)),
        bit=bit,
    )


def matching_pairs(index: TextIndex, patterns: Sequence[Words], match: Ints) -> Pairs:
    """Find every text that each of some patterns matches.

    Parameters
    ----------
    index : TextIndex
    patterns : sequence of tuple of str
        Canonical words, spelt as the index spells them.
    match : Ints, shape (n_patterns,)
        Position in `MATCHES`.

    Returns
    -------
    Pairs
        A pattern also matches its own text, where that stands in the index.
    """
    found = [_exact_pairs(index, patterns, match), *_loose_pairs(index, patterns, match)]
    return Pairs(
        np.concatenate([p.pattern for p in found]), np.concatenate([p.text for p in found])
    )


def _exact_pairs(index: TextIndex, patterns: Sequence[Words], match: Ints) -> Pairs:
    wanted = np.flatnonzero(match == _EXACT)
    if len(wanted) == 0:
        return Pairs(wanted, wanted)
    of_pattern: list[int] = []
    of_text: list[int] = []
    for number in wanted.tolist():
        texts = index.by_words.get(patterns[number], ()) if patterns[number] else ()
        of_pattern.extend([number] * len(texts))
        of_text.extend(texts)
    return Pairs(np.array(of_pattern, dtype=np.int64), np.array(of_text, dtype=np.int64))


def _loose_pairs(index: TextIndex, patterns: Sequence[Words], match: Ints) -> Iterator[Pairs]:
    """Yield the pairs of phrase and broad patterns, a bounded number of candidates at once."""
    if not (match != _EXACT).any():
        return
    wanted, anchors, rest = _anchored(index, patterns, match)
    size = index.postings.frequency[anchors] if len(anchors) else anchors
    chunk = np.cumsum(size) // _CANDIDATES_AT_ONCE
    for part in np.split(np.arange(len(wanted)), np.flatnonzero(np.diff(chunk)) + 1):
        if len(part):
            yield _pairs_of(index, patterns, match, wanted[part], anchors[part],
                            [rest[i] for i in part.tolist()])  # fmt: skip


def _anchored(
    index: TextIndex, patterns: Sequence[Words], match: Ints
) -> tuple[Ints, Ints, list[list[int]]]:
    """Return the patterns whose words all stand somewhere, each's rarest word, and the others."""
    wanted: list[int] = []
    anchors: list[int] = []
    rest: list[list[int]] = []
    frequency = index.postings.frequency.tolist()
    for number in np.flatnonzero(match != _EXACT).tolist():
        numbers = [index.postings.vocabulary.get(w, -1) for w in dict.fromkeys(patterns[number])]
        if not numbers or min(numbers) < 0:
            continue
        anchor = min(numbers, key=frequency.__getitem__)
        numbers.remove(anchor)
        wanted.append(number)
        anchors.append(anchor)
        rest.append(numbers)
    return np.array(wanted, dtype=np.int64), np.array(anchors, dtype=np.int64), rest


def _pairs_of(
    index: TextIndex,
    patterns: Sequence[Words],
    match: Ints,
    wanted: Ints,
    anchors: Ints,
    rest: list[list[int]],
) -> Pairs:
    size = index.postings.frequency[anchors]
    at = np.repeat(np.arange(len(wanted)), size)
    offset = np.arange(len(at)) - np.repeat(np.cumsum(size) - size, size)
    text = index.postings.texts[np.repeat(index.postings.first[anchors], size) + offset]
    # frequent words by their bits, the others by a look into the posting lists
    bits = np.array([_bits(index.postings.bit[numbers]) for numbers in rest], dtype=np.uint64)
    stays = (index.postings.signature[text] & bits[at]) == bits[at]
    at, text = at[stays], text[stays]
    rare = [[n for n in numbers if index.postings.bit[n] < 0] for numbers in rest]
    for depth in range(max(map(len, rare), default=0)):
        word = np.array([r[depth] if depth < len(r) else -1 for r in rare], dtype=np.int64)[at]
        stays = _holds(index, word, text)
        at, text = at[stays], text[stays]
    pattern = wanted[at]
    runs = _in_a_run(index, patterns, match, pattern, text)
    return Pairs(pattern[runs], text[runs])


def _holds(index: TextIndex, word: Ints, text: Ints) -> NDArray[np.bool_]:
    """Say which texts hold which word; a word of −1 asks nothing."""
    n = len(index.words) + 1
    keys = (
        np.repeat(np.arange(len(index.postings.bit)), index.postings.frequency) * n
        + index.postings.texts
    )
    asked = np.maximum(word, 0) * n + text
    place = np.minimum(np.searchsorted(keys, asked), len(keys) - 1)
    return np.asarray((word < 0) | (keys[place] == asked))


def _in_a_run(
    index: TextIndex, patterns: Sequence[Words], match: Ints, pattern: Ints, text: Ints
) -> NDArray[np.bool_]:
    """Say which pairs stand: a phrase's words must be an unbroken run."""
    runs = np.ones(len(pattern), dtype=bool)
    ask = np.flatnonzero(match[pattern] == _PHRASE)
    padded: dict[int, str] = {}
    for at, p, t in zip(ask.tolist(), pattern[ask].tolist(), text[ask].tolist(), strict=True):
        if len(patterns[p]) == 1:
            continue
        if t not in padded:
            padded[t] = f" {' '.join(index.words[t])} "
        runs[at] = f" {' '.join(patterns[p])} " in padded[t]
    return runs


def _is_run(wanted: Words, words: Words) -> bool:
    return f" {' '.join(wanted)} " in f" {' '.join(words)} "


def _bits(bits: Ints) -> int:
    return int(sum(1 << int(b) for b in bits if b >= 0))


def _signatures(word: Ints, text: Ints, bit: Ints, count: int) -> NDArray[np.uint64]:
    signature = np.zeros(count, dtype=np.uint64)
    known = bit[word] >= 0
    np.bitwise_or.at(signature, text[known], np.uint64(1) << bit[word[known]].astype(np.uint64))
    return signature
