"""What a keyword table must hold before anything is computed from it."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from milkwort.core.brief.brief import Brief
from milkwort.core.errors import BadValueError
from milkwort.core.market.keyword_table import CALLS, KeywordTable
from milkwort.core.words.intents import INTENTS
from milkwort.core.words.match_types import MATCHES

__all__ = ["check_table"]

_CODES = {"match": len(MATCHES), "basis": len(MATCHES), "intent": len(INTENTS), "call": len(CALLS)}


def check_table(brief: Brief, table: KeywordTable) -> None:
    """Check ranges and finiteness once, so that the formulas inside need not.

    Raises
    ------
    BadValueError
        Naming the first row at fault (the first keyword is row 1), its column, what was
        expected and what came.
    """
    for name in ("volume_low", "volume_high", "cpc_low", "cpc_high", "locked_bid", "last_cpc"):
        column = getattr(table, name)
        _refuse(table, name, np.isinf(column) | (column < 0), "a number of 0 or more")
    bid = table.shown_at_bid
    _refuse(table, "shown_at_bid", np.isinf(bid) | (bid <= 0), "a bid above 0")
    _refuse(table, "rate", ~((table.rate >= 0) & (table.rate <= 1) | np.isnan(table.rate)),
            "a share from 0 to 1")  # fmt: skip
    for low, high in (("volume_low", "volume_high"), ("cpc_low", "cpc_high")):
        ends = getattr(table, low), getattr(table, high)
        both = (ends[0] > ends[1]) & (ends[1] > 0 if low == "cpc_low" else True)
        _refuse(table, low, both, f"at most {high}")
    for name, count in {**_CODES, "offer": len(brief.offers)}.items():
        column = getattr(table, name)
        _refuse(table, name, (column < 0) | (column >= count), f"a place from 0 to {count - 1}")


def _refuse(table: KeywordTable, name: str, bad: NDArray[np.bool_], expected: str) -> None:
    if bad.any():
        row = int(bad.argmax())
        got = getattr(table, name)[row].item()
        raise BadValueError(f'row {row + 1} ("{table.texts[row][:40]}"), {name}', expected, got)
