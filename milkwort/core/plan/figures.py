"""The one table of what a plan says of each keyword.

What is sent to a screen, what it is called there, how it is written, and where it can be
shown, filtered, ordered and compared follow from it.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from typing import Any, Literal

import numpy as np

from milkwort.core.arrays import Floats
from milkwort.core.market.prices import price_at_reach
from milkwort.core.market.standing import (
    STANDINGS,
    ComeInColumns,
    clicks_to_first_sale,
    come_in_columns,
)
from milkwort.core.plan.notes import notes_of
from milkwort.core.plan.run import PlanResult

__all__ = ["FIGURES", "Figure", "Shown", "Written", "figures_of"]

Written = Literal["money", "count", "number", "percent", "text"]


@dataclass(frozen=True)
class Shown:
    """How a column meets a planner.

    Attributes
    ----------
    id : str
        What it is called in addresses and kept settings.
    heading : str
        Its heading; its unit in it, money as ``{currency}``.
    written : Written
        How a value is written.
    digits : int
        Decimals, for a percentage.
    listed : bool
        Whether the list can show it as a plain column.
    ranged : str
        What a filter by least and most calls it; empty for none.
    picked : str
        What a filter by values calls it; empty for none.
    compared : str
        What it is called where keywords stand side by side; empty for not there.
    """

    id: str
    heading: str
    written: Written
    digits: int = 0
    listed: bool = True
    ranged: str = ""
    picked: str = ""
    compared: str = ""


@dataclass(frozen=True)
class Figure:
    """One figure of a keyword.

    Attributes
    ----------
    name : str
        Its key.
    unit : str
        In words.
    of : callable
        Works it out for all keywords: a float array, or a list of texts.
    shown : Shown or None
        None where it is only drawn.
    holds : type
        What it holds for one keyword.
    """

    name: str
    unit: str
    of: Callable[[_Figured], Any]
    shown: Shown | None = None
    holds: Any = float | None


@dataclass(frozen=True)
class _Figured:
    """A plan with what several figures need, made once."""

    result: PlanResult

    @cached_property
    def come_in(self) -> ComeInColumns:
        r = self.result
        return come_in_columns(r.brief, r.demand, r.prices, r.table.offer)

    def kept_or_would(self, name: str) -> Floats:
        """What a kept keyword has, and any other would bring."""
        r = self.result
        kept, would = getattr(r.expected, name), getattr(r.not_kept, name)
        return np.asarray(np.where(r.table.kept, kept, would), dtype=np.float64)


def figures_of(result: PlanResult) -> dict[str, Any]:
    """Return every figure of the table by name.

    Parameters
    ----------
    result : PlanResult

    Returns
    -------
    dict of str to ndarray or list
        Each of shape (n_keywords,); units as the table says. Clicks, spend and customers are
        those of this plan for a kept keyword, and what it would bring for any other.
    """
    figured = _Figured(result)
    return {figure.name: figure.of(figured) for figure in FIGURES}


FIGURES: tuple[Figure, ...] = (
    Figure(
        "searches", "a month, NaN where no volume is known",
        lambda f: np.where(np.isnan(f.result.demand.likely), np.nan, f.result.demand.own),
        Shown("searches", "Searches a month", "number", listed=False, ranged="searches",
              compared="searches a month"),
    ),
    Figure("cpc_low", "money a click", lambda f: f.result.prices.low,
           Shown("low", "Low price, {currency}", "money", ranged="low price")),
    Figure("cpc_median", "money a click", lambda f: np.exp(f.result.prices.mu),
           Shown("middle", "Middle price, {currency}", "money", compared="median price")),
    Figure("cpc_high", "money a click", lambda f: f.result.prices.high,
           Shown("high", "High price, {currency}", "money", ranged="high price")),
    Figure("cpc_at_line", "money a click that wins what the line asks for",
           lambda f: price_at_reach(f.result.brief.assumed["stretch"], f.result.prices)),
    Figure("rate", "customers a click", lambda f: f.result.demand.rate,
           Shown("rate", "Buy, of 100 clicks", "percent", 1, compared="buy, of 100 clicks")),
    Figure("ceiling", "money a click", lambda f: f.result.standing.ceiling,
           Shown("ceiling", "Ceiling, {currency}", "money",
                 compared="a click is worth, at most")),
    Figure("headroom", "deviations of the log price; -1e9 where no click is worth anything",
           lambda f: np.where(np.isneginf(f.result.standing.headroom), -1e9,
                              f.result.standing.headroom)),
    Figure("reach", "share of searches won at the ceiling", lambda f: f.result.standing.reach,
           Shown("reach", "Reach at ceiling, %", "percent", compared="reach at the ceiling")),
    Figure("rate_at_line", "customers a click that bring it to the line",
           lambda f: f.come_in.rate),
    Figure("value_at_line", "money a sale that brings it to the line",
           lambda f: f.come_in.sale_value),
    Figure("price_at_line", "share of its price that brings it to the line",
           lambda f: f.come_in.price_factor),
    Figure("spill", "searches a month", lambda f: f.result.demand.spill,
           Shown("spill", "Spill, searches a month", "number")),
    Figure("first_sale", "clicks",
           lambda f: clicks_to_first_sale(f.result.demand.rate, f.result.brief.assumed),
           Shown("first_sale", "Clicks to a likely sale", "number",
                 compared="clicks to a likely sale")),
    Figure("standing", "in reach, stretch or beyond",
           lambda f: np.array(STANDINGS)[f.result.standing.standing].tolist(),
           Shown("standing", "Standing", "text", listed=False, picked="standing"), str),
    Figure("bid", "money a click, 0 where it does not run", lambda f: f.result.bid),
    Figure("bid_reach", "share of searches won at the bid", lambda f: f.result.expected.reach),
    Figure("cpc", "money a click, the average", lambda f: f.result.expected.cpc),
    Figure("clicks", "a month", lambda f: f.kept_or_would("clicks"),
           Shown("clicks", "Clicks a month", "count", compared="clicks a month")),
    Figure("spend", "money a month", lambda f: f.kept_or_would("spend"),
           Shown("spend", "Spend, {currency}", "money", listed=False,
                 compared="spend a month")),
    Figure("customers", "a month", lambda f: f.kept_or_would("customers"),
           Shown("customers", "Customers", "count", listed=False, ranged="customers",
                 compared="customers a month")),
    Figure("notes", "codes of what is odd about it", lambda f: notes_of(f.result),
           holds=list[str]),
)  # fmt: skip
