"""How the planner assigned a file's columns, for files with the same headings."""

from __future__ import annotations

from dataclasses import asdict, replace

from milkwort.api.gather.trays import Units
from milkwort.api.plan.workspace import Workspace
from milkwort.formats.guess_columns import ColumnGuess
from milkwort.store.file_shapes import load_shape, save_shape

__all__ = ["columns_like", "remember_columns"]


def remember_columns(work: Workspace, guess: ColumnGuess, units: Units) -> None:
    """Keep how a file's columns were assigned, in place of what was kept of such a file.

    What one of its currency is holds for this plan's money and this day alone.
    """
    kept = asdict(replace(units, price_rate=None))
    with work.database.begin() as session:
        save_shape(session, guess.headings, guess.columns, kept)


def columns_like(work: Workspace, guess: ColumnGuess) -> tuple[ColumnGuess, Units] | None:
    """Return how a file with the same headings was last read, if there was one."""
    if not any(guess.headings):
        return None
    with work.database.read() as session:
        known = load_shape(session, guess.headings)
    return known and (replace(guess, columns=known[0]), Units(**known[1]))
