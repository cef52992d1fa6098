"""Texts as the platform compares them: normalised words."""

from __future__ import annotations

import unicodedata
from collections.abc import Sequence
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

__all__ = ["MAX_TEXT", "name_places", "normalise", "word_counts"]

MAX_TEXT = 1000
"""Longest keyword text taken, in characters; the longest real search is far shorter."""

_APOSTROPHES = frozenset("'’‘ʼ`´")


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
