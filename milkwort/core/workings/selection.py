"""The arithmetic of several keywords at once: sums and means, with their units."""

from __future__ import annotations

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.market.keyword_table import CALLS
from milkwort.core.market.standing import STANDINGS
from milkwort.core.plan.run import PlanResult
from milkwort.core.workings._sums import Line, Section

__all__ = ["selection_workings"]


def selection_workings(result: PlanResult, rows: Ints) -> list[Section]:
    """Return sums and means of some keywords.

    Parameters
    ----------
    result : PlanResult
    rows : Ints, shape (n_rows,)
        Their places in the table.
    """
    kept = rows[result.table.kept[rows]]
    other = rows[~result.table.kept[rows]]
    sections = [_what(result, rows), _market(result, rows)]
    if len(kept):
        sections.append(_in_plan(result, kept))
    if len(other):
        sections.append(_would_bring(result, other))
    return sections


def _what(result: PlanResult, rows: Ints) -> Section:
    table = result.table
    calls = np.bincount(table.call[rows], minlength=len(CALLS))
    standing = np.bincount(result.standing.standing[rows], minlength=len(STANDINGS))
    own = result.demand.own[rows]
    return Section(
        "What is selected",
        [
            Line("keywords", float(len(rows))),
            *(Line(_word(name), float(n)) for name, n in zip(CALLS, calls, strict=True) if n),
            *(Line(name.replace("_", " "), float(n))
              for name, n in zip(STANDINGS, standing, strict=True) if n),
            Line("with no volume known", float(np.isnan(result.demand.likely[rows]).sum())),
            Line("own searches a month", float(np.nansum(own)), formula="Σ", result=True),
        ],
    )  # fmt: skip


def _word(call: str) -> str:
    return "not yet called" if call == "none" else f"called {call}"


def _market(result: PlanResult, rows: Ints) -> Section:
    known = rows[result.prices.known[rows]]
    weight = np.nan_to_num(result.demand.own[known])
    median, ceiling = np.exp(result.prices.mu[known]), result.standing.ceiling[known]
    return Section(
        "What their clicks cost and are worth",
        [
            Line("cheapest median price", _end(median, np.min), "money"),
            Line("dearest median price", _end(median, np.max), "money"),
            Line("mean of them, by searches", _mean(median, weight), "money", "Σ D·price ÷ Σ D"),
            Line("mean ceiling, by searches", _mean(ceiling, weight), "money", "Σ D·ceiling ÷ Σ D"),
            Line("mean rate, by searches", _mean(result.demand.rate[known], weight), "share",
                 "Σ D·rate ÷ Σ D", result=True),
        ],
    )  # fmt: skip


def _in_plan(result: PlanResult, rows: Ints) -> Section:
    e = result.expected
    clicks, spend, customers = (float(x[rows].sum()) for x in (e.clicks, e.spend, e.customers))
    return Section(
        "What those kept do in this plan",
        [
            Line("that run", float(np.isfinite(result.bid[rows]).sum())),
            Line("clicks a month", clicks, formula="Σ"),
            Line("spend a month", spend, "money", "Σ"),
            Line("average price of a click", spend / clicks if clicks else None, "money",
                 "spend ÷ clicks"),
            Line("share of the purse", _share(spend, result.brief.monthly_spend), "share"),
            Line("customers a month", customers, formula="Σ", result=True),
            Line("cost of a customer", spend / customers if customers else None, "money",
                 "spend ÷ customers"),
        ],
    )  # fmt: skip


def _would_bring(result: PlanResult, rows: Ints) -> Section:
    outside = result.not_kept
    spend, customers = (
        float(np.nan_to_num(x[rows]).sum()) for x in (outside.spend, outside.customers)
    )
    return Section(
        "What the others would bring, each at the present next unit",
        [
            Line("that would run", float((np.nan_to_num(outside.spend[rows]) > 0).sum())),
            Line("spend a month", spend, "money", "Σ"),
            Line("customers a month", customers, formula="Σ", result=True),
        ],
    )


def _mean(values: Floats, weight: Floats) -> float | None:
    total = float(weight.sum())
    return float((values * weight).sum() / total) if total > 0 else None


def _end(values: Floats, pick: np.ufunc | object) -> float | None:
    return float(pick(values)) if len(values) and callable(pick) else None


def _share(part: float, whole: float) -> float | None:
    return part / whole if whole else None
