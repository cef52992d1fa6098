"""The keywords of a plan as columns."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.errors import ProgramError
from milkwort.core.words.intents import INTENTS
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.texts import Joints

__all__ = ["CALLS", "TAUGHT", "KeywordTable", "blank_table"]

CALLS: tuple[str, ...] = ("none", "keep", "hold", "drop", "block")
TAUGHT: tuple[str, ...] = (
    "searches", "click_rate", "price",
    "group_searches", "group_click_rate", "group_price", "clicks",
)  # fmt: skip
"""Spreads that results leave of a keyword's own factors and of its group's, log units; and the
exposed clicks that its rate rests on."""


@dataclass(frozen=True)
class KeywordTable:
    """Candidates of one plan, a row each; every column has shape (n_keywords,).

    Attributes
    ----------
    texts : tuple of str
        Normalised texts.
    match, basis : Ints
        Position in `MATCHES`; `basis` is the match type the volume counted.
    intent, call : Ints
        Position in `INTENTS`, in `CALLS`.
    volume_low, volume_high : Floats
        Searches a month as read; equal for a figure, NaN where absent.
    cpc_low, cpc_high : Floats
        Money a click; NaN where absent.
    rate : Floats
        The keyword's own customers per click; NaN where the brief's rate applies.
    group : Ints
        Number of the ad group, −1 for none.
    locked_bid : Floats
        A bid set by hand, money a click; NaN where the policy decides.
    campaign : Ints
        Number of the campaign, −1 for none.
    offer : Ints
        Place of its offer in the brief.
    months : Floats, shape (n_keywords, 12)
        Searches by month, January first; NaN where not read.
    last_cpc : Floats
        Average price last paid, money a click; NaN where never seen.
    shown_at_bid : Floats
        The bid at which the volume counts showings, money a click; NaN where it counts
        searches.
    taught : Floats, shape (n_keywords, 7)
        What results left unsure, by `TAUGHT`; NaN where they said nothing.
    joints : Joints
        Compounds that the texts were written with, which normalising no longer shows.
    """

    texts: tuple[str, ...]
    match: Ints
    basis: Ints
    intent: Ints
    call: Ints
    volume_low: Floats
    volume_high: Floats
    cpc_low: Floats
    cpc_high: Floats
    rate: Floats
    group: Ints
    locked_bid: Floats
    campaign: Ints
    offer: Ints
    months: Floats
    last_cpc: Floats
    shown_at_bid: Floats
    taught: Floats
    joints: Joints = frozenset()

    def __post_init__(self) -> None:
        for name, column in self.__dict__.items():
            if name != "joints" and len(column) != len(self.texts):
                raise ProgramError(f"column {name} has {len(column)} rows, not {len(self.texts)}")

    def __len__(self) -> int:
        return len(self.texts)

    @property
    def kept(self) -> NDArray[np.bool_]:
        """Which keywords the planner kept."""
        return np.asarray(self.call == CALLS.index("keep"))

    def match_name(self, row: int) -> str:
        """Return the match type of one row as a word."""
        return MATCHES[int(self.match[row])]

    def at(self, rows: Ints) -> KeywordTable:
        """Return some rows as a table of their own."""
        columns = {
            name: column[rows] for name, column in vars(self).items()
            if name not in ("texts", "joints")
        }  # fmt: skip
        texts = tuple(self.texts[row] for row in rows.tolist())
        return KeywordTable(texts=texts, joints=self.joints, **columns)

    def joined(self, more: KeywordTable) -> KeywordTable:
        """Return the table with the rows of another after its own."""
        columns = {
            name: np.concatenate((column, getattr(more, name)))
            for name, column in vars(self).items()
            if name not in ("texts", "joints")
        }
        texts, joints = (*self.texts, *more.texts), self.joints | more.joints
        return KeywordTable(texts=texts, joints=joints, **columns)

    def with_calls(self, rows: Ints, call: str) -> KeywordTable:
        """Return the table with some rows called anew."""
        calls = self.call.copy()
        calls[rows] = CALLS.index(call)
        return replace(self, call=calls)


def blank_table(texts: Sequence[str]) -> KeywordTable:
    """Return a table of exact keywords with no figures, all kept.

    Parameters
    ----------
    texts : sequence of str
        As typed.

    Returns
    -------
    KeywordTable
        Of n_keywords rows.
    """
    n = len(texts)
    nothing = np.full(n, np.nan)
    zeros = np.zeros(n, dtype=np.int64)
    return KeywordTable(
        texts=tuple(texts),
        match=zeros,
        basis=zeros,
        intent=np.full(n, INTENTS.index("unknown"), dtype=np.int64),
        call=np.full(n, CALLS.index("keep"), dtype=np.int64),
        volume_low=nothing,
        volume_high=nothing,
        cpc_low=nothing,
        cpc_high=nothing,
        rate=nothing,
        group=np.full(n, -1, dtype=np.int64),
        locked_bid=nothing,
        campaign=np.full(n, -1, dtype=np.int64),
        offer=zeros,
        months=np.full((n, 12), np.nan),
        last_cpc=nothing,
        shown_at_bid=nothing,
        taught=np.full((n, len(TAUGHT)), np.nan),
    )
