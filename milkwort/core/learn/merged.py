"""Results of several imports as one: of every row and day the newest counts."""

from __future__ import annotations

from collections.abc import Hashable, Sequence

__all__ = ["newest_rows"]


def newest_rows(imports: Sequence[Sequence[Hashable]]) -> list[tuple[int, int]]:
    """Return which rows count.

    Parameters
    ----------
    imports : sequence of sequence of hashable
        Of each import, the oldest first, what each of its rows is about: its days and its name.
        A row that stands twice in one import counts twice: it is part of a sum.

    Returns
    -------
    list of (int, int)
        Number of the import and of the row, in that order.
    """
    newest: dict[Hashable, int] = {}
    for number, keys in enumerate(imports):
        for key in keys:
            newest[key] = number
    return [
        (number, row)
        for number, keys in enumerate(imports)
        for row, key in enumerate(keys)
        if newest[key] == number
    ]
