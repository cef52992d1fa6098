"""Which columns of a file of results hold what: by headings, as remembered, or as assigned."""

from __future__ import annotations

import json
from collections.abc import Sequence

from milkwort.api.plan.workspace import Workspace
from milkwort.core.errors import BadValueError
from milkwort.formats.result_columns import result_columns, with_result_columns
from milkwort.formats.text_table import TextTable
from milkwort.store.file_shapes import load_shape, save_shape

__all__ = ["assigned", "known_columns", "remember", "under_known_headings"]


def assigned(said: Sequence[str]) -> dict[str, int]:
    """Return columns by field, out of texts such as ``clicks:3``.

    Raises
    ------
    BadValueError
    """
    found: dict[str, int] = {}
    for one in said:
        field, _, at = one.partition(":")
        if not (at.isascii() and at.isdigit() and len(at) < 6) or field in found:
            raise BadValueError("columns", "each field once, with its column (clicks:3)", one[:80])
        found[field] = int(at)
    return found


def known_columns(work: Workspace, table: TextTable) -> dict[str, int]:
    """Return columns as they were assigned to files of these headings, else as guessed."""
    return _remembered(work, table) or result_columns(table)


def under_known_headings(work: Workspace, table: TextTable, columns: dict[str, int]) -> TextTable:
    """Return a table under headings that are known, where they were assigned now or before."""
    columns = columns or _remembered(work, table)
    return with_result_columns(table, columns) if columns else table


def remember(work: Workspace, table: TextTable, columns: dict[str, int]) -> None:
    """Keep how columns were assigned, for files with the same headings."""
    with work.database.begin() as session:
        save_shape(session, _key(table), columns, {})


def _remembered(work: Workspace, table: TextTable) -> dict[str, int]:
    with work.database.read() as session:
        known = load_shape(session, _key(table))
    return {} if known is None else known[0]


def _key(table: TextTable) -> tuple[str, str]:
    """Return what a file is known by; no file of keywords is known by the same."""
    return "results", json.dumps(table.rows[0] if table.rows else (), ensure_ascii=False)
