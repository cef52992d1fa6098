"""Crossing lists of words into keywords, as a sentence with lists in it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import permutations, product

from milkwort.core.errors import BadValueError
from milkwort.core.words.lexicon import Lexicon, shipped_lexicon
from milkwort.core.words.texts import normalise, singular

__all__ = ["Crossing", "Part", "cross"]

_MOST = 100_000
_LONGEST = 10
"""Longer keywords are typed by nobody."""


@dataclass(frozen=True)
class Part:
    """One list of the sentence.

    Attributes
    ----------
    words : tuple of str
        Words or runs of words; one of them stands in each keyword.
    on : bool
        Whether it takes part at all.
    optional : bool
        Whether keywords without it are made too.
    """

    words: tuple[str, ...]
    on: bool = True
    optional: bool = False


@dataclass(frozen=True)
class Crossing:
    """What a crossing makes.

    Attributes
    ----------
    texts : tuple of str
        Normalised, each once, in the order of the lists.
    doubles : int
        Left out: a word twice, or two places at once.
    known : int
        Left out: already in the sheet, or made before.
    """

    texts: tuple[str, ...]
    doubles: int
    known: int


def cross(
    parts: Sequence[Part],
    *,
    any_order: bool = False,
    known: frozenset[str] = frozenset(),
    lexicon: Lexicon | None = None,
) -> Crossing:
    """Make every keyword of some lists.

    Parameters
    ----------
    parts : sequence of Part
        In the order they stand in the keyword.
    any_order : bool
        Whether the parts are also put in every other order.
    known : frozenset of str
        Normalised texts that the sheet has.
    lexicon : Lexicon, optional
        Tells places: two of them in one keyword are a silly double.

    Raises
    ------
    BadValueError
        Where there is nothing to cross, or more than 100,000 keywords would come of it.
    """
    lists = [_choices(part) for part in parts if part.on and _choices(part)]
    if not lists:
        raise BadValueError("crossing", "at least one list of words that is switched on", "none")
    orders = list(permutations(range(len(lists)))) if any_order else [tuple(range(len(lists)))]
    size = len(orders)
    for words in lists:
        size *= len(words)
    if size > _MOST:
        raise BadValueError("crossing", f"at most {_MOST:,} keywords", f"{size:,}")
    places = lexicon or shipped_lexicon()
    made: dict[str, None] = {}
    doubles = already = 0
    for order in orders:
        for chosen in product(*(lists[i] for i in order)):
            text = " ".join(" ".join(chosen).split())
            if not text:
                continue
            if _silly(text, places):
                doubles += 1
            elif text in made or text in known:
                already += 1
            else:
                made[text] = None
    return Crossing(tuple(made), doubles, already)


def _choices(part: Part) -> list[str]:
    words = list(dict.fromkeys(w for w in map(normalise, part.words) if w))
    return [*words, ""] if part.optional and words else words


def _silly(text: str, lexicon: Lexicon) -> bool:
    """A word twice, two places at once, or more words than anybody types."""
    words = [singular(w) for w in text.split()]
    if len(set(words)) < len(words) or len(words) > _LONGEST:
        return True
    return lexicon.place_runs(text) > 1
