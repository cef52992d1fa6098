"""Words that stand in any search and say nothing of what is sought."""

from __future__ import annotations

from milkwort.core.words.texts import singular

__all__ = ["LINKING_WORDS", "STOP_SINGULARS"]

_SAID = """
a an and are as at be by do does for from i in is it its me my of on or our the to us we with you
your
"""
_LINKING = _SAID.split()
_ASKING = ["how", "what", "when", "where", "which", "who"]

LINKING_WORDS = frozenset(_LINKING) | frozenset(map(singular, _LINKING))
"""As written and in the singular. Blocking *for* alone would stop good searches unseen; who asks
*how* wants to learn."""
STOP_SINGULARS = frozenset(map(singular, (*_LINKING, *_ASKING)))
"""With those that ask."""
