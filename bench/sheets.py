"""Made-up sheets of any size."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import numpy as np

from milkwort.core.brief.brief import Brief
from milkwort.core.brief.worth import CeilingRule, Conversion, Offer
from milkwort.core.market.keyword_table import KeywordTable, blank_table
from milkwort.core.words.negatives import Negative

WORDS = [
    "sash",
    "window",
    "box",
    "cord",
    "sill",
    "summary",
    "timber",
    "glazing",
    "draught",
    "paint",
    "repair",
    "quote",
]


def brief_for(n: int) -> Brief:
    """Return a brief whose money binds on a sheet of n keywords."""
    offer = Offer(340, 0.55, Conversion(0.02, 0.03, 0.045), 1.2)
    return Brief("Bench", "GBP", 0.6 * n, offer, CeilingRule("profit_share", 0.3))


def table_of_size(n: int, seed: int = 1) -> KeywordTable:
    """Return n kept keywords with volumes and prices."""
    rng = np.random.default_rng(seed)
    low = np.exp(rng.normal(0, 0.6, n))
    volume = np.asarray(np.round(np.exp(rng.normal(4, 1.1, n))), dtype=np.float64)
    return replace(
        blank_table(texts(n)),
        cpc_low=low,
        cpc_high=low * rng.uniform(1.3, 4, n),
        volume_low=volume,
        volume_high=volume,
        intent=rng.integers(0, 3, n),
    )


def texts(n: int) -> list[str]:
    """Return n different texts of two to five words."""
    rng = np.random.default_rng(7)
    return [" ".join(rng.choice(WORDS, 1 + i % 4)) + f" {i}" for i in range(n)]


def mixed_sheet(n: int, negatives: int, seed: int = 3) -> tuple[Brief, KeywordTable]:
    """Return n keywords of every match type and call, and a brief with negatives.

    Words are as uneven as in a real sheet: the first stands in every tenth text or so.
    """
    rng = np.random.default_rng(seed)
    vocabulary = np.array([*WORDS, *(f"word{i}" for i in range(800))])
    often = 1 / np.arange(1, len(vocabulary) + 1)
    often /= often.sum()
    seen: dict[str, None] = {}
    while len(seen) < n:
        words = rng.choice(vocabulary, int(rng.integers(1, 7)), replace=False, p=often)
        seen[" ".join(words.tolist())] = None
    volume = np.asarray(np.round(np.exp(rng.normal(4, 1.1, n))), dtype=np.float64)
    table = replace(
        blank_table(list(seen)),
        match=rng.integers(0, 3, n),
        call=rng.choice([0, 1, 1, 1, 2, 3, 4], n),
        volume_low=volume,
        volume_high=volume,
        cpc_low=np.full(n, 1.0),
        cpc_high=np.full(n, 2.0),
    )
    picked = rng.choice(vocabulary[100:], (negatives, 2))
    stops = tuple(Negative(" ".join(pair.tolist()), "broad") for pair in picked)
    return replace(brief_for(n), negatives=stops), table


def write_csv(path: Path, n: int, call: str = "keep") -> None:
    """Write a sheet as a CSV of the headless run."""
    table = table_of_size(n)
    lines = ["keyword,volume,cpc_low,cpc_high,intent,call,group"]
    intents = ("buy", "compare", "learn")
    for i, text in enumerate(table.texts):
        lines.append(
            f"{text},{table.volume_low[i]:.0f},{table.cpc_low[i]:.2f},{table.cpc_high[i]:.2f},"
            f"{intents[table.intent[i]]},{call},{text.split()[0].title()}"
        )
    path.write_text("\n".join(lines) + "\n")
