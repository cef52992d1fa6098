"""When a keyword on its way in is so like another that it may be the same."""

from __future__ import annotations

import unicodedata
from collections.abc import Sequence
from difflib import get_close_matches

from milkwort.core.words.texts import singular

__all__ = ["likeness", "nearest_text"]

_NEAR = 0.6


def likeness(normalised: str, match: str) -> tuple[str, ...]:
    """Return what near-duplicates share: words in the singular, in any order, without accents.

    Parameters
    ----------
    normalised : str
        Text as compared.
    match : str
        Match type: keywords of different ones are never alike.
    """
    bare = "".join(
        c for c in unicodedata.normalize("NFD", normalised) if unicodedata.category(c) != "Mn"
    )
    return (match, *sorted(singular(word) for word in bare.split()))


def nearest_text(text: str, texts: Sequence[str]) -> str | None:
    """Return the text that is spelt most like another; None where none comes near.

    Parameters
    ----------
    text : str
    texts : sequence of str
        To choose from.
    """
    found = get_close_matches(text.casefold(), texts, n=1, cutoff=_NEAR)
    return found[0] if found else None
