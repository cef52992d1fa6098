"""Themes to ad groups: close keywords together, in groups small enough for one ad.

A keyword's theme is its most telling word that others share. Words tell more the fewer
keywords hold them; places and helper words tell little. How many hold a word is counted in
powers of two, so that one more keyword seldom changes what is rare.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.errors import BadValueError
from milkwort.core.words.lexicon import Lexicon, shipped_lexicon
from milkwort.core.words.texts import singular

__all__ = ["Groups", "group_by_theme"]

_TELLS = {"what": 1.0, "warning": 0.5, "helper": 0.15, "where": 0.1}
_SHARED_BY = 3
"""A word that fewer keywords share makes no theme of its own."""
_IN_LABEL = 0.6
"""A label holds the words that so many of a group's keywords share."""
_LABEL_WORDS = 4


@dataclass(frozen=True)
class Groups:
    """Ad groups.

    Attributes
    ----------
    of_row : Ints, shape (n_keywords,)
        Place of each keyword's group in `labels`; every keyword has one.
    labels : tuple of str
        Plain words, each label once.
    """

    of_row: Ints
    labels: tuple[str, ...]


@dataclass(frozen=True)
class _Text:
    """One keyword's words: as written, and their stems from the most telling to the least."""

    written: tuple[str, ...]
    stems: tuple[str, ...]
    telling: tuple[str, ...]


def group_by_theme(
    texts: Sequence[str],
    searches: Floats | None = None,
    *,
    most: int = 20,
    lexicon: Lexicon | None = None,
) -> Groups:
    """Put close keywords together.

    Parameters
    ----------
    texts : sequence of str
        Normalised.
    searches : Floats, shape (n_keywords,), optional
        A month; a group is named in the words of its most searched keyword.
    most : int
        Keywords in a group at most.
    lexicon : Lexicon, optional
        Tells places and helper words; the shipped one where left out.

    Returns
    -------
    Groups

    Raises
    ------
    BadValueError
        For a limit under 1.
    """
    if most < 1:
        raise BadValueError("most", "a whole number of 1 or more", most)
    weight = np.zeros(len(texts)) if searches is None else np.nan_to_num(searches)
    parsed = _parsed(texts, lexicon or shipped_lexicon())
    themes: dict[str, list[int]] = {}
    for row, theme in enumerate(_themes(parsed)):
        themes.setdefault(theme, []).append(row)
    bundles = [
        bundle
        for theme in sorted(themes)
        for bundle in _split(parsed, sorted(themes[theme], key=lambda r: texts[r]), {theme}, most)
    ]
    of_row = np.zeros(len(texts), dtype=np.int64)
    for number, rows in enumerate(bundles):
        of_row[rows] = number
    return Groups(of_row, _labels(parsed, bundles, weight))


def _parsed(texts: Sequence[str], lexicon: Lexicon) -> list[_Text]:
    kinds = [lexicon.kinds(text) for text in texts]
    stems = [tuple(singular(k.word) for k in words) for words in kinds]
    held_by = Counter(stem for some in stems for stem in set(some))
    parsed = []
    for words, some in zip(kinds, stems, strict=True):
        tells = {
            stem: (_TELLS[k.kind] / held_by[stem].bit_length(), stem)
            for k, stem in zip(words, some, strict=True)
            if held_by[stem] >= _SHARED_BY
        }
        ranked = sorted(tells, key=lambda stem: (-tells[stem][0], stem))
        parsed.append(_Text(tuple(k.word for k in words), some, tuple(ranked)))
    return parsed


def _themes(parsed: list[_Text]) -> list[str]:
    """Return each keyword's theme: its most telling shared word; empty where it has none."""
    return [text.telling[0] if text.telling else "" for text in parsed]


def _split(parsed: list[_Text], rows: list[int], used: set[str], most: int) -> list[list[int]]:
    """Part a theme that is too large by its keywords' next words, and at last by alphabet."""
    if len(rows) <= most:
        return [rows]
    by_next: dict[str, list[int]] = {}
    for row in rows:
        word = next((w for w in parsed[row].telling if w not in used), "")
        by_next.setdefault(word, []).append(row)
    if len(by_next) == 1:
        parts = -(-len(rows) // most)
        return [part.tolist() for part in np.array_split(np.array(rows), parts)]
    bundles: list[list[int]] = []
    rest: list[int] = []
    for word in sorted(by_next):
        some = by_next[word]
        if len(some) < _SHARED_BY or not word:
            rest += some
        else:
            bundles += _split(parsed, some, used | {word}, most)
    if len(rest) == len(rows):
        parts = -(-len(rows) // most)
        return [part.tolist() for part in np.array_split(np.array(rows), parts)]
    home = next((b for b in bundles if len(b) + len(rest) <= most), None)
    if rest and len(rest) < _SHARED_BY and home is not None:
        home += rest  # a few left over join their nearest of kin
        return bundles
    return [*bundles, *(_split(parsed, rest, used | set(by_next), most) if rest else [])]


def _labels(parsed: list[_Text], bundles: list[list[int]], searches: Floats) -> tuple[str, ...]:
    labels: list[str] = []
    taken: Counter[str] = Counter()
    for rows in bundles:
        label = _label(parsed, rows, searches)
        taken[label] += 1
        labels.append(label if taken[label] == 1 else f"{label} {taken[label]}")
    return tuple(_all_different(labels))


def _label(parsed: list[_Text], rows: list[int], searches: Floats) -> str:
    """Name a group by the words most of its keywords share, in its best keyword's order."""
    held = Counter(stem for row in rows for stem in set(parsed[row].stems))
    best = parsed[max(rows, key=lambda row: (searches[row], -len(parsed[row].written)))]
    words = [
        word
        for word, stem in zip(best.written, best.stems, strict=True)
        if held[stem] >= _IN_LABEL * len(rows)
    ]
    label = " ".join((words or list(best.written))[:_LABEL_WORDS])
    return label[:1].upper() + label[1:] if label else "General"


def _all_different(labels: list[str]) -> list[str]:
    """Number what is still alike, as where a label ends in a number already."""
    seen: set[str] = set()
    out = []
    for label in labels:
        name, number = label, 2
        while name.casefold() in seen:
            name, number = f"{label} ({number})", number + 1
        seen.add(name.casefold())
        out.append(name)
    return out
