"""Match types as files write them: a word, a phrase about it, or marks round the keyword."""

from __future__ import annotations

import re
from functools import lru_cache

from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.texts import normalise

__all__ = ["read_match", "unwrapped"]

_SAID = re.compile(rf"({'|'.join(MATCHES)})( match)?( type)?( close (variants?|forms?))?")
_WRAPPED = re.compile(r'\[(?P<exact>.*)\]|"(?P<phrase>.*)"', re.DOTALL)


@lru_cache(maxsize=256)
def read_match(text: str) -> str | None:
    """Return the match type that a cell names: *exact*, *Exact match*; None for anything else."""
    found = _SAID.fullmatch(normalise(text[:80]))
    return found[1] if found else None


def unwrapped(text: str) -> tuple[str, str]:
    """Return a keyword without the marks round it, and the match type they stand for.

    Parameters
    ----------
    text : str
        As pasted: ``[sash window]`` is exact, ``"sash window"`` phrase.

    Returns
    -------
    (str, str)
        The match type is empty where there are no marks.
    """
    found = _WRAPPED.fullmatch(text.strip())
    if not found:
        return text, ""
    exact = found["exact"] is not None
    return (found["exact"] if exact else found["phrase"]).strip(), "exact" if exact else "phrase"
