"""Small made-up plans that the tests share."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np

from milkwort.core.assumptions import Assumed
from milkwort.core.brief.brief import Brief
from milkwort.core.brief.worth import CeilingRule, Conversion, Offer
from milkwort.core.market.keyword_table import CALLS, KeywordTable, blank_table


def offer(**changes: Any) -> Offer:
    fields = {
        "sale_value": 340.0,
        "gross_margin": 0.55,
        "conversion": Conversion(0.02, 0.03, 0.045),
        "sales_per_customer": 1.2,
    }
    return Offer(**(fields | changes))


def brief(assumptions: dict[str, float] | None = None, **changes: Any) -> Brief:
    fields = {
        "name": "A plan",
        "currency": "GBP",
        "monthly_spend": 100.0,
        "offer": offer(),
        "ceiling": CeilingRule("profit_share", 0.3),
        "assumed": Assumed(assumptions),
    }
    return Brief(**(fields | changes))


def table(volumes: Any, lows: Any, highs: Any, **columns: Any) -> KeywordTable:
    """Return buying exact three-word keywords, all kept, with columns changed by name."""
    n = len(volumes)
    blank = blank_table([f"keyword number {i}" for i in range(n)])
    return replace(
        blank,
        **{
            "volume_low": np.asarray(volumes, dtype=float),
            "volume_high": np.asarray(volumes, dtype=float),
            "cpc_low": np.asarray(lows, dtype=float),
            "cpc_high": np.asarray(highs, dtype=float),
            "intent": np.zeros(n, dtype=np.int64),
            **columns,
        },
    )


def random_table(seed: int, n: int) -> KeywordTable:
    rng = np.random.default_rng(seed)
    lows = np.exp(rng.normal(0, 0.6, n))
    return table(
        np.exp(rng.normal(4, 1.2, n)),
        lows,
        lows * rng.uniform(1.2, 4, n),
        intent=rng.integers(0, 2, n),
    )


def calls(*names: str) -> np.ndarray:
    return np.array([CALLS.index(n) for n in names], dtype=np.int64)
