"""Files that were read and wait to be taken in or left."""

from __future__ import annotations

import secrets
import threading
from collections import OrderedDict
from dataclasses import dataclass

from milkwort.core.errors import NotFoundError
from milkwort.formats.guess_columns import ColumnGuess
from milkwort.formats.keyword_rows import KeywordRows
from milkwort.formats.text_table import TextTable

__all__ = ["Tray", "TrayFile", "Trays", "Units"]


@dataclass(frozen=True)
class Tray:
    """What one source brings, on its way in.

    Attributes
    ----------
    plan_id : int
    name : str
        What the file or the source is called.
    rows : KeywordRows
        What came of it.
    file : TrayFile or None
        Where it is from; None for a source that is no file.
    """

    plan_id: int
    name: str
    rows: KeywordRows
    file: TrayFile | None = None


@dataclass(frozen=True)
class TrayFile:
    """A file as it was read.

    Attributes
    ----------
    data : bytes or str
        To be read again: cells take many times the room of the bytes they stand in.
    head : TextTable
        Its first rows.
    guess : ColumnGuess
        The columns as now assigned.
    units : Units
        What its figures count.
    """

    data: bytes | str
    head: TextTable
    guess: ColumnGuess
    units: Units


@dataclass(frozen=True)
class Units:
    """What a file's volumes count, where its rows don't say.

    Attributes
    ----------
    period : str
        ``month`` or ``day``.
    basis : str
        A match type; empty for the plan's own.
    area : str
        As the planner calls it.
    price : str
        ``click`` where prices are for one click, ``sum`` where they are for all clicks of
        the period.
    shown_at_bid : float or None
        The bid at which volumes count showings; None where they count searches.
    price_rate : float or None
        Money of the plan in one of the file's, where that is another; None where nobody said.
    """

    period: str = "month"
    basis: str = ""
    area: str = ""
    price: str = "click"
    shown_at_bid: float | None = None
    price_rate: float | None = None

    def rate_of(self, currency: str, plan_currency: str) -> float:
        """Return money of the plan in one of a file's; 0 where that is another and not said."""
        if currency in ("", plan_currency):
            return 1.0
        return self.price_rate or 0.0


_HEAVIEST = 600_000
"""Rows of all trays together: about what three of the largest files hold."""


def _weight(tray: Tray) -> int:
    return len(tray.rows.taken) + len(tray.rows.refused)


class Trays:
    """Holds the latest few trays by key, as far as all of them together leave room."""

    def __init__(self, most: int) -> None:
        self._most = most
        self._held: OrderedDict[str, Tray] = OrderedDict()
        self._lock = threading.Lock()

    def put(self, tray: Tray, key: str | None = None) -> str:
        """Hold a tray, in the place of the one that has the key, and return its key."""
        key = key or secrets.token_urlsafe(9)
        with self._lock:
            self._held[key] = tray
            self._held.move_to_end(key)
            while len(self._held) > 1 and (
                len(self._held) > self._most or sum(map(_weight, self._held.values())) > _HEAVIEST
            ):
                self._held.popitem(last=False)
        return key

    def get(self, key: str, plan_id: int) -> Tray:
        """Return a tray.

        Raises
        ------
        NotFoundError
            Where it was taken in, left, or has made way for newer ones.
        """
        tray = self._held.get(key)
        if tray is None or tray.plan_id != plan_id:
            raise NotFoundError("This file is no longer in the tray: read it again.", "tray")
        return tray

    def drop(self, key: str) -> None:
        """Let go of a tray."""
        self._held.pop(key, None)
