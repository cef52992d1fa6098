"""The almanac: a simulated keyword source, the same for the same words and seed, offline.

Its figures are made up and look as such a source's do: long keywords are rarer, buying
words dearer, and other towns, jobs and free things stand among them.
"""

from __future__ import annotations

import hashlib
import math
from collections.abc import Sequence

import numpy as np

from milkwort.core.errors import BadValueError, PlannerError
from milkwort.core.words.lexicon import shipped_lexicon
from milkwort.core.words.texts import MAX_TEXT, normalise
from milkwort.standins.categories import CATEGORIES
from milkwort.standins.source import Idea, IdeasPage

__all__ = ["TOWNS", "Almanac"]

_PAGE = 60
_MOST_ROOTS = 20
TOWNS = ("hollowbrook", "north arding", "penscombe", "wrenfold", "calder stoke", "saltby")
_AFTER = (
    "near me", "cost", "price", "quote", "service", "company", "specialist", "reviews", "ideas",
    "jobs", "course", "online", "shop", "for sale", "repair", "replacement", "installation",
    "parts", "guide", "kit", "prices", "emergency", "same day", "for beginners", "advice",
)  # fmt: skip
_BEFORE = (
    "best", "cheap", "local", "emergency", "how to", "free", "diy", "used", "small", "large",
    "antique", "modern", "custom made", "how much is", "professional",
)  # fmt: skip
_ALIKE = {
    "repair": ("restoration", "mending", "refurbishment"),
    "buy": ("order", "get"),
    "service": ("maintenance", "check"),
    "shop": ("store", "supplier"),
    "lesson": ("course", "class"),
}
_DEARER = {"buy": 1.35, "compare": 1.0, "unknown": 0.9, "learn": 0.45, "firm": 0.6, "job": 0.3}
_RARER = {"buy": 0.5, "compare": 0.4, "unknown": 1.0, "learn": 0.6, "firm": 0.3, "job": 0.25}


class Almanac:
    """A simulated source of keywords.

    Parameters
    ----------
    seed : int
        Another seed makes other figures.
    quota : int
        Look-ups it answers before it says that the day is over.
    """

    name = "almanac"
    simulated = True

    def __init__(self, seed: int = 7, quota: int = 500) -> None:
        self._seed = seed
        self._left = quota

    def ideas(self, roots: Sequence[str], page: int = 0) -> IdeasPage:
        """Return related keywords, the nearest first.

        Raises
        ------
        BadValueError
            For no root word, or too many.
        PlannerError
            Where the quota is used up.
        """
        bare = [r for r in dict.fromkeys(normalise(root) for root in roots) if r]
        if not 1 <= len(bare) <= _MOST_ROOTS or any(len(r) > MAX_TEXT for r in bare):
            raise BadValueError("root words", f"1 to {_MOST_ROOTS} of them", len(bare))
        self._use()
        texts: dict[str, bool] = dict.fromkeys(bare, True)
        for root in bare:
            for text, near in self._related(root):
                texts.setdefault(text, near)
        names = list(texts)
        shown = names[page * _PAGE : (page + 1) * _PAGE]
        ideas = tuple(self._idea(text, texts[text]) for text in shown)
        return IdeasPage(ideas, (page + 1) * _PAGE < len(names), self._left)

    def figures(self, texts: Sequence[str]) -> IdeasPage:
        """Return the figures of given texts."""
        self._use()
        bare = [t for t in dict.fromkeys(map(normalise, texts)) if t]
        return IdeasPage(tuple(self._idea(t, True) for t in bare), False, self._left)

    def categories(self) -> dict[str, tuple[str, ...]]:
        """Return the categories it knows, each with its root words."""
        return CATEGORIES

    def completions(self, stem: str) -> tuple[str, ...]:
        """Return what people type after some words, the most typed first."""
        bare = normalise(stem)
        if not bare:
            return ()
        typed = [f"{bare} {after}" for after in (*_AFTER, *TOWNS)]
        rng = self._random("completions " + bare)
        picked = rng.choice(len(typed), 10, replace=False).tolist()
        return tuple(sorted((typed[i] for i in picked), key=lambda t: -self._volume(t)))

    def _use(self) -> None:
        if self._left <= 0:
            raise PlannerError("The almanac’s quota of look-ups is used up.", "almanac")
        self._left -= 1

    def _related(self, root: str) -> list[tuple[str, bool]]:
        words = root.split()
        near = [root, *(f"{root} {a}" for a in _AFTER), *(f"{b} {root}" for b in _BEFORE)]
        near += [f"{root} {town}" for town in TOWNS]
        near += [f"best {root} near me", f"{root} cost near me"]
        wide = [" ".join(words[:i] + words[i + 1 :]) for i in range(len(words)) if len(words) > 1]
        for at, word in enumerate(words):
            wide += [" ".join([*words[:at], other, *words[at + 1 :]])
                     for other in _ALIKE.get(word, ())]  # fmt: skip
        wide += [f"{w} {a}" for w in wide[:3] for a in ("near me", "cost", "company")]
        rng = self._random("related " + root)
        kept = [t for t in near[1:] if " ".join(t.split()) and not _doubled(t)]
        order = rng.permutation(len(kept)).tolist()
        return [(root, True), *((kept[i], True) for i in order), *((t, False) for t in wide if t)]

    def _idea(self, text: str, near: bool) -> Idea:
        rng = self._random("figures " + text)
        intent = shipped_lexicon().intent(text).intent
        volume = self._volume(text)
        middle = math.exp(rng.normal(0.25, 0.35)) * _DEARER[intent]
        width = rng.uniform(1.25, 1.9)
        months = self._months(text, volume, rng)
        return Idea(
            text=text,
            volume=_said(volume, rng),
            months=months,
            cpc_low=round(max(middle / width, 0.03), 2),
            cpc_high=round(max(middle * width, 0.05), 2),
            competition=round(float(np.clip(rng.normal(0.3 + 0.2 * _DEARER[intent], 0.15), 0, 1)),
                              2),
            near=near,
        )  # fmt: skip

    def _volume(self, text: str) -> float:
        rng = self._random("volume " + text)
        words = text.split()
        intent = shipped_lexicon().intent(text).intent
        middle = 5200.0 * _RARER[intent] / 2.6 ** (len(words) - 1)
        return float(middle * math.exp(rng.normal(0, 0.7)))

    def _months(self, text: str, volume: float, rng: np.random.Generator) -> tuple[float, ...]:
        season = self._random(
            "season " + text.split(maxsplit=1)[0]
        )  # keywords of a kind share a season
        swing, peak = season.uniform(0.05, 0.45), season.uniform(0, 12)
        at = 2 * np.pi * (np.arange(12) - peak) / 12
        shape = (1 + swing * np.cos(at)) * np.exp(rng.normal(0, 0.06, 12))
        return tuple(float(round(v)) for v in volume * shape / shape.mean())

    def _random(self, what: str) -> np.random.Generator:
        digest = hashlib.sha256(f"{self._seed} {what}".encode()).digest()
        return np.random.default_rng(int.from_bytes(digest[:8], "big"))


def _said(volume: float, rng: np.random.Generator) -> tuple[float, float]:
    """Return a figure to two digits, or now and then only a range, as sources do."""
    if volume < 10:
        return (1.0, 9.0)
    decade = 10.0 ** math.floor(math.log10(volume))
    if rng.random() < 0.2:
        return (decade, decade * 10)
    figure = float(round(volume / decade * 10) * decade / 10)
    return (figure, figure)


def _doubled(text: str) -> bool:
    words = text.split()
    return len(set(words)) < len(words)
