"""Rows as an answer: JSON or CSV, as asked."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence
from typing import Any

import orjson
from fastapi import Response

from milkwort.standins.market.errors import MarketError

__all__ = ["answered_table"]


def answered_table(
    heads: Sequence[str], rows: list[list[Any]], format: str, about: dict[str, Any]
) -> Response:
    """Return rows as they were asked for.

    Parameters
    ----------
    heads : sequence of str
    rows : list of list
    format : str
        ``json`` or ``csv``; a cell of CSV that a sheet would take for a formula is kept a text.
    about : dict
        What JSON says beside them.

    Raises
    ------
    MarketError
        For any other format.
    """
    if format == "csv":
        out = io.StringIO()
        writer = csv.writer(out, lineterminator="\r\n")
        writer.writerow(heads)
        writer.writerows([_guarded(cell) for cell in row] for row in rows)
        return Response(out.getvalue().encode("utf-8-sig"), media_type="text/csv; charset=utf-8")
    if format != "json":
        raise MarketError(422, "bad_value", f"Expected json or csv, got {format}.", "format")
    return Response(orjson.dumps({**about, "heads": list(heads), "rows": rows}),
                    media_type="application/json")  # fmt: skip


def _guarded(cell: Any) -> Any:
    return "'" + cell if isinstance(cell, str) and cell[:1] in ("=", "+", "-", "@", "\t") else cell
