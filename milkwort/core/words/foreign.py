"""What is typed in another language or script than a plan's, and codes in place of words."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache

from milkwort.core.words.lexicon import Lexicon, read_list
from milkwort.core.words.texts import normalise

__all__ = ["Tongue", "foreign", "is_item_code", "tongue_of"]

_CODE = re.compile(r"(?=(?:.*\d){3})(?=.*[a-z])[a-z0-9]{8,24}|\d{8,14}")
"""Letters and figures run together, or a bar code; a house number or a year is shorter."""
_USUAL = frozenset({"LATIN"})
_FEW = 2


@dataclass(frozen=True)
class Tongue:
    """What a plan's keywords are written in.

    Attributes
    ----------
    scripts : frozenset of str
        Such as ``LATIN``; that of most programs where there is no keyword.
    words : frozenset of str
        All words of the keywords.
    """

    scripts: frozenset[str]
    words: frozenset[str]

    @property
    def is_foreign(self) -> bool:
        """Whether the keywords are in such a language themselves: nothing tells others then."""
        return not self.words.isdisjoint(_small_words())


def tongue_of(texts: Iterable[str]) -> Tongue:
    """Return what some keywords are written in.

    Parameters
    ----------
    texts : iterable of str
        Normalised.
    """
    words = frozenset(word for text in texts for word in text.split())
    scripts = {script for word in words for script in _scripts(word)}
    return Tongue(frozenset(scripts) or _USUAL, words)


def foreign(text: str, tongue: Tongue, lexicon: Lexicon) -> str:
    """Return why a text is of another script or language; empty where it isn't.

    A language is told by its small words, and only in a text that shares no word with the
    keywords; where the keywords hold such words themselves, nothing is told by them.

    Parameters
    ----------
    text : str
        Normalised.
    tongue : Tongue
        Of the plan.
    lexicon : Lexicon
        Tells names of places, which may hold such words.
    """
    scripts = _scripts(text)
    if scripts and not scripts & tongue.scripts:
        return "another script"
    words = text.split()
    if tongue.is_foreign or len(words) < _FEW or not tongue.words.isdisjoint(words):
        return ""
    bare = " ".join(kind.word for kind in lexicon.kinds(text) if kind.kind != "where")
    told = [run for run in _small_words() if f" {run} " in f" {bare} "]
    return f"another language: {told[0]}" if told else ""


def is_item_code(text: str) -> bool:
    """Say whether a text is the code of a thing and no words.

    Parameters
    ----------
    text : str
        As typed.
    """
    return bool(_CODE.fullmatch(normalise(text)))


@lru_cache(maxsize=1)
def _small_words() -> tuple[str, ...]:
    return tuple(" ".join(run) for run in read_list("foreign"))


@lru_cache(maxsize=65_536)
def _scripts(text: str) -> frozenset[str]:
    return frozenset(unicodedata.name(c, "?").split()[0] for c in text if c.isalpha())
