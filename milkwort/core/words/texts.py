"""Texts as the platform compares them: normalised words, joints and close forms."""

from __future__ import annotations

import unicodedata
from collections.abc import Iterable, Mapping, Sequence
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from pluralizer import Pluralizer

__all__ = [
    "MAX_TEXT",
    "Joints",
    "canonical",
    "joints_of",
    "name_places",
    "normalise",
    "singular",
    "word_counts",
]

MAX_TEXT = 1000
"""Longest keyword text taken, in characters; the longest real search is far shorter."""

Joints = frozenset[tuple[str, str]]
"""Compounds somebody wrote with a hyphen or an apostrophe: (other spelling, canonical one)."""

_APOSTROPHES = frozenset("'’‘ʼ`´")
_HYPHENS = frozenset("-‐‑‒–")
_LONGEST_WORD = 40
"""Past this a run of letters is no English word, and is its own singular."""
_OWN_SINGULAR = {
    "us": "us", "these": "these", "those": "those", "they": "they", "them": "them", "we": "we",
    "our": "our", "lens": "lens", "lenses": "lens", "chaos": "chaos", "bias": "bias",
    "texas": "texas", "dies": "die", "was": "was", "has": "has", "does": "does", "pilates":
    "pilates", "wales": "wales", "always": "always", "perhaps": "perhaps", "sometimes":
    "sometimes", "gurus": "guru", "biases": "bias", "yes": "yes", "as": "as", "vs": "vs",
}  # fmt: skip
"""Where the rules of the library would merge or miss a word that searchers type."""


def normalise(text: str) -> str:
    """Return a text as words that can be compared.

    NFKC, case-folded, accents kept, apostrophes closed up, other punctuation to spaces,
    white space collapsed.

    Parameters
    ----------
    text : str
        As typed or read.

    Returns
    -------
    str
        Words with single spaces between; empty where the text holds no word.
    """
    if text.isascii() and text.replace(" ", "").isalnum():  # nearly every keyword
        return " ".join(text.lower().split())
    folded = unicodedata.normalize("NFKC", text).casefold()
    kept = "".join(_spaced(c) for c in unicodedata.normalize("NFKC", folded))
    return " ".join(kept.split())


def joints_of(texts: Iterable[str]) -> Joints:
    """Return the compounds that texts write with a hyphen or an apostrophe.

    Parameters
    ----------
    texts : iterable of str
        As typed: a normalised text no longer shows its joints.

    Returns
    -------
    Joints
        ("draughtproofing", "draught proofing") for *draught-proofing*, ("men s", "mens")
        for *men's*: a hyphen parts two words, an apostrophe stands inside one.
    """
    found: set[tuple[str, str]] = set()
    for text in texts:
        if text.isascii() and text.replace(" ", "").isalnum():
            continue
        for piece in unicodedata.normalize("NFKC", text).casefold().split():
            found |= _joints_of_piece(piece)
    return frozenset(found)


def _joints_of_piece(piece: str) -> set[tuple[str, str]]:
    found = set()
    parted = normalise("".join(" " if c in _HYPHENS else c for c in piece))
    if " " in parted and any(c in _HYPHENS for c in piece):
        found.add((parted.replace(" ", ""), parted))
    for word in "".join(" " if c in _HYPHENS else c for c in piece).split():
        opened = normalise("".join(" " if c in _APOSTROPHES else c for c in word))
        if opened.count(" ") == 1 and normalise(word) == opened.replace(" ", ""):
            found.add((opened, normalise(word)))
    return found


def canonical(normalised: str, spellings: Mapping[str, str], close_forms: bool) -> tuple[str, ...]:
    """Return a text's words in the one spelling that all its alike spellings share.

    Parameters
    ----------
    normalised : str
    spellings : mapping of str to str
        From `Joints`: split, joined and hyphenated ways of writing a compound are alike.
    close_forms : bool
        Whether a word's plural is the word itself.
    """
    words = normalised.split()
    if spellings and words:
        words = [part for word in words for part in spellings.get(word, word).split()]
        words = _closed_up(words, spellings)
    return tuple(map(singular, words)) if close_forms else tuple(words)


def _closed_up(words: list[str], spellings: Mapping[str, str]) -> list[str]:
    """Close up pairs of words that somebody writes with an apostrophe between them."""
    out = [words[0]]
    for word in words[1:]:
        joined = spellings.get(f"{out[-1]} {word}")
        if joined is None:
            out.append(word)
        else:
            out[-1] = joined
    return out


def singular(word: str) -> str:
    """Return the singular of an English word; any other word as it is.

    Parameters
    ----------
    word : str
        Normalised.
    """
    if len(word) < 3 or len(word) > _LONGEST_WORD or not (word.isalpha() and word.isascii()):
        return word
    return _singular(word)


@lru_cache(maxsize=100_000)
def _singular(word: str) -> str:
    own = _OWN_SINGULAR.get(word)
    return str(_plurals().singular(word)) if own is None else own


@lru_cache(maxsize=1)
def _plurals() -> Pluralizer:
    return Pluralizer()  # type: ignore[no-untyped-call] # the library has no annotations


@lru_cache(maxsize=8)
def word_counts(texts: tuple[str, ...]) -> NDArray[np.int64]:
    """Count the words of normalised texts.

    Parameters
    ----------
    texts : tuple of str
        A plan's texts: the same tuple for as long as no keyword comes or goes, so that a
        call or a new assumption doesn't count them again.

    Returns
    -------
    ndarray of int, shape (n_texts,)
        Not to be written to.
    """
    counts = np.array([t.count(" ") + 1 if t else 0 for t in texts], dtype=np.int64)
    counts.flags.writeable = False
    return counts


@lru_cache(maxsize=8)
def name_places(texts: tuple[str, ...], places: tuple[str, ...]) -> NDArray[np.bool_]:
    """Say which texts name one of the plan's own places.

    Parameters
    ----------
    texts : tuple of str
        Normalised texts.
    places : tuple of str
        Normalised names, each one word or several.

    Returns
    -------
    ndarray of bool, shape (n_texts,)
        True where a name stands in the text as an unbroken run of words. Not to be
        written to.
    """
    named = np.array([_names_one(f" {t} ", places) for t in texts], dtype=bool)
    named.flags.writeable = False
    return named


def _names_one(padded: str, places: Sequence[str]) -> bool:
    return any(f" {place} " in padded for place in places)


def _spaced(char: str) -> str:
    if char.isalnum():
        return char
    if char in _APOSTROPHES:
        return ""
    category = unicodedata.category(char)
    if category == "Cf":  # zero-width marks are no part of a word
        return ""
    return " " if category[0] in "PZC" else char
