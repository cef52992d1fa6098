"""Keywords as an ad platform takes them: one case, single spaces, none of its refused marks."""

from __future__ import annotations

__all__ = ["cleaned"]


def cleaned(text: str, refused_characters: str) -> str:
    """Return a keyword in lower case, refused characters gone, spaces collapsed.

    Parameters
    ----------
    text : str
    refused_characters : str
        Each stands for a space: *sash/casement* stays two words.
    """
    bare = text.translate({ord(c): " " for c in refused_characters})
    return " ".join(bare.casefold().split())
