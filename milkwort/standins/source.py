"""What a keyword source must be able to do; the almanac is one, a real one would be another."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Protocol

__all__ = ["Idea", "IdeasPage", "KeywordSource"]


@dataclass(frozen=True)
class Idea:
    """One keyword as a source gives it.

    Attributes
    ----------
    text : str
        Normalised.
    volume : (float, float)
        Ends of the range, searches a month for the very text; equal for a figure.
    months : tuple of 12 floats
        Searches by month, January first.
    cpc_low, cpc_high : float
        Money a click.
    competition : float
        From 0 to 1.
    near : bool
        Whether it holds the whole root, or only touches on it.
    """

    text: str
    volume: tuple[float, float]
    months: tuple[float, ...]
    cpc_low: float
    cpc_high: float
    competition: float
    near: bool


@dataclass(frozen=True)
class IdeasPage:
    """One page of an answer, with what is left of the quota."""

    ideas: tuple[Idea, ...]
    more: bool
    quota_left: int


class KeywordSource(Protocol):
    """A source of keywords.

    Attributes
    ----------
    name : str
    simulated : bool
        Whether its figures are made up.
    """

    name: str
    simulated: bool

    def ideas(self, roots: Sequence[str], page: int = 0) -> IdeasPage:
        """Return related keywords of some root words, page by page."""

    def figures(self, texts: Sequence[str]) -> IdeasPage:
        """Return the figures of given texts."""

    def categories(self) -> dict[str, tuple[str, ...]]:
        """Return the categories it knows, each with its root words."""

    def completions(self, stem: str) -> tuple[str, ...]:
        """Return what people type after some words."""
