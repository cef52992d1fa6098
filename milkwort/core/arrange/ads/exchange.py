"""Ads changed by words: copied to another group, and searched and replaced."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Mapping, Sequence

from milkwort.core.arrange.ads.text import Ad
from milkwort.core.words.texts import normalise, singular

__all__ = ["exchanged", "in_every_field", "plurals_of", "replaced", "words_between"]

_WORD = re.compile(r"[^\W_]+(?:['’][^\W_]+)?")


def words_between(ours: Sequence[str], theirs: Sequence[str]) -> dict[str, str]:
    """Pair the main words of one group with those of another, by rank.

    Parameters
    ----------
    ours, theirs : sequence of str
        In the singular, the most clicked first.

    Returns
    -------
    dict of str to str
        What takes the place of each word; words that both have stay.
    """
    leaving = [word for word in ours if word not in theirs]
    coming = [word for word in theirs if word not in ours]
    return dict(zip(leaving, coming, strict=False))


def plurals_of(keywords: Iterable[str]) -> dict[str, str]:
    """Return the plural of each word that some keywords write in the plural.

    Parameters
    ----------
    keywords : iterable of str
        As written.
    """
    words = (word for text in keywords for word in normalise(text).split())
    return {singular(word): word for word in words if singular(word) != word}


def exchanged(text: str, pairs: Mapping[str, str], plurals: Mapping[str, str]) -> str:
    """Return a text with words exchanged; capitals stay, and a plural becomes a plural.

    Parameters
    ----------
    text : str
    pairs : mapping of str to str
        In the singular, as `words_between` gives them.
    plurals : mapping of str to str
        The plural of each word that comes in, where the group's keywords have one.
    """

    def other(found: re.Match[str]) -> str:
        word = normalise(found[0])
        new = pairs.get(singular(word))
        if new is None:
            return found[0]
        new = plurals.get(new, new) if singular(word) != word else new
        return _cased_as(found[0], new)

    return _WORD.sub(other, text)


def replaced(text: str, search: str, by: str) -> str:
    """Return a text with every place of a search replaced, capitals or not.

    Parameters
    ----------
    text, search, by : str
        The search is plain text.
    """
    return re.sub(re.escape(search), lambda _: by, text, flags=re.IGNORECASE) if search else text


def in_every_field(ad: Ad, make: Callable[[str], str]) -> Ad:
    """Return an ad with each of its fields made anew.

    Parameters
    ----------
    ad : Ad
    make : callable
        Given a field's text, returns the new one.
    """
    return Ad(tuple(map(make, ad.headlines)), tuple(map(make, ad.descriptions)))


def _cased_as(old: str, new: str) -> str:
    if len(old) > 1 and old.isupper():
        return new.upper()
    return new[:1].upper() + new[1:] if old[:1].isupper() else new
