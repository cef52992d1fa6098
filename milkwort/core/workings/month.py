"""The arithmetic of one month of the year ahead."""

from __future__ import annotations

import numpy as np

from milkwort.core.plan.year import YearAhead
from milkwort.core.workings._sums import Line, Section, pace_lines

__all__ = ["month_workings"]

_PURSES = {"flat": "the monthly sum", "season": "the year’s sum by the season",
           "own": "as you set it"}  # fmt: skip


def month_workings(ahead: YearAhead, month: int, kind: str) -> list[Section]:
    """Return how one month of a year comes about.

    Parameters
    ----------
    ahead : YearAhead
    month : int
        0 for the first.
    kind : {"flat", "season", "own"}
        How the year's money is spread.
    """
    there, base = ahead.month(month), ahead.result
    days, whole = int(ahead.months.days[month]), int(ahead.months.whole[month])
    running = np.nan_to_num(base.expected.clicks)
    weight = running / running.sum() if running.sum() > 0 else running
    index = float(weight @ ahead.season[:, month])
    totals = there.totals
    cpc = totals.spend / totals.clicks if totals.clicks else None
    rate = totals.customers / totals.clicks if totals.clicks else None
    part = [] if days == whole else [Line("days of it", float(days), formula=f"of {whole}")]
    return [
        Section("What is searched", [
            Line("clicks of a mean month", base.totals.clicks / max(base.expected.pace, 1e-12)),
            Line("× the season", index, "factor", "of the keywords, by their clicks"),
            Line("× days", days / (365 / 12), "factor", f"{days} ÷ 365/12"),
        ]),
        Section("What there is to spend", [
            Line(_PURSES[kind], float(ahead.purse[month]), "money",
                 source="planner" if kind == "own" else "brief", result=True),
            *part,
            Line("the market could take", float(ahead.market[month]), "money",
                 "every step worth its price"),
        ]),
        Section("What the month brings", [
            Line("bids", text="fitted anew" if not np.array_equal(
                there.bid, base.bid, equal_nan=True) else "as they are"),
            *pace_lines(there),
            Line("clicks", totals.clicks),
            Line("× average price", cpc, "money"),
            Line("spend", totals.spend, "money", result=True),
            Line("clicks × customers per click", rate, "share"),
            Line("customers", totals.customers, result=True),
            Line("revenue", totals.revenue, "money", "customers · V·k"),
            Line("profit", totals.profit, "money", "customers · V·m·k − spend", result=True),
        ]),
    ]  # fmt: skip
