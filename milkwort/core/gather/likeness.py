"""When a keyword on its way in is so like another that it may be the same."""

from __future__ import annotations

import unicodedata

from milkwort.core.words.texts import singular

__all__ = ["likeness"]


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
