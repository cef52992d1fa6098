"""A small plan, and results like what it expects, that the tests of learning share."""

from datetime import date

import numpy as np
from scipy.special import ndtri

from milkwort.core.brief.brief import Brief
from milkwort.core.brief.worth import CeilingRule, Conversion, Offer
from milkwort.core.learn.by_now import elapsed_of
from milkwort.core.learn.seen import ResultRows
from milkwort.core.market.keyword_table import blank_table
from milkwort.core.plan.run import PlanResult, run_plan
from milkwort.core.words.match_types import MATCHES

SIGMA = (np.log(2.4) - np.log(0.8)) / (2 * ndtri(0.75))
MU = np.log(0.8) + ndtri(0.75) * SIGMA
TEXTS = ("sash window repair", "sash cord replacement", "window painting")
FIRST, LAST = date(2027, 4, 1), date(2027, 4, 30)


def a_plan(match: str = "exact", season: tuple[float, ...] | None = None) -> PlanResult:
    n = len(TEXTS)
    table = blank_table(TEXTS)
    columns = dict(vars(table)) | {
        "volume_low": np.array([3000.0, 900.0, 500.0]),
        "volume_high": np.array([3000.0, 900.0, 500.0]),
        "cpc_low": np.full(n, 0.8), "cpc_high": np.full(n, 2.4),
        "intent": np.zeros(n, dtype=np.int64), "group": np.array([0, 0, 1]),
        "campaign": np.zeros(n, dtype=np.int64),
        "match": np.full(n, MATCHES.index(match), dtype=np.int64),
    }  # fmt: skip
    brief = Brief(
        name="Try", currency="GBP", monthly_spend=400.0, season=season,
        offer=Offer(340.0, 0.55, Conversion(0.02, 0.03, 0.045), 1.2),
        ceiling=CeilingRule("profit_share", 0.3),
    )  # fmt: skip
    return run_plan(brief, type(table)(**columns))


def rows_like(plan: PlanResult, *, scale: float = 1.0, price: float = 1.0) -> ResultRows:
    """A month in which just what was planned came, or so many times as much."""
    n, e = len(plan.table), plan.expected
    elapsed = elapsed_of(plan, FIRST, LAST).factor * scale
    wide = np.full(n, FIRST.toordinal()), np.full(n, LAST.toordinal())
    return ResultRows(
        np.arange(n), *wide, e.impressions * elapsed, e.clicks * elapsed,
        e.spend * elapsed * price, e.customers * elapsed, plan.demand.searches * elapsed,
        np.zeros(n), np.full(n, np.nan), np.full(n, np.nan),
    )  # fmt: skip
