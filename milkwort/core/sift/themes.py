"""Themes of a sheet: which keywords are about the same thing."""

from __future__ import annotations

from collections.abc import Sequence

from milkwort.core.arrange.grouping import Groups, group_by_theme
from milkwort.core.arrays import Floats
from milkwort.core.words.lexicon import Lexicon

__all__ = ["themes_of"]


def themes_of(texts: Sequence[str], searches: Floats, lexicon: Lexicon) -> Groups:
    """Return the theme of each keyword of a sheet, however many have it.

    Parameters
    ----------
    texts : sequence of str
        Normalised.
    searches : Floats, shape (n_keywords,)
        A month; a theme is named in the words of its most searched keyword.
    lexicon : Lexicon
        Tells places and helper words.
    """
    return group_by_theme(texts, searches, most=max(len(texts), 1), lexicon=lexicon)
