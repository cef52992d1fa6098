"""What a change of a plan is to be."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from milkwort.store.journal import Change, Prepared

__all__ = ["Decision"]


@dataclass(frozen=True)
class Decision:
    """What a change is to be, decided from the plan as it stands.

    Attributes
    ----------
    label : str
        What the planner did, as it reads after "undo ".
    do : callable
        Writes the change; if it raises, nothing is kept.
    ahead : sequence of Prepared
        Many new rows, to be written before the rest.
    progress : callable
        Told how many of how many of those rows are written.
    """

    label: str
    do: Callable[[Change], Any] = lambda change: None
    ahead: Sequence[Prepared] = ()
    progress: Callable[[int, int], None] = lambda done, of: None
