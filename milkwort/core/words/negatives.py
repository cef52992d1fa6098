"""Negative keywords: searches that the plan, a campaign or a group is not to be shown for."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Ints
from milkwort.core.errors import BadValueError
from milkwort.core.words.match_types import MATCHES, Match
from milkwort.core.words.matching import TextIndex, matching_pairs
from milkwort.core.words.texts import canonical, joints_of, normalise

__all__ = ["LEVELS", "Level", "Negative", "Stopped", "stopped_by"]

Level = Literal["plan", "campaign", "group"]
LEVELS: tuple[str, ...] = get_args(Level)


@dataclass(frozen=True)
class Negative:
    """One negative keyword.

    Attributes
    ----------
    text : str
        As typed.
    match : Match
    level : Level
        Where it acts.
    number : int
        Of the campaign or group, as the keyword table numbers them; −1 at plan level.
    """

    text: str
    match: Match = "phrase"
    level: Level = "plan"
    number: int = -1

    def __post_init__(self) -> None:
        if not normalise(self.text):
            raise BadValueError("negative", "a text with at least one word", self.text)
        if self.match not in MATCHES:
            raise BadValueError("negative match", "one of " + ", ".join(MATCHES), self.match)
        if self.level not in LEVELS:
            raise BadValueError("negative level", "one of " + ", ".join(LEVELS), self.level)


@dataclass(frozen=True)
class Stopped:
    """Which texts which negatives match; arrays of shape (n_pairs,).

    Attributes
    ----------
    negative, text : Ints
        Places among the negatives and in the index.
    everywhere : ndarray of bool, shape (n_texts,)
        Stopped for the whole plan.
    """

    negative: Ints
    text: Ints
    everywhere: NDArray[np.bool_]


def stopped_by(
    negatives: tuple[Negative, ...], index: TextIndex, joints: frozenset[tuple[str, str]],
    close_forms: bool,
) -> Stopped:  # fmt: skip
    """Find the texts that negatives match.

    Parameters
    ----------
    negatives : tuple of Negative
    index : TextIndex
        Spelt with the same joints and close forms.
    joints : Joints
    close_forms : bool
        Whether a negative's plural stops its singular too; platforms differ.
    """
    spellings = dict(joints | joints_of(n.text for n in negatives))
    patterns = [canonical(normalise(n.text), spellings, close_forms) for n in negatives]
    match = np.array([MATCHES.index(n.match) for n in negatives], dtype=np.int64)
    pairs = matching_pairs(index, patterns, match)
    everywhere = np.zeros(len(index.words), dtype=bool)
    at_plan = np.array([n.level == "plan" for n in negatives], dtype=bool)
    everywhere[pairs.text[at_plan[pairs.pattern]]] = True
    return Stopped(pairs.pattern, pairs.text, everywhere)
