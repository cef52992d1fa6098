"""Keywords that name another place, and the same with one's own place instead."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from milkwort.core.words.lexicon import Lexicon
from milkwort.core.words.texts import normalise

__all__ = ["OtherPlace", "other_places", "swapped"]

_MOSTLY = 0.6
"""A name stands where places stand in so many of the keywords that hold it."""
_LEAST_SEEN = 2
"""A name must stand in the place of an own place so often to be taken for one."""


@dataclass(frozen=True)
class OtherPlace:
    """A place that is not the plan's.

    Attributes
    ----------
    name : str
    rows : tuple of int
        Keywords that name it.
    """

    name: str
    rows: tuple[int, ...]


def other_places(
    texts: Sequence[str], own: Sequence[str], named: Sequence[str], lexicon: Lexicon
) -> list[OtherPlace]:
    """Find places that keywords name beside the plan's own.

    Those the planner named, and whatever stands where an own place stands in other
    keywords: beside *sash repair eastmere*, *sash repair hollowbrook* tells of Hollowbrook.

    Parameters
    ----------
    texts : sequence of str
        Normalised.
    own, named : sequence of str
        The plan's places, and other places the planner named.
    lexicon : Lexicon
        Words it knows are no places.

    Returns
    -------
    list of OtherPlace
        The most named first.
    """
    mine = [f" {p} " for p in map(normalise, own) if p]
    frames = {
        f" {text} ".replace(place, " ").strip()
        for text in texts
        for place in mine
        if f" {text} ".endswith(place)
    } - {""}
    seen: dict[str, list[int]] = {}
    for row, text in enumerate(texts):
        for size in (1, 2):
            words = text.split()
            frame, rest = " ".join(words[:-size]), " ".join(words[-size:])
            if frame in frames and f" {rest} " not in mine and not _known(rest, lexicon):
                seen.setdefault(rest, []).append(row)
                break
    found = {
        name
        for name, rows in seen.items()
        if len(rows) >= _LEAST_SEEN
        and len(rows) >= _MOSTLY * sum(1 for t in texts if f" {name} " in f" {t} ")
    }
    found |= {n for n in map(normalise, named) if n and f" {n} " not in mine}
    places = [
        OtherPlace(name, tuple(r for r, t in enumerate(texts) if f" {name} " in f" {t} "))
        for name in sorted(found)
    ]
    return sorted((p for p in places if p.rows), key=lambda p: -len(p.rows))


def swapped(text: str, other: str, own: str) -> str:
    """Return a text with another place's name replaced by one's own.

    Parameters
    ----------
    text : str
        Normalised.
    other, own : str
        Names of the places, as typed.

    Returns
    -------
    str
        The text as it was where the other place does not stand in it.
    """
    return " ".join(f" {text} ".replace(f" {normalise(other)} ", f" {normalise(own)} ").split())


def _known(words: str, lexicon: Lexicon) -> bool:
    """Whether words say something else than where: they stand in a list of the lexicon."""
    return any(
        kind.kind in ("helper", "warning") for kind in lexicon.kinds(words)
    ) or lexicon.intent(words).intent != "unknown"  # fmt: skip
