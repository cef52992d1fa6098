"""The plan once more in plain loops and plain formulas, as a measure for the arrays."""

from __future__ import annotations

import math
from statistics import NormalDist

from milkwort.core.brief.brief import Brief
from milkwort.core.market.keyword_table import KeywordTable
from milkwort.core.words.intents import INTENTS

_NORMAL = NormalDist()


def plan_plainly(brief: Brief, table: KeywordTable) -> float:
    """Return the customers a month of bids raised one by one, always the best next step."""
    choices = [_choices(brief, table, row) for row in range(len(table))]
    at = [-1] * len(choices)
    spent = value = 0.0
    while True:
        best: tuple[float, int, int] | None = None
        for row, options in enumerate(choices):
            s0, v0 = options[at[row]] if at[row] >= 0 else (0.0, 0.0)
            for to in range(at[row] + 1, len(options)):
                ds, dv = options[to][0] - s0, options[to][1] - v0
                fits = spent + ds <= brief.monthly_spend and ds <= brief.worth.allowed * dv
                if fits and (best is None or dv / ds > best[0]):
                    best = (dv / ds, row, to)
        if best is None:
            return value
        _, row, to = best
        s0, v0 = choices[row][at[row]] if at[row] >= 0 else (0.0, 0.0)
        spent, value = spent + choices[row][to][0] - s0, value + choices[row][to][1] - v0
        at[row] = to


def _choices(brief: Brief, table: KeywordTable, row: int) -> list[tuple[float, float]]:
    low, high = float(table.cpc_low[row]), float(table.cpc_high[row])
    rate = brief.worth.rate.likely * brief.assumed[f"intent_{INTENTS[int(table.intent[row])]}"]
    z75 = _NORMAL.inv_cdf(0.75)
    sigma = max(0.05, math.log(high / low) / (2 * z75))
    mu = math.log(low) + z75 * sigma
    top = min(brief.worth.allowed * rate, math.exp(mu + sigma * _NORMAL.inv_cdf(0.95)))
    bids = sorted({round(0.05 * 1.06**n, 2) for n in range(200) if 0.05 * 1.06**n < top})
    found = []
    for bid in [b for b in bids if b < math.floor(top * 100) / 100] + [math.floor(top * 100) / 100]:
        z = (math.log(bid) - mu) / sigma if bid > 0 else -math.inf
        reach = _NORMAL.cdf(z)
        if reach < 0.05 or bid < 0.05:
            continue
        clicks = float(table.volume_low[row]) * reach * 0.06 * (0.35 + 0.65 * reach)
        mean = math.exp(mu + sigma**2 / 2) * _NORMAL.cdf(z - sigma) / reach
        found.append((clicks * min(bid, mean), clicks * rate))
    return found
